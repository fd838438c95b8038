package org.mellowclass.core.soundcheck;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.OptionalDouble;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.mellowclass.core.measure.ClippedSpot;
import org.mellowclass.core.render.Mastering;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.testing.Timelines;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;

class SoundCheckTest {

    private static final Mastering UNTOUCHED = new Mastering(0, -1, 0);

    private static final HouseSound HOUSE = new HouseSound(-16, -1, Frames.ofSeconds(60), Frames.ofSeconds(120));

    @ParameterizedTest
    @CsvSource({"-16, GOOD", "-15, GOOD", "-17, GOOD", "-14.99, CHECK", "-17.01, CHECK", "-14, CHECK", "-18, CHECK", "-13.99, FIX",
        "-18.01, FIX"})
    void loudness_is_judged_by_its_distance_from_the_house_sound(double lufs, Verdict verdict) {
        assertThat(verdict(Reading.Kind.LOUDNESS, measured(lufs, -2, 0, 0, Frames.ofSeconds(90)))).isEqualTo(verdict);
    }

    @ParameterizedTest
    @CsvSource({"-1, GOOD", "-0.99, CHECK", "-0.3, CHECK", "-0.29, FIX"})
    void true_peak(double dbtp, Verdict verdict) {
        assertThat(verdict(Reading.Kind.TRUE_PEAK, measured(-16, dbtp, 0, 0, Frames.ofSeconds(90)))).isEqualTo(verdict);
    }

    @ParameterizedTest
    @CsvSource({"0, GOOD", "1, CHECK", "10, CHECK", "11, FIX"})
    void clipped_runs(int runs, Verdict verdict) {
        assertThat(verdict(Reading.Kind.CLIPPING, measured(-16, -2, runs, 0, Frames.ofSeconds(90)))).isEqualTo(verdict);
    }

    @ParameterizedTest
    @CsvSource({"0, GOOD", "96001, CHECK", "192000, CHECK", "192001, FIX"})
    void dead_air_by_its_longest_stretch(long frames, Verdict verdict) {
        assertThat(verdict(Reading.Kind.DEAD_AIR, measured(-16, -2, 0, frames, Frames.ofSeconds(90)))).isEqualTo(verdict);
    }

    @ParameterizedTest
    @CsvSource({"2880000, GOOD", "5760000, GOOD", "2879999, CHECK", "5760001, CHECK", "2592000, CHECK", "6336000, CHECK", "2591999, FIX",
        "6336001, FIX"})
    void length_with_a_tenth_of_allowance(long frames, Verdict verdict) {
        assertThat(verdict(Reading.Kind.LENGTH, measured(-16, -2, 0, 0, frames))).isEqualTo(verdict);
    }

    /** Of what was done to a mix, only what is far is told. */
    @ParameterizedTest
    @CsvSource({"0, 6, ", "0, 6.01, LIMITED", "29.99, 0, ", "30, 0, RAISED", "30, 9, RAISED"})
    void far_limiting_and_a_gain_at_its_bound_are_told(double gainDb, double reductionDb, Reading.Kind told) {
        SoundCheck.Measured measured = new SoundCheck.Measured(OptionalDouble.of(-16), OptionalDouble.of(-2), List.of(), List.of(), Frames.ofSeconds(90),
                new Mastering(gainDb, -1, reductionDb));
        List<Reading.Kind> kinds = SoundCheck.of(measured, HOUSE).readings().stream().map(Reading::kind).toList();
        assertThat(kinds).hasSize(told == null ? 5 : 6);
        if (told != null) {
            assertThat(kinds).endsWith(told);
        }
    }

    @Test
    void spots_that_are_closer_than_a_second_are_one_place() {
        List<ClippedSpot> spots = List.of(new ClippedSpot(48_000, 48_010, 1), new ClippedSpot(96_009, 96_020, 2), new ClippedSpot(144_020, 144_030, 1));
        Reading reading = SoundCheck.of(new SoundCheck.Measured(OptionalDouble.of(-16), OptionalDouble.of(-2), spots, List.of(), Frames.ofSeconds(90), UNTOUCHED), HOUSE).readings().get(2);
        assertThat(reading.value()).isEqualTo(4);
        assertThat(reading.places()).containsExactly(new Span(48_000, 96_020), new Span(144_020, 144_030));
    }

    @Test
    void silence_has_no_loudness_to_judge() {
        SoundCheck check = SoundCheck.of(new SoundCheck.Measured(OptionalDouble.empty(), OptionalDouble.empty(), List.of(),
                List.of(new Span(0, Frames.ofSeconds(90))), Frames.ofSeconds(90), UNTOUCHED), HOUSE);
        assertThat(check.readings().get(0)).isEqualTo(
                new Reading(Reading.Kind.LOUDNESS, Verdict.DOES_NOT_APPLY, null, List.of()));
        assertThat(check.count(Verdict.FIX)).isEqualTo(1);
        assertThat(check.count(Verdict.DOES_NOT_APPLY)).isEqualTo(2);
    }

    @Test
    void clipped_spots_are_found_where_they_can_be_heard() {
        Clip early = Timelines.clip(1, 7, 1000, 500, 1000);
        Clip late = Timelines.clip(2, 7, 9000, 0, 520);
        Track heard = new Track(1, "Noor", 1, 0, false, List.of(early, late));
        Track muted = new Track(2, "Ravi", 1, 0, true, List.of(early));
        List<ClippedSpot> places = ClippedPlaces.in(new Timeline(List.of(heard, muted), List.of(), 9),
                take -> List.of(new ClippedSpot(510, 530, 2), new ClippedSpot(1600, 1610, 1)));
        assertThat(places).containsExactly(new ClippedSpot(1010, 1030, 2), new ClippedSpot(9510, 9520, 2));
    }

    private static SoundCheck.Measured measured(double lufs, double dbtp, int clipped, long deadFrames, long frames) {
        List<Span> dead = deadFrames == 0 ? List.of() : List.of(new Span(frames, frames + 1), new Span(0, deadFrames));
        return new SoundCheck.Measured(OptionalDouble.of(lufs), OptionalDouble.of(dbtp),
                clipped == 0 ? List.of() : List.of(new ClippedSpot(5, 900, clipped)), dead, frames, UNTOUCHED);
    }

    private static Verdict verdict(Reading.Kind kind, SoundCheck.Measured measured) {
        return SoundCheck.of(measured, HOUSE).readings().stream().filter(reading -> reading.kind() == kind)
                .findFirst().orElseThrow().verdict();
    }
}
