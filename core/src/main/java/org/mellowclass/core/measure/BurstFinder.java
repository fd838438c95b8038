package org.mellowclass.core.measure;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

import org.mellowclass.core.dsp.Biquad;
import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.sound.Span;

/**
 * Finds mouth clicks and pops in speech at 48 kHz. A click is broadband and over after milliseconds: above 8 kHz it stands alone, while a
 * consonant has breath or a vowel beside it. A pop is a burst below 120 Hz that stands alone within a second, while a low voice comes back with
 * every vowel. Channels are judged by their mean; some 2 MB an hour.
 */
public final class BurstFinder implements SampleSink {

    private static final int CLICK_STEP = (int) Frames.ofMillis(1) / 2;
    private static final int CLICK_APART = 8;
    private static final int CLICK_REACH = 40;
    private static final double CLICK_OVER = Decibels.toPower(10);
    private static final double CLICK_LEAST = Decibels.toPower(-78);
    private static final double CLICK_HZ = 8000;
    /** Whatever is left of it at either side is less than so much of its highest. */
    private static final double CLICK_EDGE = Decibels.toPower(-30);

    private static final int POP_STEP = (int) Frames.ofMillis(10);
    private static final int POP_APART = 15;
    private static final int POP_REACH = 100;
    private static final double POP_OVER = Decibels.toPower(9);
    private static final double POP_LEAST = Decibels.toPower(-45);
    private static final double POP_EDGE = Decibels.toPower(-12);
    private static final double POP_HZ = 120;
    private static final int MOST_POP_STEPS = 30;

    private final Biquad[] high = {Biquad.highPass(CLICK_HZ, 0.5412), Biquad.highPass(CLICK_HZ, 1.3066)};
    private final Biquad[] low = {Biquad.lowPass(POP_HZ, 0.5412), Biquad.lowPass(POP_HZ, 1.3066), Biquad.highPass(20, Biquad.FLAT)};
    private final int channels;
    private final float[] mean = new float[4096];
    private final float[] filtered = new float[4096];
    /** Powers of the last steps above 8 kHz: a ring. */
    private final double[] sharp = new double[2 * CLICK_REACH + 1];
    private long sharpSteps;
    private int inSharp;
    private double sharpSum;
    private float[] deep = new float[4096];
    private int deepSteps;
    private int inDeep;
    private double deepSum;
    private final List<Span> clicks = new ArrayList<>();

    public BurstFinder(int channels) {
        this.channels = channels;
    }

    @Override
    public void accept(float[][] block, int frames) {
        for (int from = 0; from < frames; from += mean.length) {
            int count = Math.min(mean.length, frames - from);
            for (int i = 0; i < count; i++) {
                float sum = 0;
                for (int c = 0; c < channels; c++) {
                    sum += block[c][from + i];
                }
                mean[i] = sum / channels;
            }
            clicks(count);
            pops(count);
        }
    }

    private void clicks(int count) {
        System.arraycopy(mean, 0, filtered, 0, count);
        for (Biquad filter : high) {
            filter.process(filtered, 0, count);
        }
        for (int i = 0; i < count; i++) {
            sharpSum += (double) filtered[i] * filtered[i];
            if (++inSharp == CLICK_STEP) {
                sharp[(int) (sharpSteps++ % sharp.length)] = sharpSum / CLICK_STEP;
                sharpSum = 0;
                inSharp = 0;
                judgeClick(sharpSteps - 1 - CLICK_REACH);
            }
        }
    }

    private double sharpAt(long step) {
        return step < 0 || step >= sharpSteps || step < sharpSteps - sharp.length ? 0 : sharp[(int) (step % sharp.length)];
    }

    /** Whether the middle of what is in sight stands alone. */
    private void judgeClick(long step) {
        double power = sharpAt(step);
        if (power < CLICK_LEAST) {
            return;
        }
        double beside = 0;
        for (int away = 1; away <= CLICK_REACH; away++) {
            double before = sharpAt(step - away);
            double behind = sharpAt(step + away);
            if (away < CLICK_APART) {
                if (before > power || behind >= power) {
                    return;
                }
            } else {
                beside = Math.max(beside, Math.max(before, behind));
            }
        }
        if (power <= CLICK_OVER * beside) {
            return;
        }
        long start = step;
        while (step - start < CLICK_APART && sharpAt(start - 1) > CLICK_EDGE * power && sharpAt(start - 1) > beside) {
            start--;
        }
        long end = step + 1;
        while (end - step < CLICK_APART && sharpAt(end) > CLICK_EDGE * power && sharpAt(end) > beside) {
            end++;
        }
        clicks.add(new Span(Math.max(0, (start - 1) * CLICK_STEP), (end + 1) * CLICK_STEP));
    }

    private void pops(int count) {
        System.arraycopy(mean, 0, filtered, 0, count);
        for (Biquad filter : low) {
            filter.process(filtered, 0, count);
        }
        for (int i = 0; i < count; i++) {
            deepSum += (double) filtered[i] * filtered[i];
            if (++inDeep == POP_STEP) {
                if (deepSteps == deep.length) {
                    deep = Arrays.copyOf(deep, 2 * deepSteps);
                }
                deep[deepSteps++] = (float) (deepSum / POP_STEP);
                deepSum = 0;
                inDeep = 0;
            }
        }
    }

    /** In order, each some milliseconds long; none in the last 20 ms, of which it is not known what follows. */
    public List<Span> clicks() {
        return Span.joined(clicks, 0);
    }

    /** In order, with the time they take to come and go. */
    public List<Span> pops() {
        List<Span> pops = new ArrayList<>();
        for (int i = 0; i < deepSteps; i++) {
            if (deep[i] >= POP_LEAST && standsAlone(i)) {
                int start = i;
                while (start > 0 && i - start < MOST_POP_STEPS && deep[start - 1] > POP_EDGE * deep[i]) {
                    start--;
                }
                int end = i + 1;
                while (end < deepSteps && end - i < MOST_POP_STEPS && deep[end] > POP_EDGE * deep[i]) {
                    end++;
                }
                pops.add(new Span((long) start * POP_STEP, (long) end * POP_STEP));
            }
        }
        return Span.joined(pops, POP_STEP);
    }

    private boolean standsAlone(int at) {
        for (int other = Math.max(0, at - POP_REACH); other < Math.min(deepSteps, at + POP_REACH + 1); other++) {
            int away = Math.abs(other - at);
            if (away < POP_APART ? other != at && (deep[other] > deep[at] || deep[other] == deep[at] && other < at) : deep[at] <= POP_OVER * deep[other]) {
                return false;
            }
        }
        return true;
    }
}
