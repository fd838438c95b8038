package org.mellowclass.core.soundcheck;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.util.OptionalDouble;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.mellowclass.core.soundcheck.MicrophoneCheck.Advice;
import org.mellowclass.core.testing.Signal;

class MicrophoneCheckTest {

    /** Two and a half seconds of room, then four of a voice, both in the same noise. */
    private static Signal sentence(double voiceDbfs, double noiseDbfs) {
        Signal voice = Signal.concat(Signal.silence(1, 2.5), Signal.sine(1, 400, voiceDbfs, 4));
        float[] mixed = Signal.noise(1, noiseDbfs, 6.5, 3).samples()[0].clone();
        for (int i = 0; i < mixed.length; i++) {
            mixed[i] = Math.max(-1, Math.min(1, mixed[i] + voice.samples()[0][i]));
        }
        return Signal.of(48_000, mixed);
    }

    @ParameterizedTest
    @CsvSource({"-12,-60,GOOD", "-70,-90,NOTHING_HEARD", "-40,-80,TOO_QUIET", "-55,-80,TOO_QUIET", "-90,-45,NOTHING_HEARD", "-30,-70,LITTLE_QUIET", "-4,-50,LITTLE_HOT", "3,-50,TOO_HOT",
        "-12,-18,ROOM_LOUD", "-12,-34,ROOM_NOT_QUIET"})
    void one_thing_is_said(double voice, double noise, Advice advice) throws IOException {
        assertThat(MicrophoneCheck.of(sentence(voice, noise).stream()).advice()).isEqualTo(advice);
    }

    /** Level in dBFS, distance of the voice from the room in LU, hum in Hz, clipped runs. */
    @ParameterizedTest
    @CsvSource({
        "-40.01, 5.99, 0, 0, NOTHING_HEARD, FIX", "-40.01, 6, 0, 0, TOO_QUIET, FIX", "-60, 30, 0, 0, TOO_QUIET, FIX", "-36.01, 30, 0, 0, TOO_QUIET, FIX",
        "-36, 30, 0, 0, LITTLE_QUIET, CHECK", "-24.01, 30, 0, 0, LITTLE_QUIET, CHECK", "-24, 30, 0, 0, GOOD, GOOD",
        "-6, 30, 0, 0, GOOD, GOOD", "-5.99, 30, 0, 0, LITTLE_HOT, CHECK", "-3, 30, 0, 0, LITTLE_HOT, CHECK", "-2.99, 30, 0, 0, TOO_HOT, FIX",
        "-12, 30, 0, 1, TOO_HOT, FIX", "-12, 25, 0, 0, GOOD, GOOD", "-12, 24.99, 0, 0, ROOM_NOT_QUIET, CHECK",
        "-12, 15, 0, 0, ROOM_NOT_QUIET, CHECK", "-12, 14.99, 0, 0, ROOM_LOUD, FIX", "-12, 30, 50, 0, HUM, CHECK",
        "-30, 15, 50, 0, HUM, CHECK", "-30, 15, 0, 0, LITTLE_QUIET, CHECK", "-30, 14.99, 50, 0, ROOM_LOUD, FIX", "-40, 5, 50, 0, TOO_QUIET, FIX"})
    void each_advice_has_its_limits_and_its_weight(double level, double distance, int hum, int overs, Advice advice, Verdict verdict) {
        Advice said = MicrophoneCheck.advice(OptionalDouble.of(level), OptionalDouble.of(distance), hum, overs, false);
        assertThat(said).isEqualTo(advice);
        assertThat(new MicrophoneCheck(OptionalDouble.of(level), OptionalDouble.empty(), OptionalDouble.of(distance), hum, overs, false, said)
                .verdict()).isEqualTo(verdict);
    }

    @Test
    void a_room_that_has_no_level_is_no_reason_to_complain() {
        assertThat(MicrophoneCheck.advice(OptionalDouble.of(-12), OptionalDouble.empty(), 0, 0, false)).isEqualTo(Advice.GOOD);
        assertThat(MicrophoneCheck.advice(OptionalDouble.empty(), OptionalDouble.empty(), 0, 0, false)).isEqualTo(Advice.NOTHING_HEARD);
    }

    @Test
    void what_was_measured_is_told() throws IOException {
        MicrophoneCheck check = MicrophoneCheck.of(sentence(-12, -60).stream());
        assertThat(check.levelDbfs().getAsDouble()).isCloseTo(-12, within(0.2));
        assertThat(check.noiseDbfs().getAsDouble()).as("white noise whose peaks are at −60").isCloseTo(-64.8, within(1.0));
        assertThat(check.voiceToRoomLu().getAsDouble()).isBetween(40.0, 60.0);
        assertThat(check.verdict()).isEqualTo(Verdict.GOOD);
        assertThat(MicrophoneCheck.of(Signal.silence(1, 4).stream()).levelDbfs()).isEmpty();
    }

    @Test
    void a_hum_in_the_room_and_a_silent_side_are_noticed() throws IOException {
        float[] mixed = sentence(-12, -66).samples()[0].clone();
        float[] hum = Signal.sine(1, 50, -56, 6.5).samples()[0];
        float[] third = Signal.sine(1, 150, -58, 6.5).samples()[0];
        for (int i = 0; i < mixed.length; i++) {
            mixed[i] += hum[i] + third[i];
        }
        MicrophoneCheck check = MicrophoneCheck.of(Signal.of(48_000, mixed, new float[mixed.length]).stream());
        assertThat(check.humHz()).isEqualTo(50);
        assertThat(check.oneSided()).isTrue();
        assertThat(check.advice()).as("said before the hum").isEqualTo(Advice.ONE_SIDED);
        assertThat(check.verdict()).isEqualTo(Verdict.CHECK);
    }
}
