package org.mellowclass.core.review;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;
import static org.mellowclass.core.testing.Timelines.TAKES;

import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.mellowclass.core.review.Change.Kind;
import org.mellowclass.core.review.Change.Place;
import org.mellowclass.core.sound.Sides;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.testing.AfterEdits;
import org.mellowclass.core.testing.Seeds;
import org.mellowclass.core.testing.Timelines;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.timeline.edit.DropTrack;
import org.mellowclass.core.timeline.edit.Edit;
import org.mellowclass.core.timeline.edit.LaySpan;
import org.mellowclass.core.timeline.edit.Move;
import org.mellowclass.core.timeline.edit.MuteTrack;
import org.mellowclass.core.timeline.edit.OpenUp;
import org.mellowclass.core.timeline.edit.Remove;
import org.mellowclass.core.timeline.edit.Soften;
import org.mellowclass.core.timeline.edit.Split;
import org.mellowclass.core.timeline.edit.SwapPassage;
import org.mellowclass.core.timeline.edit.Treat;
import org.mellowclass.core.treatment.ChooseSides;

class ChangesTest {

    /** Three clips of one take on a voice's track, music under them. */
    private static final Timeline PAGE = new Timeline(List.of(
            new Track(1, "Noor", 1, 0, false, List.of(Timelines.clip(2, 7, 0, 0, 96_000), Timelines.clip(3, 7, 96_000, 96_000, 48_000), Timelines.clip(4, 9, 144_000, 0, 96_000))),
            new Track(5, "Music", 2, 0, false, List.of(Timelines.clip(6, 8, 0, 0, 240_000)))), List.of(), 7);

    private static Timeline after(Timeline timeline, Edit... edits) {
        Timeline edited = timeline;
        for (Edit edit : edits) {
            edited = edit.applyTo(edited, TAKES).timeline();
        }
        return edited;
    }

    private static List<Change> changes(Edit... edits) {
        return Changes.between(PAGE, after(PAGE, edits));
    }

    @Test
    void what_was_taken_out_has_its_place_in_both() {
        assertThat(changes(new Remove(new Span(40_000, 60_000), Set.of(1L)))).containsExactly(
                new Change(Kind.TAKEN_OUT, 1, "Noor", new Place(40_000, 60_000), new Place(40_000, 40_000), 0));
    }

    @Test
    void what_was_put_in_has_its_place_in_both_and_moves_nothing() {
        assertThat(changes(new OpenUp(144_000, 48_000, Set.of(1L)), new LaySpan(10, new Span(0, 48_000), "Noor", 144_000, 0))).extracting(Change::kind, Change::was, Change::is)
                .containsExactly(tuple(Kind.PUT_IN, new Place(144_000, 144_000), new Place(144_000, 192_000)));
    }

    @Test
    void a_retake_in_the_place_of_a_passage_is_a_swap() {
        assertThat(changes(new SwapPassage(1, new Span(96_000, 144_000), 11, new Span(0, 60_000), Set.of(1L)))).extracting(Change::kind, Change::was, Change::is)
                .containsExactly(tuple(Kind.SWAPPED, new Place(96_000, 144_000), new Place(96_000, 156_000)));
    }

    @Test
    void words_that_change_places_are_moved() {
        assertThat(changes(new Move(3, 1, 260_000))).extracting(Change::kind, Change::was, Change::is)
                .containsExactly(tuple(Kind.MOVED, new Place(96_000, 144_000), new Place(260_000, 308_000)));
    }

    @Test
    void softer_words_say_by_how_much() {
        Change softer = changes(new Soften(new Span(96_000, 144_000), Set.of(1L))).get(0);
        assertThat(softer.kind()).isEqualTo(Kind.SOFTER);
        assertThat(softer.amountDb()).isEqualTo(-12);
        assertThat(softer.is()).isEqualTo(new Place(96_000, 144_000));
    }

    @Test
    void a_treatment_a_track_left_out_and_one_that_is_gone_are_told() {
        assertThat(changes(new Treat(9, new ChooseSides(Sides.LEFT)))).extracting(Change::kind, Change::is).containsExactly(tuple(Kind.TREATED, new Place(144_000, 240_000)));
        assertThat(changes(new MuteTrack(5, true))).extracting(Change::kind, Change::trackName).containsExactly(tuple(Kind.MUTED, "Music"));
        assertThat(changes(new DropTrack(5))).extracting(Change::kind, Change::was).containsExactly(tuple(Kind.TRACK_GONE, new Place(0, 240_000)));
        assertThat(changes(new LaySpan(10, new Span(0, 1000), "Ravi", 0, 0))).extracting(Change::kind, Change::trackName).containsExactly(tuple(Kind.TRACK_ADDED, "Ravi"));
    }

    @Test
    void a_split_changes_nothing() {
        assertThat(changes(new Split(30_000, Set.of(1L, 5L)))).isEmpty();
    }

    @Test
    void what_was_done_at_a_place_is_found_by_its_place_then_or_now() {
        List<Change> all = changes(new Remove(new Span(40_000, 60_000), Set.of(1L)), new Soften(new Span(100_000, 120_000), Set.of(5L)));
        assertThat(Changes.at(all, List.of(new Span(50_000, 55_000)), List.of())).extracting(Change::kind).containsExactly(Kind.TAKEN_OUT);
        assertThat(Changes.at(all, List.of(), List.of(new Span(110_000, 111_000)))).extracting(Change::kind).containsExactly(Kind.SOFTER);
        assertThat(Changes.at(all, List.of(new Span(200_000, 201_000)), List.of())).isEmpty();
    }

    static IntStream seeds() {
        return Seeds.first(300);
    }

    /** What no change speaks of must be there before and now, on its track, by its frames and its gain; nothing that is the same may be told. */
    @ParameterizedTest
    @MethodSource("seeds")
    void whatever_was_edited_all_that_differs_is_told(int seed) {
        Random random = new Random(seed);
        Timeline was = Timelines.generate(random);
        Timeline is = AfterEdits.someTimes(was, random, 1 + random.nextInt(4));
        assertThat(Changes.between(was, was)).isEmpty();
        List<Change> changes = Changes.between(was, is);
        for (int i = 0; i < 40; i++) {
            checkFrame(seed, random, is, was, changes, true);
            checkFrame(seed, random, was, is, changes, false);
        }
    }

    private static void checkFrame(int seed, Random random, Timeline here, Timeline there, List<Change> changes, boolean now) {
        if (here.tracks().isEmpty()) {
            return;
        }
        Track track = here.tracks().get(random.nextInt(here.tracks().size()));
        long frame = random.nextLong(Math.max(1, track.endFrame()));
        boolean told = changes.stream().filter(change -> change.trackId() == track.id()).map(change -> now ? change.is() : change.was())
                .anyMatch(place -> frame >= place.startFrame() - 1500 && frame <= place.endFrame() + 1500);
        Track other = there.track(track.id()).orElse(null);
        if (told || track.muted() && (other == null || other.muted())) {
            return;
        }
        for (Clip clip : track.clips()) {
            // what is crossfaded, and what is shorter than an edge, is not told
            boolean whole = clip.frames() >= 1500 && track.clips().stream().noneMatch(next -> next != clip && next.startFrame() >= clip.startFrame() && next.startFrame() < clip.endFrame());
            if (whole && frame >= clip.startFrame() && frame < clip.endFrame()) {
                long inTake = clip.source().treatment().toTake(clip.sourceFrame() + frame - clip.startFrame());
                assertThat(other).as("seed %s: track of frame %s", seed, frame).isNotNull();
                assertThat(other.clips()).as("seed %s: frame %s of track %s", seed, frame, track.id()).anySatisfy(same -> {
                    assertThat(same.source().takeId()).isEqualTo(clip.source().takeId());
                    assertThat(inTake).isBetween(same.source().treatment().toTake(same.sourceFrame()) - 1500, same.source().treatment().toTake(same.sourceFrame() + same.frames()) + 1500);
                    assertThat(same.source().treatment()).isEqualTo(clip.source().treatment());
                });
            }
        }
    }
}
