package org.mellowclass.core.measure;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.mellowclass.core.measure.LineUp.Result;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.RandomAccessSound;

class LineUpTest {

    /** Noise in bursts of the length of words, with pauses between them. */
    private static float[] talk(double seconds, long seed) {
        Random random = new Random(seed);
        float[] talk = new float[(int) (seconds * Frames.RATE)];
        int at = 0;
        float before = 0;
        while (at < talk.length) {
            int end = Math.min(talk.length, at + Frames.RATE / 20 + random.nextInt(Frames.RATE / 2));
            double loud = 0.05 + 0.2 * random.nextDouble();
            for (; at < end; at++) {
                before = (float) (0.9 * before + loud * random.nextGaussian() * 0.3);
                talk[at] = before;
            }
            at = Math.min(talk.length, at + Frames.RATE / 20 + random.nextInt(Frames.RATE / 2));
        }
        return talk;
    }

    /** The talk as another microphone hears it, from a moment on, with a clock that runs apart, and sound of its own 10 dB below. */
    private static float[] heard(float[] talk, double fromSeconds, double seconds, double driftPpm, double gain, long seed) {
        float[] own = talk(seconds, seed);
        double quieter = Math.sqrt(0.1 * power(talk) / power(own));
        float[] heard = new float[(int) (seconds * Frames.RATE)];
        for (int i = 0; i < heard.length; i++) {
            double at = fromSeconds * Frames.RATE + i * (1 + driftPpm * 1e-6);
            int frame = (int) Math.floor(at);
            double part = at - frame;
            double common = frame >= 0 && frame + 1 < talk.length ? (1 - part) * talk[frame] + part * talk[frame + 1] : 0;
            heard[i] = (float) (gain * (common + quieter * own[i]));
        }
        return heard;
    }

    private static double power(float[] samples) {
        double sum = 0;
        for (float sample : samples) {
            sum += (double) sample * sample;
        }
        return sum / samples.length;
    }

    private static RandomAccessSound sound(float[] samples) {
        return new RandomAccessSound() {
            @Override
            public int channels() {
                return 1;
            }

            @Override
            public long frames() {
                return samples.length;
            }

            @Override
            public void readAt(long fromFrame, float[][] into, int offset, int frames) {
                for (int i = 0; i < frames; i++) {
                    long frame = fromFrame + i;
                    into[0][offset + i] = frame >= 0 && frame < samples.length ? samples[(int) frame] : 0;
                }
            }
        };
    }

    @ParameterizedTest
    @CsvSource({"3.7,0.3", "0,1", "-2.25,1", "11.0304,-0.5", "-6.5,-1"})
    void the_offset_is_found_to_a_millisecond_in_either_direction(double offset, double gain) throws IOException {
        float[] talk = talk(40, 1);
        Result result = LineUp.of(sound(heard(talk, Math.max(0, -offset), 25, 0, 1, 2)), sound(heard(talk, Math.max(0, offset), 25, 0, gain, 3)));
        assertThat(result.matched()).isTrue();
        assertThat(result.offsetSeconds()).isCloseTo(offset, within(0.001));
        assertThat(result.driftPpm()).as("too short to tell").isEmpty();
        assertThat(result.confidence()).isGreaterThan(0.8);
    }

    @ParameterizedTest
    @CsvSource({"0,1", "40,1", "-100,1", "200,1", "-200,-1", "290,1"})
    void drift_is_found_within_a_millisecond_over_the_overlap(double drift, double gain) throws IOException {
        float[] talk = talk(130, 4);
        Result result = LineUp.of(sound(heard(talk, 0, 120, 0, 1, 5)), sound(heard(talk, 5.5, 120, drift, gain, 6)));
        assertThat(result.confidence()).isGreaterThan(0.6);
        assertThat(result.offsetSeconds()).isCloseTo(5.5, within(0.001));
        assertThat(result.driftPpm().getAsDouble()).isCloseTo(drift, within(1e6 * 0.001 / 114));
    }

    @ParameterizedTest
    @ValueSource(doubles = {330, -400, 1000})
    void clocks_that_are_further_apart_than_any_that_work_are_refused(double drift) throws IOException {
        float[] talk = talk(130, 4);
        assertThat(LineUp.of(sound(heard(talk, 0, 120, 0, 1, 5)), sound(heard(talk, 5.5, 120, drift, 1, 6))).matched()).isFalse();
    }

    @Test
    void recordings_of_different_conversations_are_not_lined_up() throws IOException {
        Result result = LineUp.of(sound(talk(30, 7)), sound(talk(30, 8)));
        assertThat(result.matched()).isFalse();
        assertThat(result.reason()).isEqualTo(LineUp.Reason.NOTHING_COMMON);
        assertThat(LineUp.of(sound(talk(2, 1)), sound(talk(30, 1))).reason()).isEqualTo(LineUp.Reason.TOO_SHORT);
    }
}
