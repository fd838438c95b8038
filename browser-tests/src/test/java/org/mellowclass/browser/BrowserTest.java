package org.mellowclass.browser;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;

import com.deque.html.axecore.playwright.AxeBuilder;
import com.deque.html.axecore.results.Rule;
import com.google.gson.JsonObject;
import com.google.gson.JsonParser;
import com.microsoft.playwright.APIResponse;
import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;

/** What the journeys share: one application, one Chromium, sign-in, and no page that complains in its console. */
abstract class BrowserTest {

    private static final int MOST_TABS = 200;
    /** On a machine that others use, everything takes its time; what a page promises is asked for where it is promised. */
    private static final Duration PATIENCE = Duration.ofSeconds(90);
    private static final double ASK_AGAIN_MS = 100;

    static RunningApp app;
    private static Playwright playwright;
    private static Browser browser;

    private final List<BrowserContext> contexts = new ArrayList<>();
    private final List<String> complaints = new ArrayList<>();

    @BeforeAll
    static synchronized void start() throws IOException, InterruptedException {
        if (app == null) {
            app = RunningApp.start();
            playwright = Playwright.create();
            browser = launch(List.of());
            Runtime.getRuntime().addShutdownHook(new Thread(playwright::close));
        }
    }

    @AfterEach
    void closePages() {
        contexts.forEach(BrowserContext::close);
        assertThat(complaints).as("complaints in the browser's console").isEmpty();
    }

    static Browser launch(List<String> arguments) {
        return playwright.chromium().launch(new BrowserType.LaunchOptions()
                .setExecutablePath(Path.of("/usr/bin/chromium-headless-shell")).setArgs(arguments));
    }

    /** A Chromium with a microphone, whose use is granted. */
    static Browser launchWithMicrophone() {
        return launch(List.of("--use-fake-device-for-media-stream", "--use-fake-ui-for-media-stream"));
    }

    static String address(String path) {
        return app.address(path);
    }

    Page page() {
        return page(browser);
    }

    Page page(Browser in) {
        return page(in, new Browser.NewContextOptions().setViewportSize(1280, 800));
    }

    Page page(Browser in, Browser.NewContextOptions options) {
        BrowserContext context = in.newContext(options);
        context.setDefaultTimeout(PATIENCE.toMillis());
        contexts.add(context);
        Page page = context.newPage();
        page.onConsoleMessage(message -> {
            // an answer with a refusal is part of some journeys; scripts that fail or are blocked are not
            if (message.type().equals("error") && !message.text().startsWith("Failed to load resource")) {
                complaints.add(message.text());
            }
        });
        page.onPageError(complaints::add);
        return page;
    }

    static void signInAsTeacher(Page page) {
        signInAsTeacher(page, "okoro@saltmarsh.example", "high tide at nine");
    }

    static void signInAsTeacher(Page page, String email, String password) {
        page.navigate(address("/sign-in?as=teacher"));
        page.getByLabel("E-mail").fill(email);
        page.getByLabel("Password").fill(password);
        page.locator("#panel-teacher button[type=submit]").click();
        page.waitForURL("**/classes/*");
    }

    static void signInAsStudent(Page page, String name, String passphrase) {
        signInAsStudent(page, address(""), name, passphrase);
    }

    static void signInAsStudent(Page page, String at, String name, String passphrase) {
        page.navigate(at + "/sign-in");
        page.getByLabel("Class code").fill("heron8");
        page.getByLabel("Your name").fill(name);
        page.getByLabel("Passphrase").fill(passphrase);
        page.locator("#panel-student button[type=submit]").click();
        page.waitForURL("**/bench");
    }

    /** The number of the episode whose page is open. */
    static String episodeOf(Page page) {
        return page.url().replaceAll(".*/episodes/(\\d+)/.*", "$1");
    }

    /**
     * Waits until an expression is true in the page. Asks from outside, since the page's policy forbids to evaluate text, and
     * not more often than needed: asking without a rest keeps a core busy, and then sound stutters.
     */
    static void await(Page page, String expression) {
        await(page, expression, PATIENCE);
    }

    private static void await(Page page, String expression, Duration patience) {
        long end = System.nanoTime() + patience.toNanos();
        while (!Boolean.TRUE.equals(page.evaluate(expression))) {
            assertThat(System.nanoTime()).as("still waiting for %s", expression).isLessThan(end);
            page.waitForTimeout(ASK_AGAIN_MS);
        }
    }

    static byte[] fetch(Page page, String path) {
        APIResponse response = page.context().request().get(address(path));
        assertThat(response.status()).as(path).isEqualTo(200);
        return response.body();
    }

    static JsonObject timeline(Page page, String episode) {
        return JsonParser.parseString(new String(fetch(page, "/episodes/" + episode + "/timeline"))).getAsJsonObject();
    }

    /** Seconds on the clock of the recording room, which needs them to get there. */
    static void awaitClock(Page page, double seconds) {
        await(page, "(([m, s]) => 60 * m + parseFloat(s))(document.getElementById('clock').textContent.split(':')) > " + seconds,
                PATIENCE.plusMillis((long) (1000 * seconds)));
    }

    /** What is pressed before a page has come whole does nothing. */
    static void settled(Page page, Locator control) {
        control.waitFor();
        page.waitForLoadState();
    }

    /** Goes there as somebody without a pointer does. */
    static void reach(Page page, Locator control) {
        settled(page, control);
        for (int i = 0; i < MOST_TABS; i++) {
            if ((Boolean) control.evaluate("it => it === document.activeElement")) {
                return;
            }
            page.keyboard().press("Tab");
        }
        throw new AssertionError("not to be reached by Tab: " + control);
    }

    static void waitForRows(Page page) {
        page.locator(".lane canvas").first().waitFor();
    }

    static void assertAccessible(Page page) {
        List<Rule> violations = new AxeBuilder(page).analyze().getViolations();
        assertThat(violations).as("axe on %s", page.url())
                .extracting(rule -> rule.getId() + " " + rule.getNodes().get(0).getHtml()).isEmpty();
    }
}
