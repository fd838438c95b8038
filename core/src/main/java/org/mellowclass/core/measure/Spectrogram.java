package org.mellowclass.core.measure;

import java.io.IOException;

import org.jtransforms.fft.FloatFFT_1D;
import org.mellowclass.core.dsp.Fourier;
import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.RandomAccessSound;

/**
 * Which frequencies a sound has when: Hann windows of 2048 frames, in bands of equal ratio. For looking at, to find a hum or a
 * click; of a column that spans more frames than a window, its middle is shown.
 */
public final class Spectrogram {

    public static final int BANDS = 64;
    public static final double LOWEST_HZ = 40;
    public static final double HIGHEST_HZ = 16_000;
    /** What is quieter is shown as silent. */
    public static final double LOWEST_DBFS = -108;

    private static final int WINDOW = 2048;
    private static final int STEPS = 255;
    private static final float[] HANN = new float[WINDOW];

    static {
        for (int i = 0; i < WINDOW; i++) {
            HANN[i] = (float) (0.5 - 0.5 * Math.cos(2 * Math.PI * (i + 0.5) / WINDOW));
        }
    }

    private Spectrogram() {
    }

    /**
     * The spectra of a stretch, of the mean of all channels.
     *
     * @return {@link #BANDS} steps a column, the lowest band first: 0 for {@link #LOWEST_DBFS} and less, 255 for a sine at full
     *         scale
     */
    public static byte[] of(RandomAccessSound sound, long fromFrame, long toFrame, int columns) throws IOException {
        byte[] steps = new byte[columns * BANDS];
        FloatFFT_1D fft = Fourier.ofFloats(WINDOW);
        float[][] block = new float[sound.channels()][WINDOW];
        float[] window = new float[WINDOW];
        for (int column = 0; column < columns; column++) {
            long middle = fromFrame + Math.floorDiv((toFrame - fromFrame) * (2L * column + 1), 2L * columns);
            sound.readAt(middle - WINDOW / 2, block, 0, WINDOW);
            for (int i = 0; i < WINDOW; i++) {
                float sum = 0;
                for (float[] channel : block) {
                    sum += channel[i];
                }
                window[i] = HANN[i] * sum / block.length;
            }
            fft.realForward(window);
            for (int band = 0; band < BANDS; band++) {
                steps[column * BANDS + band] = (byte) step(window, band);
            }
        }
        return steps;
    }

    /** The lower edge of a band; that of the one behind the last is {@link #HIGHEST_HZ}. */
    public static double edgeHz(int band) {
        return LOWEST_HZ * Math.pow(HIGHEST_HZ / LOWEST_HZ, (double) band / BANDS);
    }

    private static int step(float[] spectrum, int band) {
        double binHz = (double) Frames.RATE / WINDOW;
        int first = (int) Math.round(edgeHz(band) / binHz);
        int last = Math.max(first, (int) Math.round(edgeHz(band + 1) / binHz) - 1);
        double most = 0;
        for (int bin = first; bin <= last; bin++) {
            most = Math.max(most, (double) spectrum[2 * bin] * spectrum[2 * bin] + (double) spectrum[2 * bin + 1] * spectrum[2 * bin + 1]);
        }
        // a sine at full scale has a quarter of the window's length in its bin
        double dbfs = most == 0 ? LOWEST_DBFS : Decibels.ofPower(most * 16 / ((double) WINDOW * WINDOW));
        return (int) Math.round(Math.max(0, Math.min(STEPS, STEPS * (dbfs - LOWEST_DBFS) / -LOWEST_DBFS)));
    }
}
