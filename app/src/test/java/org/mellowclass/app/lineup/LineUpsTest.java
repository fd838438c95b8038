package org.mellowclass.app.lineup;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;

import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mellowclass.app.bench.Bench;
import org.mellowclass.app.sounds.TakeSounds;
import org.mellowclass.app.store.SoundStore;
import org.mellowclass.app.takes.TakeShelf;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.As;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.core.dsp.Resampler;
import org.mellowclass.core.measure.LineUp;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.RandomAccessSound;
import org.mellowclass.core.testing.Signal;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.treatment.CorrectClock;
import org.mellowclass.core.treatment.Treatment;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.test.web.servlet.MockMvc;

@AppTest
class LineUpsTest {

    private static final long LATER = 60_000;

    @Autowired
    private LineUps lineUps;
    @Autowired
    private TakeShelf takes;
    @Autowired
    private TakeSounds sounds;
    @Autowired
    private SoundStore store;
    @Autowired
    private Bench bench;
    @Autowired
    private Schools schools;
    @Autowired
    private MockMvc mvc;
    private Schools.School school;

    @BeforeEach
    void build() {
        school = schools.build();
    }

    private Timeline timeline() {
        return bench.head(school.student(), school.episodeId()).timeline();
    }

    private LinedUp measured(List<Long> takeIds) {
        lineUps.ask(school.student(), school.episodeId(), takeIds);
        Schools.await(() -> lineUps.ofEpisode(school.student(), school.episodeId()).stream().noneMatch(it -> it.state() == LinedUp.State.MEASURING));
        return lineUps.ofEpisode(school.student(), school.episodeId()).get(0);
    }

    private Clip clipOf(long takeId) {
        return timeline().tracks().stream().flatMap(track -> track.clips().stream()).filter(clip -> clip.source().takeId() == takeId).findFirst().orElseThrow();
    }

    /** What a second device hears of a sound that begins earlier, if its clock is slower by so many millionths. */
    private static Signal heardLater(Signal sound, double ppm) throws IOException {
        float[] all = sound.samples()[0];
        return Signal.read(Resampler.byClock(-ppm, Signal.of(Frames.RATE, Arrays.copyOfRange(all, (int) LATER, all.length)).stream()));
    }

    @Test
    void two_takes_of_one_conversation_are_laid_in_step_and_the_clock_of_the_second_is_corrected() throws Exception {
        Signal sound = Signal.noise(1, -12, 75, 1);
        long first = schools.readyTake(school, sound, "Noor");
        long second = schools.readyTake(school, heardLater(sound, 90), "Tess");
        LinedUp pair = measured(List.of(first, second));
        assertThat(pair.state()).isEqualTo(LinedUp.State.MATCHED);
        assertThat(pair.offsetFrames()).isCloseTo(LATER, within(48L));
        assertThat(pair.driftPpm()).isCloseTo(90, within(15.0));
        assertThat(pair.confidence()).isGreaterThan(0.9);
        String page = mvc.perform(get("/episodes/" + school.episodeId() + "/line-up").with(As.person(school.student()))).andReturn().getResponse().getContentAsString();
        assertThat(page).contains("starts 1.250 s after", "millionths apart", "100%, sure", "Lay them in step");

        lineUps.lay(school.student(), school.episodeId(), pair.id());
        assertThat(clipOf(second).startFrame()).isEqualTo(clipOf(first).startFrame() + pair.offsetFrames());
        Treatment corrected = Treatment.of(new CorrectClock(pair.driftPpm()));
        assertThat(clipOf(second).source().treatment()).as("its clock is corrected in the same edit").isEqualTo(corrected);
        Schools.await(() -> sounds.ofEpisode(school.episodeId()).stream().anyMatch(it -> it.treatment().equals(corrected) && it.made()));
        lineUps.lay(school.student(), school.episodeId(), pair.id());
        assertThat(timeline().clipsOf(second)).as("laid again, it stays as it is").hasSize(1);
        try (RandomAccessSound one = sounds.open(first, Treatment.NONE); RandomAccessSound other = sounds.open(second, corrected)) {
            LineUp.Result left = LineUp.of(one, other);
            assertThat(left.driftPpm().orElseThrow()).as("what is left of it").isCloseTo(0, within(15.0));
            assertThat(Math.round(left.offsetSeconds() * Frames.RATE)).isCloseTo(pair.offsetFrames(), within(48L));
        }
    }

    @Test
    void takes_that_have_nothing_in_common_are_refused_with_the_reason() throws Exception {
        long first = schools.readyTake(school, Signal.noise(1, -12, 8, 1), "Noor");
        long second = schools.readyTake(school, Signal.noise(1, -12, 8, 2), "Tess");
        LinedUp pair = measured(List.of(first, second));
        assertThat(pair.reason()).isEqualTo(LineUp.Reason.NOTHING_COMMON);
        assertThat(measured(List.of(first, schools.readyTake(school, Signal.noise(1, -12, 1, 2), "Tess"))).reason()).isEqualTo(LineUp.Reason.TOO_SHORT);
        assertThatThrownBy(() -> lineUps.lay(school.student(), school.episodeId(), pair.id())).isInstanceOf(RuntimeException.class);
        String page = mvc.perform(get("/episodes/" + school.episodeId() + "/line-up").with(As.person(school.teacher()))).andReturn().getResponse().getContentAsString();
        assertThat(page).contains("what is heard in one is not heard in the other", "shorter than four seconds").doesNotContain("Lay them in step");
    }

    @Test
    void a_comparison_that_could_not_be_made_says_so_and_can_be_asked_for_again() throws Exception {
        long first = schools.readyTake(school, Signal.noise(1, -12, 8, 1), "Noor");
        long second = schools.readyTake(school, Signal.noise(1, -12, 8, 2), "Tess");
        Path sound = store.hold(schools.sound(school, second).soundKey()).file();
        byte[] kept = Files.readAllBytes(sound);
        Files.delete(sound);
        assertThat(measured(List.of(first, second)).state()).isEqualTo(LinedUp.State.FAILED);
        String page = mvc.perform(get("/episodes/" + school.episodeId() + "/line-up").with(As.person(school.student()))).andReturn().getResponse().getContentAsString();
        assertThat(page).contains("could not be compared").doesNotContain("what is heard in one");
        Files.write(sound, kept);
        assertThat(measured(List.of(first, second)).reason()).isEqualTo(LineUp.Reason.NOTHING_COMMON);
    }

    @Test
    void fewer_than_two_or_another_crews_takes_are_not_compared() throws Exception {
        long first = schools.readyTake(school, Schools.speech(), "Noor");
        assertThatThrownBy(() -> lineUps.ask(school.student(), school.episodeId(), List.of(first))).hasMessage("lineup.CHOOSE_TWO");
        assertThatThrownBy(() -> lineUps.ask(school.student(), school.episodeId(), List.of(first, first))).hasMessage("lineup.CHOOSE_TWO");
        assertThatThrownBy(() -> lineUps.ask(school.student(), school.episodeId(), List.of(first, 999_999L))).hasMessage("lineup.CHOOSE_TWO");
    }
}
