package org.mellowclass.browser;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import org.junit.jupiter.api.Test;

/** From an application without a school to an episode that plays on the feed: how much of it falls to the teacher is counted. */
class FirstDayTest extends BrowserTest {

    private static final Pattern START = Pattern.compile("/first-start\\?key=\\w+");
    private static final int MOST_PRESSES = 12;
    private static final int MOST_FIELDS = 8;

    private int presses;
    private int fields;

    @Test
    void a_teacher_comes_from_an_empty_install_to_a_playing_feed_with_few_presses_and_fields() throws IOException, InterruptedException {
        RunningApp empty = RunningApp.notStarted("mellow_first_day");
        empty.startAgain();
        try {
            wholeWay(empty, page());
        } finally {
            empty.kill();
        }
        assertThat(presses).as("presses of the teacher").isLessThanOrEqualTo(MOST_PRESSES);
        assertThat(fields).as("fields that the teacher had to fill in").isLessThanOrEqualTo(MOST_FIELDS);
    }

    private void press(Locator what) {
        presses++;
        what.click();
    }

    private void fill(Locator what, String words) {
        fields++;
        what.fill(words);
    }

    private static Locator button(Page page, String name) {
        return page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name).setExact(true));
    }

    private static Locator link(Page page, String name) {
        return page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName(name)).first();
    }

    private void wholeWay(RunningApp empty, Page teacher) throws IOException {
        Matcher start = START.matcher(empty.words());
        assertThat(start.find()).isTrue();
        teacher.navigate(empty.address(start.group()));
        fill(teacher.getByLabel("Name of the school"), "Withy Lane School");
        fill(teacher.getByLabel("What the class calls you"), "Mr Rush");
        fill(teacher.getByLabel("E-mail"), "rush@withy.example");
        fill(teacher.getByLabel("Password, twelve letters or more"), "reeds in the wind");
        fill(teacher.getByLabel("What it is called"), "7 Curlew");
        press(teacher.getByText("Make the school").last());
        fill(teacher.getByLabel("Paste your list here, one student a line"), "Name;Crew;Consent\nBo Tern;Knockers;public\n");
        press(teacher.getByText("Look at it first"));
        press(button(teacher, "Write them"));
        teacher.waitForURL("**/crews");
        press(link(teacher, "Cards"));
        List<String> card = teacher.locator(".sign-in-card dd").allInnerTexts();

        Page child = page();
        handIn(empty, child, card.get(1), card.get(2));

        press(link(teacher, "Class board"));
        press(link(teacher, "Hear it"));
        waitForRows(teacher);
        press(teacher.getByLabel("Play", new Page.GetByLabelOptions().setExact(true)));
        await(teacher, "document.getElementById('mixdown').ended");
        press(button(teacher, "Clear for air"));
        teacher.waitForURL("**/air");
        if (teacher.getByLabel("Description, for listeners").inputValue().isEmpty()) {
            fill(teacher.getByLabel("Description, for listeners"), "Who lives behind this door?");
        }
        press(button(teacher, "Publish"));
        press(teacher.getByText("Open its page"));
        assertThat(teacher.getByText("With Bo").isVisible()).isTrue();
        press(teacher.locator("[data-play]"));
        await(teacher, "document.querySelector('audio').currentTime > 0.3");
        String feed = teacher.url().replaceAll("/[^/]+$", "/feed.xml");
        assertThat(teacher.context().request().get(feed).text()).contains("<enclosure").contains("<itunes:author>Bo</itunes:author>");
    }

    /** With the practice microphone, which reads a script. */
    private static void handIn(RunningApp empty, Page child, String code, String passphrase) {
        child.navigate(empty.address("/sign-in"));
        child.getByLabel("Class code").fill(code);
        child.getByLabel("Your name").fill("Bo Tern");
        child.getByLabel("Passphrase").fill(passphrase);
        child.locator("#panel-student button[type=submit]").click();
        child.waitForURL("**/bench");
        child.navigate(empty.address("/episodes/" + episodeOf(child) + "/record"));
        child.getByLabel("Microphone", new Page.GetByLabelOptions().setExact(true)).selectOption("practice");
        child.locator("#record").click();
        awaitClock(child, 4);
        child.locator("#record").click();
        child.getByLabel("Play Take 1").waitFor();
        child.getByText("See them on the bench").click();
        waitForRows(child);
        button(child, "Hand in").click();
        child.getByText("Sound check").waitFor();
    }
}
