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
import org.mellowclass.core.testing.Seeds;
import org.mellowclass.core.testing.Timelines;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.timeline.edit.LayTake;
import org.mellowclass.core.timeline.edit.Move;
import org.mellowclass.core.timeline.edit.Remove;
import org.mellowclass.core.timeline.edit.Split;

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
