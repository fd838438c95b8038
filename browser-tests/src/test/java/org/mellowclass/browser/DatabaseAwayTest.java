package org.mellowclass.browser;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.List;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Response;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mellowclass.core.sound.Frames;

/** The database hangs in the middle of a lesson. */
class DatabaseAwayTest extends BrowserTest {

    /** People are promised five seconds; the rest is for a slow machine. What waits for the database itself takes half a minute. */
    private static final Duration SOON = Duration.ofSeconds(15);

    @TempDir
    private Path folder;

    @Test
    void pages_say_so_soon_and_what_is_spoken_waits_and_arrives_by_itself() throws Exception {
        try (Wire wire = new Wire(); Browser withMicrophone = launchWithMicrophone()) {
            RunningApp school = RunningApp.startBehind(wire);
            try {
                lesson(school, wire, page(withMicrophone));
            } finally {
                school.kill();
            }
        }
    }

    private void lesson(RunningApp school, Wire wire, Page page) throws Exception {
        Page teacher = page();
        signInAsStudent(teacher, school.address(""), "Isla", "quiet lock");
        signInAsStudent(page, school.address(""), "Otis", "long shore");
        String room = school.address("/episodes/" + episodeOf(page) + "/record");
        page.navigate(room);
        Path voice = Voices.speak(folder, List.of("The tide was out when we came to the harbour,", "and the eels had not come back yet."));
        Microphones.speak(page, voice);
        page.reload();
        float[] spoken = Voices.mono(voice);
        int before = page.locator("#take-list audio").count();
        page.locator("#record").click();
        page.getByText("Recording here: Otis").waitFor();
        awaitClock(page, 1);

        wire.cut();
        Instant asked = Instant.now();
        Response away = teacher.navigate(school.address("/"));
        assertThat(Duration.between(asked, Instant.now())).isLessThan(SOON);
        assertThat(away.status()).isEqualTo(503);
        assertThat(teacher.locator("main").innerText()).contains("database cannot be reached", "waits on this laptop");
        assertThat(teacher.locator(".card").evaluate("card => getComputedStyle(card).borderRadius")).as("the style is there too").isNotEqualTo("0px");
        awaitClock(page, spoken.length / Frames.RATE + 1);

        wire.mend();
        teacher.waitForURL("**/bench");
        page.locator("#record").click();
        page.getByText("Your take is kept.").waitFor();
        page.locator("#take-list [data-play]").nth(before).waitFor();
        byte[] take = page.context().request().get(school.address(page.locator("#take-list audio").first().getAttribute("src"))).body();
        assertThat(Heard.otherwise(spoken, Voices.mono(take, folder))).isEmpty();
    }
}
