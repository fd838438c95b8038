package org.mellowclass.browser;

import static org.assertj.core.api.Assertions.assertThat;


import com.google.gson.JsonElement;
import com.google.gson.JsonArray;
import com.google.gson.JsonObject;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Mouse;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.BoundingBox;
import com.microsoft.playwright.options.WaitForSelectorState;
import org.junit.jupiter.api.Test;

/** Selecting, editing, clips, flags, notes and keys on the bench, alone and with two browsers. */
class BenchPageTest extends OnTheBench {

    @Test
    void a_selection_runs_across_rows_in_reading_order_and_is_said_in_words() {
        Page page = bench();
        BoundingBox first = page.locator(".row").nth(0).locator(".lane").first().boundingBox();
        BoundingBox second = page.locator(".row").nth(1).locator(".lane").first().boundingBox();
        page.mouse().move(first.x + first.width * 0.75, first.y + 20);
        page.mouse().down();
        page.mouse().move(second.x + second.width * 0.2, second.y + 20, new Mouse.MoveOptions().setSteps(6));
        page.mouse().up();
        assertThat(page.locator("#card-span").innerText()).matches("Tess and Jonah · 0:1\\d\\.\\d\\d to 0:\\d\\d\\.\\d\\d · \\d\\.\\d\\d s");
        assertThat(page.locator(".lane-marker").count()).as("two rows of two tracks").isEqualTo(4);
        page.locator("#card-tracks").getByLabel("Jonah").uncheck();
        assertThat(page.locator(".lane-marker").count()).isEqualTo(2);
        page.locator("#card-tracks").getByLabel("Tess").uncheck();
        assertThat(page.locator("#remove").isDisabled()).isTrue();
        page.keyboard().press("Escape");
        assertThat(page.locator("#card").isVisible()).isFalse();
    }

    @Test
    void the_whole_way_of_a_removal_works_by_keyboard_alone() {
        Page page = bench();
        String length = page.locator("#length").innerText();
        page.locator("#page").focus();
        page.keyboard().press("Home");
        page.keyboard().press("1");
        for (int i = 0; i < 10; i++) {
            page.keyboard().press("Shift+ArrowRight");
        }
        page.keyboard().press("2");
        assertThat(page.locator("#card-span").innerText()).isEqualTo("Tess and Jonah · 0:00.00 to 0:01.00 · 1.00 s");
        page.keyboard().press("4");
        page.getByText("Undo brings it back.").waitFor();
        page.keyboard().press("Control+z");
        await(page, "!document.getElementById('redo').disabled");
        assertThat(page.locator("#length").innerText()).isEqualTo(length);
    }

    @Test
    void the_page_fills_the_window_and_coming_closer_is_remembered_until_zero_shows_the_whole_again() {
        Page page = bench();
        int rows = page.locator(".row").count();
        BoundingBox last = page.locator(".row").last().boundingBox();
        assertThat(last.y + last.height).as("little of the screen is empty, and nothing is below it").isBetween(600.0, 780.0);
        page.keyboard().press("+");
        assertThat(page.locator(".row").count()).isGreaterThan(rows);
        String chosen = page.locator("#row-length").innerText();
        page.reload();
        waitForRows(page);
        assertThat(page.locator("#row-length").innerText()).isEqualTo(chosen);
        page.keyboard().press("0");
        assertThat(page.locator(".row").count()).isEqualTo(rows);
    }

    @Test
    void a_question_mark_shows_the_keys_and_they_do_nothing_behind_it() {
        Page page = bench();
        page.locator("#page").focus();
        page.keyboard().press("?");
        page.getByText("Keys of the bench").waitFor();
        assertAccessible(page);
        page.keyboard().press("1");
        page.keyboard().press("Escape");
        assertThat(page.locator("#keys").isVisible()).isFalse();
        assertThat(page.locator("#card").isVisible()).isFalse();
    }

    @Test
    void two_browsers_see_each_others_edits_and_undoing_what_the_other_did_asks() {
        Page one = bench();
        Page two = mate();
        String length = two.locator("#length").innerText();
        removeStart(one);
        one.getByText("Undo brings it back.").waitFor();
        two.getByText("Somebody in your crew changed the page.").waitFor();
        assertThat(two.locator("#length").innerText()).isEqualTo(one.locator("#length").innerText()).isNotEqualTo(length);

        assertThat(two.locator("#others").innerText()).startsWith("Jonah is here too, at 0:");
        two.keyboard().press("Control+z");
        two.getByText("Jonah did that. Undo it all the same?").waitFor();
        two.locator("#asking button[value=yes]").click();
        await(two, "!document.getElementById('redo').disabled");
        assertThat(two.locator("#length").innerText()).isEqualTo(length);
        one.getByText("Somebody in your crew changed the page.").waitFor();
    }

    @Test
    void what_is_selected_is_softened_blanked_and_split_and_every_step_is_undone_exactly() {
        Page page = bench();
        String episode = episodeOf(page);
        JsonElement tracks = timeline(page, episode).get("tracks");
        select(page);
        page.keyboard().press("6");
        page.getByText("Softened 0.50 s. Undo brings it back.").waitFor();
        select(page);
        page.keyboard().press("5");
        page.getByText("Blanked 0.50 s. Undo brings it back.").waitFor();
        page.keyboard().press("End");
        for (int i = 0; i < 20; i++) {
            page.keyboard().press("Shift+ArrowLeft");
        }
        page.keyboard().press("7");
        page.getByText("Nothing sounds different.").waitFor();
        undo(page, episode, 3);
        assertThat(timeline(page, episode).get("tracks")).isEqualTo(tracks);
    }

    @Test
    void a_clip_is_moved_trimmed_and_made_louder_by_keyboard_and_by_its_card() {
        Page page = bench();
        String episode = episodeOf(page);
        JsonElement tracks = timeline(page, episode).get("tracks");
        page.locator(".clip-grip-move").first().focus();
        page.keyboard().press("Shift+ArrowRight");
        await(page, "document.activeElement.dataset.grip === 'move' && document.getElementById('clip-start').value === '0:00.10'");
        assertAccessible(page);
        page.locator(".clip-grip-end").first().focus();
        page.keyboard().press("ArrowLeft");
        await(page, "document.activeElement.dataset.grip === 'end'");
        page.getByLabel("Gain of this clip in dB").fill("-6");
        page.keyboard().press("Enter");
        page.waitForCondition(() -> clip(page, episode).get("gainDb").getAsDouble() == -6);
        assertThat(clip(page, episode).get("startFrame").getAsLong()).isEqualTo(4_800);
        page.getByLabel("Starts at").fill("0:01");
        // somebody else's edit is drawn while this one is typed
        page.evaluate("document.querySelector('#clip-name').textContent = 'not drawn yet'");
        Page other = bench();
        other.locator(".clip-grip-move").first().focus();
        other.getByLabel("Gain of this clip in dB").fill("-7");
        other.keyboard().press("Enter");
        await(page, "document.getElementById('clip-gain-db').value === '-7' && document.getElementById('clip-name').textContent !== 'not drawn yet'");
        page.getByLabel("Starts at").press("Enter");
        page.waitForCondition(() -> clip(page, episode).get("startFrame").getAsLong() == 48_000);
        page.locator("#page").focus();
        undo(page, episode, 5);
        assertThat(timeline(page, episode).get("tracks")).isEqualTo(tracks);
    }

    @Test
    void a_clip_is_moved_to_another_track_by_dragging_its_grip() {
        Page page = bench();
        String episode = episodeOf(page);
        BoundingBox first = page.locator(".lane").nth(0).boundingBox();
        BoundingBox second = page.locator(".lane").nth(1).boundingBox();
        page.mouse().move(first.x + first.width / 2, first.y + first.height - 8);
        BoundingBox grip = page.locator(".clip-grips.pointed .clip-grip-move").first().boundingBox();
        page.mouse().move(grip.x + 12, grip.y + 12);
        page.mouse().down();
        page.mouse().move(grip.x + 200, second.y + 20, new Mouse.MoveOptions().setSteps(5));
        page.locator(".clip-outline").first().waitFor();
        page.mouse().up();
        page.waitForCondition(() -> clips(page, episode, 1) == 2);
        assertThat(clips(page, episode, 0)).isZero();
        assertThat(page.locator(".clip-outline").count()).isZero();
        page.locator("#page").focus();
        page.keyboard().press("Control+z");
        page.waitForCondition(() -> clips(page, episode, 0) == 1);
    }

    @Test
    void a_flag_names_a_moment_and_is_taken_away_again() {
        Page page = bench();
        page.locator("#page").focus();
        page.keyboard().press("Home");
        page.keyboard().press("Shift+ArrowRight");
        page.keyboard().press("n");
        page.getByLabel("For example: bells start").fill("eels begin");
        page.keyboard().press("Enter");
        Locator flag = page.getByLabel("Flag: eels begin, 0:00.1");
        flag.click();
        page.getByText("Take it away").click();
        flag.waitFor(new Locator.WaitForOptions().setState(WaitForSelectorState.DETACHED));
    }

    @Test
    void notes_stand_beside_their_rows_and_are_ticked() {
        Page page = page();
        signInAsStudent(page, "Mina", "brown tide");
        Locator note = page.locator(".note-card", new Page.LocatorOptions().setHasText("The laugh crackles here."));
        note.getByText("0:14.5").click();
        await(page, "document.getElementById('clock').textContent === '0:14.5'");
        note.getByLabel("done").check();
        page.reload();
        await(page, "document.querySelectorAll('.note-card.done').length === 1");
        assertAccessible(page);
        note.getByLabel("done").uncheck();
    }

    @Test
    void what_a_crewmate_removes_before_it_moves_selection_position_and_playing_and_the_same_words_are_removed() {
        Page page = bench();
        String episode = episodeOf(page);
        Page mate = mate();
        page.locator("#page").focus();
        page.keyboard().press("Home");
        for (int i = 0; i < 40; i++) {
            page.keyboard().press("Shift+ArrowRight");
        }
        page.keyboard().press("1");
        assertThat(page.locator("#card-span").innerText()).isEqualTo("Tess and Jonah · 0:04.00 to 0:05.00 · 1.00 s");
        removeStart(mate);
        page.getByText("0:03.00 to 0:04.00 · 1.00 s").waitFor();
        assertThat(page.locator("#clock").innerText()).isEqualTo("0:03.0");
        page.locator("#page").focus();
        page.keyboard().press("4");
        page.getByText("Removed 1.00 s. Undo brings it back.").waitFor();
        JsonArray clips = timeline(page, episode).getAsJsonArray("tracks").get(0).getAsJsonObject().getAsJsonArray("clips");
        long first = clips.get(0).getAsJsonObject().get("sourceFrame").getAsLong();
        assertThat(clips.get(1).getAsJsonObject().get("sourceFrame").getAsLong() - first).as("what was at 0:05 stands behind what was at 0:01 to 0:04")
                .isEqualTo(4 * 48_000);
        undo(page, episode, 1);
        long revision = timeline(page, episode).get("revision").getAsLong();
        page.keyboard().press("Control+z");
        page.locator("#asking button[value=yes]").click();
        page.waitForCondition(() -> timeline(page, episode).get("revision").getAsLong() > revision);
    }

    @Test
    void a_time_that_is_being_typed_stays_when_a_crewmate_changes_the_page() {
        Page page = bench();
        Page mate = mate();
        select(page);
        Locator end = page.locator("#card-end");
        end.selectText();
        end.pressSequentially("0:0");
        removeStart(mate);
        page.getByText("0:01.00 to 0:01.50 · 0.50 s").waitFor();
        assertThat(end.inputValue()).isEqualTo("0:0");
        assertThat(page.locator("#card-start").inputValue()).as("a field that nobody types in").isEqualTo("0:01.00");
        end.pressSequentially("3");
        page.keyboard().press("Enter");
        page.getByText("0:01.00 to 0:03.00 · 2.00 s").waitFor();
        undo(mate, episodeOf(mate), 1);
    }

    /** A second browser, of somebody in the same crew. */
    private Page mate() {
        Page page = page();
        signInAsStudent(page, "Tess", "green jetty");
        waitForRows(page);
        return page;
    }

    private static void undo(Page page, String episode, int times) {
        for (int i = 0; i < times; i++) {
            long revision = timeline(page, episode).get("revision").getAsLong();
            page.keyboard().press("Control+z");
            page.waitForCondition(() -> timeline(page, episode).get("revision").getAsLong() > revision);
        }
    }

    private static int clips(Page page, String episode, int track) {
        return timeline(page, episode).getAsJsonArray("tracks").get(track).getAsJsonObject().getAsJsonArray("clips").size();
    }

    private static JsonObject clip(Page page, String episode) {
        return timeline(page, episode).getAsJsonArray("tracks").get(0).getAsJsonObject().getAsJsonArray("clips").get(0)
                .getAsJsonObject();
    }

    private static void removeStart(Page page) {
        page.locator("#page").focus();
        page.keyboard().press("Home");
        page.keyboard().press("1");
        page.keyboard().press("4");
    }
}
