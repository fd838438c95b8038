package org.mellowclass.core.dsp;

import java.io.IOException;
import java.util.Arrays;

import org.mellowclass.core.sound.SampleSource;

/**
 * Converts sound from one sample rate to another while it is read: a polyphase windowed-sinc filter with a Kaiser window
 * (J. O. Smith, "Digital Audio Resampling"; Kaiser and Schafer 1980 for the window). The pass band reaches 90 % of the
 * lower of the two half rates; images and aliases are at least 100 dB down. The delay of the filter is taken out: output
 * frame 0 stands at input frame 0, and the output lasts as long as the input, rounded up to a whole frame. Ratios with too many
 * phases for a table are read between two of them, which leaves an error 100 dB down.
 */
public final class Resampler implements SampleSource {

    private static final int ZERO_CROSSINGS = 64;
    private static final double KAISER_BETA = 10.06;
    private static final double CUTOFF = 0.95;
    private static final int BLOCK = 4096;
    private static final int MOST_PHASES = 1024;
    /** What a clock counts while {@link #clockTicks} are counted by a faster one: clocks are told apart by a thousandth of a millionth. */
    public static final long CLOCK_TICKS = 1_000_000_000L;

    private final SampleSource source;
    private final int rate;
    /** One output frame is {@code down / up} input frames. */
    private final long up;
    private final long down;
    private final int reach;
    private final float[][] phases;
    private final float[] between;
    /** Input samples by channel; {@code held[c][0]} is input frame {@code heldFrom}. */
    private final float[][] held;
    private long heldFrom;
    private int heldCount;
    private long inputFrames;
    private boolean ended;
    private long outputFrame;

    private Resampler(SampleSource source, int rate, long up, long down) {
        this.source = source;
        this.rate = rate;
        long divisor = gcd(up, down);
        this.up = up / divisor;
        this.down = down / divisor;
        double narrowing = Math.min(1.0, (double) up / down);
        // even, so that the taps can be summed in fours
        this.reach = 2 * (int) Math.ceil(ZERO_CROSSINGS / narrowing / 2);
        this.phases = phases((int) Math.min(this.up, MOST_PHASES), reach, narrowing);
        this.between = new float[2 * reach];
        this.held = new float[source.channels()][2 * reach + 2 * BLOCK];
        // silence before the first frame, so that the filter can look back
        this.heldFrom = -reach;
        this.heldCount = reach;
    }

    /** The source at the wanted rate; the source itself where it already has it. Closing the result closes the source. */
    public static SampleSource to(int rate, SampleSource source) {
        return source.sampleRate() == rate ? source : new Resampler(source, rate, rate, source.sampleRate());
    }

    /**
     * The source as a clock would have counted it that is faster by so many millionths (negative: slower): it becomes longer
     * by them. The rate it states stays the same. Closing the result closes the source.
     */
    public static SampleSource byClock(double fasterPpm, SampleSource source) {
        return byTicks(clockTicks(fasterPpm), source);
    }

    /** The same for a clock that counts so many while another one counts {@link #CLOCK_TICKS}. */
    public static SampleSource byTicks(long ticks, SampleSource source) {
        return new Resampler(source, source.sampleRate(), ticks, CLOCK_TICKS);
    }

    /** How far a clock that is faster by so many millionths counts while another one counts {@link #CLOCK_TICKS}. */
    public static long clockTicks(double fasterPpm) {
        return CLOCK_TICKS + Math.round(fasterPpm * CLOCK_TICKS / 1e6);
    }

    @Override
    public int channels() {
        return source.channels();
    }

    @Override
    public int sampleRate() {
        return rate;
    }

    @Override
    public int read(float[][] into, int offset, int frames) throws IOException {
        int made = 0;
        while (made < frames) {
            long scaled = outputFrame * down;
            long centre = scaled / up;
            while (!ended && centre + reach >= heldFrom + heldCount) {
                fill(centre - reach);
            }
            if (ended && scaled >= inputFrames * up) {
                break;
            }
            float[] taps = taps(scaled % up);
            int first = (int) (centre - reach + 1 - heldFrom);
            for (int c = 0; c < held.length; c++) {
                into[c][offset + made] = dot(taps, held[c], first);
            }
            made++;
            outputFrame++;
        }
        return made;
    }

    @Override
    public void close() throws IOException {
        source.close();
    }

    private float[] taps(long rest) {
        if (up < phases.length) {
            return phases[(int) rest];
        }
        double at = (double) rest * (phases.length - 1) / up;
        float[] before = phases[(int) at];
        float[] after = phases[(int) at + 1];
        float part = (float) (at - (int) at);
        for (int k = 0; k < between.length; k++) {
            between[k] = before[k] + part * (after[k] - before[k]);
        }
        return between;
    }

    /** Four sums side by side, so that one multiplication need not wait for the one before. */
    private static float dot(float[] taps, float[] samples, int first) {
        float a = 0;
        float b = 0;
        float c = 0;
        float d = 0;
        for (int k = 0; k < taps.length; k += 4) {
            a += taps[k] * samples[first + k];
            b += taps[k + 1] * samples[first + k + 1];
            c += taps[k + 2] * samples[first + k + 2];
            d += taps[k + 3] * samples[first + k + 3];
        }
        return (a + b) + (c + d);
    }

    /** Drops what lies before {@code oldestNeeded} and reads one more block, or the silence after the end. */
    private void fill(long oldestNeeded) throws IOException {
        int drop = (int) Math.min(heldCount, Math.max(0, oldestNeeded - heldFrom));
        for (float[] channel : held) {
            System.arraycopy(channel, drop, channel, 0, heldCount - drop);
        }
        heldFrom += drop;
        heldCount -= drop;
        int read = source.read(held, heldCount, BLOCK);
        if (read > 0) {
            heldCount += read;
            inputFrames += read;
            return;
        }
        ended = true;
        for (float[] channel : held) {
            Arrays.fill(channel, heldCount, channel.length, 0f);
        }
    }

    /** {@code phases[p][k]}: the weight of input frame {@code centre − reach + 1 + k} for an output p/count after centre. */
    private static float[][] phases(int count, int reach, double narrowing) {
        float[][] phases = new float[count + 1][2 * reach];
        double bandwidth = CUTOFF * narrowing;
        double atZero = bessel0(KAISER_BETA);
        for (int p = 0; p <= count; p++) {
            double sum = 0;
            double[] taps = new double[2 * reach];
            for (int k = 0; k < taps.length; k++) {
                double t = k - reach + 1 - (double) p / count;
                double edge = t / reach;
                double window = Math.abs(edge) >= 1 ? 0 : bessel0(KAISER_BETA * Math.sqrt(1 - edge * edge)) / atZero;
                taps[k] = sinc(bandwidth * t) * window;
                sum += taps[k];
            }
            for (int k = 0; k < taps.length; k++) {
                phases[p][k] = (float) (taps[k] / sum);
            }
        }
        return phases;
    }

    private static double sinc(double x) {
        return x == 0 ? 1 : Math.sin(Math.PI * x) / (Math.PI * x);
    }

    /** The modified Bessel function of the first kind and order zero, by its power series. */
    private static double bessel0(double x) {
        double sum = 1;
        double term = 1;
        for (int k = 1; term > 1e-12 * sum; k++) {
            term *= (x / (2 * k)) * (x / (2 * k));
            sum += term;
        }
        return sum;
    }

    private static long gcd(long a, long b) {
        return b == 0 ? a : gcd(b, a % b);
    }
}
