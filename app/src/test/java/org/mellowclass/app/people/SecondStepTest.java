package org.mellowclass.app.people;

import static org.assertj.core.api.Assertions.assertThat;
import static org.hamcrest.Matchers.containsString;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.content;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.redirectedUrl;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.redirectedUrlPattern;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.status;

import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

import javax.crypto.spec.SecretKeySpec;

import com.eatthepath.otp.TimeBasedOneTimePasswordGenerator;
import jakarta.servlet.http.Cookie;
import org.apache.commons.codec.binary.Base32;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.Schools;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.test.web.servlet.MockMvc;

@AppTest
class SecondStepTest {

    /** The secret of RFC 6238, appendix B. */
    private static final String SECRET = new Base32().encodeToString("12345678901234567890".getBytes(StandardCharsets.US_ASCII));

    @Autowired
    private Schools schools;
    @Autowired
    private SecondStep.StepMapper steps;
    @Autowired
    private SignIn signIn;
    @Autowired
    private MockMvc mvc;
    private Schools.School school;

    @BeforeEach
    void build() {
        school = schools.build();
    }

    private SecondStep at(long seconds) {
        return new SecondStep(steps, Clock.fixed(Instant.ofEpochSecond(seconds), ZoneOffset.UTC));
    }

    /** The last six digits of the table there. */
    @ParameterizedTest
    @CsvSource({"59, 287082", "1111111109, 081804", "1111111111, 050471", "1234567890, 005924", "2000000000, 279037", "20000000000, 353130"})
    void codes_are_those_of_the_standard(long seconds, String code) {
        assertThat(at(seconds).set(school.teacher(), SECRET, code)).isPresent();
        assertThat(at(seconds).set(school.teacher(), SECRET, "000000")).isEmpty();
    }

    @Test
    void a_code_works_once_and_half_a_minute_early_or_late_but_no_more() {
        at(59).set(school.teacher(), SECRET, "287082");
        assertThat(at(59).passes(school.teacher(), "287082")).as("it has set it").isFalse();
        assertThat(at(1111111111 + 25).passes(school.teacher(), "050 471")).isTrue();
        assertThat(at(1111111111 + 25).passes(school.teacher(), "050471")).as("used").isFalse();
        assertThat(at(1234567890 + 90).passes(school.teacher(), "005924")).as("too late").isFalse();
    }

    @Test
    void a_password_alone_lets_nobody_in_any_more_and_the_key_turns_it_off() {
        String key = at(59).set(school.teacher(), SECRET, "287082").orElseThrow();
        assertThat(signIn.teacher(school.teacherEmail(), Schools.PASSWORD, "")).isInstanceOf(SignIn.Result.SecondStepToCome.class);
        assertThat(signIn.secondStep(school.teacher(), "0".repeat(32))).isInstanceOf(SignIn.Result.Wrong.class);
        assertThat(signIn.secondStep(school.teacher(), key)).isInstanceOf(SignIn.Result.Welcome.class);
        assertThat(signIn.teacher(school.teacherEmail(), Schools.PASSWORD, "")).isInstanceOf(SignIn.Result.Welcome.class);
    }

    @Test
    void codes_are_not_guessed_without_end() {
        at(59).set(school.teacher(), SECRET, "287082");
        for (int i = 0; i < 6; i++) {
            assertThat(signIn.secondStep(school.teacher(), "000000")).isInstanceOf(SignIn.Result.Wrong.class);
        }
        assertThat(signIn.secondStep(school.teacher(), "000000")).isInstanceOf(SignIn.Result.TooManyAttempts.class);
    }

    @Test
    void a_teacher_turns_it_on_and_comes_in_by_both_steps() throws Exception {
        Cookie session = signedIn();
        String page = mvc.perform(get("/account/second-step").cookie(session)).andExpect(status().isOk()).andReturn().getResponse().getContentAsString();
        String secret = found(page, "break-words\">([A-Z2-7 ]+)<").replace(" ", "");
        mvc.perform(post("/account/second-step").cookie(session).with(csrf()).param("code", "12")).andExpect(status().isUnprocessableEntity());
        String set = mvc.perform(post("/account/second-step").cookie(session).with(csrf()).param("code", code(secret))).andExpect(status().isOk())
                .andReturn().getResponse().getContentAsString();
        assertThat(set).contains("The second step is on");

        Cookie half = signedIn();
        mvc.perform(get("/account").cookie(half)).andExpect(redirectedUrlPattern("**/sign-in"));
        mvc.perform(get("/sign-in/code").cookie(half)).andExpect(status().isOk());
        mvc.perform(post("/sign-in/code").cookie(half).with(csrf()).param("code", "000000")).andExpect(content().string(containsString("That did not match")));
        Cookie in = mvc.perform(post("/sign-in/code").cookie(half).with(csrf()).param("code", found(set, "tabular-nums\">([0-9a-f ]+)<")))
                .andExpect(redirectedUrl("/")).andReturn().getResponse().getCookie("mellow");
        mvc.perform(get("/account").cookie(in)).andExpect(status().isOk());
        mvc.perform(get("/sign-in/code")).andExpect(redirectedUrl("/sign-in?as=teacher"));
    }

    private static String code(String secret) throws Exception {
        return new TimeBasedOneTimePasswordGenerator()
                .generateOneTimePasswordString(new SecretKeySpec(new Base32().decode(secret), "HmacSHA1"), Instant.now());
    }

    private static String found(String page, String pattern) {
        Matcher matcher = Pattern.compile(pattern).matcher(page);
        assertThat(matcher.find()).as(pattern).isTrue();
        return matcher.group(1);
    }

    private Cookie signedIn() throws Exception {
        return mvc.perform(post("/sign-in/teacher").with(csrf()).param("email", school.teacherEmail()).param("password", Schools.PASSWORD)).andReturn().getResponse().getCookie("mellow");
    }
}
