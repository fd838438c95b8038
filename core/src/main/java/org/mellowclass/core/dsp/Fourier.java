package org.mellowclass.core.dsp;

import org.jtransforms.fft.DoubleFFT_1D;
import org.jtransforms.fft.FloatFFT_1D;
import org.jtransforms.utils.CommonUtils;

/**
 * Transforms that run in the thread that asks: the library would start a pool of its own, which fights with the work of others and keeps a
 * process alive that has nothing left to do.
 */
public final class Fourier {

    static {
        CommonUtils.setThreadsBeginN_1D_FFT_2Threads(Long.MAX_VALUE);
        CommonUtils.setThreadsBeginN_1D_FFT_4Threads(Long.MAX_VALUE);
    }

    private Fourier() {
    }

    public static FloatFFT_1D ofFloats(int size) {
        return new FloatFFT_1D(size);
    }

    public static DoubleFFT_1D ofDoubles(int size) {
        return new DoubleFFT_1D(size);
    }
}
