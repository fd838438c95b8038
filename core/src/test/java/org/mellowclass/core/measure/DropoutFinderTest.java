package org.mellowclass.core.measure;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.mellowclass.core.sound.Span;

class DropoutFinderTest {

    private static final int[] GAPS = {1, 2, 40, 47, 48, 49, 239, 240, 241, 300, 480, 5000};
    private static final int WHOLE = 20_000;
    private static final float[] LEVELS = {0.3f, 0.3f, 0.02f, 0.009f, 0.0001f};

    @ParameterizedTest
    @ValueSource(ints = {1, 7, 480, 4096, WHOLE})
    void finds_what_the_definition_says_in_blocks_of_any_size(int block) {
        int found = 0;
        for (int seed = 1; seed <= 60; seed++) {
            float[][] sound = soundWithGaps(new Random(seed));
            List<Span> expected = byDefinition(sound);
            assertThat(inBlocks(sound, block)).as("seed %d", seed).isEqualTo(expected);
            found += expected.size();
        }
        assertThat(found).as("there is something to find").isGreaterThan(100);
    }

    private static List<Span> inBlocks(float[][] sound, int block) {
        DropoutFinder finder = new DropoutFinder();
        for (int from = 0; from < WHOLE; from += block) {
            int start = from;
            int frames = Math.min(block, WHOLE - from);
            finder.accept(Arrays.stream(sound).map(channel -> Arrays.copyOfRange(channel, start, start + frames)).toArray(float[][]::new), frames);
        }
        return finder.dropouts();
    }

    /** Every run of frames that are zero in all channels, and what is heard right beside it. */
    private static List<Span> byDefinition(float[][] sound) {
        List<Span> found = new ArrayList<>();
        int frames = sound[0].length;
        for (int start = 0; start < frames; start++) {
            int end = start;
            while (end < frames && largest(sound, end) == 0) {
                end++;
            }
            if (end - start >= 240 && heard(sound, start - 48, start) && heard(sound, end, end + 48)) {
                found.add(new Span(start, end));
            }
            start = Math.max(start, end);
        }
        return found;
    }

    private static boolean heard(float[][] sound, int from, int to) {
        for (int i = Math.max(0, from); i < Math.min(sound[0].length, to); i++) {
            if (largest(sound, i) >= Math.pow(10, -40 / 20.0)) {
                return true;
            }
        }
        return false;
    }

    private static float largest(float[][] sound, int frame) {
        float largest = 0;
        for (float[] channel : sound) {
            largest = Math.max(largest, Math.abs(channel[frame]));
        }
        return largest;
    }

    /** Loud and quiet stretches by turns with gaps, some in one of two channels alone. */
    private static float[][] soundWithGaps(Random random) {
        float[][] sound = new float[1 + random.nextInt(2)][WHOLE];
        int frame = 0;
        while (frame < sound[0].length) {
            float level = LEVELS[random.nextInt(LEVELS.length)];
            for (int end = Math.min(sound[0].length, frame + 1 + random.nextInt(random.nextBoolean() ? 60 : 1500)); frame < end; frame++) {
                for (float[] channel : sound) {
                    channel[frame] = level * (random.nextBoolean() ? 1 : -1);
                }
            }
            int gap = Math.min(sound[0].length - frame, GAPS[random.nextInt(GAPS.length)]);
            if (random.nextInt(8) == 0) {
                Arrays.fill(sound[sound.length - 1], frame, frame + gap, level);
            }
            frame += gap;
        }
        return sound;
    }
}
