package org.mellowclass.browser;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;

import org.junit.jupiter.api.Test;

import com.google.gson.JsonObject;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.WaitForSelectorState;

/** What the sound check finds, and a crew that finds a hum in its take, hears what cleaning does, keeps it, and goes back. */
class CleanupWayTest extends BrowserTest {

    @Test
    void a_hum_is_found_taken_out_kept_and_brought_back() {
        Page page = page();
        signInAsStudent(page, "Otis", "long shore");
        waitForRows(page);
        String episode = episodeOf(page);
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(Pattern.compile("takes", Pattern.CASE_INSENSITIVE))).first().click();
        page.locator("a[href$='/cleanup']").first().waitFor(new Locator.WaitForOptions().setState(WaitForSelectorState.ATTACHED));
        page.navigate(address(page.locator("a[href$='/cleanup']").first().getAttribute("href")));
        page.getByText("Noisy classroom").first().click();
        page.locator("[data-compare]").waitFor();
        assertThat(row(page, "Hum")).containsPattern("50 Hz.*none");
        assertAccessible(page);

        long before = soundOf(page, episode);
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Play")).focus();
        page.keyboard().press("Enter");
        await(page, "document.querySelector('[data-part=after]').currentTime > 0.3");
        press(page, "Before");
        await(page, "(([before, after, removed]) => before.volume > 0 && after.volume === 0 && removed.volume === 0 && !before.paused)([...document.querySelectorAll('audio')])");
        press(page, "What was removed");
        await(page, "document.querySelector('[data-part=removed]').volume > 0");
        assertThat((Boolean) page.evaluate("(([before, after]) => Math.abs(before.currentTime - after.currentTime) < 0.2)([...document.querySelectorAll('audio')])")).isTrue();

        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Keep it")).click();
        page.getByText("This take plays so on the page.").waitFor();
        assertThat(soundOf(page, episode)).as("another sound of the same take").isNotEqualTo(before);
        assertThat(page.locator(".recipe.chosen").innerText()).contains("this take has it");
        assertAccessible(page);
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Back to the original")).click();
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Keep it")).waitFor();
        assertThat(page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Back to the original")).count()).isZero();
        assertThat(soundOf(page, episode)).isEqualTo(before);
    }

    @Test
    void each_trouble_of_a_demo_hand_in_is_found_by_the_reading_that_is_meant_for_it() {
        Page page = page();
        signInAsTeacher(page);
        Map<Integer, List<String>> toMend = Map.of(1, List.of(), 2, List.of(), 3, List.of("Clipped spots", "Dead air", "Length"), 4, List.of("Voices even"));
        toMend.forEach((handIn, kinds) -> {
            page.navigate(address("/hand-ins/" + handIn));
            waitForRows(page);
            assertThat(page.locator(".reading:has(.verdict-fix) b").allInnerTexts()).as("hand-in %d", handIn).containsExactlyElementsOf(kinds);
        });
        page.locator(".other-readings summary").click();
        assertThat(page.locator(".other-readings .reading").count()).isGreaterThan(8);
        assertAccessible(page);
    }

    /** Which sound the first clip plays. */
    private static long soundOf(Page page, String episode) {
        JsonObject timeline = timeline(page, episode);
        return timeline.getAsJsonArray("sources").get(0).getAsJsonObject().get("soundId").getAsLong();
    }

    private static void press(Page page, String name) {
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(Pattern.compile("^" + name + "$"))).focus();
        page.keyboard().press("Enter");
    }

    private static String row(Page page, String named) {
        return page.locator("tr", new Page.LocatorOptions().setHas(page.getByText(named, new Page.GetByTextOptions().setExact(true)))).innerText().replaceAll("\\s+", " ");
    }
}
