package org.mellowclass.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;

/** What journeys on the bench share. */
abstract class OnTheBench extends BrowserTest {

    static void select(Page page) {
        page.locator("#page").focus();
        page.keyboard().press("Home");
        for (int i = 0; i < 20; i++) {
            page.keyboard().press("Shift+ArrowRight");
        }
        page.keyboard().press("1");
        for (int i = 0; i < 5; i++) {
            page.keyboard().press("Shift+ArrowRight");
        }
        page.keyboard().press("2");
        assertThat(page.locator("#card-span").innerText()).isEqualTo("Tess and Jonah · 0:02.00 to 0:02.50 · 0.50 s");
    }

    Page bench() {
        Page page = page();
        signInAsStudent(page, "Jonah", "salt rope");
        waitForRows(page);
        return page;
    }
}
