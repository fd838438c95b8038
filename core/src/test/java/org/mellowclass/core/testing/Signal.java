package org.mellowclass.core.testing;

import java.io.IOException;
import java.util.Arrays;
import java.util.List;
import java.util.Random;

import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.RandomAccessSound;
import org.mellowclass.core.sound.SampleSource;

/** Test sound, held in memory and made from formulas: never from a file. */
public final class Signal implements RandomAccessSound {

    private final int rate;
    private final float[][] samples;

    private Signal(int rate, float[][] samples) {
        this.rate = rate;
        this.samples = samples;
    }

    public static Signal of(int rate, float[]... channels) {
        return new Signal(rate, channels);
    }

    public static Signal silence(int channels, double seconds) {
        return new Signal(Frames.RATE, new float[channels][(int) Math.round(seconds * Frames.RATE)]);
    }

    /** The same sine on every channel; its level is the peak in dBFS. */
    public static Signal sine(int channels, double hertz, double peakDbfs, double seconds) {
        double[] levels = new double[channels];
        Arrays.fill(levels, peakDbfs);
        return sine(Frames.RATE, hertz, 0, seconds, levels);
    }

    /** A sine with a level for each channel (negative infinity for silence) and a phase in degrees. */
    public static Signal sine(int rate, double hertz, double phaseDegrees, double seconds, double... peakDbfs) {
        int frames = (int) Math.round(seconds * rate);
        float[][] samples = new float[peakDbfs.length][frames];
        for (int c = 0; c < peakDbfs.length; c++) {
            double amplitude = Decibels.toAmplitude(peakDbfs[c]);
            for (int i = 0; i < frames; i++) {
                samples[c][i] = (float) (amplitude
                        * Math.sin(2 * Math.PI * hertz * i / rate + Math.toRadians(phaseDegrees)));
            }
        }
        return new Signal(rate, samples);
    }

    public static Signal noise(int channels, double peakDbfs, double seconds, long seed) {
        Random random = new Random(seed);
        Signal signal = silence(channels, seconds);
        float amplitude = (float) Decibels.toAmplitude(peakDbfs);
        for (float[] channel : signal.samples) {
            for (int i = 0; i < channel.length; i++) {
                channel[i] = amplitude * (2 * random.nextFloat() - 1);
            }
        }
        return signal;
    }

    public static Signal concat(Signal... parts) {
        List<Signal> all = List.of(parts);
        int frames = all.stream().mapToInt(part -> part.samples[0].length).sum();
        float[][] joined = new float[parts[0].samples.length][frames];
        int at = 0;
        for (Signal part : all) {
            for (int c = 0; c < joined.length; c++) {
                System.arraycopy(part.samples[c], 0, joined[c], at, part.samples[c].length);
            }
            at += part.samples[0].length;
        }
        return new Signal(parts[0].rate, joined);
    }

    /** Fades the start in over 10 ms: a hard start really overshoots between its samples. */
    public Signal fadedIn() {
        int length = rate / 100;
        for (float[] channel : samples) {
            for (int i = 0; i < length; i++) {
                channel[i] *= (float) (0.5 - 0.5 * Math.cos(Math.PI * i / length));
            }
        }
        return this;
    }

    public float[][] samples() {
        return samples;
    }

    public int rate() {
        return rate;
    }

    /** The sound as a stream, in blocks of odd sizes, so that no test depends on a block's length. */
    public SampleSource stream() {
        return new SampleSource() {
            private int position;
            private int turn;

            @Override
            public int channels() {
                return samples.length;
            }

            @Override
            public int sampleRate() {
                return rate;
            }

            @Override
            public int read(float[][] into, int offset, int frames) {
                int size = List.of(997, 1, 4096, 333).get(turn++ % 4);
                int count = Math.min(Math.min(frames, size), samples[0].length - position);
                for (int c = 0; c < samples.length; c++) {
                    System.arraycopy(samples[c], position, into[c], offset, count);
                }
                position += count;
                return count;
            }
        };
    }

    /** Reads a stream to its end. */
    public static Signal read(SampleSource source) throws IOException {
        float[][] all = new float[source.channels()][1 << 16];
        int total = 0;
        for (int read; (read = source.read(all, total, all[0].length - total)) > 0; ) {
            total += read;
            if (total == all[0].length) {
                for (int c = 0; c < all.length; c++) {
                    all[c] = Arrays.copyOf(all[c], 2 * total);
                }
            }
        }
        for (int c = 0; c < all.length; c++) {
            all[c] = Arrays.copyOf(all[c], total);
        }
        return new Signal(source.sampleRate(), all);
    }

    @Override
    public int channels() {
        return samples.length;
    }

    @Override
    public long frames() {
        return samples[0].length;
    }

    @Override
    public void readAt(long fromFrame, float[][] into, int offset, int frames) {
        for (int c = 0; c < samples.length; c++) {
            for (int i = 0; i < frames; i++) {
                long at = fromFrame + i;
                into[c][offset + i] = at >= 0 && at < samples[c].length ? samples[c][(int) at] : 0;
            }
        }
    }
}
