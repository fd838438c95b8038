package org.mellowclass.app.cleanup;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.redirectedUrl;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.status;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.Arrays;
import java.util.Random;

import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mellowclass.app.bench.Bench;
import org.mellowclass.app.sounds.HeardSounds;
import org.mellowclass.app.takes.Take;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.As;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.core.cleanup.Recipe;
import org.mellowclass.core.cleanup.StarterRecipe;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.WavReader;
import org.mellowclass.core.testing.Signal;
import org.mellowclass.core.testing.SungVoice;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.treatment.CleanUp;
import org.mellowclass.core.treatment.Treatment;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.test.web.servlet.MockMvc;

@AppTest
class TakeCleaningTest {

    @TempDir
    private Path folder;
    @Autowired
    private TakeCleaning cleaning;
    @Autowired
    private Bench bench;
    @Autowired
    private Schools schools;
    @Autowired
    private MockMvc mvc;
    private Schools.School school;
    private long takeId;

    @BeforeEach
    void build() throws IOException {
        school = schools.build();
        takeId = schools.readyTake(school, sungInARoom(), "Noor");
    }

    /** Phrases of a second and a half with a second of noise between them. */
    private static Signal sungInARoom() {
        float[] sound = SungVoice.of(10 * Frames.RATE);
        Random random = new Random(3);
        for (int i = 0; i < sound.length; i++) {
            double within = (double) (i % (5 * Frames.RATE / 2)) / Frames.RATE;
            double phrase = within < 1.5 ? Math.min(1, Math.min(within, 1.5 - within) / 0.05) : 0;
            sound[i] = (float) (0.3 * phrase * sound[i] + 0.006 * random.nextGaussian());
        }
        return Signal.of(Frames.RATE, sound);
    }

    private Take take() {
        return cleaning.take(school.student(), takeId);
    }

    private HeardSounds.Compared compared(Recipe recipe) {
        Schools.await(() -> cleaning.compared(take(), recipe).isPresent());
        return cleaning.compared(take(), recipe).orElseThrow();
    }

    private Clip clip() {
        return bench.head(school.student(), school.episodeId()).timeline().clipsOf(takeId).get(0);
    }

    @Test
    void a_recipe_is_measured_against_the_take_before_it_is_kept() {
        HeardSounds.Compared compared = compared(StarterRecipe.NOISY_CLASSROOM.recipe());
        assertThat(compared.after().voiceToRoomLu().orElseThrow()).isGreaterThan(compared.before().voiceToRoomLu().orElseThrow() + 6);
        assertThat(compared.after().frames()).isEqualTo(compared.before().frames());
        assertThat(compared.harm().kinds()).isEmpty();
        assertThat(clip().source().treatment()).as("nothing is kept by trying").isEqualTo(Treatment.NONE);
    }

    @Test
    void what_is_kept_plays_wherever_the_take_plays_and_goes_back() throws Exception {
        mvc.perform(post("/takes/" + takeId + "/cleanup").with(As.person(school.student())).with(csrf()).param("recipe", "noisy-classroom"))
                .andExpect(redirectedUrl("/takes/" + takeId + "/cleanup?recipe=noisy-classroom"));
        assertThat(clip().source().treatment().step(CleanUp.class).orElseThrow().recipe()).isEqualTo(StarterRecipe.NOISY_CLASSROOM.recipe());
        assertThat(cleaning.now(take())).contains(StarterRecipe.NOISY_CLASSROOM.recipe());
        cleaning.keep(school.student(), takeId, StarterRecipe.QUIET_ROOM.recipe());
        assertThat(cleaning.now(take())).as("instead of the other, never on top of it").contains(StarterRecipe.QUIET_ROOM.recipe());
        assertThat(clip().source().treatment().steps()).hasSize(1);
        cleaning.keep(school.student(), takeId, Recipe.of());
        assertThat(clip().source().treatment()).isEqualTo(Treatment.NONE);
    }

    @Test
    void before_without_what_was_removed_is_what_is_heard_after() throws Exception {
        compared(StarterRecipe.NOISY_CLASSROOM.recipe());
        float[] before = heard("/cleanup/before");
        float[] after = heard("/cleanup/noisy-classroom/after");
        float[] removed = heard("/cleanup/noisy-classroom/removed");
        assertThat(removed).hasSameSizeAs(before);
        for (int i = 0; i < before.length; i++) {
            assertThat(before[i] - removed[i]).isCloseTo(after[i], within(2f / 32768));
        }
    }

    @Test
    void a_part_of_what_was_removed_is_that_part() throws Exception {
        compared(StarterRecipe.NOISY_CLASSROOM.recipe());
        String address = "/takes/" + takeId + "/cleanup/noisy-classroom/removed";
        byte[] whole = mvc.perform(get(address).with(As.person(school.student()))).andReturn().getResponse().getContentAsByteArray();
        byte[] part = mvc.perform(get(address).header("Range", "bytes=100001-100900").with(As.person(school.student())))
                .andExpect(status().isPartialContent()).andReturn().getResponse().getContentAsByteArray();
        assertThat(part).isEqualTo(Arrays.copyOfRange(whole, 100_001, 100_901));
    }

    private float[] heard(String path) throws Exception {
        byte[] wav = mvc.perform(get("/takes/" + takeId + path).with(As.person(school.student()))).andExpect(status().isOk()).andReturn().getResponse().getContentAsByteArray();
        Path file = folder.resolve("heard.wav");
        Files.copy(new ByteArrayInputStream(wav), file, StandardCopyOption.REPLACE_EXISTING);
        try (WavReader sound = WavReader.open(file)) {
            return Signal.read(sound).samples()[0];
        }
    }

    @Test
    void the_page_says_what_a_recipe_does_and_what_it_measured() throws Exception {
        compared(StarterRecipe.PHONE_CORRIDOR.recipe());
        String page = mvc.perform(get("/takes/" + takeId + "/cleanup?recipe=phone-corridor").with(As.person(school.student()))).andExpect(status().isOk())
                .andReturn().getResponse().getContentAsString();
        assertThat(page).contains("Phone in a corridor", "Noise down by", "12 dB", "The room lies under the voice by", "Keep it for this take").doesNotContain("Back to the original");
        mvc.perform(get("/takes/" + takeId + "/cleanup/no-such-recipe/trial").with(As.person(school.student()))).andExpect(status().isNotFound());
    }

    @Test
    void only_the_crew_keeps_and_nobody_else_hears() {
        Schools.School others = schools.build();
        assertThatThrownBy(() -> cleaning.take(others.student(), takeId)).isInstanceOf(NotFound.class);
        assertThatThrownBy(() -> cleaning.keep(school.teacher(), takeId, StarterRecipe.QUIET_ROOM.recipe())).isInstanceOf(NotFound.class);
    }
}
