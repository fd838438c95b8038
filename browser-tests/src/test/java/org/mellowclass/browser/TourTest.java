package org.mellowclass.browser;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Mouse;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import com.microsoft.playwright.options.WaitForSelectorState;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleFormat;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.sound.WavWriter;
import org.mellowclass.core.testing.Signal;

/** Looks at every main view of the demo school: axe finds nothing, nothing is wider than the screen. */
class TourTest extends BrowserTest {

    @TempDir
    private Path folder;

    private static final String PICTURES = System.getProperty("mellow.screenshots", "");

    @Test
    void the_teachers_views() {
        Page page = page();
        page.navigate(address("/sign-in"));
        look(page, "sign-in");
        signInAsTeacher(page);
        look(page, "class-board");
        page.getByRole(AriaRole.LINK,
                new Page.GetByRoleOptions().setName("Hear Mudlark")).click();
        page.waitForURL("**/hand-ins/*");
        await(page, "document.querySelector('audio').readyState >= 1");
        look(page, "review");
        page.navigate(address("/classes/1/crews"));
        look(page, "crews");
        page.navigate(address("/classes/1/brief"));
        look(page, "brief");
        page.navigate(address("/classes/1/shelf"));
        look(page, "shelf");
        page.navigate(address("/classes/1/roster"));
        page.getByLabel("Paste it here, one student a line").fill("number,name,crew,consent\n801,Isla,Lantern,public\n,Bo Rush,Ferry,\n902,,Ferry,\n");
        page.getByText("Look at it first").click();
        page.getByText("The name is missing.").waitFor();
        look(page, "");
        for (String place : List.of("/outbox", "/again", "/account/second-step", "/classes/1/cards", "/classes/1/house-sound")) {
            page.navigate(address(place));
            look(page, "");
        }
        page.navigate(address("/account"));
        look(page, "");
        page.navigate(address("/classes/1/compared"));
        page.getByText("Sandpiper").waitFor();
        look(page, "class-compared");
        page.navigate(address("/school"));
        look(page, "school");
        page.navigate(address("/episodes/3/air"));
        look(page, "air-desk");
        page.navigate(address("/episodes/4/hand-ins"));
        page.getByText("The laugh crackles here.").waitFor();
        look(page, "review-notes");
    }

    @Test
    void the_crews_views() {
        Page page = page();
        signInAsStudent(page, "Tess", "green jetty");
        waitForRows(page);
        page.mouse().move(430, 110);
        page.mouse().down();
        page.mouse().move(560, 110, new Mouse.MoveOptions().setSteps(5));
        page.mouse().up();
        page.locator("#card").waitFor();
        look(page, "bench");
        page.keyboard().press("Escape");
        page.keyboard().press("n");
        page.getByLabel("For example: bells start").fill("eels begin");
        look(page, "");
        page.keyboard().press("Enter");
        page.locator(".flag").first().waitFor();
        page.locator(".clip-grip-move").first().focus();
        look(page, "bench-clip");
        page.keyboard().press("Control+z");
        page.locator(".flag").first().waitFor(new Locator.WaitForOptions().setState(WaitForSelectorState.DETACHED));
        page.navigate(address("/episodes/" + episodeOf(page) + "/record"));
        look(page, "recording-room");
    }

    @Test
    void what_the_sound_check_finds_and_how_a_take_is_cleaned() {
        Page page = page();
        signInAsStudent(page, "Otis", "long shore");
        waitForRows(page);
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Check").setExact(true)).click();
        page.locator("#check [data-kind=HUM]").waitFor();
        page.waitForCondition(() -> page.locator("#check [data-old]").count() == 0);
        look(page, "bench-check");
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Takes").setExact(true)).click();
        page.locator("a[href$='/cleanup']").first().click();
        page.getByText("Noisy classroom").click();
        page.locator("#figures[data-made=true]").waitFor();
        page.locator("[data-compare][data-whole=true]").waitFor();
        await(page, "[...document.querySelectorAll('.spectrum-picture')].every(picture => picture.dataset.drawn === 'true')");
        look(page, "cleanup");
    }

    @Test
    void an_episode_with_clipped_spots_and_a_teachers_sentence() {
        Page page = page();
        signInAsStudent(page, "Mina", "brown tide");
        waitForRows(page);
        assertThat(page.locator("#teacher-sentence").innerText()).contains("The laugh crackles");
        look(page, "");
    }

    @Test
    void takes_of_one_conversation() throws Exception {
        Path one = folder.resolve("Otis’s laptop.wav");
        Files.move(Voices.speak(folder, List.of("When the tide is out you can hear bells.", "They ring under the sand, very slowly.",
                "Nobody has ever counted them to the end.")), one);
        float[] whole = Voices.mono(one);
        float[] later = Arrays.copyOfRange(whole, 2 * Frames.RATE, whole.length);
        for (int i = 0; i < later.length; i++) {
            later[i] *= 0.5f;
        }
        Path other = folder.resolve("The other laptop.wav");
        try (WavWriter writer = WavWriter.create(other, 1, Frames.RATE, SampleFormat.PCM_16)) {
            SampleSink.drain(Signal.of(Frames.RATE, later).stream(), writer);
        }
        Page page = page();
        signInAsStudent(page, "Otis", "long shore");
        page.navigate(address("/episodes/" + episodeOf(page) + "/record"));
        page.locator("#file").setInputFiles(new Path[] {one, other});
        page.locator("#placing").selectOption("LIST");
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Bring in")).click();
        page.getByLabel("Play The other laptop", new Page.GetByLabelOptions().setExact(true)).waitFor();
        page.getByLabel("Play Otis’s laptop", new Page.GetByLabelOptions().setExact(true)).waitFor();
        page.getByText("Line takes up").click();
        page.getByLabel("Otis’s laptop stays").check();
        page.getByLabel("Line The other laptop up").check();
        page.getByText("Measure").click();
        page.getByText("The other laptop starts 2.000 s after Otis’s laptop").waitFor();
        page.getByText("Lay them in step").click();
        page.getByText("They lie in step.").waitFor();
        look(page, "line-up");
    }

    @Test
    void the_listeners_views() {
        Page page = page();
        signInAsTeacher(page);
        page.getByText("Open the feed page").click();
        look(page, "feed");
        page.getByText("The night the footbridge floated").click();
        await(page, "document.querySelector('audio').readyState >= 1");
        look(page, "episode-page");
    }

    @Test
    void the_bench_by_lamplight_and_a_listeners_phone() {
        Page dark = page(launch(List.of()),
                new Browser.NewContextOptions().setViewportSize(1280, 800).setColorScheme(ColorScheme.DARK));
        signInAsStudent(dark, "Noor", "amber oar");
        waitForRows(dark);
        look(dark, "bench-dark");
        dark.setViewportSize(360, 740);
        dark.locator("text=Hand-ins").click();
        dark.waitForURL("**/hand-ins/*");
        look(dark, "");
    }

    private static void look(Page page, String picture) {
        page.evaluate("document.fonts.ready");
        await(page, "[...document.images].every(image => image.complete)");
        assertAccessible(page);
        assertThat((Integer) page.evaluate("document.documentElement.scrollWidth - document.documentElement.clientWidth"))
                .as("pixels beyond the screen on %s", page.url()).isZero();
        if (!PICTURES.isEmpty() && !picture.isEmpty()) {
            page.screenshot(new Page.ScreenshotOptions().setPath(Path.of(PICTURES, picture + ".png")));
        }
    }
}
