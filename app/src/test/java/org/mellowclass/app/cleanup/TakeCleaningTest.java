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
import org.mellowclass.app.bench.Head;
import org.mellowclass.app.sounds.HeardSounds;
import org.mellowclass.app.takes.Take;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.As;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.core.cleanup.Recipe;
import org.mellowclass.core.cleanup.RecipeText;
import org.mellowclass.core.cleanup.StarterRecipe;
import org.mellowclass.core.cleanup.StepKind;
import org.mellowclass.core.measure.LoudnessMeter;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.WavReader;
import org.mellowclass.core.testing.Signal;
import org.mellowclass.core.testing.SungVoice;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.treatment.CleanUp;
import org.mellowclass.core.treatment.Treatment;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.test.web.servlet.MockMvc;

@AppTest
class TakeCleaningTest {

    @TempDir
    private Path folder;
    @Autowired
    private TakeCleaning cleaning;
    @Autowired
    private ClassRecipes classRecipes;
    @Autowired
    private Bench bench;
    @Autowired
    private JdbcClient database;
    @Autowired
    private Schools schools;
    @Autowired
    private MockMvc mvc;
    private Schools.School school;
    private long takeId;
    private static final String NOISY = RecipeText.of(StarterRecipe.NOISY_CLASSROOM.recipe());

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
        CleanUp cleanUp = new CleanUp(recipe, null);
        Schools.await(() -> cleaning.compared(take(), cleanUp).isPresent());
        return cleaning.compared(take(), cleanUp).orElseThrow();
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
        mvc.perform(post("/takes/" + takeId + "/cleanup").with(As.person(school.student())).with(csrf()).param("steps", NOISY))
                .andExpect(redirectedUrl("/takes/" + takeId + "/cleanup"));
        assertThat(clip().source().treatment().step(CleanUp.class).orElseThrow().recipe()).isEqualTo(StarterRecipe.NOISY_CLASSROOM.recipe());
        assertThat(cleaning.now(take())).contains(new CleanUp(StarterRecipe.NOISY_CLASSROOM.recipe(), null));
        cleaning.keep(school.student(), takeId, new CleanUp(StarterRecipe.QUIET_ROOM.recipe(), null), TakeCleaning.Scope.TAKE);
        assertThat(cleaning.now(take())).as("instead of the other, never on top of it").contains(new CleanUp(StarterRecipe.QUIET_ROOM.recipe(), null));
        assertThat(clip().source().treatment().steps()).hasSize(1);
        cleaning.keep(school.student(), takeId, new CleanUp(Recipe.of(), null), TakeCleaning.Scope.TAKE);
        assertThat(clip().source().treatment()).isEqualTo(Treatment.NONE);
    }

    @Test
    void before_without_what_was_removed_is_what_is_heard_after() throws Exception {
        compared(StarterRecipe.NOISY_CLASSROOM.recipe());
        float[] before = heard("/cleanup/before");
        float[] after = heard("/cleanup/after?steps=" + NOISY);
        float[] removed = heard("/cleanup/removed?steps=" + NOISY);
        assertThat(removed).hasSameSizeAs(before);
        for (int i = 0; i < before.length; i++) {
            assertThat(before[i] - removed[i]).isCloseTo(after[i], within(2f / 32768));
        }
    }

    @Test
    void a_part_of_what_was_removed_is_that_part() throws Exception {
        compared(StarterRecipe.NOISY_CLASSROOM.recipe());
        String address = "/takes/" + takeId + "/cleanup/removed?steps=" + NOISY;
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
        String page = mvc.perform(get("/takes/" + takeId + "/cleanup?steps=" + RecipeText.of(StarterRecipe.PHONE_CORRIDOR.recipe())).with(As.person(school.student()))).andExpect(status().isOk())
                .andReturn().getResponse().getContentAsString();
        assertThat(page).contains("Phone in a corridor", "Noise down by", "The room goes down by 12 dB", "The room lies under the voice by", "Keep it").doesNotContain("Back to the original");
        mvc.perform(get("/takes/" + takeId + "/cleanup/figures?steps=no-such-step").with(As.person(school.student()))).andExpect(status().isUnprocessableEntity());
    }

    private String page(String query) throws Exception {
        return mvc.perform(get("/takes/" + takeId + "/cleanup" + query).with(As.person(school.student()))).andExpect(status().isOk()).andReturn().getResponse().getContentAsString();
    }

    /** Some seconds are made at once, and sound as the whole does; they are equally loud. */
    @Test
    void some_seconds_are_heard_before_the_whole_is_made() throws Exception {
        String low = "low-cut:100;noise-down:12";
        float[] after = heard("/cleanup/window/AFTER?from=48000&steps=" + low);
        float[] before = heard("/cleanup/window/BEFORE?from=48000&steps=" + low);
        float[] removed = heard("/cleanup/window/REMOVED?from=48000&steps=" + low);
        assertThat(after).hasSize((int) TrialHearing.WINDOW_FRAMES).hasSameSizeAs(before).hasSameSizeAs(removed);
        assertThat(lufs(after)).isCloseTo(lufs(before), within(0.1));
        compared(RecipeText.recipe(low));
        float[] whole = heard("/cleanup/after?steps=" + low);
        double gain = Math.pow(10, (lufs(after) - lufs(Arrays.copyOfRange(whole, Frames.RATE, Frames.RATE + after.length))) / 20);
        for (int i = 0; i < after.length; i++) {
            assertThat(after[i]).isCloseTo((float) (gain * whole[i + Frames.RATE]), within(3f / 32768));
        }
    }

    private static double lufs(float[] samples) {
        LoudnessMeter meter = new LoudnessMeter(1);
        meter.accept(new float[][] {samples}, samples.length);
        return meter.integrated().orElseThrow();
    }

    @Test
    void what_could_not_be_made_is_said_and_made_when_it_is_tried_again() throws Exception {
        compared(StarterRecipe.NOISY_CLASSROOM.recipe());
        database.sql("UPDATE sound SET failed = TRUE, sound_key = NULL, skyline_key = NULL, channels = NULL, harm = NULL WHERE take_id = ? AND treatment_key <> 'as-it-is'").param(takeId).update();
        for (int twice = 0; twice < 2; twice++) {
            assertThat(page("/figures?steps=" + NOISY)).as("it stays so by itself").contains("This could not be made.", "evenSo=true").doesNotContain("hx-trigger");
        }
        assertThat(page("/figures?evenSo=true&steps=" + NOISY)).doesNotContain("This could not be made.");
        compared(StarterRecipe.NOISY_CLASSROOM.recipe());
        assertThat(page("/figures?steps=" + NOISY)).contains("The room lies under the voice by");
    }

    @Test
    void what_cannot_be_done_is_said_and_nothing_is_kept() throws Exception {
        assertThat(page("?steps=ceiling:-1;loudness:-16")).contains("The ceiling must come last").doesNotContain("Keep it</button>");
        assertThat(page("?steps=noise-down:99")).contains("A number is out of its range");
        assertThat(page("?steps=noise-down:12&roomFrom=0:00.2&roomTo=0:00.9")).contains("Somebody speaks there");
        assertThat(page("?steps=noise-down:12&roomFrom=0:01.7&roomTo=0:02.4")).doesNotContain("role=\"alert\"").contains("The room goes down by 12 dB");
        mvc.perform(post("/takes/" + takeId + "/cleanup").with(As.person(school.student())).with(csrf()).param("steps", "noise-down:12").param("roomFrom", "0:00.2").param("roomTo", "0:00.9"))
                .andExpect(status().isUnprocessableEntity());
        assertThat(clip().source().treatment()).isEqualTo(Treatment.NONE);
    }

    @Test
    void one_press_cleans_all_voices_and_what_is_laid_again_follows() throws Exception {
        long ravi = schools.readyTake(school, sungInARoom(), "Ravi");
        cleaning.keep(school.student(), takeId, new CleanUp(Recipe.of(StepKind.LOW_CUT.usual()), null), TakeCleaning.Scope.TRACK);
        assertThat(bench.head(school.student(), school.episodeId()).timeline().clipsOf(ravi).get(0).source().treatment()).isEqualTo(Treatment.NONE);
        CleanUp all = new CleanUp(StarterRecipe.QUIET_ROOM.recipe(), null);
        cleaning.keep(school.student(), takeId, all, TakeCleaning.Scope.VOICES);
        Head head = bench.layTake(school.student(), school.episodeId(), bench.head(school.student(), school.episodeId()).seq(), "lay-it-again", ravi, "Ravi", null);
        assertThat(head.timeline().clipsOf(ravi)).hasSize(2).allSatisfy(clip -> assertThat(clip.source().treatment()).isEqualTo(Treatment.of(all)));
        assertThat(clip().source().treatment()).isEqualTo(Treatment.of(all));
    }

    @Test
    void a_teacher_offers_a_recipe_to_every_crew_and_takes_it_away_again() throws Exception {
        String address = "/takes/" + takeId + "/cleanup/class-recipes";
        mvc.perform(post(address).with(As.person(school.student())).with(csrf()).param("steps", "low-cut:90").param("name", "Ours").param("advice", "Always.")).andExpect(status().isNotFound());
        mvc.perform(post(address).with(As.person(school.teacher())).with(csrf()).param("steps", "low-cut:90").param("name", "Our hall").param("advice", "For the hall."))
                .andExpect(status().is3xxRedirection());
        assertThat(page("")).contains("Our hall", "For the hall.", "low-cut:90");
        mvc.perform(post(address).with(As.person(school.teacher())).with(csrf()).param("steps", "-low-cut:90").param("name", "Nothing").param("advice", "Never.")).andExpect(status().isUnprocessableEntity());
        long id = classRecipes.ofClass(school.classId()).get(0).id();
        mvc.perform(post(address + "/" + id + "/away").with(As.person(schools.build().teacher())).with(csrf())).andExpect(status().isNotFound());
        mvc.perform(post(address + "/" + id + "/away").with(As.person(school.teacher())).with(csrf())).andExpect(status().is3xxRedirection());
        assertThat(page("")).doesNotContain("Our hall");
    }

    @Test
    void only_the_crew_keeps_and_nobody_else_hears() {
        Schools.School others = schools.build();
        assertThatThrownBy(() -> cleaning.take(others.student(), takeId)).isInstanceOf(NotFound.class);
        assertThatThrownBy(() -> cleaning.keep(school.teacher(), takeId, new CleanUp(StarterRecipe.QUIET_ROOM.recipe(), null), TakeCleaning.Scope.TAKE)).isInstanceOf(NotFound.class);
    }
}
