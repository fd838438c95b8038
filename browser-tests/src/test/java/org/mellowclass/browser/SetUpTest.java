package org.mellowclass.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A teacher sets up a real class on an application without a school: from the start key to a child who signs in with a card. */
class SetUpTest extends BrowserTest {

    private static final Pattern START = Pattern.compile("/first-start\\?key=\\w+");

    @TempDir
    private Path folder;

    @Test
    void from_the_first_start_to_the_first_child_who_signs_in() throws IOException, InterruptedException {
        RunningApp empty = RunningApp.notStarted("mellow_empty");
        empty.startAgain();
        try {
            setUp(empty, page());
        } finally {
            empty.kill();
        }
    }

    private void setUp(RunningApp empty, Page page) throws IOException, InterruptedException {
        Matcher start = START.matcher(empty.words());
        assertThat(start.find()).as("the start key is told").isTrue();
        assertThat(page.navigate(empty.address("/first-start?key=guessed")).status()).isEqualTo(404);

        page.navigate(empty.address("/"));
        page.getByText("There is no school here yet").waitFor();
        assertAccessible(page);

        page.navigate(empty.address(start.group()));
        assertAccessible(page);
        assertThat(page.getByLabel("Its time zone").inputValue()).as("the browser's").isEqualTo(page.evaluate("Intl.DateTimeFormat().resolvedOptions().timeZone"));
        page.getByLabel("Name of the school").fill("Withy Lane School");
        page.getByLabel("Its time zone").fill("Europe/Dublin");
        page.getByLabel("What the class calls you").fill("Mr Rush");
        page.getByLabel("E-mail").fill("rush@withy.example");
        page.getByLabel("Password, twelve letters or more").fill("reeds in the wind");
        page.getByLabel("What it is called").fill("7 Curlew");
        page.getByText("Make the school").last().click();
        page.waitForURL("**/crews");
        page.getByText("Who is in the class?").waitFor();
        String classId = page.url().replaceAll(".*/classes/(\\d+)/.*", "$1");

        putOnShelf(empty, page, classId);
        brief(empty, page, classId);
        roster(page);
        crews(page);
        invite(page);
        String passphrase = card(empty, page, classId);

        Page child = page();
        child.navigate(empty.address("/sign-in"));
        child.getByLabel("Class code").fill(passphrase.split("\\|")[0]);
        child.getByLabel("Your name").fill("Bo Tern");
        child.getByLabel("Passphrase").fill(passphrase.split("\\|")[1]);
        child.locator("#panel-student button[type=submit]").click();
        child.waitForURL("**/bench");
        waitForRows(child);
        assertThat(child.locator(".lane-name").first().innerText()).as("the starter layout is there").contains("Sounds");
    }

    private void putOnShelf(RunningApp empty, Page page, String classId) throws IOException, InterruptedException {
        page.navigate(empty.address("/classes/" + classId + "/shelf"));
        page.locator("#file").setInputFiles(Files.writeString(folder.resolve("knocking.wav"), "This is not a sound."));
        page.getByLabel("Name", new Page.GetByLabelOptions().setExact(true)).fill("Knocking");
        page.getByLabel("Who made it").fill("7 Curlew");
        page.getByLabel("Licence: what allows you to use it").fill("Made by our class");
        page.getByLabel("Where it is from").fill("our classroom door");
        page.getByText("Put it there").click();
        page.getByText("This file is not a recording.").waitFor();
        assertThat(page.getByLabel("Who made it").inputValue()).as("what was typed is kept").isEqualTo("7 Curlew");
        page.locator("#file").setInputFiles(Voices.speak(folder, List.of("Knock knock.")));
        page.getByText("Put it there").click();
        page.getByLabel("Play Knocking").waitFor();
    }

    private static void brief(RunningApp empty, Page page, String classId) {
        page.navigate(empty.address("/classes/" + classId + "/brief"));
        page.getByText("Everything is saved.").waitFor();
        page.getByLabel("Name of the project").fill("Doors of our street");
        page.getByLabel("House sound").selectOption("SCHOOL_HALL");
        page.getByText("Add a part").click();
        page.keyboard().type("Opening");
        page.locator("[data-add=lines]").click();
        page.keyboard().press("Tab");
        page.keyboard().type("Who lives behind this door?");
        page.getByText("Add a sound").click();
        page.locator("#starter [data-track]").fill("Sounds");
        page.getByText("Not saved yet.").waitFor();
        page.getByText("Save the brief").click();
        page.getByText("Everything is saved.").waitFor();
        assertThat(page.getByLabel("LUFS").inputValue()).startsWith("-20");
        assertThat(page.locator("#lines [data-words]").inputValue()).isEqualTo("Who lives behind this door?");
    }

    private static void roster(Page page) {
        page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("Crews")).click();
        page.getByLabel("Paste your list here, one student a line").fill("Name;Crew\nBo Tern;Knockers\nAnn Moss\nCy Reed\nDee Hill\n;Knockers\n");
        page.getByText("Look at it first").click();
        page.getByText("The name is missing.").waitFor();
        page.getByText("Write the good rows").click();
        page.waitForURL("**/crews");
    }

    /** By keyboard: two students are moved by the list on their cards, the others are dealt; a part is given. */
    private static void crews(Page page) {
        page.getByLabel("Move Ann Moss to").focus();
        page.keyboard().type("Knockers");
        page.locator("[data-crew]:has(h2:text('Knockers')) [data-name='Ann Moss']").waitFor();
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Deal")).click();
        page.getByText("Everybody is in a crew.").waitFor();
        page.getByText("Parts: 0 of 1 given").first().click();
        page.getByLabel("Opening").first().selectOption("Ann Moss");
        page.getByText("Parts: 1 of 1 given").waitFor();
        page.dragAndDrop("[data-name='Cy Reed']", "[data-crew]:has(h2:text('Knockers'))");
        page.locator("[data-crew]:has(h2:text('Knockers')) [data-name='Cy Reed']").waitFor();
        assertAccessible(page);
    }

    private void invite(Page page) {
        page.getByLabel("A colleague’s e-mail").fill("moor@withy.example");
        page.getByText("Invite", new Page.GetByTextOptions().setExact(true)).click();
        page.waitForURL("**/outbox");
        String link = page.locator("main a").first().getAttribute("href");
        Page colleague = page();
        colleague.navigate(link);
        assertAccessible(colleague);
        colleague.getByLabel("What the class calls you").fill("Ms Moor");
        colleague.getByLabel("Password, twelve letters or more").fill("heather and gorse");
        colleague.getByText("Come in").click();
        colleague.waitForURL("**/classes/*");
    }

    /** The class code and the passphrase on a child's card. */
    private static String card(RunningApp empty, Page page, String classId) {
        page.navigate(empty.address("/classes/" + classId + "/cards"));
        assertAccessible(page);
        List<String> lines = page.locator(".sign-in-card:has-text('Bo Tern') dd").allInnerTexts();
        return lines.get(1) + "|" + lines.get(2);
    }
}
