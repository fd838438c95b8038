package org.mellowclass.app.people;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mellowclass.app.store.RandomKey;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.app.web.NotFound;
import org.springframework.beans.factory.annotation.Autowired;

@AppTest
class InvitationsTest {

    private static final String NO_LAPTOP = null;

    @Autowired
    private Invitations invitations;
    @Autowired
    private FirstStart firstStart;
    @Autowired
    private Access access;
    @Autowired
    private SignIn signIn;
    @Autowired
    private Schools schools;
    private Schools.School school;

    @BeforeEach
    void build() {
        school = schools.build();
    }

    @Test
    void an_invited_colleague_teaches_the_class_and_the_link_works_once() {
        String email = "reed-" + RandomKey.next() + "@school.example";
        String key = invitations.invite(school.teacher(), school.classId(), email);
        Person colleague = invitations.accept(key, "Mr Rush", Schools.PASSWORD);
        assertThat(access.taughtClass(colleague, school.classId()).id()).isEqualTo(school.classId());
        assertThat(signIn.teacher(email.toUpperCase(), Schools.PASSWORD, NO_LAPTOP)).isInstanceOf(SignIn.Result.Welcome.class);
        assertThatThrownBy(() -> invitations.accept(key, "Somebody else", Schools.PASSWORD)).isInstanceOf(NotFound.class);
    }

    @Test
    void a_password_that_is_too_short_uses_nothing_up() {
        String key = invitations.invite(school.teacher(), school.classId(), "short-" + RandomKey.next() + "@school.example");
        assertThatThrownBy(() -> invitations.accept(key, "Mr Rush", "short")).hasMessage("set-up.PASSWORD");
        assertThat(invitations.accept(key, "Mr Rush", Schools.PASSWORD)).isNotNull();
    }

    @Test
    void who_has_an_account_already_is_told_so() {
        String key = invitations.invite(school.teacher(), school.classId(), school.teacherEmail());
        assertThatThrownBy(() -> invitations.accept(key, "Ms Reed", Schools.PASSWORD)).hasMessage("set-up.EMAIL_TAKEN");
    }

    @Test
    void where_a_school_is_already_nobody_makes_the_first() {
        assertThat(firstStart.key()).isEmpty();
        assertThatThrownBy(() -> firstStart.check("")).isInstanceOf(NotFound.class);
    }
}
