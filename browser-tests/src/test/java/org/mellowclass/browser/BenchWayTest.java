package org.mellowclass.browser;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

import com.microsoft.playwright.Mouse;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.BoundingBox;

/** Finding the way on the bench: rows, edges, the log, keys. */
class BenchWayTest extends OnTheBench {

    @Test
    void only_rows_near_the_window_exist_at_any_zoom_and_the_way_back_to_the_sound_is_a_button() {
        Page page = bench();
        for (int i = 0; i < 8; i++) {
            page.keyboard().press("+");
            assertThat((Integer) page.evaluate("document.querySelectorAll('*').length")).isLessThan(12_000);
        }
        assertThat(page.locator("#row-length").innerText()).startsWith("0.05 s");
        assertThat(page.locator(".row").count()).as("of more than a thousand").isLessThan(30);
        assertAccessible(page);
        page.keyboard().press("0");
        for (int i = 0; i < 3; i++) {
            page.keyboard().press("+");
        }
        page.keyboard().press("Home");
        page.keyboard().press("Space");
        await(page, "document.getElementById('clock').textContent !== '0:00.0'");
        page.mouse().move(500, 400);
        page.mouse().wheel(0, 4000);
        page.locator("#back-to-sound").click();
        await(page, "document.getElementById('back-to-sound').hidden && window.scrollY < 2000");
        page.keyboard().press("Space");
        page.keyboard().press("End");
        await(page, "document.querySelector('.ribbon').getBoundingClientRect().top < window.innerHeight");
    }

    @Test
    void an_edge_of_the_selection_is_focused_moved_dragged_and_typed_and_the_ribbon_stays() {
        Page page = bench();
        select(page);
        page.locator(".edge-end").focus();
        page.keyboard().press("Shift+ArrowRight");
        page.keyboard().press("ArrowLeft");
        assertThat(page.locator("#card-span").innerText()).isEqualTo("Tess and Jonah · 0:02.00 to 0:02.59 · 0.59 s");
        assertThat(page.locator("#clock").innerText()).as("the ribbon").isEqualTo("0:02.5");
        page.getByLabel("Seconds", new Page.GetByLabelOptions().setExact(true)).fill("1.5");
        page.keyboard().press("Enter");
        assertThat(page.locator("#card-span").innerText()).isEqualTo("Tess and Jonah · 0:02.00 to 0:03.50 · 1.50 s");
        BoundingBox edge = page.locator(".edge-start").boundingBox();
        page.mouse().move(edge.x + edge.width / 2, edge.y + 60);
        page.mouse().down();
        page.mouse().move(edge.x + edge.width / 2 - 40, edge.y + 60, new Mouse.MoveOptions().setSteps(4));
        page.mouse().up();
        assertThat(page.locator("#card-span").innerText()).startsWith("Tess and Jonah · 0:0").endsWith("s").doesNotContain("0:02.00 to").contains("to 0:03.50");
        assertThat((String) page.evaluate("document.activeElement.dataset.edge")).isEqualTo("start");
        assertAccessible(page);
    }

    @Test
    void the_magnifier_shows_what_is_selected_as_one_strip_in_which_its_edges_and_grips_work() {
        Page page = bench();
        select(page);
        page.keyboard().press("z");
        assertThat(page.locator("#magnifier-span").innerText()).isEqualTo("0:01.95 to 0:02.55");
        assertThat(page.locator("#magnified .row").count()).isOne();
        page.locator("#magnified canvas").first().waitFor();
        assertAccessible(page);
        page.locator("#magnified .edge-end").focus();
        page.keyboard().press("Shift+ArrowLeft");
        assertThat(page.locator("#card-end").inputValue()).isEqualTo("0:02.40");
        BoundingBox lane = page.locator("#magnified .lane").first().boundingBox();
        page.mouse().move(lane.x + lane.width / 6, lane.y + lane.height / 2);
        page.mouse().down();
        page.mouse().move(lane.x + lane.width / 2, lane.y + lane.height / 2);
        page.mouse().up();
        assertThat(page.locator("#card-length").inputValue()).as("a third of 0.6 s").isEqualTo("0.20");
        page.locator("#page").focus();
        page.keyboard().press("z");
        assertThat(page.locator("#magnifier").isHidden()).isTrue();
    }

    @Test
    void the_log_names_versions_and_goes_back_and_a_key_can_be_changed() {
        Page page = bench();
        String episode = episodeOf(page);
        String length = page.locator("#length").innerText();
        select(page);
        page.keyboard().press("4");
        page.getByText("Removed 0.50 s.").waitFor();
        page.getByText("Log", new Page.GetByTextOptions().setExact(true)).click();
        page.locator("#log-list li").nth(1).getByText("Name it").click();
        page.locator("#asking-name").fill("before the cut");
        assertAccessible(page);
        page.keyboard().press("Enter");
        page.locator("#log-list .marked").getByText("before the cut").waitFor();
        assertAccessible(page);
        page.locator("#log-list li").nth(1).getByText("Go back to it").click();
        page.getByText("It is as it was: before the cut.").waitFor();
        assertThat(page.locator("#length").innerText()).isEqualTo(length);
        page.locator("#page").focus();
        page.keyboard().press("?");
        page.getByLabel("Find a key").fill("flag");
        page.getByLabel("Another key for: name this moment with a flag").click();
        page.keyboard().press("4");
        page.getByText("That key does something already").waitFor();
        page.getByLabel("Another key for: name this moment with a flag").click();
        page.keyboard().press("x");
        page.getByText("It is X now, for you.").waitFor();
        page.keyboard().press("Escape");
        page.locator("#page").focus();
        page.keyboard().press("x");
        page.getByLabel("For example: bells start").waitFor();
        page.keyboard().press("Escape");
        assertThat(timeline(page, episode).get("flags").getAsJsonArray()).isEmpty();
    }

    @Test
    void a_quiet_second_voice_is_evened_out_once_it_has_been_heard() {
        Page page = bench();
        String episode = episodeOf(page);
        page.getByText("Tracks", new Page.GetByTextOptions().setExact(true)).click();
        page.locator(".voice-bar").nth(1).waitFor();
        assertThat(page.locator(".voice-bar").allInnerTexts()).hasSize(2).anySatisfy(said -> assertThat(said).contains("Jonah").contains("+"));
        assertAccessible(page);
        page.locator("#even-out").click();
        page.locator("#offer").waitFor();
        assertThat(page.locator("#offer-words").innerText()).contains("Jonah: +");
        assertAccessible(page);
        page.locator("#offer-hear").click();
        await(page, "document.getElementById('gauge-word').textContent !== 'silent'");
        long before = timeline(page, episode).get("revision").getAsLong();
        page.locator("#offer-keep").click();
        page.getByText("The voices are even.").waitFor();
        assertThat(timeline(page, episode).get("revision").getAsLong()).isEqualTo(before + 1);
        page.locator("#page").focus();
        page.keyboard().press("Control+z");
        page.waitForCondition(() -> timeline(page, episode).get("revision").getAsLong() == before + 2);
        page.getByText("Pauses", new Page.GetByTextOptions().setExact(true)).click();
        page.locator("#pauses-list li").first().waitFor();
        assertAccessible(page);
        page.getByText("Takes", new Page.GetByTextOptions().setExact(true)).click();
        page.locator("#takes-list li").first().waitFor();
        assertAccessible(page);
        page.locator("#open-export").click();
        page.locator("#export-formats a").first().waitFor();
        assertThat(page.locator("#export-formats").innerText()).contains("about");
        assertAccessible(page);
    }
}
