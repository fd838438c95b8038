package org.mellowclass.browser;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;

import org.junit.jupiter.api.Test;

import com.google.gson.JsonObject;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Route;
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
    void a_teacher_offers_a_recipe_to_every_crew_and_one_hears_it_keeps_it_and_goes_back() {
        Page crew = page();
        signInAsStudent(crew, "Otis", "long shore");
        waitForRows(crew);
        String episode = episodeOf(crew);
        String cleanup = "/takes/" + timeline(crew, episode).getAsJsonArray("sources").get(0).getAsJsonObject().get("takeId").getAsLong() + "/cleanup";

        Page teacher = page();
        signInAsTeacher(teacher);
        teacher.navigate(address(cleanup));
        teacher.getByText("Noisy classroom").first().click();
        teacher.getByLabel("Add a step").selectOption("compress");
        teacher.locator("[data-kind=compress]").waitFor();
        assertThat(teacher.locator(".forecast").innerText()).as("what it will do is said before it is used").isNotBlank();
        teacher.locator("summary:has-text('Keep these steps for your class')").click();
        teacher.getByLabel("Name", new Page.GetByLabelOptions().setExact(true)).fill("Room by the boiler");
        teacher.getByLabel("When to use it").fill("In the cellar, while the boiler runs.");
        assertAccessible(teacher);
        teacher.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Offer it to every crew")).click();
        teacher.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Take Room by the boiler away from the class")).waitFor();

        long before = soundOf(crew, episode);
        crew.navigate(address(cleanup));
        Locator offered = crew.locator(".recipe", new Page.LocatorOptions().setHasText("Room by the boiler"));
        assertThat(offered.innerText()).contains("your class", "In the cellar, while the boiler runs.");
        offered.getByRole(AriaRole.LINK).focus();
        crew.keyboard().press("Enter");
        crew.locator("[data-compare]").waitFor();
        assertThat(row(crew, "Hum")).containsPattern("50 Hz.*none");
        crew.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Play")).focus();
        crew.keyboard().press("Enter");
        await(crew, "document.querySelector('[data-part=after]').currentTime > 0.3");
        press(crew, "Before");
        await(crew, "document.querySelector('[data-part=before]').volume > 0");
        press(crew, "Keep it");
        crew.getByText("This take plays so on the page.").waitFor();
        assertThat(soundOf(crew, episode)).isNotEqualTo(before);
        press(crew, "Back to the original");
        crew.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Keep it")).waitFor();
        assertThat(soundOf(crew, episode)).isEqualTo(before);

        press(teacher, "Take Room by the boiler away from the class");
        teacher.locator(".recipe", new Page.LocatorOptions().setHasText("Room by the boiler")).waitFor(new Locator.WaitForOptions().setState(WaitForSelectorState.DETACHED));
    }

    /** Some seconds are heard at once; the whole take comes in their place as soon as it is made, whatever is being done then. */
    @Test
    void the_whole_take_arrives_and_takes_nothing_from_whoever_listens_or_types() {
        Page page = page();
        signInAsStudent(page, "Otis", "long shore");
        waitForRows(page);
        String take = "/takes/" + timeline(page, episodeOf(page)).getAsJsonArray("sources").get(0).getAsJsonObject().get("takeId").getAsLong() + "/cleanup";
        List<Route> held = new ArrayList<>();
        page.route(Pattern.compile(".*/cleanup(/figures)?\\?.*"), route -> {
            if (route.request().headers().containsKey("hx-request")) {
                held.add(route);
            } else {
                route.resume();
            }
        });
        page.navigate(address(take + "?steps=low-cut:123"));
        waitFor(page, held);
        page.locator("summary:has-text('Where the room is heard alone')").click();
        page.getByLabel("From", new Page.GetByLabelOptions().setExact(true)).fill("0:00");
        page.locator("[data-hear=before]").focus();
        page.keyboard().press("Enter");
        while (page.locator("#figures[data-made=true]").count() == 0) {
            release(page, held);
        }

        // it was asked for, and before it comes somebody listens: nothing is broken off
        waitFor(page, held);
        press(page, "Play");
        await(page, "document.querySelector('[data-part=before]').currentTime > 0.3");
        release(page, held);
        await(page, "document.querySelector('[data-part=before]').currentTime > 0.8");
        assertThat(page.locator("[data-whole=false]").count()).isEqualTo(1);

        // the sound rests: the whole comes, at the same place, and focus, choice and what is typed stay
        press(page, "Pause");
        release(page, held);
        page.locator("[data-whole=true]").waitFor();
        assertThat(page.evaluate("document.activeElement.id")).isEqualTo("hear-toggle");
        assertThat(page.locator("[data-hear=before]").getAttribute("aria-pressed")).isEqualTo("true");
        assertThat((Boolean) page.evaluate("document.querySelector('[data-part=before]').currentTime > 0.7")).isTrue();
        assertThat(page.getByLabel("From", new Page.GetByLabelOptions().setExact(true)).inputValue()).isEqualTo("0:00");
    }

    private static void waitFor(Page page, List<Route> held) {
        page.waitForCondition(() -> !held.isEmpty());
    }

    private static void release(Page page, List<Route> held) {
        waitFor(page, held);
        page.waitForResponse(response -> true, held.remove(0)::resume);
    }

    /** Of the two crews that have not handed in yet, one has recorded nothing. */
    @Test
    void the_hum_of_the_demo_crew_that_is_still_at_work_is_found_beside_its_bench() {
        Page page = page();
        signInAsStudent(page, "Otis", "long shore");
        waitForRows(page);
        page.locator("[data-tab=check]").click();
        page.locator("[data-panel=check] .verdict").first().waitFor();
        assertThat(page.locator("[data-panel=check] .reading:has(.verdict-fix) b").allInnerTexts()).contains("Hum");
        assertAccessible(page);
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
