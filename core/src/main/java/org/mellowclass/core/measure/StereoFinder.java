package org.mellowclass.core.measure;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalDouble;

import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleSink;

/** What is odd about the two sides of a sound at 48 kHz: judged from their powers, their difference and their correlation. */
public final class StereoFinder implements SampleSink {

    /** What was noticed; the first that applies. */
    public enum Noticed { NOTHING, LEFT_SILENT, RIGHT_SILENT, SAME_ON_BOTH, ONE_REVERSED, TWO_SPEAKERS }

    private static final int BLOCK = (int) Frames.ofMillis(400);
    private static final double SILENT_UNDER_DB = 50;
    private static final double SAME_UNDER_DB = 50;
    private static final double REVERSED_BELOW = -0.8;
    /** Blocks this far under the loudest are pauses. */
    private static final double SPEAKING_WITHIN_DB = 30;
    private static final double ONE_SPEAKS_DB = 8;
    private static final double MOST_BLOCKS = 0.8;
    private static final double FEWEST_BLOCKS = 0.15;

    private final boolean stereo;
    private final List<double[]> blocks = new ArrayList<>();
    private double left;
    private double right;
    private double both;
    private double difference;
    private double blockLeft;
    private double blockRight;
    private int filled;

    public StereoFinder(int channels) {
        stereo = channels == 2;
    }

    @Override
    public void accept(float[][] block, int frames) {
        for (int done = 0; stereo && done < frames; ) {
            int end = Math.min(frames, done + BLOCK - filled);
            filled += end - done;
            double leftHere = 0;
            double rightHere = 0;
            double bothHere = 0;
            double differenceHere = 0;
            for (; done < end; done++) {
                double l = block[0][done];
                double r = block[1][done];
                leftHere += l * l;
                rightHere += r * r;
                bothHere += l * r;
                differenceHere += (l - r) * (l - r);
            }
            left += leftHere;
            right += rightHere;
            both += bothHere;
            difference += differenceHere;
            blockLeft += leftHere;
            blockRight += rightHere;
            if (filled == BLOCK) {
                blocks.add(new double[] {blockLeft, blockRight});
                blockLeft = 0;
                blockRight = 0;
                filled = 0;
            }
        }
    }

    /** The correlation of both sides, from −1 to 1; empty for one channel and where a side is silent. */
    public OptionalDouble correlation() {
        return left > 0 && right > 0 ? OptionalDouble.of(both / Math.sqrt(left * right)) : OptionalDouble.empty();
    }

    public Noticed noticed() {
        if (!stereo || left + right == 0) {
            return Noticed.NOTHING;
        }
        if (left == 0 || Decibels.ofPower(right / left) > SILENT_UNDER_DB) {
            return Noticed.LEFT_SILENT;
        }
        if (right == 0 || Decibels.ofPower(left / right) > SILENT_UNDER_DB) {
            return Noticed.RIGHT_SILENT;
        }
        if (difference == 0 || Decibels.ofPower((left + right) / difference) > SAME_UNDER_DB) {
            return Noticed.SAME_ON_BOTH;
        }
        if (correlation().orElse(0) < REVERSED_BELOW) {
            return Noticed.ONE_REVERSED;
        }
        return twoSpeakers() ? Noticed.TWO_SPEAKERS : Noticed.NOTHING;
    }

    /** Whether nearly always one side alone speaks, and each of them does. */
    private boolean twoSpeakers() {
        double loudest = blocks.stream().mapToDouble(block -> block[0] + block[1]).max().orElse(0);
        double least = loudest * Decibels.toPower(-SPEAKING_WITHIN_DB);
        List<double[]> speaking = blocks.stream().filter(block -> block[0] + block[1] >= least).toList();
        double factor = Decibels.toPower(ONE_SPEAKS_DB);
        long onLeft = speaking.stream().filter(block -> block[0] > factor * block[1]).count();
        long onRight = speaking.stream().filter(block -> block[1] > factor * block[0]).count();
        return onLeft + onRight >= MOST_BLOCKS * speaking.size() && Math.min(onLeft, onRight) >= FEWEST_BLOCKS * speaking.size();
    }
}
