package org.mellowclass.core.measure;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.OptionalDouble;

import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleSink;

/** True peaks of a sound at 48 kHz, second by second; see {@link TruePeakMeter}. A wave between two seconds counts for the later one. */
public final class PeaksBySecond implements SampleSink {

    private final TruePeakMeter meter;
    private final float[][] part;
    private final List<Double> amplitudes = new ArrayList<>();
    private int inSecond;

    public PeaksBySecond(int channels) {
        meter = new TruePeakMeter(channels);
        part = new float[channels][];
    }

    @Override
    public void accept(float[][] block, int frames) {
        for (int done = 0; done < frames; ) {
            int count = Math.min(frames - done, Frames.RATE - inSecond);
            meter.accept(from(block, done, count), count);
            done += count;
            inSecond += count;
            if (inSecond == Frames.RATE) {
                amplitudes.add(meter.highest());
                meter.forgetPeak();
                inSecond = 0;
            }
        }
    }

    private float[][] from(float[][] block, int at, int count) {
        if (at == 0) {
            return block;
        }
        for (int c = 0; c < part.length; c++) {
            part[c] = Arrays.copyOfRange(block[c], at, at + count);
        }
        return part;
    }

    /** Of all that has come, in dBTP; empty for digital silence. */
    public OptionalDouble truePeakDbtp() {
        return bySecond().stream().filter(peak -> peak != null).mapToDouble(Double::doubleValue).max();
    }

    /** Of each second that has begun, in dBTP; null where it is silent. */
    public List<Double> bySecond() {
        List<Double> peaks = new ArrayList<>();
        amplitudes.forEach(amplitude -> peaks.add(amplitude > 0 ? (Double) Decibels.ofAmplitude(amplitude) : null));
        OptionalDouble last = meter.truePeakDbtp();
        if (inSecond > 0) {
            peaks.add(last.isPresent() ? (Double) last.getAsDouble() : null);
        } else if (!peaks.isEmpty() && last.isPresent()) {
            // the wave of the last samples reaches its peak behind them
            Double before = peaks.get(peaks.size() - 1);
            peaks.set(peaks.size() - 1, before == null ? last.getAsDouble() : Math.max(before, last.getAsDouble()));
        }
        return peaks;
    }
}
