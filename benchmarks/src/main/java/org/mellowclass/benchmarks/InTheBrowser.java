package org.mellowclass.benchmarks;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;

/**
 * The bench of a long episode in headless Chromium: how long scripts run for one frame while the page scrolls and plays, at every zoom (the
 * browser's own tracing), and how long it takes from a key press to the page that shows it.
 */
final class InTheBrowser {

    /** Seconds a row, from the furthest to the nearest: one press of + each. */
    private static final List<String> ZOOMS = List.of("80", "40", "20", "10", "5", "2", "1", "0.2", "0.05");
    private static final int TURNS_OF_THE_WHEEL = 40;
    private static final double BETWEEN_TURNS_MS = 50;
    private static final int PIXELS_A_TURN = 100;
    private static final double ASK_AGAIN_MS = 50;
    /** A press on a page at rest: what the one before asked for is drawn. */
    private static final double TO_REST_MS = 300;
    private static final int PRESSES = 12;
    private static final double MOST_SCRIPT_MS = 16;
    private static final double MOST_MS_TO_THE_PAGE = 100;
    private static final double LATE = 0.95;

    private static final List<String> CATEGORIES = List.of("devtools.timeline", "disabled-by-default-devtools.timeline", "devtools.timeline.frame",
            "disabled-by-default-devtools.timeline.frame");

    private final String address;
    private final String name;
    private final String passphrase;

    /** @param name whose bench is opened */
    InTheBrowser(String address, String name, String passphrase) {
        this.address = address;
        this.name = name;
        this.passphrase = passphrase;
    }

    List<Row> run() throws IOException, InterruptedException {
        AtRest.await();
        try (Playwright playwright = Playwright.create(new Playwright.CreateOptions().setEnv(Map.of("PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD", "1")));
                Browser browser = playwright.chromium().launch(new BrowserType.LaunchOptions().setExecutablePath(Path.of("/usr/bin/chromium")))) {
            Page page = browser.newContext(new Browser.NewContextOptions().setViewportSize(1280, 800)).newPage();
            signIn(page);
            List<Row> rows = new ArrayList<>();
            rows.add(scripts(browser, page));
            page.keyboard().press("0");
            page.keyboard().press("Home");
            page.evaluate("() => { window.keyMs = []; addEventListener('keydown', (event) => { const start = event.timeStamp;"
                    + " requestAnimationFrame(() => requestAnimationFrame(() => window.keyMs.push(performance.now() - start))); }, true); }");
            rows.add(keys(page, "a key press that moves the position,", List.of("ArrowRight", "Shift+ArrowRight", "Control+ArrowRight", "End", "Home")));
            rows.add(keys(page, "a key press that comes closer or goes further,", List.of("+", "-")));
            return rows;
        }
    }

    private void signIn(Page page) {
        page.navigate(address + "/sign-in");
        page.getByLabel("Class code").fill("heron8");
        page.getByLabel("Your name").fill(name);
        page.getByLabel("Passphrase").fill(passphrase);
        page.locator("#panel-student button[type=submit]").click();
        page.waitForURL("**/bench");
        page.locator("#page canvas").first().waitFor();
    }

    private static Row scripts(Browser browser, Page page) throws IOException {
        page.locator("#page").focus();
        for (int i = 0; i < ZOOMS.size() + 1; i++) {
            page.keyboard().press("-");
        }
        double worst = 0;
        StringBuilder said = new StringBuilder();
        for (String zoom : ZOOMS) {
            page.keyboard().press("Home");
            page.mouse().move(500, 400);
            browser.startTracing(page, new Browser.StartTracingOptions().setCategories(CATEGORIES));
            page.keyboard().press(" ");
            for (int i = 0; i < TURNS_OF_THE_WHEEL; i++) {
                page.mouse().wheel(0, PIXELS_A_TURN);
                page.waitForTimeout(BETWEEN_TURNS_MS);
            }
            page.keyboard().press(" ");
            double[] ms = new TraceOfFrames(browser.stopTracing()).scriptMsByFrame();
            Arrays.sort(ms);
            double late = ms[(int) (ms.length * LATE)];
            worst = Math.max(worst, late);
            String figures = String.format(Locale.ROOT, "%s s a row %.1f ms (longest %.1f)", zoom, late, ms[ms.length - 1]);
            System.out.println("script for a frame: " + figures + ", " + ms.length + " frames");
            said.append(said.isEmpty() ? "" : ", ").append(figures);
            page.locator("#page").focus();
            page.keyboard().press("+");
        }
        return new Row("script for one frame while scrolling and playing, 95 % of frames", said.toString(), "", String.format(Locale.ROOT, "%.1f ms", worst),
                worst, MOST_SCRIPT_MS);
    }

    /** Keys that are pressed often, each timed in the page from its event to the frame after the next. */
    private static Row keys(Page page, String work, List<String> keys) {
        List<Double> all = new ArrayList<>();
        // the first of its kind waits for what is only loaded once
        for (String key : keys) {
            page.keyboard().press(key);
            page.waitForTimeout(TO_REST_MS);
        }
        page.evaluate("() => { window.keyMs.length = 0; }");
        for (String key : keys) {
            for (int i = 0; i < PRESSES; i++) {
                int before = ((Number) page.evaluate("window.keyMs.length")).intValue();
                page.keyboard().press(key);
                page.waitForTimeout(TO_REST_MS);
                while (((Number) page.evaluate("window.keyMs.length")).intValue() == before) {
                    page.waitForTimeout(ASK_AGAIN_MS);
                }
            }
            System.out.println("key " + key + ": " + page.evaluate("window.keyMs.slice(-" + PRESSES + ").map(Math.round).join(' ')") + " ms");
        }
        ((List<?>) page.evaluate("window.keyMs")).forEach(ms -> all.add(((Number) ms).doubleValue()));
        double[] sorted = all.stream().mapToDouble(Double::doubleValue).sorted().toArray();
        double late = sorted[(int) (sorted.length * LATE)];
        return new Row(work + " until the page shows it, 60 min and 500 clips", String.format(Locale.ROOT, "median %.1f ms, 95 %% within %.1f ms, longest %.1f ms",
                sorted[sorted.length / 2], late, sorted[sorted.length - 1]), "", String.format(Locale.ROOT, "%.1f ms", late), late, MOST_MS_TO_THE_PAGE);
    }
}
