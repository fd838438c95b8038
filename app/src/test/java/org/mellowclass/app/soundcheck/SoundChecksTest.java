package org.mellowclass.app.soundcheck;

import static org.assertj.core.api.Assertions.assertThat;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.status;

import java.io.IOException;
import java.util.List;
import java.util.Optional;

import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mellowclass.app.bench.Bench;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.As;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.soundcheck.Reading;
import org.mellowclass.core.soundcheck.SoundCheck;
import org.mellowclass.core.soundcheck.Verdict;
import org.mellowclass.core.testing.Signal;
import org.mellowclass.core.testing.SungVoice;
import org.mellowclass.core.timeline.Clip;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.http.MediaType;
import org.springframework.test.web.servlet.MockMvc;
import org.springframework.test.web.servlet.ResultActions;

/** Noor sings, and Ravi sings sixteen times softer. */
@AppTest
class SoundChecksTest {

    @Autowired
    private SoundChecks checks;
    @Autowired
    private Bench bench;
    @Autowired
    private Schools schools;
    @Autowired
    private MockMvc mvc;
    private Schools.School school;
    private long noor;

    @BeforeEach
    void twoVoices() throws IOException {
        school = schools.build();
        noor = schools.readyTake(school, sung(0.4f), "Noor");
        schools.readyTake(school, sung(0.025f), "Ravi");
    }

    private static Signal sung(float amplitude) {
        float[] sound = SungVoice.of(4 * Frames.RATE);
        for (int i = 0; i < sound.length; i++) {
            sound[i] *= amplitude;
        }
        return Signal.of(Frames.RATE, sound);
    }

    private long head() {
        return bench.head(school.student(), school.episodeId()).seq();
    }

    private SoundCheck read() {
        Schools.await(() -> {
            schools.readPage(school.episodeId());
            return checks.newest(school.student(), school.episodeId()).filter(read -> read.revision() == head()).isPresent();
        });
        return checks.newest(school.student(), school.episodeId()).orElseThrow().check();
    }

    private Reading even() {
        return read().readings().stream().filter(reading -> reading.kind() == Reading.Kind.VOICES_EVEN).findFirst().orElseThrow();
    }

    private String panel() throws Exception {
        return mvc.perform(get("/episodes/" + school.episodeId() + "/sound-check").with(As.person(school.student()))).andExpect(status().isOk()).andReturn().getResponse().getContentAsString();
    }

    private ResultActions wish(String path, String body) throws Exception {
        return mvc.perform(post("/episodes/" + school.episodeId() + path).with(As.person(school.student())).with(csrf()).contentType(MediaType.APPLICATION_JSON).content(body));
    }

    @Test
    void the_check_follows_the_page_and_what_it_finds_is_mended_with_one_press_and_undone_with_one() throws Exception {
        assertThat(even().verdict()).isEqualTo(Verdict.FIX);
        assertThat(even().value()).isBetween(23.0, 25.0);
        assertThat(panel()).contains("data-fix=\"VOICES_EVEN\"", "Even out the voices", "Ravi").doesNotContain("Read before your last change");
        String fix = "{\"type\":\"fix\",\"kind\":\"VOICES_EVEN\"}";
        wish("/trials", "{\"base\":" + head() + ",\"edit\":" + fix + "}").andExpect(status().isOk());
        assertThat(even().verdict()).as("only heard").isEqualTo(Verdict.FIX);
        long before = head();
        wish("/edits", "{\"clientId\":\"mending-1\",\"base\":" + before + ",\"edit\":" + fix + "}").andExpect(status().isOk());
        assertThat(panel()).contains("Read before your last change").doesNotContain("data-fix");
        assertThat(even().verdict()).isEqualTo(Verdict.GOOD);
        bench.undo(school.student(), school.episodeId(), head(), "undo-1", false);
        assertThat(even().verdict()).as("as it was").isEqualTo(Verdict.FIX);
    }

    @Test
    void a_fix_is_for_the_page_that_was_read_also_where_somebody_has_gone_on_meanwhile() throws Exception {
        read();
        long base = head();
        bench.layTake(school.partner(), school.episodeId(), base, "again-01", noor, "Noor", null);
        wish("/edits", "{\"clientId\":\"mending-5\",\"base\":" + base + ",\"edit\":{\"type\":\"fix\",\"kind\":\"VOICES_EVEN\"}}").andExpect(status().isOk());
        List<Clip> clips = bench.head(school.student(), school.episodeId()).timeline().clipsOf(noor);
        assertThat(clips).as("what was laid meanwhile is left alone").hasSize(2);
        assertThat(clips.get(0).gainDb()).isNegative();
        assertThat(clips.get(1).gainDb()).isZero();
    }

    @Test
    void what_was_not_read_or_has_no_fix_is_refused_in_words() throws Exception {
        read();
        wish("/edits", "{\"clientId\":\"mending-2\",\"base\":" + (head() - 1) + ",\"edit\":{\"type\":\"fix\",\"kind\":\"VOICES_EVEN\"}}").andExpect(status().isConflict());
        wish("/edits", "{\"clientId\":\"mending-3\",\"base\":" + head() + ",\"edit\":{\"type\":\"fix\",\"kind\":\"LENGTH\"}}").andExpect(status().isUnprocessableEntity());
        wish("/edits", "{\"clientId\":\"mending-4\",\"base\":" + head() + ",\"edit\":{\"type\":\"fix\"}}").andExpect(status().isBadRequest());
    }

    @Test
    void an_empty_page_is_not_read() throws Exception {
        Schools.School other = schools.build();
        assertThat(checks.newest(other.student(), other.episodeId())).isEqualTo(Optional.empty());
        mvc.perform(get("/episodes/" + other.episodeId() + "/sound-check").with(As.person(other.student()))).andExpect(status().isOk());
    }
}
