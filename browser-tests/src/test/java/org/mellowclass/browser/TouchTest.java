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

/** A teacher marks on a phone, with a finger. */
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
