package org.mellowclass.browser;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;

/** A teacher marks a demo hand-in by its rubric: what points mean, where that is heard, and a lid that is closed in between. */
class MarksWayTest extends BrowserTest {

    @Test
    void marks_that_are_typed_outlive_a_reload_and_speak_of_places() {
        Page teacher = page();
        signInAsTeacher(teacher);
        teacher.navigate(address("/hand-ins/4"));
        waitForRows(teacher);
        teacher.locator("#page").focus();
        teacher.keyboard().press("Home");
        teacher.keyboard().press("1");
        for (int i = 0; i < 5; i++) {
            teacher.keyboard().press("Shift+ArrowRight");
        }
        teacher.keyboard().press("2");
        teacher.locator("#marks summary").first().click();
        teacher.getByLabel("Points for The story has a surprise").selectOption("4");
        assertThat(teacher.getByLabel("Points for The story has a surprise").locator("option:checked").innerText()).isEqualTo("4 · a small one");
        teacher.getByLabel("A sentence on: The story has a surprise").fill("The eels, at last.");
        teacher.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Add what is marked to the places for The story has a surprise")).click();
        Locator places = teacher.getByLabel("Places that speak for it: The story has a surprise");
        assertThat(places.inputValue()).isEqualTo("0:00.00 to 0:00.50");
        assertAccessible(teacher);

        assertThat((Boolean) teacher.evaluate("Object.keys(localStorage).some(key => key.startsWith('marks-'))")).isTrue();
        teacher.reload();
        waitForRows(teacher);
        teacher.locator("#marks summary").first().click();
        assertThat(teacher.getByLabel("A sentence on: The story has a surprise").inputValue()).isEqualTo("The eels, at last.");
        assertThat(places.inputValue()).isEqualTo("0:00.00 to 0:00.50");
        teacher.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Keep as a draft")).click();
        teacher.getByText("Marks, a draft").waitFor();
        assertThat((Boolean) teacher.evaluate("Object.keys(localStorage).some(key => key.startsWith('marks-'))")).as("the server has it").isFalse();
        teacher.locator("#marks summary").first().click();
        assertThat(teacher.getByLabel("Points for The story has a surprise").inputValue()).isEqualTo("4");
        teacher.navigate(address("/news"));
        teacher.getByText("Mudlark handed in").waitFor();
        assertAccessible(teacher);
    }
}
