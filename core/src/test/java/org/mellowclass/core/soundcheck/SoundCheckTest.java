package org.mellowclass.core.soundcheck;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.stream.LongStream;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.mellowclass.core.measure.ClippedSpot;
import org.mellowclass.core.measure.ClippingFinder;
import org.mellowclass.core.measure.HumFinder;
import org.mellowclass.core.measure.SoundEdges;
import org.mellowclass.core.measure.StereoFinder;
import org.mellowclass.core.render.Mastering;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.testing.Signal;
import org.mellowclass.core.testing.Timelines;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.treatment.Treatment;

class SoundCheckTest {

    private static final HouseSound HOUSE = new HouseSound(-16, -1, Frames.ofSeconds(60), Frames.ofSeconds(120));

    @ParameterizedTest
    @CsvSource({"-16, GOOD", "-15, GOOD", "-17, GOOD", "-14.99, CHECK", "-17.01, CHECK", "-14, CHECK", "-18, CHECK", "-13.99, FIX",
        "-18.01, FIX"})
    void loudness_is_judged_by_its_distance_from_the_house_sound(double lufs, Verdict verdict) {
        assertThat(Readings.loudness(OptionalDouble.of(lufs), 2, HOUSE).verdict()).isEqualTo(verdict);
        assertThat(Readings.loudness(OptionalDouble.of(lufs - 3), 1, HOUSE).verdict()).as("one channel").isEqualTo(verdict);
    }

    @ParameterizedTest
    @CsvSource({"-1, GOOD", "-0.99, CHECK", "-0.3, CHECK", "-0.29, FIX"})
    void true_peak(double dbtp, Verdict verdict) {
        assertThat(Readings.truePeak(OptionalDouble.of(dbtp), HOUSE).verdict()).isEqualTo(verdict);
    }

    @ParameterizedTest
    @CsvSource({"0, GOOD", "1, CHECK", "10, CHECK", "11, FIX"})
    void clipped_runs(int runs, Verdict verdict) {
        assertThat(Readings.clipping(runs == 0 ? List.of() : List.of(new ClippedSpot(5, 900, runs))).verdict()).isEqualTo(verdict);
    }

    @ParameterizedTest
    @CsvSource({"0, GOOD", "96001, CHECK", "192000, CHECK", "192001, FIX"})
    void dead_air_by_its_longest_stretch(long frames, Verdict verdict) {
        List<Span> dead = frames == 0 ? List.of() : List.of(new Span(500_000, 500_001), new Span(0, frames));
        assertThat(Readings.deadAir(dead).verdict()).isEqualTo(verdict);
    }

    @ParameterizedTest
    @CsvSource({"2880000, GOOD", "5760000, GOOD", "2879999, CHECK", "5760001, CHECK", "2592000, CHECK", "6336000, CHECK", "2591999, FIX",
        "6336001, FIX"})
    void length_with_a_tenth_of_allowance(long frames, Verdict verdict) {
        assertThat(Readings.length(frames, HOUSE).verdict()).isEqualTo(verdict);
    }

    @ParameterizedTest
    @CsvSource({"0, GOOD", "10, GOOD", "10.01, CHECK", "14, CHECK", "14.01, FIX"})
    void loudness_range_of_a_minute_or_more(double lu, Verdict verdict) {
        assertThat(Readings.range(OptionalDouble.of(lu), Frames.ofSeconds(60)).verdict()).isEqualTo(verdict);
        Reading ofLess = Readings.range(OptionalDouble.of(lu), Frames.ofSeconds(60) - 1);
        assertThat(ofLess).isEqualTo(new Reading(Reading.Kind.LOUDNESS_RANGE, Verdict.DOES_NOT_APPLY, lu, List.of()));
    }

    @ParameterizedTest
    @CsvSource({"3, GOOD", "3.01, CHECK", "6, CHECK", "6.01, FIX"})
    void voices_by_how_far_they_are_apart(double lu, Verdict verdict) {
        assertThat(Readings.voicesEven(OptionalDouble.of(lu), List.of()).verdict()).isEqualTo(verdict);
    }

    @ParameterizedTest
    @CsvSource({"12, 25, GOOD", "11.99, 24.99, CHECK", "8, 15, CHECK", "7.99, 14.99, FIX"})
    void music_and_room_by_how_far_they_lie_under_the_voice(double musicLu, double roomLu, Verdict verdict) {
        assertThat(Readings.musicUnderVoice(OptionalDouble.of(musicLu), List.of()).verdict()).isEqualTo(verdict);
        assertThat(Readings.roomNoise(OptionalDouble.of(roomLu), List.of()).verdict()).isEqualTo(verdict);
    }

    @ParameterizedTest
    @CsvSource({"-20, -60.1, CHECK", "-20, -60, CHECK", "-20, -59.9, FIX"})
    void hum_by_how_near_it_comes_to_the_voice(double voiceLufs, double humDbfs, Verdict verdict) {
        HumFinder.Hum hum = new HumFinder.Hum(50, 50.02, List.of(new HumFinder.Harmonic(1, 0.01), new HumFinder.Harmonic(3, 0.01)), humDbfs);
        Reading reading = Readings.hum(Optional.of(hum), OptionalDouble.of(voiceLufs), List.of());
        assertThat(reading.verdict()).isEqualTo(verdict);
        assertThat(reading.value()).isEqualTo(50);
        assertThat(Readings.hum(Optional.empty(), OptionalDouble.of(voiceLufs), List.of())).isEqualTo(new Reading(Reading.Kind.HUM, Verdict.GOOD, null, List.of()));
    }

    @ParameterizedTest
    @CsvSource({"200, 500, GOOD", "1000, 3000, GOOD", "199, 500, CHECK", "1001, 500, CHECK", "200, 499, CHECK", "20, 20, CHECK", "0, 500, CHECK", "200, 19, FIX"})
    void starts_and_ends_by_the_time_around_the_sound(long leadMs, long trailMs, Verdict verdict) {
        SoundEdges edges = new SoundEdges(Frames.ofMillis(leadMs), Frames.ofMillis(trailMs));
        assertThat(Readings.edges(Optional.of(edges), Frames.ofSeconds(60)).verdict()).isEqualTo(verdict);
    }

    @ParameterizedTest
    @CsvSource({"NOTHING, 0.2, GOOD", "NOTHING, 0.19, CHECK", "NOTHING, 0, CHECK", "ONE_REVERSED, -0.01, FIX", "LEFT_SILENT, 0.5, FIX"})
    void sides_by_their_correlation(StereoFinder.Noticed noticed, double correlation, Verdict verdict) {
        assertThat(Readings.sides(noticed, OptionalDouble.of(correlation), 2, List.of()).verdict()).isEqualTo(verdict);
        assertThat(Readings.sides(noticed, OptionalDouble.of(correlation), 1, List.of()).verdict()).as("one channel").isEqualTo(Verdict.DOES_NOT_APPLY);
    }

    @Test
    void trifles_ask_for_a_look_and_never_for_more() {
        List<Span> many = LongStream.range(0, 500).mapToObj(i -> new Span(1000 * i, 1000 * i + 100)).toList();
        assertThat(Readings.bursts(many, many, Frames.ofSeconds(60)).verdict()).isEqualTo(Verdict.CHECK);
        assertThat(Readings.sibilance(OptionalDouble.of(500), many).verdict()).isEqualTo(Verdict.CHECK);
        assertThat(Readings.bursts(List.of(), List.of(), Frames.ofSeconds(60)).verdict()).isEqualTo(Verdict.GOOD);
    }

    /** Of what was done to a mix, only what is far is told. */
    @ParameterizedTest
    @CsvSource({"0, 6, ", "0, 6.01, LIMITED", "29.99, 0, ", "30, 0, RAISED", "30, 9, RAISED"})
    void far_limiting_and_a_gain_at_its_bound_are_told(double gainDb, double reductionDb, Reading.Kind told) throws IOException {
        List<Reading.Kind> kinds = check(Signal.sine(2, 997, -20, 2), new Mastering(gainDb, -1, reductionDb)).readings().stream().map(Reading::kind).toList();
        assertThat(kinds.contains(Reading.Kind.LIMITED)).isEqualTo(told == Reading.Kind.LIMITED);
        assertThat(kinds.contains(Reading.Kind.RAISED)).isEqualTo(told == Reading.Kind.RAISED);
    }

    @Test
    void spots_that_are_closer_than_a_second_are_one_place() {
        Reading reading = Readings.clipping(List.of(new ClippedSpot(48_000, 48_010, 1), new ClippedSpot(96_009, 96_020, 2), new ClippedSpot(144_020, 144_030, 1)));
        assertThat(reading.value()).isEqualTo(4);
        assertThat(reading.places()).containsExactly(new Span(48_000, 96_020), new Span(144_020, 144_030));
    }

    @Test
    void silence_has_no_levels_to_judge() throws IOException {
        SoundCheck check = check(Signal.silence(2, 90), new Mastering(0, -1, 0));
        assertThat(check.readings()).filteredOn(reading -> reading.verdict() == Verdict.DOES_NOT_APPLY).extracting(Reading::kind)
                .contains(Reading.Kind.LOUDNESS, Reading.Kind.TRUE_PEAK, Reading.Kind.WORKING_LEVEL, Reading.Kind.ROOM_NOISE, Reading.Kind.VOICES_EVEN);
        assertThat(check.readings()).extracting(Reading::value).doesNotContain(Double.NaN, Double.NEGATIVE_INFINITY);
        assertThat(check.told()).extracting(Reading::kind).startsWith(Reading.Kind.DEAD_AIR).contains(Reading.Kind.LOUDNESS, Reading.Kind.LENGTH);
        assertThat(check.others()).hasSize(check.readings().size() - check.told().size());
    }

    private static SoundCheck check(Signal mix, Mastering finishing) throws IOException {
        Timeline nothing = Timeline.empty();
        Voices voices = new Voices(nothing, new Voices.Facts() {
            @Override
            public boolean voice(long takeId) {
                return false;
            }

            @Override
            public boolean credited(long takeId) {
                return false;
            }

            @Override
            public Optional<HeardSound> heard(long takeId, Treatment treatment) {
                return Optional.empty();
            }
        });
        return SoundCheck.of(new SoundCheck.Measured(HeardSound.of(mix.stream(), ClippingFinder.Search.FULL_SCALE_ONLY), nothing, List.of(), voices,
                MusicUnderVoice.of(nothing, takeId -> Optional.empty(), (id, treatment) -> mix, 0, 0), finishing, Pictures.NONE), HOUSE, List.of());
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
}
