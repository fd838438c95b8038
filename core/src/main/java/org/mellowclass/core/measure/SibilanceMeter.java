package org.mellowclass.core.measure;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.OptionalDouble;

import org.mellowclass.core.dsp.Biquad;
import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.sound.Span;

/**
 * Finds harsh "s" in speech at 48 kHz: in frames of 20 ms, what lies between 4 and 10 kHz against the level of voiced frames, in which little lies
 * there. Hears one channel, see {@link MeanOfChannels}; some 3 MB an hour.
 */
public final class SibilanceMeter implements SampleSink {

    private static final int FRAME = (int) Frames.ofMillis(20);
    private static final double LOW_HZ = 4000;
    private static final double HIGH_HZ = 10_000;
    /** A voiced frame has less than so much of its power in the band. */
    private static final double VOICED_PART = 0.1;
    private static final double VOICED_WITHIN = Decibels.toPower(-15);
    /** An "s" is harsh once its band alone comes so near to the voiced level. */
    private static final double HARSH = Decibels.toPower(-7);
    private static final double SECONDS_A_MINUTE = 60;

    private final Biquad[] band = {Biquad.highPass(LOW_HZ, 0.5412), Biquad.highPass(LOW_HZ, 1.3066), Biquad.lowPass(HIGH_HZ, 0.5412), Biquad.lowPass(HIGH_HZ, 1.3066)};
    private final float[] mean = new float[FRAME];
    private final float[] filtered = new float[FRAME];
    private float[] all = new float[1024];
    private float[] sharp = new float[1024];
    private int count;
    private int filled;

    @Override
    public void accept(float[][] block, int frames) {
        for (int done = 0; done < frames; ) {
            int part = Math.min(frames - done, FRAME - filled);
            System.arraycopy(block[0], done, mean, filled, part);
            done += part;
            filled += part;
            if (filled == FRAME) {
                end();
            }
        }
    }

    private void end() {
        System.arraycopy(mean, 0, filtered, 0, FRAME);
        Biquad.inTurn(band, filtered, 0, FRAME);
        if (count == all.length) {
            all = Arrays.copyOf(all, 2 * count);
            sharp = Arrays.copyOf(sharp, 2 * count);
        }
        all[count] = power(mean);
        sharp[count++] = power(filtered);
        filled = 0;
    }

    private static float power(float[] samples) {
        double sum = 0;
        for (float sample : samples) {
            sum += (double) sample * sample;
        }
        return (float) (sum / samples.length);
    }

    /** The mean level of voiced frames in dBFS RMS; empty where nobody speaks. */
    public OptionalDouble voicedDbfs() {
        double voiced = voiced();
        return voiced > 0 ? OptionalDouble.of(Decibels.ofPower(voiced)) : OptionalDouble.empty();
    }

    private double voiced() {
        float loudest = 0;
        for (int i = 0; i < count; i++) {
            loudest = Math.max(loudest, all[i]);
        }
        double sum = 0;
        int frames = 0;
        for (int i = 0; i < count; i++) {
            if (all[i] > loudest * VOICED_WITHIN && sharp[i] < VOICED_PART * all[i]) {
                sum += all[i];
                frames++;
            }
        }
        return frames == 0 ? 0 : sum / frames;
    }

    /** Where they are, in order. */
    public List<Span> harsh() {
        double limit = voiced() * HARSH;
        List<Span> spans = new ArrayList<>();
        for (int i = 0; limit > 0 && i < count; i++) {
            if (sharp[i] > limit) {
                spans.add(new Span((long) i * FRAME, (long) (i + 1) * FRAME));
            }
        }
        return Span.joined(spans, FRAME);
    }

    /** Harsh sounds in a minute of the sound; empty where nobody speaks. */
    public OptionalDouble perMinute() {
        return voiced() > 0 ? OptionalDouble.of(harsh().size() * SECONDS_A_MINUTE / Frames.toSeconds((long) count * FRAME)) : OptionalDouble.empty();
    }
}
