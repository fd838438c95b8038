package org.mellowclass.app.bench;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;
import static org.assertj.core.api.Assertions.within;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.status;

import java.io.IOException;
import java.nio.file.Files;
import java.util.List;
import java.util.Optional;
import java.util.Set;

import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mellowclass.app.people.Consent;
import org.mellowclass.app.people.Voices.Side;
import org.mellowclass.app.people.Voices.Speaker;
import org.mellowclass.app.people.Voices.Voice;
import org.mellowclass.app.people.Voices;
import org.mellowclass.app.sounds.Sound;
import org.mellowclass.app.sounds.TakeSounds;
import org.mellowclass.app.store.DerivedStore;
import org.mellowclass.app.takes.TakeShelf;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.As;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.core.measure.StereoFinder.Noticed;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.RandomAccessSound;
import org.mellowclass.core.sound.Sides;
import org.mellowclass.core.testing.Signal;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Source;
import org.mellowclass.core.timeline.TakeSource;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.timeline.edit.Split;
import org.mellowclass.core.treatment.ChooseSides;
import org.mellowclass.core.treatment.RedrawTops;
import org.mellowclass.core.treatment.Treatment;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.test.web.servlet.MockMvc;

@AppTest
class MendingTest {

    @Autowired
    private Mending mending;
    @Autowired
    private Voices voices;
    @Autowired
    private TakeShelf takes;
    @Autowired
    private JdbcClient jdbc;
    @Autowired
    private DerivedStore derived;
    @Autowired
    private MockMvc mvc;
    @Autowired
    private TakeSounds sounds;
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

    private void undo(String clientId) {
        bench.undo(school.student(), school.episodeId(), bench.head(school.student(), school.episodeId()).seq(), clientId, false);
    }

    private void mend(long take) {
        mending.mend(school.student(), school.episodeId(), take, Optional.empty(), Optional.empty());
    }

    private float most(Source source) throws IOException {
        Schools.await(() -> sounds.ofEpisode(school.episodeId()).stream().anyMatch(sound -> sound.treatment().equals(source.treatment()) && sound.made()));
        float[][] heard = new float[1][Frames.RATE];
        try (RandomAccessSound sound = sounds.open(source.takeId(), source.treatment())) {
            assertThat(sound.channels()).isEqualTo(1);
            sound.readAt(0, heard, 0, Frames.RATE);
        }
        float most = 0;
        for (float sample : heard[0]) {
            most = Math.max(most, Math.abs(sample));
        }
        return most;
    }

    @Test
    void a_silent_side_is_left_out_and_undo_brings_it_back() throws IOException {
        long take = take(tone(2), new float[2 * Frames.RATE]);
        assertThat(sounds.findings(take).orElseThrow().noticed()).isEqualTo(Noticed.RIGHT_SILENT);
        mend(take);
        mend(take);
        Clip mended = timeline().clipsOf(take).get(0);
        assertThat(mended.source()).isEqualTo(new TakeSource(take, Treatment.of(new ChooseSides(Sides.LEFT))));
        assertThat(most(mended.source())).isCloseTo(0.251f, within(0.002f));
        undo("client-undo-1");
        assertThat(timeline().clipsOf(take).get(0).source()).as("one press, one undo").isEqualTo(new TakeSource(take));
    }

    @Test
    void two_speakers_on_two_sides_are_one_take_on_two_tracks_in_step() throws IOException {
        long take = twoSpeakers();
        assertThat(sounds.findings(take).orElseThrow().noticed()).isEqualTo(Noticed.TWO_SPEAKERS);
        jdbc.sql("INSERT INTO take_voice (take_id, person_id) VALUES (?, ?)").params(take, school.student().id()).update();
        jdbc.sql("INSERT INTO take_voice (take_id, person_id) VALUES (?, ?)").params(take, school.partner().id()).update();
        mend(take);
        assertThat(timeline().tracks()).extracting(Track::name).containsExactly("Noor", "Tess");
        assertThat(timeline().clipsOf(take)).extracting(clip -> clip.source().treatment().step(ChooseSides.class).orElseThrow().sides(), Clip::startFrame)
                .containsExactly(tuple(Sides.LEFT, 0L), tuple(Sides.RIGHT, 0L));
        assertThat(takes.ready(school.episodeId())).as("what was said is still one take").hasSize(1);
        undo("client-undo-2");
        assertThat(timeline().tracks()).hasSize(1);
    }

    private long twoSpeakers() throws IOException {
        float[] first = Signal.concat(Signal.sine(1, 300, -12, 3), Signal.silence(1, 3)).samples()[0];
        float[] second = Signal.concat(Signal.silence(1, 3), Signal.sine(1, 500, -12, 3)).samples()[0];
        return take(first, second);
    }

    @Test
    void each_side_has_its_voice_and_the_other_track_its_name() throws IOException {
        long take = twoSpeakers();
        mending.mend(school.student(), school.episodeId(), take, Speaker.of("person-" + school.partner().id()), Speaker.of("person-" + school.student().id()));
        assertThat(voices.ofEpisode(school.episodeId()).get(take)).extracting(Voice::name, Voice::side)
                .containsExactly(tuple(school.partner().name(), Side.LEFT), tuple(school.student().name(), Side.RIGHT));
        assertThat(timeline().tracks()).extracting(Track::name).first().isEqualTo("Noor");
        assertThat(timeline().tracks().get(1).name()).startsWith(school.student().name());
    }

    @Test
    void a_side_is_not_given_to_somebody_of_another_crew_nor_both_to_one() throws IOException {
        long take = twoSpeakers();
        Optional<Speaker> own = Speaker.of("person-" + school.student().id());
        Optional<Speaker> partner = Speaker.of("person-" + school.partner().id());
        long guest = voices.addGuest(school.student(), school.episodeId(), "Mr Pellow", Consent.PUBLIC).get(0).id();
        assertThatThrownBy(() -> mending.mend(school.student(), school.episodeId(), take, partner, Speaker.of("guest-" + guest))).as("Noor, who was named, is left out")
                .hasMessage("take.TWO_VOICES");
        Optional<Speaker> stranger = Speaker.of("person-" + schools.build().student().id());
        for (Optional<Speaker> right : List.of(stranger, own, Speaker.of("guest-999999999"))) {
            assertThatThrownBy(() -> mending.mend(school.student(), school.episodeId(), take, own, right)).hasMessage("take.TWO_VOICES");
        }
        assertThat(voices.ofEpisode(school.episodeId()).get(take)).as("what was said before").extracting(Voice::side).containsOnlyNulls();
        assertThat(timeline().tracks()).as("nothing is done by halves").hasSize(1);
        assertThat(Speaker.of("person-" + "9".repeat(30))).isEmpty();
    }

    @Test
    void a_take_that_is_not_on_the_page_has_nothing_to_mend() throws IOException {
        long take = take(tone(2), new float[2 * Frames.RATE]);
        undo("client-undo-3");
        assertThatThrownBy(() -> mend(take)).hasMessage("take.NOTHING_TO_FIX");
    }

    @Test
    void where_nothing_is_odd_nothing_is_mended() throws IOException {
        long take = schools.readyTake(school, Schools.speech(), "Noor");
        assertThatThrownBy(() -> mend(take)).hasMessage("take.NOTHING_TO_FIX");
    }

    private long clippedTake() throws IOException {
        float[] clipped = Signal.sine(1, 300, 6, 2).samples()[0];
        for (int i = 0; i < clipped.length; i++) {
            clipped[i] = Math.max(-1, Math.min(1, clipped[i]));
        }
        return schools.readyTake(school, Signal.of(Frames.RATE, clipped), "Noor");
    }

    @Test
    void tops_that_were_cut_off_are_drawn_anew_in_every_clip_of_the_take() throws IOException {
        long take = clippedTake();
        long clip = timeline().tracks().get(0).clips().get(0).id();
        bench.edit(school.student(), school.episodeId(), bench.head(school.student(), school.episodeId()).seq(), "client-split-1",
                new Split(Frames.RATE, Set.of(timeline().tracks().get(0).id())));
        mend(take);
        assertThat(timeline().clipsOf(take)).hasSize(2).first().extracting(Clip::id).isEqualTo(clip);
        assertThat(timeline().clipsOf(take)).extracting(it -> it.source().treatment()).containsOnly(Treatment.of(new RedrawTops()));
        assertThat(most(timeline().clipsOf(take).get(0).source())).as("the tone was 6 dB over full scale").isBetween(1.8f, 2.2f);
    }

    @Test
    void sound_that_is_still_being_made_is_waited_for_and_a_lost_file_of_it_is_made_again() throws Exception {
        long take = clippedTake();
        mend(take);
        Source source = timeline().clipsOf(take).get(0).source();
        most(source);
        Sound made = sounds.ofEpisode(school.episodeId()).stream().filter(it -> it.treatment().equals(source.treatment())).findFirst().orElseThrow();
        Files.delete(derived.hold(made.soundKey()).file());
        long revision = bench.head(school.student(), school.episodeId()).seq();
        mvc.perform(get("/episodes/" + school.episodeId() + "/sound/" + revision + "/0_-1000/0-4800").with(As.person(school.student())))
                .andExpect(status().isAccepted());
        assertThat(most(source)).isBetween(1.8f, 2.2f);
        mvc.perform(get("/episodes/" + school.episodeId() + "/sound/" + revision + "/0_-1000/0-4800").with(As.person(school.student())))
                .andExpect(status().isOk());
    }

    @Test
    void a_much_too_quiet_take_says_by_how_much_it_should_be_louder() throws IOException {
        long quiet = schools.readyTake(school, Signal.sine(1, 300, -45, 4), "Noor");
        long good = schools.readyTake(school, Signal.sine(1, 300, -12, 4), "Noor");
        assertThat(sounds.gainForQuiet(takes.ready(school.episodeId()).get(good))).isEmpty();
        double gain = sounds.gainForQuiet(takes.ready(school.episodeId()).get(quiet)).orElseThrow();
        assertThat(gain).isEqualTo(24);
        placed.setTakeGain(school.student(), school.episodeId(), quiet, gain);
        placed.setTakeGain(school.student(), school.episodeId(), quiet, gain);
        assertThat(timeline().tracks().get(0).clips()).extracting(Clip::gainDb).containsExactly(24.0, 0.0);
    }
}
