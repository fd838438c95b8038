package org.mellowclass.browser;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;

import com.google.gson.JsonArray;
import com.google.gson.JsonObject;
import com.microsoft.playwright.Browser;
import com.microsoft.playwright.CDPSession;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.BoundingBox;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** A teacher marks on a phone, and a crew edits on a tablet, with a finger. */
class TouchTest extends BrowserTest {

    private static Page phone(TouchTest test, int width) {
        Page page = test.page(Phones.BROWSER, new Browser.NewContextOptions().setViewportSize(width, 740).setHasTouch(true).setIsMobile(true));
        signInAsTeacher(page);
        page.locator("a[href^='/hand-ins/']").first().click();
        waitForRows(page);
        return page;
    }

    /** Started with the first test that needs it. */
    private static final class Phones {
        private static final Browser BROWSER = launch(List.of());
    }

    private static void drag(CDPSession session, double fromX, double fromY, double toX, double toY) {
        touch(session, "touchStart", fromX, fromY);
        for (int step = 1; step <= 5; step++) {
            touch(session, "touchMove", fromX + (toX - fromX) * step / 5, fromY + (toY - fromY) * step / 5);
        }
        touch(session, "touchEnd");
    }

    private static long revision(Page page) {
        return timeline(page, episodeOf(page)).get("revision").getAsLong();
    }

    @Test
    void on_a_tablet_a_finger_selects_hears_trims_and_moves_and_one_that_scrolls_edits_nothing() {
        Page page = page(Phones.BROWSER, new Browser.NewContextOptions().setViewportSize(1024, 768).setHasTouch(true).setIsMobile(true));
        signInAsStudent(page, "Isla", "quiet lock");
        waitForRows(page);
        CDPSession session = page.context().newCDPSession(page);
        BoundingBox lane = page.locator(".lane").first().boundingBox();
        double y = lane.y + lane.height / 2;
        long before = revision(page);
        drag(session, lane.x + 0.2 * lane.width, y, lane.x + 0.5 * lane.width, y);
        page.locator("#card").waitFor();
        double end = seconds(page, "#card-end");
        BoundingBox handle = page.locator(".edge-end").boundingBox();
        drag(session, handle.x + handle.width / 2, handle.y + handle.height / 2, handle.x + handle.width / 2 - 0.1 * lane.width, handle.y + handle.height / 2);
        await(page, "parseFloat(document.getElementById('card-end').value.split(':')[1]) < " + (end - 0.2));
        await(page, "document.activeElement.matches('.edge-end')");
        page.locator("#as-if-gone").dispatchEvent("click");
        page.waitForCondition(() -> !page.locator("#message").innerText().isEmpty());
        assertThat(page.locator("#message").innerText()).endsWith("Nothing is changed.");
        page.locator("#let-go").tap();
        drag(session, lane.x + 0.6 * lane.width, y, lane.x + 0.6 * lane.width, y - 90);
        assertThat(revision(page)).as("nothing of that is an edit").isEqualTo(before);
        page.evaluate("scrollTo(0, 0)");
        page.touchscreen().tap(lane.x + 0.6 * lane.width, y);
        page.locator("#play[aria-label=Pause]").tap();
        BoundingBox grip = page.locator(".clip-grip-start").first().boundingBox();
        drag(session, grip.x + grip.width / 2, grip.y + grip.height / 2, grip.x + grip.width / 2 + 0.05 * lane.width, grip.y + grip.height / 2);
        page.getByText("Trimmed").waitFor();
        page.locator("#undo").tap();
        page.waitForCondition(() -> revision(page) == before + 2);
    }

    private static void touch(CDPSession session, String kind, double... place) {
        JsonObject event = new JsonObject();
        event.addProperty("type", kind);
        JsonArray points = new JsonArray();
        if (place.length > 0) {
            JsonObject point = new JsonObject();
            point.addProperty("x", place[0]);
            point.addProperty("y", place[1]);
            points.add(point);
        }
        event.add("touchPoints", points);
        session.send("Input.dispatchTouchEvent", event);
    }

    private static double seconds(Page page, String field) {
        String[] parts = page.locator(field).inputValue().split(":");
        return 60 * Double.parseDouble(parts[0]) + Double.parseDouble(parts[1]);
    }

    @ParameterizedTest
    @ValueSource(ints = {360, 768})
    void a_swipe_marks_to_its_end(int width) {
        Page page = phone(this, width);
        assertThat((Integer) page.evaluate("document.documentElement.scrollWidth")).as("no page-wide scroll bar").isLessThanOrEqualTo(width);
        page.locator(".lane").first().scrollIntoViewIfNeeded();
        BoundingBox lane = page.locator(".lane").first().boundingBox();
        double y = lane.y + lane.height / 2;
        CDPSession session = page.context().newCDPSession(page);
        touch(session, "touchStart", lane.x + 0.2 * lane.width, y);
        touch(session, "touchMove", lane.x + 0.3 * lane.width, y);
        touch(session, "touchMove", lane.x + 0.9 * lane.width, y);
        touch(session, "touchEnd");
        page.locator("#note-form").waitFor();
        double row = Double.parseDouble(page.locator(".rail").innerText().replaceAll("(?s).*?(\\d+) s\\s+a row.*", "$1"));
        assertThat(seconds(page, "#note-to") - seconds(page, "#note-from")).as("seven tenths of a row of %s s", row).isBetween(0.62 * row, 0.78 * row);
    }

    @Test
    void a_finger_that_scrolls_marks_nothing() {
        Page page = phone(this, 360);
        page.locator(".lane").first().scrollIntoViewIfNeeded();
        BoundingBox lane = page.locator(".lane").first().boundingBox();
        double x = lane.x + lane.width / 2;
        CDPSession session = page.context().newCDPSession(page);
        double before = ((Number) page.evaluate("scrollY")).doubleValue();
        touch(session, "touchStart", x, lane.y + 40);
        for (int step = 1; step <= 8; step++) {
            touch(session, "touchMove", x, lane.y + 40 - 15 * step);
        }
        touch(session, "touchEnd");
        await(page, "scrollY > " + (before + 20));
        assertThat(page.locator("#note-form").isHidden()).isTrue();
    }
}
