package org.mellowclass.core.measure;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

import org.mellowclass.core.dsp.Biquad;
import org.mellowclass.core.dsp.Quarter;
import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.sound.Span;

/**
 * Finds mouth clicks and pops in speech at 48 kHz. A click is broadband and over after milliseconds: above 8 kHz it stands alone, while a
 * consonant has breath or a vowel beside it. A pop is a burst below 120 Hz that stands alone within a second, while a low voice comes back with
 * every vowel. Hears one channel, see {@link MeanOfChannels}; some 2 MB an hour.
 */
public final class BurstFinder implements SampleSink {

    private static final int CLICK_STEP = (int) Frames.ofMillis(1) / 2;
    private static final int CLICK_APART = 8;
    private static final int CLICK_REACH = 40;
    private static final int CLICK_SIGHT = 2 * CLICK_REACH + 1;
    private static final double CLICK_OVER = Decibels.toPower(10);
    private static final double CLICK_LEAST = Decibels.toPower(-78);
    private static final double CLICK_HZ = 8000;
    /** Whatever is left of it at either side is less than so much of its highest. */
    private static final double CLICK_EDGE = Decibels.toPower(-30);

    private static final int POP_STEP = (int) Frames.ofMillis(10);
    private static final int DEEP_STEP = POP_STEP / Quarter.EVERY;
    private static final int POP_APART = 15;
    private static final int POP_REACH = 100;
    private static final double POP_OVER = Decibels.toPower(9);
    private static final double POP_LEAST = Decibels.toPower(-45);
    private static final double POP_EDGE = Decibels.toPower(-12);
    private static final double POP_HZ = 120;
    private static final double RUMBLE_HZ = 20;
    private static final int MOST_POP_STEPS = 30;

    private final Biquad[] high = {Biquad.highPass(CLICK_HZ, 0.5412), Biquad.highPass(CLICK_HZ, 1.3066)};
    private final Biquad[] low = {Biquad.lowPass(Quarter.EVERY * POP_HZ, 0.5412), Biquad.lowPass(Quarter.EVERY * POP_HZ, 1.3066),
        Biquad.highPass(Quarter.EVERY * RUMBLE_HZ, Biquad.FLAT)};
    private final Quarter quarter = new Quarter();
    private final float[] part = new float[4096];
    private final float[] quartered = new float[part.length / Quarter.EVERY];
    /** Powers of the last steps above 8 kHz, and nothing before the first. */
    private final double[] sharp = new double[16 * CLICK_SIGHT];
    private int sharpEnd = CLICK_SIGHT;
    private long sharpSteps;
    private int inSharp;
    private double sharpSum;
    private float[] deep = new float[4096];
    private int deepSteps;
    private int inDeep;
    private double deepSum;
    private final List<Span> clicks = new ArrayList<>();

    @Override
    public void accept(float[][] block, int frames) {
        for (int from = 0; from < frames; from += part.length) {
            int count = Math.min(part.length, frames - from);
            System.arraycopy(block[0], from, part, 0, count);
            pops(quarter.process(part, count, quartered));
            clicks(count);
        }
    }

    private void clicks(int count) {
        Biquad.inTurn(high, part, 0, count);
        for (int from = 0; from < count; ) {
            int end = Math.min(count, from + CLICK_STEP - inSharp);
            inSharp += end - from;
            for (; from < end; from++) {
                sharpSum += (double) part[from] * part[from];
            }
            if (inSharp == CLICK_STEP) {
                sharpStep(sharpSum / CLICK_STEP);
                sharpSum = 0;
                inSharp = 0;
            }
        }
    }

    private void sharpStep(double power) {
        if (sharpEnd == sharp.length) {
            System.arraycopy(sharp, sharpEnd - CLICK_SIGHT, sharp, 0, CLICK_SIGHT);
            sharpEnd = CLICK_SIGHT;
        }
        sharp[sharpEnd++] = power;
        sharpSteps++;
        int middle = sharpEnd - 1 - CLICK_REACH;
        if (sharp[middle] >= CLICK_LEAST) {
            judgeClick(middle, sharpSteps - 1 - CLICK_REACH);
        }
    }

    /** Whether the middle of what is in sight stands alone. */
    private void judgeClick(int at, long step) {
        double power = sharp[at];
        for (int away = 1; away < CLICK_APART; away++) {
            if (sharp[at - away] > power || sharp[at + away] >= power) {
                return;
            }
        }
        double beside = 0;
        for (int away = CLICK_APART; away <= CLICK_REACH; away++) {
            beside = Math.max(beside, Math.max(sharp[at - away], sharp[at + away]));
            if (power <= CLICK_OVER * beside) {
                return;
            }
        }
        double edge = Math.max(CLICK_EDGE * power, beside);
        int start = at;
        while (at - start < CLICK_APART && sharp[start - 1] > edge) {
            start--;
        }
        int end = at + 1;
        while (end - at < CLICK_APART && sharp[end] > edge) {
            end++;
        }
        clicks.add(new Span(Math.max(0, (step - (at - start) - 1) * CLICK_STEP), (step + end - at + 1) * CLICK_STEP));
    }

    private void pops(int count) {
        Biquad.inTurn(low, quartered, 0, count);
        for (int i = 0; i < count; i++) {
            deepSum += (double) quartered[i] * quartered[i];
            if (++inDeep == DEEP_STEP) {
                if (deepSteps == deep.length) {
                    deep = Arrays.copyOf(deep, 2 * deepSteps);
                }
                deep[deepSteps++] = (float) (deepSum / DEEP_STEP);
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
