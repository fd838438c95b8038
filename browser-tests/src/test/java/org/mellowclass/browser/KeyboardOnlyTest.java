package org.mellowclass.browser;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The whole slice without a pointer: from the sign-in to the school feed with Tab, Enter, Space, letters and arrows. */
class KeyboardOnlyTest extends BrowserTest {

    @TempDir
    private Path folder;

    @Test
    void a_story_goes_from_the_microphone_to_the_feed_by_keyboard_alone() throws Exception {
        try (Browser withMicrophone = launchWithMicrophone()) {
            Page crew = page(withMicrophone);
            Microphones.speak(crew, Voices.speak(folder, List.of("A buoy rang once, or it was a bell.")));
            signIn(crew, "/sign-in", "heron8", "Otis", "long shore");
            String episode = episodeOf(crew);
            record(crew);
            removeTheFirstSecond(crew, episode);
            press(crew, crew.locator("#hand-in button"), "Enter");
            crew.getByText("Sound check").waitFor();

            Page teacher = page();
            signIn(teacher, "/sign-in?as=teacher", "okoro@saltmarsh.example", "high tide at nine");
            press(teacher, teacher.locator("a[href$='" + crew.url().replaceAll(".*(/hand-ins/\\d+).*", "$1") + "']").first(), "Enter");
            waitForRows(teacher);
            press(teacher, teacher.locator("#play"), "Enter");
            await(teacher, "document.querySelector('audio').currentTime > 0.3");
            writeANote(teacher);
            type(teacher, teacher.getByLabel("One sentence for the crew"), "It goes out.");
            press(teacher, teacher.locator("button[value=CLEARED]"), "Enter");
            type(teacher, teacher.locator("#unheard-reason"), "We heard it in class.");
            press(teacher, teacher.locator("#unheard-clear"), "Enter");
            teacher.waitForURL("**/air");
            String desk = teacher.url();
            press(teacher, teacher.getByLabel("Record what was agreed for Otis"), "Enter");
            press(teacher, teacher.locator("input[name=consent]:checked"), "ArrowDown");
            press(teacher, teacher.getByText("Save", new Page.GetByTextOptions().setExact(true)), "Enter");
            teacher.waitForURL("**/crews");
            teacher.navigate(desk);
            type(teacher, teacher.getByLabel("Description, for listeners"), "Bells under the sand.");
            press(teacher, teacher.getByText("Publish", new Page.GetByTextOptions().setExact(true)), "Enter");
            press(teacher, teacher.getByText("Open its page"), "Enter");
            press(teacher, teacher.locator("[data-play]"), "Enter");
            await(teacher, "document.querySelector('audio').currentTime > 0.3");

            crew.navigate(address("/episodes/" + episode + "/bench"));
            Locator done = crew.locator(".note-card", new Page.LocatorOptions().setHasText("I can hear the rope.")).getByLabel("done");
            press(crew, done, "Space");
            crew.locator(".note-card.done").waitFor();
        }
    }

    private static void signIn(Page page, String path, String... words) {
        page.navigate(address(path));
        assertThat(page.context().cookies()).as("a look at the sign-in page makes no session").extracting(cookie -> cookie.name).contains("XSRF-TOKEN").doesNotContain("mellow");
        List<Locator> fields = page.locator("form:visible input:not([type=hidden])").all();
        assertThat(fields).hasSize(words.length);
        for (int i = 0; i < words.length; i++) {
            type(page, fields.get(i), words[i]);
        }
        page.keyboard().press("Enter");
        page.locator("#sign-out").waitFor();
    }

    private static void record(Page crew) {
        press(crew, crew.locator("nav a", new Page.LocatorOptions().setHasText("Recording room")), "Enter");
        crew.locator("#record").waitFor();
        int before = crew.locator("#take-list [data-play]").count();
        press(crew, crew.locator("#record"), "Enter");
        awaitClock(crew, 5);
        crew.keyboard().press("Enter");
        crew.getByText("Your take is kept.").waitFor();
        crew.locator("#take-list [data-play]").nth(before).waitFor();
    }

    private static void removeTheFirstSecond(Page crew, String episode) {
        press(crew, crew.locator("nav a", new Page.LocatorOptions().setHasText("Bench")), "Enter");
        waitForRows(crew);
        long frames = timeline(crew, episode).get("frames").getAsLong();
        reach(crew, crew.locator("#page"));
        crew.keyboard().press("Home");
        crew.keyboard().press("1");
        crew.locator("#card-span").waitFor();
        crew.keyboard().press("4");
        crew.getByText("Removed 1.00 s. Undo brings it back.").waitFor();
        assertThat(timeline(crew, episode).get("frames").getAsLong()).isEqualTo(frames - 48_000);
    }

    private static void writeANote(Page teacher) {
        press(teacher, teacher.getByText("Mark from here"), "Enter");
        type(teacher, teacher.getByLabel("From", new Page.GetByLabelOptions().setExact(true)), "0:01");
        type(teacher, teacher.getByLabel("To", new Page.GetByLabelOptions().setExact(true)), "0:02.5");
        type(teacher, teacher.getByLabel("Your note"), "I can hear the rope.");
        press(teacher, teacher.getByText("Write it", new Page.GetByTextOptions().setExact(true)), "Enter");
        teacher.locator(".note-card", new Page.LocatorOptions().setHasText("I can hear the rope.")).waitFor();
    }

    private static void type(Page page, Locator field, String words) {
        reach(page, field);
        page.keyboard().press("Control+a");
        page.keyboard().type(words);
    }

    private static void press(Page page, Locator control, String key) {
        reach(page, control);
        page.keyboard().press(key);
    }
}
