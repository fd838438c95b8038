package org.mellowclass.app.account;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.hamcrest.Matchers.containsString;
import static org.hamcrest.Matchers.not;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.head;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.content;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.header;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.redirectedUrl;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.redirectedUrlPattern;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.status;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.List;

import jakarta.servlet.http.Cookie;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.mellowclass.app.outbox.Outbox;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.SchoolOffice;
import org.mellowclass.app.people.SignIn;
import org.mellowclass.app.takes.TakeShelf;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.As;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.app.testing.Schools.School;
import org.mellowclass.app.web.Refusal;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.test.web.servlet.MockMvc;
import org.springframework.test.web.servlet.request.RequestPostProcessor;

@AppTest
class AccountTest {

    private static final String NO_LAPTOP = "";
    private static final String NEW = "kettle harbour nine violins";

    @Autowired
    private Schools schools;
    @Autowired
    private SchoolOffice office;
    @Autowired
    private SignIn signIn;
    @Autowired
    private Outbox outbox;
    @Autowired
    private TakeShelf takes;
    @Autowired
    private MockMvc mvc;
    private School school;

    @BeforeEach
    void build() {
        school = schools.build();
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "short", "elevenlette", "password1234", "aaaaaaaaaaaaaaaa", "qwertyuiopas"})
    void a_password_that_is_short_or_soon_guessed_is_refused(String password) {
        assertThatThrownBy(() -> office.setPassword(school.teacher(), password)).isInstanceOf(Refusal.class).hasMessageStartingWith("set-up.PASSWORD");
    }

    @Test
    void every_letter_of_a_long_password_counts() {
        String eighty = "tide ".repeat(14) + "äöüßé gulls";
        assertThat(eighty.getBytes(StandardCharsets.UTF_8).length).isGreaterThan(80);
        office.setPassword(school.teacher(), eighty);
        assertThat(signIn.teacher(school.teacherEmail(), eighty, NO_LAPTOP)).isInstanceOf(SignIn.Result.Welcome.class);
        assertThat(signIn.teacher(school.teacherEmail(), eighty.substring(0, eighty.length() - 1) + "x", NO_LAPTOP)).isInstanceOf(SignIn.Result.Wrong.class);
    }

    @Test
    void a_forgotten_password_is_set_anew_by_a_link_that_works_once_and_ends_every_sign_in() throws Exception {
        Cookie open = signedIn();
        mvc.perform(post("/sign-in/forgotten").with(csrf()).param("email", "nobody@school.example")).andExpect(redirectedUrl("/sign-in/forgotten?sent=true"));
        assertThat(outbox.sentBy(school.teacher())).isEmpty();
        mvc.perform(post("/sign-in/forgotten").with(csrf()).param("email", school.teacherEmail())).andExpect(redirectedUrl("/sign-in/forgotten?sent=true"));
        List<String> lines = outbox.sentBy(school.teacher()).get(0).lines();
        String link = lines.get(lines.size() - 1).replaceAll("https?://[^/]+", "");
        mvc.perform(get(link)).andExpect(status().isOk()).andExpect(content().string(containsString("Ms Reed")));
        mvc.perform(post(link).with(csrf()).param("password", "short").header("Accept", "text/html")).andExpect(status().isUnprocessableEntity());
        mvc.perform(post(link).with(csrf()).param("password", NEW)).andExpect(redirectedUrl("/sign-in?as=teacher"));
        assertThat(signIn.teacher(school.teacherEmail(), NEW, NO_LAPTOP)).isInstanceOf(SignIn.Result.Welcome.class);
        mvc.perform(post(link).with(csrf()).param("password", NEW)).andExpect(status().isNotFound());
        mvc.perform(get("/account").cookie(open)).andExpect(redirectedUrlPattern("**/sign-in"));
    }

    @Test
    void links_for_a_password_are_few() throws Exception {
        for (int i = 0; i < 9; i++) {
            mvc.perform(post("/sign-in/forgotten").with(csrf()).param("email", school.teacherEmail()));
        }
        assertThat(outbox.sentBy(school.teacher())).hasSize(3);
    }

    @Test
    void whoever_changes_the_password_stays_signed_in_here_alone() throws Exception {
        Cookie here = signedIn();
        Cookie there = signedIn();
        mvc.perform(post("/account/password").cookie(here).with(csrf()).param("current", "wrong").param("password", NEW)).andExpect(status().isUnprocessableEntity());
        mvc.perform(get("/account").cookie(there)).andExpect(status().isOk()).andExpect(content().string(containsString("Sign out everywhere else")));
        mvc.perform(post("/account/password").cookie(here).with(csrf()).param("current", Schools.PASSWORD).param("password", NEW))
                .andExpect(redirectedUrl("/account?done=password"));
        mvc.perform(get("/account").cookie(here)).andExpect(status().isOk()).andExpect(content().string(not(containsString("Sign out everywhere else"))));
        mvc.perform(get("/account").cookie(there)).andExpect(redirectedUrlPattern("**/sign-in"));
        assertThat(outbox.sentBy(school.teacher())).as("whoever did not do it learns of it").singleElement().satisfies(mail -> {
            assertThat(mail.recipient()).isEqualTo(school.teacherEmail());
            assertThat(mail.subject()).isEqualTo("Your password was changed");
        });
    }

    @Test
    void the_lead_reads_who_has_asked_for_what_is_not_theirs_but_no_key_and_not_without_end() throws Exception {
        for (int i = 0; i < 40; i++) {
            mvc.perform(get("/episodes/" + school.otherEpisodeId() + "/bench").with(As.person(school.student()))).andExpect(status().isNotFound());
        }
        mvc.perform(head("/files/" + "ab".repeat(16)).with(As.person(school.partner()))).andExpect(status().isNotFound());
        String page = mvc.perform(get("/school").with(As.person(school.teacher()))).andReturn().getResponse().getContentAsString();
        assertThat(page).contains("asked for what is not theirs", "HEAD /files/…").doesNotContain("abab");
        assertThat(page.split("GET /episodes/" + school.otherEpisodeId() + "/bench", -1)).hasSizeBetween(30, 33);
    }

    @Test
    void an_old_sign_in_is_asked_for_the_password_before_a_take_is_erased_and_goes_on_with_it() throws Exception {
        long take = schools.readyTake(school, Schools.speech(), "Noor");
        RequestPostProcessor old = As.person(school.teacher(), Instant.now().minus(Duration.ofMinutes(31)));
        String erase = "/takes/" + take + "/erase";
        mvc.perform(post(erase).with(old).with(csrf())).andExpect(status().isOk()).andExpect(content().string(containsString("Is it still you?")));
        mvc.perform(post(erase).with(old).with(csrf()).param("passwordAgain", "not it")).andExpect(content().string(containsString("That is not your password")));
        assertThat(takes.ready(school.episodeId())).containsKey(take);
        mvc.perform(post(erase).with(old).with(csrf()).param("passwordAgain", Schools.PASSWORD)).andExpect(redirectedUrl("/classes/" + school.classId()));
        assertThat(takes.ready(school.episodeId())).doesNotContainKey(take);
    }

    @Test
    void what_was_typed_for_publishing_is_in_the_page_that_asks_and_cards_are_not_shown_before() throws Exception {
        RequestPostProcessor old = As.person(school.teacher(), Instant.now().minus(Duration.ofHours(2)));
        mvc.perform(post("/episodes/" + school.episodeId() + "/air").with(old).with(csrf()).param("title", "Eels <&>").param("description", "A story."))
                .andExpect(content().string(containsString("name=\"title\" value=\"Eels &lt;&amp;&gt;\""))).andExpect(content().string(containsString("A story.")));
        mvc.perform(post("/episodes/" + school.episodeId() + "/air").with(old).with(csrf()).header("X-Stays", "true").param("title", "Eels").param("description", "A story."))
                .andExpect(status().isPreconditionRequired());
        mvc.perform(get("/classes/" + school.classId() + "/cards").with(old)).andExpect(content().string(containsString("Is it still you?")));
        mvc.perform(get("/classes/" + school.classId() + "/cards").with(old).header("HX-Request", "true").header("HX-Current-URL", "https://evil.example//other.example/x"))
                .andExpect(header().string("HX-Redirect", "/again?next=/"));
        mvc.perform(post("/again").with(old).with(csrf()).param("passwordAgain", Schools.PASSWORD).param("next", "//other.example/")).andExpect(redirectedUrl("/"));
        mvc.perform(post("/again").with(old).with(csrf()).param("passwordAgain", Schools.PASSWORD).param("next", "/classes/1/cards")).andExpect(redirectedUrl("/classes/1/cards"));
    }

    @Test
    void a_teacher_takes_another_off_a_class_at_once_and_the_lead_reads_of_it() throws Exception {
        Person second = office.addTeacher(school.teacher().schoolId(), "Ms Rush", "second-" + school.teacherEmail(), Schools.PASSWORD);
        office.addTeacherToClass(school.classId(), second);
        mvc.perform(get("/classes/" + school.classId()).with(As.person(second))).andExpect(status().isOk());
        String off = "/classes/" + school.classId() + "/teachers/";
        mvc.perform(post(off + school.teacher().id() + "/take-off").with(As.person(school.teacher())).with(csrf())).andExpect(status().isConflict());
        mvc.perform(post(off + second.id() + "/take-off").with(As.person(school.teacher())).with(csrf())).andExpect(status().is3xxRedirection());
        mvc.perform(get("/classes/" + school.classId()).with(As.person(second))).andExpect(status().isNotFound());
        signIn.teacher(school.teacherEmail(), "guessed and wrong", NO_LAPTOP);
        mvc.perform(get("/school").with(As.person(school.teacher()))).andExpect(status().isOk())
                .andExpect(content().string(containsString("teacher taken off a class"))).andExpect(content().string(containsString("<td>class " + school.classId() + "</td>")))
                .andExpect(content().string(containsString("sign-in refused"))).andExpect(content().string(containsString("No copy has been made yet.")));
    }

    private Cookie signedIn() throws Exception {
        return mvc.perform(post("/sign-in/teacher").with(csrf()).param("email", school.teacherEmail()).param("password", Schools.PASSWORD)).andReturn().getResponse().getCookie("mellow");
    }
}
