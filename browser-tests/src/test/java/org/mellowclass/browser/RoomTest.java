package org.mellowclass.browser;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The recording room when things go wrong, and bringing files in. */
class RoomTest extends BrowserTest {

    @TempDir
    private Path folder;

    @Test
    void without_permission_the_page_says_what_to_do() {
        try (Browser denying = launch(List.of("--use-fake-device-for-media-stream"))) {
            Page page = room(page(denying, new Browser.NewContextOptions()));
            page.locator("#record").click();
            page.getByText("The browser may not use the microphone. Allow it in the address bar, then try again.").waitFor();
            assertThat(page.locator("#record").innerText()).isEqualTo("Record");
        }
    }

    @Test
    void without_a_microphone_the_page_says_what_else_can_be_done() {
        Page page = page();
        page.addInitScript("navigator.mediaDevices.getUserMedia = "
                + "() => Promise.reject(new DOMException('none', 'NotFoundError'))");
        room(page);
        page.locator("#listen").click();
        page.getByText("No microphone was found.").waitFor();
        assertThat(page.locator("#mic-problem").innerText()).contains("You can bring in a recording instead.");
    }

    @Test
    void the_level_moves_before_anything_is_recorded() {
        try (Browser beeping = launchWithMicrophone()) {
            Page page = room(page(beeping, new Browser.NewContextOptions()));
            int takes = page.locator("#take-list li").count();
            page.locator("#listen").click();
            await(page, "Number(document.getElementById('level-fill').getAttribute('width')) > 100");
            assertThat(page.locator("#mic option").count()).isGreaterThan(1);
            assertThat(page.locator("#take-list li").count()).isEqualTo(takes);
        }
    }

    @Test
    void a_wrong_file_is_refused_in_plain_words_and_a_right_one_arrives() throws Exception {
        Page page = room(page());
        page.locator("#file").setInputFiles(Files.writeString(folder.resolve("homework.mp3"), "This is not a sound."));
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Bring in")).click();
        page.getByText("This file is not a recording. Choose a WAV, MP3, FLAC, M4A or Ogg file.").waitFor();

        page.locator("#file").setInputFiles(Voices.speak(folder, List.of("Bells at low water.")));
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Bring in")).click();
        page.getByLabel("Hear voice").waitFor();
    }

    private static Page room(Page page) {
        signInAsStudent(page, "Otis", "long shore");
        page.navigate(address("/episodes/" + episodeOf(page) + "/record"));
        return page;
    }
}
