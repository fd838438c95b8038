package org.mellowclass.app.takes;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.util.Set;

import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mellowclass.app.bench.Bench;
import org.mellowclass.app.bench.PlacedTakes;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.core.measure.StereoFinder.Noticed;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.RandomAccessSound;
import org.mellowclass.core.testing.Signal;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Split;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.springframework.beans.factory.annotation.Autowired;

@AppTest
class FixingTest {

    @Autowired
    private Fixing fixing;
    @Autowired
    private TakeShelf takes;
    @Autowired
    private Bench bench;
    @Autowired
    private PlacedTakes placed;
    @Autowired
    private Schools schools;
    private Schools.School school;

    @BeforeEach
    void build() {
        school = schools.build();
    }

    private Timeline timeline() {
        return bench.head(school.student(), school.episodeId()).timeline();
    }

    private long take(float[] left, float[] right) throws IOException {
        return schools.readyTake(school, Signal.of(Frames.RATE, left, right), "Noor");
    }

    private static float[] tone(double seconds) {
        return Signal.sine(1, 400, -12, seconds).samples()[0];
    }

    @Test
    void a_silent_side_is_left_out_by_a_new_take_in_the_place_of_the_old() throws IOException {
        long take = take(tone(2), new float[2 * Frames.RATE]);
        assertThat(takes.ready(school.episodeId()).get(take).noticed()).isEqualTo(Noticed.RIGHT_SILENT);
        fixing.fix(school.student(), take, 0L);
        fixing.fix(school.student(), take, 0L);
        Schools.await(() -> takes.ready(school.episodeId()).size() == 2);
        Take made = takes.ready(school.episodeId()).values().stream().filter(it -> it.id() != take).findFirst().orElseThrow();
        assertThat(made.channels()).isEqualTo(1);
        assertThat(Bench.takesIn(timeline())).containsExactly(made.id());
        assertThat(takes.ready(school.episodeId())).as("the take itself is kept").containsKey(take);
        bench.undo(school.student(), school.episodeId(), bench.head(school.student(), school.episodeId()).seq(), "client-undo-1", false);
        assertThat(Bench.takesIn(timeline())).containsExactly(take);
    }

    @Test
    void two_speakers_on_two_sides_become_two_tracks_in_step() throws IOException {
        float[] first = Signal.concat(Signal.sine(1, 300, -12, 3), Signal.silence(1, 3)).samples()[0];
        float[] second = Signal.concat(Signal.silence(1, 3), Signal.sine(1, 500, -12, 3)).samples()[0];
        long take = take(first, second);
        assertThat(takes.ready(school.episodeId()).get(take).noticed()).isEqualTo(Noticed.TWO_SPEAKERS);
        fixing.fix(school.student(), take, placed.startOf(school.student(), school.episodeId(), take).orElseThrow());
        Schools.await(() -> takes.ready(school.episodeId()).size() == 3);
        assertThat(timeline().tracks()).extracting(Track::name).containsExactly("Noor", "Noor 2");
        assertThat(timeline().tracks()).allSatisfy(track -> assertThat(track.clips()).singleElement().satisfies(clip -> assertThat(clip.startFrame()).isZero()));
        assertThat(Bench.takesIn(timeline())).doesNotContain(take);
    }

    @Test
    void a_take_that_is_not_on_the_page_is_mended_in_the_list_only() throws IOException {
        float[] first = Signal.concat(Signal.sine(1, 300, -12, 3), Signal.silence(1, 3)).samples()[0];
        float[] second = Signal.concat(Signal.silence(1, 3), Signal.sine(1, 500, -12, 3)).samples()[0];
        long take = take(first, second);
        bench.undo(school.student(), school.episodeId(), bench.head(school.student(), school.episodeId()).seq(), "client-undo-2", false);
        fixing.fix(school.student(), take, null);
        Schools.await(() -> takes.ready(school.episodeId()).size() == 3);
        assertThat(Bench.takesIn(timeline())).isEmpty();
    }

    @Test
    void where_nothing_is_odd_nothing_is_mended() throws IOException {
        long take = schools.readyTake(school, Schools.speech(), "Noor");
        assertThatThrownBy(() -> fixing.fix(school.student(), take, null)).hasMessage("take.NOTHING_TO_FIX");
    }

    @Test
    void tops_that_were_cut_off_are_drawn_anew_in_every_clip_of_the_take() throws IOException {
        float[] clipped = Signal.sine(1, 300, 6, 2).samples()[0];
        for (int i = 0; i < clipped.length; i++) {
            clipped[i] = Math.max(-1, Math.min(1, clipped[i]));
        }
        long take = schools.readyTake(school, Signal.of(Frames.RATE, clipped), "Noor");
        long clip = timeline().tracks().get(0).clips().get(0).id();
        bench.edit(school.student(), school.episodeId(), bench.head(school.student(), school.episodeId()).seq(), "client-split-1",
                new Split(Frames.RATE, Set.of(timeline().tracks().get(0).id())));
        fixing.fix(school.student(), take, null);
        Schools.await(() -> takes.ready(school.episodeId()).size() == 2);
        assertThat(Bench.takesIn(timeline())).doesNotContain(take).hasSize(1);
        assertThat(timeline().tracks().get(0).clips()).hasSize(2).first().extracting(Clip::id).isEqualTo(clip);
        float[][] heard = new float[1][Frames.RATE];
        try (RandomAccessSound sound = takes.open(Bench.takesIn(timeline()).iterator().next())) {
            sound.readAt(0, heard, 0, Frames.RATE);
        }
        float most = 0;
        for (float sample : heard[0]) {
            most = Math.max(most, sample);
        }
        assertThat(most).as("the tone was 6 dB over full scale").isBetween(1.8f, 2.2f);
    }

    @Test
    void a_much_too_quiet_take_says_by_how_much_it_should_be_louder() throws IOException {
        long quiet = schools.readyTake(school, Signal.sine(1, 300, -45, 4), "Noor");
        long good = schools.readyTake(school, Signal.sine(1, 300, -12, 4), "Noor");
        assertThat(takes.gainForQuiet(takes.ready(school.episodeId()).get(good))).isEmpty();
        double gain = takes.gainForQuiet(takes.ready(school.episodeId()).get(quiet)).orElseThrow();
        assertThat(gain).isEqualTo(24);
        placed.setTakeGain(school.student(), school.episodeId(), quiet, gain);
        placed.setTakeGain(school.student(), school.episodeId(), quiet, gain);
        assertThat(timeline().tracks().get(0).clips()).extracting(Clip::gainDb).containsExactly(24.0, 0.0);
    }
}
