package org.mellowclass.core.review;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mellowclass.core.testing.Timelines.TAKES;

import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.testing.AfterEdits;
import org.mellowclass.core.testing.Seeds;
import org.mellowclass.core.testing.Timelines;
import org.mellowclass.core.timeline.TakeSource;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.timeline.edit.LayTake;
import org.mellowclass.core.timeline.edit.Move;
import org.mellowclass.core.timeline.edit.Remove;
import org.mellowclass.core.timeline.edit.Split;
import org.mellowclass.core.timeline.edit.SwapPassage;

class NoteAnchorTest {

    private static final Span WORDS = new Span(200_000, 260_000);
    private final Timeline handedIn = new LayTake(8, 500_000, 0, "Music").applyTo(
            new LayTake(7, 500_000, 0, "Noor").applyTo(Timeline.empty(), TAKES).timeline(), TAKES).timeline();
    private final NoteAnchor anchor = NoteAnchor.of(handedIn, WORDS);

    @Test
    void a_note_stays_at_its_words_when_earlier_sound_is_removed() {
        Timeline edited = new Remove(new Span(10_000, 60_000), handedIn.trackIds()).applyTo(handedIn, TAKES).timeline();
        assertThat(anchor.places(handedIn)).containsExactly(WORDS);
        assertThat(anchor.places(edited)).containsExactly(new Span(150_000, 210_000));
    }

    @Test
    void it_says_when_its_words_are_gone_though_the_music_under_them_is_still_there() {
        long noor = handedIn.tracks().get(0).id();
        Timeline edited = new Remove(new Span(190_000, 270_000), Set.of(noor)).applyTo(handedIn, TAKES).timeline();
        assertThat(anchor.places(edited)).isEmpty();
    }

    @Test
    void a_note_on_the_music_stays_with_the_music_whatever_becomes_of_the_voice() {
        long noor = handedIn.tracks().get(0).id();
        NoteAnchor onMusic = NoteAnchor.of(handedIn, WORDS, Set.of(handedIn.tracks().get(1).id()));
        assertThat(onMusic.pieces()).containsExactly(new NoteAnchor.Piece(8, 200_000, 260_000));
        assertThat(onMusic.places(new Remove(new Span(190_000, 270_000), Set.of(noor)).applyTo(handedIn, TAKES).timeline())).containsExactly(WORDS);
        assertThat(NoteAnchor.of(handedIn, WORDS, handedIn.trackIds()).pieces()).as("on both").hasSize(2);
    }

    @Test
    void words_with_a_piece_cut_out_are_one_place_and_words_that_were_parted_are_two() {
        long noor = handedIn.tracks().get(0).id();
        Timeline shorter = new Remove(new Span(220_000, 230_000), Set.of(noor)).applyTo(handedIn, TAKES).timeline();
        assertThat(anchor.places(shorter)).containsExactly(new Span(200_000, 250_000));
        Timeline split = new Split(230_000, Set.of(noor)).applyTo(handedIn, TAKES).timeline();
        Track track = split.tracks().get(0);
        Timeline parted = new Move(track.clips().get(1).id(), noor, 400_000).applyTo(split, TAKES).timeline();
        assertThat(anchor.places(parted)).containsExactly(new Span(200_000, 230_000), new Span(400_000, 430_000));
    }

    @Test
    void silence_has_no_words() {
        assertThat(NoteAnchor.of(handedIn, new Span(600_000, 700_000)).places(handedIn)).isEmpty();
    }

    @Test
    void a_note_whose_words_are_swapped_for_a_retake_stands_at_the_retake() {
        long noor = handedIn.tracks().get(0).id();
        Timeline swapped = new SwapPassage(noor, new Span(190_000, 270_000), 9, new Span(0, 60_000), handedIn.trackIds()).applyTo(handedIn, TAKES).timeline();
        assertThat(NotePlace.of(anchor, WORDS, swapped, () -> Changes.between(handedIn, swapped))).isEqualTo(new NotePlace(NotePlace.Kind.AT_SWAP, List.of(new Span(190_000, 250_000))));
        Timeline cut = new Remove(new Span(190_000, 270_000), handedIn.trackIds()).applyTo(handedIn, TAKES).timeline();
        assertThat(NotePlace.of(anchor, WORDS, cut, () -> Changes.between(handedIn, cut)).kind()).isEqualTo(NotePlace.Kind.GONE);
        assertThat(NotePlace.of(anchor, WORDS, handedIn, () -> {
            throw new AssertionError("not needed");
        }).kind()).isEqualTo(NotePlace.Kind.AT_WORDS);
    }

    /** By its definition, frame by frame: a frame is a word's if it plays a frame of a take that the note was bound to. */
    @ParameterizedTest
    @MethodSource("seeds")
    void after_any_edits_it_stands_where_its_words_are_and_nowhere_else(int seed) {
        Random random = new Random(seed);
        Timeline was = Timelines.generate(random);
        long start = random.nextLong(was.endFrame());
        NoteAnchor bound = NoteAnchor.of(was, new Span(start, start + 1 + random.nextInt(8000)));
        Timeline is = AfterEdits.someTimes(was, random, 1 + random.nextInt(6));
        List<Span> places = bound.places(is);
        for (int i = 0; i < 200; i++) {
            long frame = random.nextLong(Math.max(1, is.endFrame()));
            if (words(bound, is, frame, 0)) {
                assertThat(places).as("seed %s: words at %s", seed, frame).anyMatch(place -> place.contains(frame));
            }
        }
        for (Span place : places) {
            assertThat(words(bound, is, place.startFrame(), 2)).as("seed %s: %s starts with words", seed, place).isTrue();
            assertThat(words(bound, is, place.endFrame() - 1, 2)).as("seed %s: %s ends with words", seed, place).isTrue();
        }
    }

    /** @param beside clocks and tricks place a frame beside another one */
    private static boolean words(NoteAnchor bound, Timeline timeline, long frame, int beside) {
        return timeline.tracks().stream().flatMap(track -> track.clips().stream()).filter(clip -> clip.span().contains(frame) && clip.source() instanceof TakeSource).anyMatch(clip -> {
            long inTake = clip.source().treatment().toTake(clip.sourceFrame() + frame - clip.startFrame());
            return bound.pieces().stream().anyMatch(piece -> piece.takeId() == clip.source().takeId() && inTake >= piece.startFrame() - beside && inTake < piece.endFrame() + beside);
        });
    }

    static IntStream seeds() {
        return Seeds.first(200);
    }

    @ParameterizedTest
    @MethodSource("seeds")
    void wherever_it_was_bound_it_is_found_again(int seed) {
        Random random = new Random(seed);
        Timeline timeline = Timelines.generate(random);
        long start = random.nextLong(timeline.endFrame());
        Span span = new Span(start, start + 1 + random.nextInt(5000));
        NoteAnchor bound = NoteAnchor.of(timeline, span);
        List<Span> places = bound.places(timeline);
        assertThat(places.isEmpty()).isEqualTo(bound.pieces().isEmpty());
        if (!places.isEmpty()) {
            assertThat(places).anyMatch(place -> place.startFrame() < span.endFrame() && place.endFrame() > span.startFrame());
        }
    }
}
