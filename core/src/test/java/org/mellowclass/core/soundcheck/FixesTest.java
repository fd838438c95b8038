package org.mellowclass.core.soundcheck;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static org.mellowclass.core.testing.Timelines.clip;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.mellowclass.core.cleanup.Recipe;
import org.mellowclass.core.cleanup.StepKind;
import org.mellowclass.core.measure.ClippedSpot;
import org.mellowclass.core.measure.HumFinder;
import org.mellowclass.core.measure.StereoFinder;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Sides;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.soundcheck.Reading.Kind;
import org.mellowclass.core.talk.TalkFacts;
import org.mellowclass.core.testing.Timelines;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Flag;
import org.mellowclass.core.timeline.TakeSource;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.timeline.edit.DrawCurve;
import org.mellowclass.core.timeline.edit.Edit;
import org.mellowclass.core.timeline.edit.Remove;
import org.mellowclass.core.timeline.edit.SetClipGains;
import org.mellowclass.core.timeline.edit.Together;
import org.mellowclass.core.timeline.edit.Treat;
import org.mellowclass.core.treatment.ChooseSides;
import org.mellowclass.core.treatment.CleanUp;
import org.mellowclass.core.treatment.RedrawTops;
import org.mellowclass.core.treatment.Treatment;

/** Noor (take 1, −20 LUFS) and Ravi (take 2, −32 LUFS, with a hum and on one side) over a bed of music (take 3). */
class FixesTest {

    private static final long SECOND = Frames.RATE;
    private static final Clip NOOR = clip(11, 1, 0, 0, 2 * SECOND);
    private static final Clip RAVI = clip(12, 2, 2 * SECOND, 0, 2 * SECOND);
    private static final Clip BED = clip(13, 3, 0, 0, 4 * SECOND);
    private static final Timeline PAGE = new Timeline(List.of(new Track(1, "Noor", 1, 0, false, List.of(NOOR)), new Track(2, "Ravi", 1, 0, false, List.of(RAVI)),
            new Track(3, "Bed", 1, 0, false, List.of(BED))), List.of(), 20);
    private static final HumFinder.Hum HUM = new HumFinder.Hum(50, 50.02, List.of(new HumFinder.Harmonic(1, 0.01), new HumFinder.Harmonic(3, 0.01)), -50);
    private static final TalkFacts TALK = take -> Optional.ofNullable(Map.of(1L, new TalkFacts.Measured(true, List.of(new Span(SECOND / 2, 3 * SECOND / 2)), -20.0),
            2L, new TalkFacts.Measured(true, List.of(), -32.0), 3L, new TalkFacts.Measured(false, List.of(), -18.0)).get(take));

    private static HeardSound heard(double lufs, HumFinder.Hum hum, double roomLu, StereoFinder.Noticed sides) {
        return new HeardSound(2, 4 * SECOND, OptionalDouble.of(lufs), OptionalDouble.of(4), OptionalDouble.of(-3), List.of(), OptionalDouble.of(-12), OptionalDouble.of(-60),
                OptionalDouble.of(roomLu), Optional.ofNullable(hum), List.of(), Optional.empty(), List.of(), sides,
                sides == StereoFinder.Noticed.NOTHING ? OptionalDouble.of(0.9) : OptionalDouble.empty(), List.of(), List.of(), OptionalDouble.of(1), List.of(), List.of());
    }

    private static final Map<Long, HeardSound> HEARD = Map.of(1L, heard(-20, null, 40, StereoFinder.Noticed.NOTHING), 2L, heard(-32, HUM, 12, StereoFinder.Noticed.LEFT_SILENT));

    private static Known known(Timeline page) {
        return new Known(page, Timelines.TAKES, TALK, new Voices.Facts() {
            @Override
            public boolean voice(long takeId) {
                return HEARD.containsKey(takeId);
            }

            @Override
            public boolean credited(long takeId) {
                return false;
            }

            @Override
            public Optional<HeardSound> heard(long takeId, Treatment treatment) {
                return Optional.ofNullable(HEARD.get(takeId));
            }
        }, take -> take == 2 ? List.of(new ClippedSpot(10, 20, 1)) : List.of());
    }

    private static Optional<Edit> fix(Kind kind, Double value, Span... places) {
        return new Fixes(known(PAGE)).of(new Reading(kind, Verdict.FIX, value, List.of(places)));
    }

    private static Edit only(Optional<Edit> fix) {
        assertThat(((Together) fix.orElseThrow()).edits()).hasSize(1);
        return ((Together) fix.get()).edits().get(0);
    }

    @Test
    void voices_are_even_afterwards() {
        Voices before = new Voices(PAGE, known(PAGE).heard());
        assertThat(before.voicesEven().value()).isEqualTo(12, within(1e-9));
        SetClipGains gains = (SetClipGains) fix(Kind.VOICES_EVEN, 12.0).orElseThrow();
        assertThat(gains.gainsDb()).containsOnlyKeys(11L, 12L);
        Timeline mended = gains.applyTo(PAGE, Timelines.TAKES).timeline();
        assertThat(new Voices(mended, known(mended).heard()).voicesEven().value()).isLessThanOrEqualTo(0.5);
    }

    @Test
    void what_is_not_good_about_a_take_is_mended_in_that_take_alone_and_on_top_of_what_is_kept() {
        assertThat(only(fix(Kind.HUM, 50.0))).isEqualTo(new Treat(2, new CleanUp(Recipe.of(StepKind.HUM_OUT.usual()), null)));
        assertThat(only(fix(Kind.ROOM_NOISE, 12.0))).isEqualTo(new Treat(2, new CleanUp(Recipe.of(StepKind.NOISE_DOWN.usual()), null)));
        assertThat(only(fix(Kind.SIDES, null))).isEqualTo(new Treat(2, new ChooseSides(Sides.RIGHT)));
        assertThat(only(fix(Kind.CLIPPING, 1.0))).isEqualTo(new Treat(2, new RedrawTops()));
        Recipe kept = Recipe.of(StepKind.LOW_CUT.usual(), StepKind.CLICKS.usual());
        Timeline cleaned = PAGE.mapClip(12, clip -> clip.withSource(new TakeSource(2, Treatment.of(new CleanUp(kept, new Span(0, 9))))));
        Edit more = only(new Fixes(known(cleaned)).of(new Reading(Kind.HUM, Verdict.CHECK, 50.0, List.of())));
        assertThat(more).isEqualTo(new Treat(2, new CleanUp(Recipe.of(StepKind.LOW_CUT.usual(), StepKind.HUM_OUT.usual(), StepKind.CLICKS.usual()), new Span(0, 9))));
    }

    @Test
    void music_goes_down_under_the_voices() {
        DrawCurve curve = (DrawCurve) only(fix(Kind.MUSIC_UNDER_VOICE, 3.0));
        assertThat(curve.trackId()).isEqualTo(3);
        assertThat(curve.curve().points()).isNotEmpty();
    }

    @Test
    void only_the_pauses_that_are_dead_air_are_shortened_and_all_that_is_tied_moves_along() {
        Remove cut = (Remove) only(fix(Kind.DEAD_AIR, 1.0, new Span(SECOND / 2 + 100, SECOND)));
        assertThat(cut.trackIds()).isEqualTo(Set.of(1L, 2L, 3L));
        assertThat(cut.span().startFrame()).isGreaterThan(SECOND / 2);
        assertThat(cut.span().endFrame()).isLessThan(3 * SECOND / 2);
        assertThat(fix(Kind.DEAD_AIR, 1.0, new Span(3 * SECOND, 4 * SECOND))).as("nobody paused there").isEmpty();
    }

    @Test
    void a_page_that_begins_at_once_or_late_or_ends_at_once_or_late_gets_a_little_air() {
        Span start = new Span(0, SECOND);
        Timeline later = fix(Kind.STARTS_AND_ENDS, 0.05, start).orElseThrow().applyTo(PAGE, Timelines.TAKES).timeline();
        assertThat(later.clip(11).orElseThrow().startFrame()).isEqualTo(Frames.ofMillis(350));
        Timeline sooner = fix(Kind.STARTS_AND_ENDS, 1.5, start).orElseThrow().applyTo(PAGE, Timelines.TAKES).timeline();
        assertThat(sooner.endFrame()).isEqualTo(PAGE.endFrame() - Frames.ofMillis(1100));
        Timeline shorter = fix(Kind.STARTS_AND_ENDS, 0.5, new Span(SECOND / 2, 4 * SECOND)).orElseThrow().applyTo(PAGE, Timelines.TAKES).timeline();
        assertThat(shorter.endFrame()).as("a second behind the last sound").isEqualTo(3 * SECOND / 2);
        Timeline soft = fix(Kind.STARTS_AND_ENDS, 0.5, new Span(2 * SECOND, 4 * SECOND)).orElseThrow().applyTo(PAGE, Timelines.TAKES).timeline();
        assertThat(soft.endFrame()).as("Ravi's room goes on").isEqualTo(5 * SECOND);
        assertThat(soft.clip(13).orElseThrow().fadeOut().frames()).as("the music fades").isEqualTo(2 * SECOND);
    }

    @ParameterizedTest
    @EnumSource(names = {"WORKING_LEVEL", "DROPOUTS", "LENGTH", "PARTS", "CREDITS", "LOUDNESS", "LIMITED"})
    void what_only_the_crew_can_mend_has_no_fix(Kind kind) {
        assertThat(fix(kind, 1.0)).isEmpty();
    }

    @ParameterizedTest
    @EnumSource(Kind.class)
    void what_is_good_or_does_not_apply_has_no_fix(Kind kind) {
        assertThat(new Fixes(known(PAGE)).of(new Reading(kind, Verdict.GOOD, 1.0, List.of(new Span(0, 9))))).isEmpty();
        assertThat(new Fixes(known(PAGE)).of(new Reading(kind, Verdict.DOES_NOT_APPLY, null, List.of()))).isEmpty();
    }

    @Test
    void parts_and_credits_and_joins_are_read_from_the_page() {
        assertThat(Readings.parts(PAGE, List.of()).verdict()).isEqualTo(Verdict.DOES_NOT_APPLY);
        assertThat(Readings.parts(PAGE, List.of("opening", "ending"))).as("none is flagged").isEqualTo(new Reading(Kind.PARTS, Verdict.CHECK, 2.0, List.of()));
        Timeline flagged = PAGE.withFlags(List.of(new Flag(15, 1, 0, "Opening ")), 20);
        assertThat(Readings.parts(flagged, List.of("opening", "ending"))).isEqualTo(new Reading(Kind.PARTS, Verdict.FIX, 1.0, List.of()));
        assertThat(Readings.parts(flagged, List.of("Opening")).verdict()).isEqualTo(Verdict.GOOD);
        assertThat(new Voices(PAGE, known(PAGE).heard()).credits()).isEqualTo(new Reading(Kind.CREDITS, Verdict.CHECK, 1.0, List.of(BED.span())));
        Span atJoin = new Span(2 * SECOND + 100, 2 * SECOND + 150);
        assertThat(Readings.joins(PAGE, List.of(new Span(SECOND, SECOND + 50), atJoin))).isEqualTo(new Reading(Kind.JOINS, Verdict.FIX, 1.0, List.of(atJoin)));
        assertThat(Readings.joins(PAGE, List.of()).verdict()).isEqualTo(Verdict.GOOD);
    }
}
