package org.mellowclass.core.review;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mellowclass.core.testing.Timelines.TAKES;

import java.util.ArrayList;
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
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.timeline.edit.MuteTrack;
import org.mellowclass.core.timeline.edit.Remove;
import org.mellowclass.core.timeline.edit.SetTrackGain;
import org.mellowclass.core.timeline.edit.Treat;
import org.mellowclass.core.sound.Sides;
import org.mellowclass.core.treatment.ChooseSides;

class SharedSoundTest {

    private static final Timeline PAGE = new Timeline(List.of(
            new Track(1, "Noor", 1, 0, false, List.of(Timelines.clip(2, 7, 0, 0, 480_000))),
            new Track(3, "Music", 1, 0, false, List.of(Timelines.clip(4, 8, 0, 0, 480_000)))), List.of(), 5);

    private static Timeline after(org.mellowclass.core.timeline.edit.Edit edit, Timeline timeline) {
        return edit.applyTo(timeline, TAKES).timeline();
    }

    @Test
    void what_follows_a_cut_sounds_as_it_did_and_stood_later() {
        SharedSound shared = SharedSound.of(PAGE, after(new Remove(new Span(100_000, 148_000), Set.of(1L, 3L)), PAGE));
        assertThat(shared.stretches()).containsExactly(new SharedSound.Stretch(new Span(0, 100_000), 0), new SharedSound.Stretch(new Span(100_000, 432_000), -48_000));
        assertThat(shared.anew()).isEmpty();
        assertThat(shared.carried(List.of(new Span(90_000, 200_000)))).containsExactly(new Span(90_000, 152_000));
    }

    @Test
    void a_voice_that_is_cut_alone_stands_over_other_music_from_there_on() {
        assertThat(SharedSound.of(PAGE, after(new Remove(new Span(100_000, 148_000), Set.of(1L)), PAGE)).anew()).containsExactly(new Span(100_000, 480_000));
    }

    @Test
    void a_gain_within_one_decibel_is_no_other_sound_and_more_is() {
        assertThat(SharedSound.of(PAGE, after(new SetTrackGain(1, 0.9), PAGE)).anew()).isEmpty();
        assertThat(SharedSound.of(PAGE, after(new SetTrackGain(1, 1.2), PAGE)).anew()).containsExactly(new Span(0, 480_000));
    }

    @Test
    void another_treatment_and_a_track_that_is_left_out_are_other_sound() {
        assertThat(SharedSound.of(PAGE, after(new Treat(7, new ChooseSides(Sides.LEFT)), PAGE)).anew()).containsExactly(new Span(0, 480_000));
        assertThat(SharedSound.of(PAGE, after(new MuteTrack(3, true), PAGE)).anew()).containsExactly(new Span(0, 480_000));
    }

    static IntStream seeds() {
        return Seeds.first(300);
    }

    /** By its definition, frame by frame: somewhere in the earlier timeline the same frames of the same sources play on the same tracks. */
    @ParameterizedTest
    @MethodSource("seeds")
    void whatever_was_edited_each_frame_is_as_the_definition_says(int seed) {
        Random random = new Random(seed);
        Timeline was = Timelines.generate(random);
        Timeline is = AfterEdits.someTimes(was, random, 1 + random.nextInt(4));
        SharedSound shared = SharedSound.of(was, is);
        for (int i = 0; i < 60; i++) {
            long frame = random.nextLong(Math.max(1, is.endFrame()));
            if (nearAnEdge(is, frame)) {
                continue;
            }
            List<Played> now = played(is, frame);
            boolean there = shared.stretches().stream().anyMatch(stretch -> stretch.is().contains(frame));
            boolean asDefined = !now.isEmpty() && earlier(was, now.get(0)).stream().anyMatch(then -> same(now, played(was, then)));
            boolean uncertain = !now.isEmpty() && earlier(was, now.get(0)).stream().anyMatch(then -> nearAnEdge(was, then)
                    || same(now, played(was, then), 0.7) != same(now, played(was, then), 1.3));
            if (!uncertain) {
                assertThat(there).as("seed %s frame %s", seed, frame).isEqualTo(asDefined);
            }
            assertThat(shared.anew().stream().anyMatch(span -> span.contains(frame))).isEqualTo(!there && !now.isEmpty());
        }
    }

    private record Played(long trackId, double pan, Clip clip, long sourceFrame, double gainDb) {
    }

    private static List<Played> played(Timeline timeline, long frame) {
        List<Played> played = new ArrayList<>();
        timeline.tracks().stream().filter(track -> !track.muted()).forEach(track -> track.clips().stream().filter(clip -> clip.span().contains(frame)).forEach(clip ->
                played.add(new Played(track.id(), track.pan(), clip, clip.sourceFrame() + frame - clip.startFrame(),
                        Math.max(-60, 20 * Math.log10(clip.fadeAt(frame - clip.startFrame())) + clip.gainDb() + track.gainDb() + track.curve().gainDbAt(frame))))));
        return played;
    }

    private static List<Long> earlier(Timeline was, Played now) {
        return was.track(now.trackId).stream().flatMap(track -> track.clips().stream()).filter(clip -> clip.source().equals(now.clip.source()))
                .map(clip -> clip.startFrame() + now.sourceFrame - clip.sourceFrame()).filter(frame -> frame >= 0).toList();
    }

    private static boolean same(List<Played> now, List<Played> then) {
        return same(now, then, 1);
    }

    private static boolean same(List<Played> now, List<Played> then, double withinDb) {
        return now.size() == then.size() && now.stream().allMatch(layer -> then.stream().anyMatch(other -> layer.trackId == other.trackId && Math.abs(layer.pan - other.pan) <= 0.05
                && layer.clip.source().equals(other.clip.source()) && layer.sourceFrame == other.sourceFrame && Math.abs(layer.gainDb - other.gainDb) <= withinDb));
    }

    /** Edges and fades are compared at their ends only. */
    private static boolean nearAnEdge(Timeline timeline, long frame) {
        return timeline.tracks().stream().flatMap(track -> track.clips().stream()).anyMatch(clip ->
                frame >= clip.startFrame() - 300 && frame < clip.startFrame() + clip.fadeIn().reach() + 300
                        || frame >= clip.endFrame() - clip.fadeOut().reach() - 300 && frame < clip.endFrame() + 300);
    }
}
