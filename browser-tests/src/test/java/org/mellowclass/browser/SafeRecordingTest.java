package org.mellowclass.browser;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.regex.Pattern;

import com.microsoft.playwright.APIResponse;
import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Route;
import com.microsoft.playwright.options.AriaRole;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mellowclass.core.sound.Frames;

/** Whatever happens while somebody speaks: what was spoken is in the take. */
class SafeRecordingTest extends BrowserTest {

    private static final List<String> STORY = List.of("When the tide is out you can hear bells.",
            "They ring under the sand, very slowly.", "Nobody has ever counted them to the end.");

    @TempDir
    private Path folder;

    @Test
    void the_server_is_killed_and_started_again_in_mid_take() throws Exception {
        try (Browser withMicrophone = launchWithMicrophone()) {
            Page page = room(page(withMicrophone));
            float[] spoken = speak(page);
            record(page);
            awaitClock(page, 3);
            app.kill();
            page.getByText("The network is gone. Go on").waitFor();
            app.startAgain();
            awaitClock(page, seconds(spoken));
            assertThat(Heard.otherwise(spoken, stopped(page))).isEmpty();
        }
    }

    @Test
    void the_network_is_gone_for_a_while() throws Exception {
        try (Browser withMicrophone = launchWithMicrophone()) {
            Page page = room(page(withMicrophone));
            float[] spoken = speak(page);
            record(page);
            awaitClock(page, 2);
            page.context().setOffline(true);
            page.getByText("The network is gone. Go on").waitFor();
            awaitClock(page, 12);
            page.context().setOffline(false);
            assertThat(Heard.otherwise(spoken, stopped(page))).isEmpty();
        }
    }

    @Test
    void a_killed_tab_loses_at_most_a_second_and_the_rest_is_sent_when_a_page_is_opened_again() throws Exception {
        try (Browser withMicrophone = launchWithMicrophone()) {
            Page page = room(page(withMicrophone));
            float[] spoken = speak(page);
            int before = takes(page).count();
            record(page);
            awaitClock(page, 2);
            page.context().setOffline(true);
            awaitClock(page, 8);
            BrowserContext laptop = page.context();
            String episode = episodeOf(page);
            page.close();
            laptop.setOffline(false);

            Page again = laptop.newPage();
            again.navigate(address("/episodes/" + episode + "/record"));
            again.locator("#take-list [data-play]").nth(before).waitFor();
            assertThat(again.locator("#take-list li").first().innerText()).as("the missing end")
                    .containsPattern("Missing: 0:0[78]\\.\\d\\d to 0:0[789]\\.\\d\\d");
            float[] take = newest(again);
            assertThat(take.length).isGreaterThan(7 * Frames.RATE);
            float[] whatWasSpoken = Arrays.copyOf(spoken, 7 * Frames.RATE);
            assertThat(Heard.otherwise(whatWasSpoken, take)).isEmpty();
        }
    }

    @Test
    void another_child_signs_in_on_the_same_laptop_and_the_take_still_goes_to_its_owner() throws Exception {
        try (Browser withMicrophone = launchWithMicrophone()) {
            Page owner = room(page(withMicrophone));
            float[] spoken = speak(owner);
            String episode = episodeOf(owner);
            int before = takes(owner).count();
            BrowserContext laptop = owner.context();
            record(owner);
            awaitClock(owner, 2);
            laptop.route("**/uploads/**", route -> route.abort());
            awaitClock(owner, seconds(spoken));
            owner.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Sign out")).click();
            owner.getByText("Signing out when it is sent").waitFor();
            owner.getByText(Pattern.compile("\\d+ s to send")).waitFor();
            owner.close();
            laptop.clearCookies();

            Page other = laptop.newPage();
            signInAsStudent(other, "Jonah", "salt rope");
            laptop.unroute("**/uploads/**");
            other.reload();
            Page atHome = page();
            signInAsStudent(atHome, "Otis", "long shore");
            atHome.navigate(address("/episodes/" + episode + "/record"));
            await(atHome, "(window.htmx.trigger('#take-list', 'refresh'), document.querySelectorAll('#take-list audio').length > "
                    + before + ")");
            assertThat(Heard.otherwise(spoken, newest(atHome))).isEmpty();
            String sound = takes(atHome).first().getAttribute("src");
            assertThat(laptop.request().get(address(sound)).status()).as("for the other child").isEqualTo(404);
        }
    }

    @Test
    void what_comes_too_late_for_a_take_that_was_ended_elsewhere_becomes_a_take_of_its_own() throws Exception {
        try (Browser withMicrophone = launchWithMicrophone()) {
            Page page = room(page(withMicrophone));
            float[] spoken = speak(page);
            int before = takes(page).count();
            Set<String> keys = ConcurrentHashMap.newKeySet();
            page.route("**/uploads/*/chunks/*?firstFrame=*", route -> {
                String key = route.request().url().replaceAll(".*/uploads/([^/]+)/.*", "$1");
                // as the server answers for a take that has ended
                if ((keys.isEmpty() || keys.contains(key)) && route.request().url().matches(".*/chunks/([3-9]|\\d\\d)\\?.*")) {
                    keys.add(key);
                    route.fulfill(new Route.FulfillOptions().setStatus(409));
                } else {
                    route.resume();
                }
            });
            record(page);
            awaitClock(page, seconds(spoken));
            // the list that is asked for now comes late, and is old by then
            List<Runnable> late = new ArrayList<>();
            page.route("**/episodes/*/takes", route -> {
                if (late.isEmpty()) {
                    APIResponse old = route.fetch();
                    late.add(() -> route.fulfill(new Route.FulfillOptions().setResponse(old)));
                } else {
                    route.resume();
                }
            });
            page.locator("#record").click();
            page.getByText("becomes a take of its own").waitFor();
            page.getByText("Your take is kept.").waitFor();
            late.get(0).run();
            page.locator("#take-list [data-play]").nth(before).waitFor();
            float[] rest = Arrays.copyOfRange(spoken, 4 * Frames.RATE, spoken.length);
            assertThat(Heard.otherwise(rest, newest(page))).isEmpty();
        }
    }

    private float[] speak(Page page) throws Exception {
        Path voice = Voices.speak(folder, STORY);
        Microphones.speak(page, voice);
        page.reload();
        return Voices.mono(voice);
    }

    private static Page room(Page page) {
        signInAsStudent(page, "Otis", "long shore");
        page.navigate(address("/episodes/" + episodeOf(page) + "/record"));
        return page;
    }

    private static void record(Page page) {
        page.locator("#record").click();
        page.getByText("Recording here: Otis").waitFor();
    }

    private float[] stopped(Page page) throws Exception {
        int before = takes(page).count();
        page.locator("#record").click();
        page.getByText("Your take is kept.").waitFor();
        page.locator("#take-list [data-play]").nth(before).waitFor();
        return newest(page);
    }

    private static Locator takes(Page page) {
        return page.locator("#take-list audio");
    }

    private float[] newest(Page page) throws Exception {
        return Voices.mono(fetch(page, takes(page).first().getAttribute("src")), folder);
    }

    private static int seconds(float[] sound) {
        return sound.length / Frames.RATE + 1;
    }
}
