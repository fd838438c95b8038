package org.mellowclass.core.measure;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.PriorityQueue;

import org.jtransforms.fft.FloatFFT_1D;
import org.mellowclass.core.dsp.Biquad;
import org.mellowclass.core.dsp.Fourier;
import org.mellowclass.core.dsp.Quarter;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleSink;

/**
 * Finds the hum of mains in a whole take at 48 kHz, which goes on under speech as well: in the spectra of its quietest windows of two seconds, as
 * {@link HumFinder} does. At most {@value #MOST_WINDOWS} windows are kept. Hears one channel, see {@link MeanOfChannels}.
 */
public final class HumMeter implements SampleSink {

    /** Of the samples that {@link Quarter} leaves. */
    private static final int EVERY = 4;
    private static final int WINDOW = HumFinder.WINDOW_FRAMES / EVERY / Quarter.EVERY;
    private static final double LOW_PASS_HZ = 1100;
    private static final int MOST_WINDOWS = 24;
    /** The quietest fifth, so that speech does not hide the hum. */
    private static final int OF_ALL = 5;

    private record Quiet(double power, double[] powers) {
    }

    private final Biquad[] low = {Biquad.lowPass(Quarter.EVERY * LOW_PASS_HZ, 0.5412), Biquad.lowPass(Quarter.EVERY * LOW_PASS_HZ, 1.3066)};
    private final FloatFFT_1D fft = Fourier.ofFloats(WINDOW);
    private final PriorityQueue<Quiet> quietest = new PriorityQueue<>(Comparator.comparingDouble(Quiet::power).reversed());
    private final Quarter quarter = new Quarter();
    private final float[] deep = new float[1024];
    private final float[] held = new float[WINDOW];
    private final float[] window = new float[WINDOW];
    private final float[] part = new float[Quarter.EVERY * deep.length];
    private int filled;
    private int phase;
    private int windows;

    @Override
    public void accept(float[][] block, int frames) {
        for (int from = 0; from < frames; from += part.length) {
            int length = Math.min(part.length, frames - from);
            System.arraycopy(block[0], from, part, 0, length);
            int count = quarter.process(part, length, deep);
            Biquad.inTurn(low, deep, 0, count);
            for (int i = 0; i < count; i++) {
                if (phase++ % EVERY == 0) {
                    held[filled++] = deep[i];
                    if (filled == WINDOW) {
                        end();
                    }
                }
            }
            phase %= EVERY;
        }
    }

    private void end() {
        double power = 0;
        for (int i = 0; i < WINDOW; i++) {
            window[i] = (float) (held[i] * 0.5 * (1 - Math.cos(2 * Math.PI * i / WINDOW)));
            power += (double) held[i] * held[i];
        }
        System.arraycopy(held, WINDOW / 2, held, 0, WINDOW / 2);
        filled = WINDOW / 2;
        if (power == 0) {
            return;
        }
        windows++;
        if (quietest.size() < MOST_WINDOWS || power < quietest.peek().power) {
            fft.realForward(window);
            double[] powers = new double[HumFinder.HIGHEST_BIN];
            double scale = 2.0 / (0.375 * WINDOW * (double) WINDOW);
            for (int bin = 1; bin < powers.length; bin++) {
                powers[bin] = scale * ((double) window[2 * bin] * window[2 * bin] + (double) window[2 * bin + 1] * window[2 * bin + 1]);
            }
            quietest.add(new Quiet(power, powers));
            if (quietest.size() > MOST_WINDOWS) {
                quietest.poll();
            }
        }
    }

    /** The mean spectrum of the quietest windows: power by bins of half a hertz; empty if the sound is shorter than a window, or silent. */
    public double[] spectrum() {
        List<Quiet> sorted = new ArrayList<>(quietest);
        sorted.sort(Comparator.comparingDouble(Quiet::power));
        int taken = Math.min(sorted.size(), Math.max(1, windows / OF_ALL));
        double[] powers = new double[sorted.isEmpty() ? 0 : HumFinder.HIGHEST_BIN];
        for (Quiet quiet : sorted.subList(0, Math.min(taken, sorted.size()))) {
            for (int bin = 0; bin < powers.length; bin++) {
                powers[bin] += quiet.powers[bin] / taken;
            }
        }
        return powers;
    }

    public Optional<HumFinder.Hum> hum() {
        double[] spectrum = spectrum();
        return spectrum.length == 0 ? Optional.empty() : HumFinder.inSpectrum(spectrum);
    }

    /** Hertz of one bin of {@link #spectrum()}. */
    public static double hertzOfBin() {
        return (double) Frames.RATE / HumFinder.WINDOW_FRAMES;
    }
}
