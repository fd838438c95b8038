package org.mellowclass.browser;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Route;
import com.microsoft.playwright.options.AriaRole;
import org.junit.jupiter.api.Test;
import org.mellowclass.core.testing.Signal;

/** A teacher marks by keyboard while listening; a crew cuts before and inside the noted words; the teacher hears only what is new. */
class MarkingWayTest extends JobSchool {

    private static void button(Page page, String name) {
        Locator button = page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name));
        settled(page, button);
        button.click();
    }

    private Page teacher() {
        return teacher(page());
    }

    /** A crew's hand-in, from the marking desk. */
    private void hear(Page teacher, String crew) {
        teacher.getByText("Marking desk").click();
        teacher.waitForURL("**/marking");
        assertAccessible(teacher);
        teacher.locator("li", new Page.LocatorOptions().setHasText(crew)).getByText("Hear it").click();
        waitForRows(teacher);
    }

    /** From a tenth of a second to another, by keys alone. */
    private static void mark(Page teacher, int from, int to) {
        teacher.locator("#page").focus();
        teacher.keyboard().press("Home");
        forward(teacher, from);
        teacher.keyboard().press("1");
        forward(teacher, to - from);
        teacher.keyboard().press("2");
    }

    private static void note(Page teacher, int from, int to, String kindKey, String words) {
        mark(teacher, from, to);
        teacher.keyboard().press("Enter");
        assertThat(isFocused(teacher, "#note-words")).isTrue();
        teacher.keyboard().press(kindKey);
        teacher.keyboard().type(words);
        teacher.keyboard().press("Enter");
        teacher.locator(".note-card", new Page.LocatorOptions().setHasText(words)).waitFor();
    }

    /** Two seconds in, the words are those that stood two seconds later before the cut; going over is a matter of volumes alone. */
    private static void hearTheOneBefore(Page teacher) {
        teacher.locator("#page").focus();
        teacher.keyboard().press("Home");
        forward(teacher, 20);
        teacher.keyboard().press("Space");
        await(teacher, "document.getElementById('mixdown').currentTime > 2.1 && !document.getElementById('earlier').paused");
        teacher.keyboard().press("o");
        teacher.getByText("You hear Hand-in 1.").waitFor();
        assertThat((Boolean) teacher.evaluate("(([now, was]) => now.volume === 0 && was.volume > 0 && Math.abs(was.currentTime - now.currentTime - 2) < 0.2)"
                + "([document.getElementById('mixdown'), document.getElementById('earlier')])")).isTrue();
        teacher.keyboard().press("o");
        assertThat((Boolean) teacher.evaluate("document.getElementById('mixdown').volume > 0.9 && document.getElementById('earlier').volume === 0")).isTrue();
        teacher.keyboard().press("Space");
    }

    private static void forward(Page page, int tenths) {
        for (int i = 0; i < tenths; i++) {
            page.keyboard().press("Shift+ArrowRight");
        }
    }

    private void handIn(Page crew) {
        crew.locator("#hand-in button").click();
        crew.waitForURL("**/hand-ins/*");
        crew.locator(".readings").first().waitFor(new Locator.WaitForOptions().setTimeout(60_000));
    }

    /** What other journeys have left waits too: the three that have waited longest are marked. */
    @Test
    void a_teacher_marks_three_crews_by_keyboard_alone() throws Exception {
        for (String child : List.of("Ada Reed", "Ben Sedge", "Cleo Rush")) {
            Page crew = crewOf(child);
            bringIn(crew, "START", Map.of(child.substring(0, 3), Signal.sine(1, 330, -12, 3).fadedIn()));
            handIn(crew);
        }
        Page teacher = teacher();
        teacher.getByText("Marking desk").focus();
        teacher.keyboard().press("Enter");
        teacher.waitForURL("**/marking");
        teacher.getByText("Hear it").first().focus();
        teacher.keyboard().press("Enter");
        Set<String> marked = new HashSet<>();
        for (int i = 0; i < 3; i++) {
            waitForRows(teacher);
            marked.add(teacher.url());
            teacher.locator("#page").focus();
            teacher.keyboard().press("Home");
            teacher.keyboard().press("Space");
            teacher.getByText("You have heard all of it.").waitFor(new Locator.WaitForOptions().setTimeout(40_000));
            note(teacher, 5, 10, "2", "What rings here, number " + i + "?");
            for (int tabs = 0; tabs < 100 && !isFocused(teacher, "#sentence"); tabs++) {
                teacher.keyboard().press("Tab");
            }
            teacher.keyboard().type("Once more, please.");
            teacher.keyboard().press("Enter");
            teacher.getByText("Another pass.").waitFor();
            if (i < 2) {
                // the page has come anew: keys do nothing before it is drawn
                waitForRows(teacher);
                String here = teacher.url();
                teacher.locator("#page").focus();
                teacher.keyboard().press("j");
                teacher.waitForURL(url -> !url.equals(here));
            }
        }
        assertThat(marked).hasSize(3);
    }

    private static boolean isFocused(Page page, String selector) {
        return (Boolean) page.locator(selector).evaluate("it => it === document.activeElement");
    }

    @Test
    void another_crew_listens_early_and_its_note_is_seen_when_the_teacher_has_read_it() throws Exception {
        Page crew = crewOf("Jon Sluice");
        bringIn(crew, "START", Map.of("Jon", Signal.sine(1, 330, -12, 3).fadedIn()));
        handIn(crew);
        String handIn = crew.url();
        Page teacher = teacher();
        teacher.navigate(handIn);
        waitForRows(teacher);
        teacher.getByText("Other crews").click();
        button(teacher, "Invite Crew H for three days");
        teacher.waitForLoadState();

        Page other = crewOf("Hal Lock");
        other.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("Listen early")).click();
        other.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName(Pattern.compile("Hear it"))).click();
        assertAccessible(other);
        other.locator("[data-play]").click();
        await(other, "document.getElementById('early-sound').currentTime > 0.3");
        other.locator("[data-play]").click();
        other.getByLabel("One thing I want to know").check();
        other.getByLabel("From").fill("0:00");
        button(other, "to here");
        other.getByLabel("Your note").fill("Who rings the bell?");
        button(other, "Leave it");
        other.getByText("What you have said").waitFor();

        crew.reload();
        waitForRows(crew);
        assertThat(crew.locator(".note-card").count()).as("held until it was read").isZero();
        teacher.navigate(handIn);
        waitForRows(teacher);
        assertThat(teacher.locator(".note-card").innerText()).contains("Who rings the bell?", "The crew does not see it yet.", "Hal");
        button(teacher, "let the crew see it");
        teacher.waitForLoadState();
        crew.reload();
        crew.locator(".note-card", new Page.LocatorOptions().setHasText("Who rings the bell?")).waitFor();
        button(crew, "Report the note");
        crew.waitForLoadState();
        waitForRows(crew);
        assertThat(crew.locator(".note-card").count()).as("hidden until it is looked at").isZero();
    }

    @Test
    void notes_stay_with_their_words_and_only_what_is_new_is_heard_again() throws Exception {
        Page crew = crewOf("Ida Pool");
        String episode = episodeOf(crew);
        bringIn(crew, "START", Map.of("Ida", Signal.concat(Signal.sine(1, 440, -12, 4), Signal.sine(1, 660, -12, 4), Signal.sine(1, 880, -12, 4)).fadedIn()));
        handIn(crew);

        Page teacher = teacher();
        hear(teacher, "Crew I");
        assertAccessible(teacher);
        note(teacher, 50, 70, "3", "Say it again, slower.");
        note(teacher, 90, 100, "1", "I can hear the bell.");
        assertThat(teacher.locator(".note-card").first().innerText()).contains("mend this", "0:05");
        // the pointer lies where the last button was, and lights up whatever has come to lie there
        teacher.mouse().move(0, 0);
        teacher.locator(".note-card").first().getByRole(AriaRole.BUTTON).first().focus();
        assertThat(teacher.evaluate("[...new Set([...document.querySelectorAll('.note-bracket.lit')].map(bracket => bracket.dataset.note))].join()"))
                .as("its sound lights up, in whatever rows it is, and no other").isEqualTo(teacher.locator(".note-card").first().getAttribute("data-note"));
        teacher.locator(".note-bracket").last().focus();
        assertThat(teacher.locator(".note-card.lit").innerText()).contains("I can hear the bell.");
        teacher.reload();
        waitForRows(teacher);
        assertThat(teacher.locator(".note-card").count()).isEqualTo(2);
        teacher.locator("#page").focus();
        teacher.keyboard().press("Home");
        teacher.keyboard().press("Space");
        teacher.getByText("You have heard all of it.").waitFor(new Locator.WaitForOptions().setTimeout(40_000));
        teacher.getByLabel("One sentence for the crew").fill("Nearly there.");
        button(teacher, "Another pass");
        teacher.getByText("Another pass.").waitFor();

        crew.navigate(at("/episodes/" + episode + "/bench"));
        crew.getByText("2 notes, 1 to mend").waitFor();
        select(crew, 5.5, 6);
        press(crew, "#remove", "Removed 0.50 s");
        select(crew, 1, 3);
        press(crew, "#remove", "Removed 2.00 s");
        select(crew, 8, 9);
        press(crew, "#soften", "Softened 1.00 s");
        Locator mend = crew.locator(".note-card", new Page.LocatorOptions().setHasText("slower"));
        assertThat(mend.innerText()).contains("0:03");
        mend.getByLabel("done").check();
        mend.getByLabel("How you did it").fill("Shorter now.");
        mend.getByLabel("How you did it").press("Tab");
        handIn(crew);

        teacher.navigate(ofClass("/marks"));
        teacher.getByText("No marks are given yet.").waitFor();
        assertAccessible(teacher);
        teacher.navigate(ofClass(""));
        hear(teacher, "Crew I");
        assertThat(teacher.locator("#heard-words").innerText()).isEqualTo("0:01 not heard yet.");
        teacher.getByText("What changed since hand-in 1: 3").click();
        assertThat(teacher.locator("[aria-label='What changed since hand-in 1']").innerText())
                .contains("Ida: 2.0 s taken out", "Ida: 0.5 s taken out", "Ida: 1.0 s softer by 12.0 dB", "1.0 s of new sound");
        button(teacher, "Play only what is new");
        teacher.getByText("You have heard all of it.").waitFor(new Locator.WaitForOptions().setTimeout(20_000));
        assertThat((Boolean) teacher.evaluate("document.getElementById('mixdown').currentTime < 10")).as("only around what is new").isTrue();
        hearTheOneBefore(teacher);
        teacher.getByText("Said of hand-in 1: 1 of 2 ticked").click();
        Locator said = teacher.locator("[aria-label='Said of hand-in 1']");
        assertThat(said.innerText()).contains("Shorter now.", "Ida: 0.5 s taken out", "Nothing was changed there.", "0:03", "0:06");
        assertAccessible(teacher);
        said.getByText("agree").click();
        teacher.waitForLoadState();
        waitForRows(teacher);
        teacher.getByText("Said of hand-in 1: 1 of 2 ticked").click();
        teacher.getByText("done, as you both say").waitFor();
        button(teacher, "Clear for air");
        teacher.waitForURL("**/air");
        assertThat(teacher.getByText("What nobody has heard yet").count()).as("it was heard, the rest in hand-in 1").isZero();
    }

    /** Speaks for a second, by keys alone: S begins. */
    private static void speak(Page teacher, int from, int to, String kindKey) {
        mark(teacher, from, to);
        teacher.keyboard().press("Enter");
        teacher.keyboard().press(kindKey);
        teacher.locator("#page").focus();
        teacher.keyboard().press("s");
        teacher.getByText("Speak now.").waitFor();
        await(teacher, "document.getElementById('speak-clock').textContent >= '0:01.0'");
    }

    /** Of the margin: one comes when the notes have been drawn by a later one, and that one fails at first. */
    private static List<Route> theNextTwoAnswersGoWrong(Page page) {
        List<Route> asked = new ArrayList<>();
        page.route("**/hand-ins/*/notes", route -> {
            if (!route.request().method().equals("GET")) {
                route.resume();
                return;
            }
            asked.add(route);
            if (asked.size() == 2) {
                route.fulfill(new Route.FulfillOptions().setStatus(503));
            } else if (asked.size() > 2) {
                route.resume();
            }
        });
        return asked;
    }

    private static Locator noteCard(Page page, String words) {
        return page.locator(".note-card", new Page.LocatorOptions().setHasText(words));
    }

    @Test
    void notes_stay_with_a_line_that_is_swapped_for_its_retake_and_with_a_take_that_is_treated_and_a_spoken_one_is_heard() throws Exception {
        try (Browser withMicrophone = launchWithMicrophone()) {
            notesStay(withMicrophone);
        }
    }

    private void notesStay(Browser withMicrophone) throws Exception {
        Page crew = crewOf("Gia Weir");
        String episode = episodeOf(crew);
        // 400 what is said before, 600 the line that is said again, 700 what is said behind it; 800 is the retake
        bringIn(crew, "START", Map.of("Gia", Tones.voice(400, 2, 0, 1.5, 600, 2, 0, 1.5, 700, 2)));
        handIn(crew);
        String first = crew.url();
        Page teacher = teacher(page(withMicrophone));
        teacher.navigate(first);
        waitForRows(teacher);
        note(teacher, 35, 55, "3", "Say this line again.");
        note(teacher, 72, 88, "3", "There is a hiss here.");
        List<Route> late = theNextTwoAnswersGoWrong(teacher);
        speak(teacher, 2, 18, "1");
        button(teacher, "Throw it away");
        teacher.getByText("Thrown away.").waitFor();
        speak(teacher, 2, 18, "1");
        assertAccessible(teacher);
        teacher.locator("#page").focus();
        teacher.keyboard().press("s");
        teacher.getByText("Your note stands in the margin, spoken.").waitFor();
        await(teacher, "document.querySelectorAll('.note-card').length === 3");
        late.get(0).fulfill(new Route.FulfillOptions().setBody("<ol id='notes'></ol>").setContentType("text/html"));
        await(teacher, "document.querySelectorAll('.note-card').length === 3");
        Locator spoken = teacher.locator(".note-card", new Page.LocatorOptions().setHas(teacher.locator(".small-player")));
        spoken.waitFor();
        assertAccessible(teacher);
        teacher.getByLabel("One sentence for the crew").fill("One line, and the hiss.");
        button(teacher, "Another pass");
        teacher.getByText("Another pass.").waitFor();

        crew.navigate(at("/episodes/" + episode + "/bench"));
        crew.getByText("3 notes, 2 to mend").waitFor();
        crew.getByLabel("Play the spoken note at 0:00").click();
        await(crew, "[...document.querySelectorAll('.note-card audio')].some(audio => audio.currentTime > 0.2)");
        assertAccessible(crew);
        bringIn(crew, "LIST", Map.of("again", Tones.voice(0, 0.7, 800, 2.4, 0, 0.8)));
        select(crew, 3.5, 5.5);
        crew.locator("[data-tab=takes]").click();
        crew.getByLabel("Swap in again for what is selected").click();
        crew.locator("#offer-keep").click();
        crew.getByText("again is swapped in.").waitFor();
        noteCard(crew, "Say this line again.").filter(new Locator.FilterOptions().setHasText("swapped for another take")).waitFor();
        assertThat(noteCard(crew, "Say this line again.").innerText()).contains("0:03");
        crew.navigate(at(crew.locator("a[href$='/cleanup']").last().getAttribute("href")));
        crew.getByText("Noisy classroom").first().click();
        crew.locator("[data-compare]").waitFor();
        button(crew, "Keep it");
        crew.getByText("plays so on the page.").waitFor();
        crew.navigate(at("/episodes/" + episode + "/bench"));
        noteCard(crew, "There is a hiss here.").waitFor();
        assertThat(noteCard(crew, "There is a hiss here.").innerText()).as("treated, and moved by the longer line").contains("0:07").doesNotContain("gone");
        handIn(crew);

        teacher.navigate(crew.url());
        waitForRows(teacher);
        teacher.locator("summary", new Page.LocatorOptions().setHasText("What changed since hand-in 1")).click();
        assertThat(teacher.locator("[aria-label='What changed since hand-in 1']").innerText()).containsPattern("Gia: 2.0 s swapped for 2.\\d s").contains("treated otherwise");
        teacher.getByText("Said of hand-in 1: 0 of 3 ticked").click();
        Locator said = teacher.locator("[aria-label='Said of hand-in 1']");
        assertThat(said.innerText()).contains("swapped for another take", "treated otherwise");
        said.getByLabel("Play the spoken note at 0:00").waitFor();
        assertAccessible(teacher);
        teacher.navigate(first);
        waitForRows(teacher);
        spoken.getByText("take back").click();
        teacher.waitForLoadState();
        waitForRows(teacher);
        assertThat(teacher.locator(".note-card").count()).isEqualTo(2);
    }
}
