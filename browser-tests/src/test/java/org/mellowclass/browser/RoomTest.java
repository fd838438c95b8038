package org.mellowclass.browser;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.regex.Pattern;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleFormat;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.sound.WavWriter;
import org.mellowclass.core.testing.Signal;

/** The recording room when things go wrong, and bringing files in. */
class RoomTest extends BrowserTest {

    /** How many files the page keeps; makes them older by so many days first. */
    private static final String KEPT_FILES = """
            days => new Promise((resolve, reject) => {
              const request = indexedDB.open('mellow-files', 1);
              request.onerror = () => reject(request.error);
              request.onsuccess = () => {
                const files = request.result.transaction('files', 'readwrite').objectStore('files');
                files.getAll().onsuccess = all => {
                  all.target.result.forEach(entry => files.put({ ...entry, keptAt: entry.keptAt - days * 86400000 }));
                  files.transaction.oncomplete = () => { request.result.close(); resolve(all.target.result.length); };
                };
              };
            })""";

    @TempDir
    private Path folder;

    @Test
    void without_permission_the_page_says_what_to_do() {
        Page page = page();
        // as a browser answers for somebody who has said no, whom nobody can be without its window
        page.addInitScript("navigator.mediaDevices.getUserMedia = () => Promise.reject(new DOMException('Permission denied', 'NotAllowedError'))");
        room(page);
        page.locator("#record").click();
        page.getByText("The browser may not use the microphone. Allow it in the address bar, then try again.").waitFor();
        assertThat(page.locator("#record").innerText()).isEqualTo("Record");
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
        page.getByText("Use the practice microphone").click();
        await(page, "Number(document.getElementById('level-fill').getAttribute('width')) > 100");
        assertThat(page.locator("#mic-problem").isVisible()).isFalse();
    }

    @Test
    void signing_out_leaves_nothing_on_the_laptop_but_its_nameless_mark() throws Exception {
        Page page = room(page());
        page.route("**/files/*", route -> route.abort());
        page.locator("#file").setInputFiles(Voices.speak(folder, List.of("Bells at low water.")));
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Bring in")).click();
        await(page, "(" + KEPT_FILES + ")(0).then(count => count === 1)");
        await(page, "localStorage.length > 0");
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Sign out")).click();
        page.waitForURL("**/sign-in**");
        await(page, "(" + KEPT_FILES + ")(0).then(count => count === 0)");
        assertThat(page.evaluate("localStorage.length + sessionStorage.length")).isEqualTo(0);
        assertThat(page.context().cookies()).extracting(cookie -> cookie.name).isSubsetOf("laptop", "XSRF-TOKEN");
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
    void a_line_is_recorded_with_a_pause_and_a_flag_and_its_retake_is_chosen() {
        Page page = room(page(), "Mina", "brown tide");
        page.locator("#mic").selectOption("practice");
        page.locator("#listen").click();
        // the room before the take is what the microphone has heard by then
        await(page, "document.getElementById('level-word').textContent === 'good'");
        page.locator(".script-line").nth(1).click();
        page.keyboard().press("ArrowDown");
        assertThat(page.locator(".script-line[aria-current]").innerText()).contains("Where are we, and when?");
        record(page, () -> {
            page.keyboard().press("n");
            page.getByText("Flag 1 at").waitFor();
            page.locator("#pause").click();
            page.getByText("Paused. The same take goes on when you want.").waitFor();
            String stands = page.locator("#clock").innerText();
            page.locator("#pause").click();
            awaitClock(page, seconds(stands) + 0.5);
        });
        page.getByText("on the page for its line").waitFor();
        page.getByText("in the take list, until you choose it for its line").waitFor();
        String episode = episodeOf(page);
        assertThat(timeline(page, episode).getAsJsonArray("flags")).hasSize(1);

        record(page, () -> { });
        page.getByText("Compare 2 takes").waitFor();
        page.locator(".script-line[aria-current] [data-compare]").click();
        page.locator("#compare-takes").getByText("on the page").waitFor();
        assertAccessible(page);
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Choose Take 2").setExact(true)).click();
        page.waitForLoadState();
        assertThat(timeline(page, episode).toString()).contains("\"takeId\":" + takeIdOf(page, "Take 2")).doesNotContain("\"takeId\":" + takeIdOf(page, "Take 1"));
        askAndErase(page);
    }

    /** The child asks, the teacher agrees, and the take is gone. */
    private void askAndErase(Page page) {
        page.getByLabel("Ask for Take 1 to be erased").click();
        page.getByText("Your teacher is asked to erase it.").waitFor();
        Page teacher = page();
        signInAsTeacher(teacher);
        teacher.getByText("Erase it …").click();
        teacher.getByText("The voice of").waitFor();
        teacher.getByText("Erase it everywhere").click();
        teacher.waitForLoadState();
        page.reload();
        page.getByText("Erased, everywhere.").waitFor();
    }

    private static String takeIdOf(Page page, String name) {
        return page.locator("audio[data-name='" + name + "']").getAttribute("data-take");
    }

    private static double seconds(String clock) {
        String[] parts = clock.split(":");
        return 60 * Double.parseDouble(parts[0]) + Double.parseDouble(parts[1]);
    }

    private static void record(Page page, Runnable meanwhile) {
        page.locator("#record").click();
        awaitClock(page, 1.5);
        meanwhile.run();
        page.locator("#record").click();
        page.getByText("Your take is kept. Hear it in the list.").waitFor();
        page.locator("#mic").selectOption("practice");
        page.locator("#listen").click();
        await(page, "document.getElementById('level-word').textContent === 'good'");
    }

    @Test
    void a_test_sentence_gets_a_verdict_in_words_and_guests_are_remembered() {
        Page page = room(page());
        page.locator("#mic").selectOption("practice");
        page.locator("#mic-check summary").click();
        page.locator("#check").click();
        page.locator("#check-verdict").waitFor();
        assertThat(page.locator("#check-verdict").innerText()).startsWith("good: Record like this.");
        assertThat(page.locator("#check-browser").innerText()).contains("leaves your voice as it is");
        page.locator("#who summary").click();
        page.getByLabel("A guest").fill("Mrs Quill");
        page.locator("#guest-add").click();
        page.getByText("Otis, Mrs Quill").waitFor();
        page.locator("#ears summary").click();
        assertAccessible(page);
        page.reload();
        page.locator("#who summary").click();
        page.locator("#who").getByLabel("Mrs Quill").waitFor();
    }

    @Test
    void a_wrong_file_is_refused_in_plain_words_and_a_right_one_arrives() throws Exception {
        Page page = room(page());
        page.locator("#file").setInputFiles(Files.writeString(folder.resolve("homework.mp3"), "This is not a sound."));
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Bring in")).click();
        page.getByText("This file is not a recording. Choose a WAV, MP3, FLAC, M4A or Ogg file.").waitFor();

        page.locator("#file").setInputFiles(Voices.speak(folder, List.of("Bells at low water.")));
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Bring in")).click();
        page.getByLabel("Play voice").waitFor();
    }

    @Test
    void a_large_file_goes_on_where_it_stopped_when_the_page_is_opened_again() throws Exception {
        Page page = room(page());
        Path large = folder.resolve("interview.wav");
        try (WavWriter writer = WavWriter.create(large, 2, Frames.RATE, SampleFormat.PCM_16)) {
            SampleSink.drain(Signal.noise(2, -20, 110, 5).stream(), writer);
        }
        List<String> offsets = Collections.synchronizedList(new ArrayList<>());
        page.route("**/files/*", route -> {
            String offset = route.request().headerValue("upload-offset");
            if (route.request().method().equals("PATCH")) {
                offsets.add(offset);
            }
            if (route.request().method().equals("PATCH") && !offset.equals("0")) {
                route.abort();
            } else {
                route.resume();
            }
        });
        page.locator("#file").setInputFiles(large);
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Bring in")).click();
        page.getByText("The network is gone. It goes on by itself.").waitFor();
        page.unroute("**/files/*");
        page.reload();
        page.getByText("One recording is here, and made ready now.").waitFor();
        page.getByLabel("Play interview", new Page.GetByLabelOptions().setExact(true)).waitFor();
        assertThat(offsets).startsWith("0", Integer.toString(8 * 1024 * 1024));
        assertThat(page.locator("#take-list li").first().innerText()).contains("1:50");
        page.reload();
        assertThat(page.locator("#bring-files li").count()).as("nothing is kept of what has arrived").isZero();
    }

    @Test
    void a_file_that_its_crew_left_on_a_laptop_is_let_go_after_two_weeks() throws Exception {
        Page page = room(page());
        page.route("**/files/*", route -> route.abort());
        page.locator("#file").setInputFiles(Voices.speak(folder, List.of("Bells at low water.")));
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Bring in")).click();
        page.getByText("The network is gone. It goes on by itself.").waitFor();
        await(page, "(" + KEPT_FILES + ")(0).then(count => count === 1)");
        page.evaluate(KEPT_FILES, 15);
        page.reload();
        await(page, "(" + KEPT_FILES + ")(0).then(count => count === 0)");
        assertThat(page.locator("#bring-files li").count()).isZero();
    }

    @Test
    void two_laptops_begin_on_one_word_and_are_lined_up_by_what_both_have_heard() {
        Page first = room(page(), "Isla", "quiet lock");
        Page second = room(page(), "Isla", "quiet lock");
        int before = first.locator("#take-list [data-play]").count();
        for (Page page : List.of(first, second)) {
            page.locator("#mic").selectOption("practice");
            page.getByLabel("This laptop waits for the word").check();
        }
        first.locator("#together").getByText("Isla and Isla wait.").waitFor();
        first.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Start together")).click();
        for (Page page : List.of(first, second)) {
            page.getByText("Recording together.").waitFor();
            awaitClock(page, 12);
        }
        for (Page page : List.of(first, second)) {
            page.locator("#record").click();
            page.getByText("Your take is kept. Hear it in the list.").waitFor();
        }
        first.locator("#take-list [data-play]").nth(before + 1).waitFor();
        first.getByText("Line takes up").click();
        first.getByText("They lie in step.").waitFor();
        first.getByText(Pattern.compile("^\\d+%, (fairly )?sure$")).waitFor();
        assertAccessible(first);
        Page teacher = page();
        signInAsTeacher(teacher);
        teacher.navigate(first.url());
        teacher.getByText("You see what they have measured.").waitFor();
        assertAccessible(teacher);
    }

    private static Page room(Page page) {
        return room(page, "Otis", "long shore");
    }

    private static Page room(Page page, String name, String passphrase) {
        signInAsStudent(page, name, passphrase);
        page.navigate(address("/episodes/" + episodeOf(page) + "/record"));
        return page;
    }
}
