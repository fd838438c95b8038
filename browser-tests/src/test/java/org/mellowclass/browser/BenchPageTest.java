package org.mellowclass.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Mouse;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.BoundingBox;
import org.junit.jupiter.api.Test;

/** Selecting, ticking tracks, zooming and keys on the bench. */
class BenchPageTest extends BrowserTest {

    @Test
    void a_selection_runs_across_rows_in_reading_order_and_is_said_in_words() {
        Page page = bench();
        BoundingBox first = page.locator(".row").nth(0).locator(".lane").first().boundingBox();
        BoundingBox second = page.locator(".row").nth(1).locator(".lane").first().boundingBox();
        page.mouse().move(first.x + first.width * 0.75, first.y + 20);
        page.mouse().down();
        page.mouse().move(second.x + second.width * 0.2, second.y + 20, new Mouse.MoveOptions().setSteps(6));
        page.mouse().up();
        assertThat(page.locator("#card-span").innerText()).matches("0:29\\.\\d\\d to 0:47\\.\\d\\d · 17\\.\\d\\d s");
        assertThat(page.locator(".lane-marker").count()).as("two rows of two tracks").isEqualTo(4);
        page.locator("#card-tracks").getByLabel("Jonah").uncheck();
        assertThat(page.locator(".lane-marker").count()).isEqualTo(2);
        page.locator("#card-tracks").getByLabel("Tess").uncheck();
        assertThat(page.locator("#remove").isDisabled()).isTrue();
        page.keyboard().press("Escape");
        assertThat(page.locator("#card").isVisible()).isFalse();
    }

    @Test
    void the_whole_way_of_a_removal_works_by_keyboard_alone() {
        Page page = bench();
        String length = page.locator("#length").innerText();
        page.locator("#page").focus();
        page.keyboard().press("Home");
        page.keyboard().press("1");
        for (int i = 0; i < 10; i++) {
            page.keyboard().press("Shift+ArrowRight");
        }
        assertThat(page.locator("#card-span").innerText()).startsWith("0:00.");
        page.keyboard().press("4");
        page.getByText("Undo brings it back.").waitFor();
        page.keyboard().press("Control+z");
        await(page, "!document.getElementById('redo').disabled");
        assertThat(page.locator("#length").innerText()).isEqualTo(length);
    }

    @Test
    void coming_closer_makes_more_rows_and_zero_shows_the_whole_in_one() {
        Page page = bench();
        int rows = page.locator(".row").count();
        page.keyboard().press("+");
        assertThat(page.locator(".row").count()).isGreaterThan(rows);
        page.keyboard().press("0");
        assertThat(page.locator(".row").count()).isEqualTo(1);
        assertThat(page.locator("#row-length").innerText()).contains("whole");
    }

    @Test
    void a_question_mark_shows_the_keys_and_they_do_nothing_behind_it() {
        Page page = bench();
        page.locator("#page").focus();
        page.keyboard().press("?");
        page.getByText("Keys of the bench").waitFor();
        assertAccessible(page);
        page.keyboard().press("1");
        page.keyboard().press("Escape");
        assertThat(page.locator("#keys").isVisible()).isFalse();
        assertThat(page.locator("#card").isVisible()).isFalse();
    }

    @Test
    void two_browsers_at_once_lose_nothing_and_are_told() {
        Page one = bench();
        Page two = bench();
        removeStart(one);
        one.getByText("Undo brings it back.").waitFor();
        removeStart(two);
        two.getByText("Somebody changed the episode meanwhile. It is shown as it is now.").waitFor();
        String length = one.locator("#length").innerText();
        two.waitForCondition(() -> two.locator("#length").innerText().equals(length));
        one.keyboard().press("Control+z");
        await(one, "!document.getElementById('redo').disabled");
    }

    private static void removeStart(Page page) {
        page.locator("#page").focus();
        page.keyboard().press("Home");
        page.keyboard().press("1");
        page.keyboard().press("4");
    }

    private Page bench() {
        Page page = page();
        signInAsStudent(page, "Jonah", "salt rope");
        waitForRows(page);
        return page;
    }
}
