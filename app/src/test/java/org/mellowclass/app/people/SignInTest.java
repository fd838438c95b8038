package org.mellowclass.app.people;

import static org.assertj.core.api.Assertions.assertThat;
import static org.hamcrest.Matchers.containsString;
import static org.hamcrest.Matchers.startsWith;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.content;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.header;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.redirectedUrl;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.status;

import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.List;

import jakarta.servlet.http.Cookie;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.mellowclass.app.roster.Roster;
import org.mellowclass.app.store.RandomKey;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.As;
import org.mellowclass.app.testing.Schools;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.session.FindByIndexNameSessionRepository;
import org.springframework.session.Session;
import org.springframework.test.web.servlet.MockMvc;
import org.springframework.test.web.servlet.MvcResult;

@AppTest
class SignInTest {

    private static final String NO_LAPTOP = null;

    @Autowired
    private Schools schools;
    @Autowired
    private SignIn signIn;
    @Autowired
    private Roster roster;
    @Autowired
    private MockMvc mvc;
    @Autowired
    private JdbcClient jdbc;
    @Autowired
    private FindByIndexNameSessionRepository<? extends Session> sessions;
    private Schools.School school;

    @BeforeEach
    void build() {
        school = schools.build();
    }

    /** What keyboards, telephones and word processors make of an apostrophe, a hyphen and a space. */
    @ParameterizedTest
    @ValueSource(strings = {"Maeve O'Brien-Quill", "Maeve O\u2019Brien-Quill", "Maeve O\u2018Brien\u2010Quill", "Maeve O`Brien\u2011Quill", "maeve o\u02BCbrien\u2013quill", "Maeve\u00A0O\u00B4Brien\u2212Quill",
        "Maeve \u2009O\u2032Brien\u2014Quill", " M\u00E1eve  O\uFF07Brien-Quill\u200B"})
    void a_name_is_found_however_it_was_typed(String typed) {
        for (String stored : List.of("Maeve O'Brien-Quill", "Maeve O\u2019Brien\u2011Quill")) {
            jdbc.sql("UPDATE person SET name = ? WHERE id = ?").params(stored, school.student().id()).update();
            assertThat(signIn.student(school.classCode(), typed, Schools.PASSPHRASE.replace(" ", "\u2011"), NO_LAPTOP)).as("%s for %s", typed, stored).isInstanceOf(SignIn.Result.Welcome.class);
        }
        assertThat(signIn.student(school.classCode(), "Maeve OBrien-Quill", Schools.PASSPHRASE, NO_LAPTOP)).isInstanceOf(SignIn.Result.Wrong.class);
    }

    @Test
    void a_teacher_comes_in_by_email_and_password_and_lands_on_the_class_board() throws Exception {
        MvcResult result = mvc.perform(post("/sign-in/teacher").with(csrf())
                        .param("email", school.teacherEmail().toUpperCase()).param("password", Schools.PASSWORD))
                .andExpect(redirectedUrl("/")).andReturn();
        Cookie session = result.getResponse().getCookie("mellow");
        assertThat(session.isHttpOnly()).isTrue();
        mvc.perform(get("/").cookie(session)).andExpect(redirectedUrl("/classes/" + school.classId()));
        assertThat(jdbc.sql("SELECT count(*) FROM SPRING_SESSION WHERE PRINCIPAL_NAME = ?")
                .param(Long.toString(school.teacher().id())).query(Integer.class).single()).isEqualTo(1);
    }

    @Test
    void two_requests_that_write_one_session_at_once_both_succeed() {
        assertBothSaved(sessions);
    }

    private static <S extends Session> void assertBothSaved(FindByIndexNameSessionRepository<S> sessions) {
        S created = sessions.createSession();
        sessions.save(created);
        S first = sessions.findById(created.getId());
        S second = sessions.findById(created.getId());
        first.setAttribute("place", "quay");
        second.setAttribute("place", "lock");
        sessions.save(first);
        sessions.save(second);
        assertThat(sessions.findById(created.getId()).<String>getAttribute("place")).isEqualTo("lock");
    }

    @Test
    void a_student_comes_in_by_class_code_name_and_passphrase_however_it_is_spaced() {
        assertWelcome(signIn.student(school.classCode().toLowerCase(), " Noor ", "Amber-Oar ", NO_LAPTOP), school.student());
        assertWelcome(signIn.student(school.classCode(), "Noor", "amber  oar", NO_LAPTOP), school.student());
    }

    @Test
    void a_wrong_secret_or_somebody_elses_class_is_refused_in_the_same_words() throws Exception {
        assertThat(signIn.student(school.classCode(), "Noor", "amber cup", NO_LAPTOP)).isInstanceOf(SignIn.Result.Wrong.class);
        assertThat(signIn.student(school.classCode(), "Isla", Schools.PASSPHRASE, NO_LAPTOP)).isInstanceOf(SignIn.Result.Wrong.class);
        assertThat(signIn.teacher("nobody@school.example", Schools.PASSWORD, NO_LAPTOP)).isInstanceOf(SignIn.Result.Wrong.class);
        mvc.perform(post("/sign-in/student").with(csrf()).param("code", school.classCode()).param("name", "Noor")
                        .param("passphrase", "wrong"))
                .andExpect(status().isOk()).andExpect(content().string(containsString("That did not match")));
    }

    @Test
    void guessing_is_stopped_for_one_account_and_for_nobody_else() {
        for (int i = 0; i < 6; i++) {
            assertThat(signIn.student(school.classCode(), "Noor", "guess " + i, NO_LAPTOP)).isInstanceOf(SignIn.Result.Wrong.class);
        }
        assertThat(signIn.student(school.classCode(), "Noor", Schools.PASSPHRASE, NO_LAPTOP))
                .isInstanceOf(SignIn.Result.TooManyAttempts.class);
        assertWelcome(signIn.student(school.classCode(), "Ravi", Schools.NEIGHBOURS_PASSPHRASE, NO_LAPTOP), school.neighbour());
    }

    @Test
    void another_spelling_of_a_name_is_no_other_account() {
        List<String> spellings = List.of("Noor", "nöor", "NOOR", "Nóór", "noor ", "Nooř");
        for (String spelling : spellings) {
            assertThat(signIn.student(school.classCode(), spelling, "guess", NO_LAPTOP)).isInstanceOf(SignIn.Result.Wrong.class);
        }
        for (String spelling : spellings) {
            assertThat(signIn.student(school.classCode(), spelling, Schools.PASSPHRASE, NO_LAPTOP)).as(spelling).isInstanceOf(SignIn.Result.TooManyAttempts.class);
        }
    }

    @Test
    void codes_and_e_mails_are_compared_exactly() {
        String accented = school.classCode().replaceFirst("T", "Ť");
        assertThat(signIn.student(accented, "Noor", Schools.PASSPHRASE, NO_LAPTOP)).isInstanceOf(SignIn.Result.Wrong.class);
        assertThat(signIn.teacher(school.teacherEmail().replace("teacher", "téacher"), Schools.PASSWORD, NO_LAPTOP)).isInstanceOf(SignIn.Result.Wrong.class);
    }

    @Test
    void a_laptop_that_she_knows_is_not_locked_out_by_others_and_a_teacher_unlocks_the_rest() {
        String laptop = RandomKey.next();
        assertWelcome(signIn.student(school.classCode(), "Noor", Schools.PASSPHRASE, laptop), school.student());
        for (int i = 0; i < 7; i++) {
            signIn.student(school.classCode(), "Noor", "guess " + i, RandomKey.next());
        }
        assertThat(signIn.student(school.classCode(), "Noor", Schools.PASSPHRASE, NO_LAPTOP)).isInstanceOf(SignIn.Result.TooManyAttempts.class);
        assertWelcome(signIn.student(school.classCode(), "Noor", Schools.PASSPHRASE, laptop), school.student());
        roster.unlock(school.teacher(), school.classId(), school.student().id());
        assertWelcome(signIn.student(school.classCode(), "Noor", Schools.PASSPHRASE, NO_LAPTOP), school.student());
        assertThat(jdbc.sql("SELECT count(*) FROM known_laptop WHERE laptop = ?").param(laptop).query(Integer.class).single()).as("only its hash is kept").isZero();
    }

    @Test
    void strangers_to_a_class_are_slowed_together_and_its_own_laptops_are_not() {
        String laptop = RandomKey.next();
        assertWelcome(signIn.student(school.classCode(), "Ravi", Schools.NEIGHBOURS_PASSPHRASE, laptop), school.neighbour());
        for (int i = 0; i < 90; i++) {
            signIn.student(school.classCode(), "Nobody " + i, "guess", RandomKey.next());
        }
        assertThat(signIn.student(school.classCode(), "Noor", Schools.PASSPHRASE, NO_LAPTOP)).isInstanceOf(SignIn.Result.TooManyAttempts.class);
        assertWelcome(signIn.student(school.classCode(), "Ravi", Schools.NEIGHBOURS_PASSPHRASE, laptop), school.neighbour());
    }

    @Test
    void megabytes_of_a_name_are_not_looked_at_and_not_sent_back() throws Exception {
        String large = "n".repeat(2_000_000);
        assertThat(signIn.student(large, large, large, large)).isInstanceOf(SignIn.Result.Wrong.class);
        MvcResult answer = mvc.perform(post("/sign-in/student").with(csrf()).param("code", large).param("name", large).param("passphrase", large)).andReturn();
        assertThat(answer.getResponse().getContentAsByteArray().length).isLessThan(100_000);
    }

    @Test
    void a_new_passphrase_and_leaving_the_class_sign_her_out_at_once() throws Exception {
        Cookie noor = signedIn("Noor");
        Cookie tess = signedIn("Tess");
        mvc.perform(get("/").cookie(noor)).andExpect(redirectedUrl("/episodes/" + school.episodeId() + "/bench"));
        roster.newPassphrases(school.teacher(), school.classId(), List.of(school.student().id()));
        mvc.perform(get("/").cookie(noor)).andExpect(redirectedUrl("http://localhost/sign-in"));
        mvc.perform(get("/").cookie(tess)).andExpect(redirectedUrl("/episodes/" + school.episodeId() + "/bench"));
        roster.leave(school.teacher(), school.classId(), school.partner().id());
        mvc.perform(get("/").cookie(tess)).andExpect(redirectedUrl("http://localhost/sign-in"));
    }

    @Test
    void a_session_ends_after_an_hour_without_use_and_after_a_school_day_however_busy() throws Exception {
        Cookie noor = signedIn("Noor");
        String id = new String(Base64.getDecoder().decode(noor.getValue()), StandardCharsets.US_ASCII);
        assertThat(jdbc.sql("SELECT MAX_INACTIVE_INTERVAL FROM SPRING_SESSION WHERE SESSION_ID = ?").param(id).query(Integer.class).single()).isEqualTo(3600);
        jdbc.sql("UPDATE SPRING_SESSION SET CREATION_TIME = CREATION_TIME - 11 * 3600 * 1000 WHERE SESSION_ID = ?").param(id).update();
        mvc.perform(get("/").cookie(noor)).andExpect(redirectedUrl("http://localhost/sign-in"));
        assertThat(jdbc.sql("SELECT count(*) FROM SPRING_SESSION WHERE SESSION_ID = ?").param(id).query(Integer.class).single()).isZero();
    }

    @Test
    void when_she_was_last_here_is_kept_to_the_minute() throws Exception {
        Cookie noor = signedIn("Noor");
        jdbc.sql("UPDATE SPRING_SESSION SET LAST_ACCESS_TIME = LAST_ACCESS_TIME - 1800000, EXPIRY_TIME = EXPIRY_TIME - 1800000").update();
        long before = System.currentTimeMillis();
        mvc.perform(get("/").cookie(noor)).andExpect(redirectedUrl("/episodes/" + school.episodeId() + "/bench"));
        long last = jdbc.sql("SELECT LAST_ACCESS_TIME FROM SPRING_SESSION WHERE PRINCIPAL_NAME = ?").param(school.student().id()).query(Long.class).single();
        assertThat(last % 60_000).isZero();
        assertThat(last).isBetween(before - 60_000, System.currentTimeMillis());
        assertThat(jdbc.sql("SELECT EXPIRY_TIME FROM SPRING_SESSION WHERE PRINCIPAL_NAME = ?").param(school.student().id()).query(Long.class).single())
                .isEqualTo(last + 3_600_000);
    }

    private Cookie signedIn(String name) throws Exception {
        return mvc.perform(post("/sign-in/student").with(csrf()).param("code", school.classCode()).param("name", name).param("passphrase", Schools.PASSPHRASE))
                .andReturn().getResponse().getCookie("mellow");
    }

    @Test
    void secrets_are_stored_as_salted_hashes_of_the_delegating_encoder() {
        assertThat(jdbc.sql("SELECT secret_hash FROM person WHERE id IN (?, ?)")
                .param(school.student().id()).param(school.neighbour().id()).query(String.class).list())
                .hasSize(2).doesNotHaveDuplicates().allMatch(hash -> hash.startsWith("{sha256-bcrypt}$2a$10$"));
    }

    @Test
    void without_the_token_of_its_own_page_no_form_is_taken() throws Exception {
        mvc.perform(post("/sign-in/teacher").param("email", school.teacherEmail()).param("password", Schools.PASSWORD))
                .andExpect(status().isForbidden());
    }

    @Test
    void pages_allow_only_their_own_scripts_and_styles() throws Exception {
        mvc.perform(get("/sign-in"))
                .andExpect(header().string("Content-Security-Policy", containsString("default-src 'none'; script-src 'self'")))
                .andExpect(header().string("Content-Security-Policy", containsString("frame-ancestors 'none'")))
                .andExpect(header().string("X-Content-Type-Options", "nosniff"))
                .andExpect(header().string("Referrer-Policy", "same-origin"));
    }

    @Test
    void a_script_without_a_session_is_told_so_and_a_person_is_sent_to_the_sign_in() throws Exception {
        mvc.perform(get("/episodes/1/takes").header("HX-Request", "true")).andExpect(status().isUnauthorized());
        mvc.perform(get("/episodes/1/timeline").header("X-Requested-With", "fetch")).andExpect(status().isUnauthorized());
        mvc.perform(get("/episodes/1/bench")).andExpect(redirectedUrl("http://localhost/sign-in"));
    }

    @Test
    void an_address_that_leads_nowhere_says_so_on_a_page() throws Exception {
        mvc.perform(get("/episodes/999999999/bench").with(As.person(school.student())).accept("text/html"))
                .andExpect(status().isNotFound()).andExpect(content().string(containsString("There is nothing here for you.")));
        for (String address : new String[] {"/episodes/abc/bench", "/nowhere", "/episodes/1/nowhere"}) {
            mvc.perform(get(address).with(As.person(school.student())).accept("text/html"))
                    .andExpect(status().isNotFound()).andExpect(content().string(startsWith("<!DOCTYPE html>")))
                    .andExpect(content().string(containsString("There is nothing here for you.")));
        }
    }

    @Test
    void signing_out_ends_the_session_and_clears_what_the_laptop_has_cached() throws Exception {
        mvc.perform(post("/sign-out").secure(true).with(csrf()).with(As.person(school.student()))).andExpect(redirectedUrl("/sign-in?left"))
                .andExpect(header().string("Clear-Site-Data", "\"cache\""));
    }

    private static void assertWelcome(SignIn.Result result, Person person) {
        assertThat(result).isEqualTo(new SignIn.Result.Welcome(person));
    }
}
