package org.mellowclass.browser;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.mellowclass.core.measure.LoudnessMeter;
import org.mellowclass.core.testing.Signal;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;

/** Whole jobs on the bench, as crews do them; each is checked by what is heard in the file that comes out. */
class WholeJobsTest extends JobSchool {

    @ParameterizedTest
    @EnumSource
    void a_fumbled_line_is_swapped_for_its_retake_two_pauses_shortened_a_breath_softened_and_the_ending_trimmed(Hand hand) throws Exception {
        Page page = crewOf(hand == Hand.KEYS ? "Ida Pool" : "Ada Reed");
        // 400 a line, 600 the fumbled one, 700 a breath, 900 what is said after; 800 is the retake
        bringIn(page, "START", Map.of("Ada", Tones.voice(400, 2, 0, 3, 600, 2, 0, 2.5, 400, 1, 0, 0.3, 700, 0.5, 0, 0.3, 400, 1, 0, 1, 900, 2)));
        bringIn(page, "LIST", Map.of("again", Tones.voice(0, 0.7, 800, 2.4, 0, 0.8)));
        hand.select(page, 4.5, 7.5);
        hand.tab(page, "takes");
        hand.press(page, page.getByLabel("Swap in again for what is selected"));
        page.getByText("again in the place of what was selected.").waitFor();
        hand.press(page, page.locator("#offer-hear"));
        page.locator("#play[aria-label=Pause]").waitFor();
        hand.press(page, page.locator("#offer-keep"));
        page.getByText("again is swapped in.").waitFor();
        hand.select(page, 11.2, 11.7);
        hand.act(page, "#soften", "Softened 0.50 s.");
        hand.tab(page, "pauses");
        hand.press(page, page.getByText("Shorten 2 pauses"));
        page.getByText("2 pauses are shorter").waitFor();
        hand.tab(page, "pauses");
        long frames = timeline(page).get("frames").getAsLong();
        reach(page, page.locator(".clip-grip-end").last());
        page.keyboard().down("Shift");
        for (int i = 0; i < 21; i++) {
            page.keyboard().press("ArrowLeft");
        }
        page.keyboard().up("Shift");
        page.waitForCondition(() -> timeline(page).get("frames").getAsLong() == frames - 21 * 4800);
        List<Tones.Heard> heard = Tones.in(taken(page, hand), 400, 600, 700, 800, 900);
        assertThat(heard).extracting(Tones.Heard::hertz).startsWith(400, 0, 800, 0, 400).doesNotContain(600, 900);
        assertThat(heard.get(1).seconds()).as("the first pause is natural now").isCloseTo(0.6, within(0.06));
        assertThat(heard.get(2).seconds()).as("all of the retake's words").isCloseTo(2.4, within(0.06));
        assertThat(heard.get(3).seconds()).as("the second pause").isCloseTo(0.6, within(0.06));
    }

    @ParameterizedTest
    @EnumSource
    void two_voices_recorded_apart_are_lined_up_a_pause_taken_out_of_both_and_opening_and_ending_laid_in_with_fades(Hand hand) throws Exception {
        Page page = crewOf(hand == Hand.KEYS ? "Jon Sluice" : "Ben Sedge");
        // both laptops hear the same room; Cora's was switched on a second and a half later
        float[] room = claps(Signal.noise(1, -50, 14, 7).samples()[0], 0.9, 2.6, 3.7, 4.2, 5.9, 7.1, 7.5, 9.2, 10.4, 11.1);
        bringIn(page, "START", Map.of("Ben", over(room, 0, Tones.voice(400, 2, 0, 8)), "Cora", over(room, 72_000, Tones.voice(0, 4.5, 600, 2, 0, 2))));
        lineUp(page, hand, "Ben", "Cora");
        hand.select(page, 2.5, 5.5);
        hand.act(page, "#remove", "Removed 3.00 s.");
        bringIn(page, "LIST", Map.of("opening", Tones.voice(900, 2), "ending", Tones.voice(1100, 2)));
        hand.select(page, 0, 2);
        hand.act(page, "#open-up", "A gap of 2.00 s is open");
        page.keyboard().press("Escape");
        hand.ribbonTo(page, 0);
        hand.tab(page, "takes");
        hand.press(page, page.getByLabel("Lay opening at the ribbon"));
        page.getByText("opening is on the page.").waitFor();
        hand.toPage(page);
        page.keyboard().press("End");
        hand.press(page, page.getByLabel("Lay ending at the ribbon"));
        page.getByText("ending is on the page.").waitFor();
        hand.tab(page, "takes");
        reach(page, page.locator(".clip-grip-fade-out").last());
        hand.type(page, page.getByLabel("Fade out", new Page.GetByLabelOptions().setExact(true)), "1.5");
        page.waitForCondition(() -> page.locator("#fade-out").inputValue().equals("1.50"));
        List<Tones.Heard> heard = Tones.in(taken(page, hand), 400, 600, 900, 1100);
        assertThat(heard).extracting(Tones.Heard::hertz).containsSubsequence(900, 400, 0, 600, 0, 1100);
        assertThat(heard.stream().filter(part -> part.hertz() == 0).findFirst().orElseThrow().seconds())
                .as("from 2 to 6 s once they are lined up, less three").isCloseTo(1, within(0.08));
    }

    private static float[] claps(float[] room, double... seconds) {
        float[] clap = Signal.noise(1, -26, 0.06, 8).samples()[0];
        for (double second : seconds) {
            for (int i = 0; i < clap.length; i++) {
                room[(int) (48_000 * second) + i] += clap[i];
            }
        }
        return room;
    }

    /** A sound over what a room has from a frame on. */
    private static Signal over(float[] room, int fromFrame, Signal voice) {
        float[] sum = voice.samples()[0].clone();
        for (int i = 0; i < sum.length; i++) {
            sum[i] += room[fromFrame + i];
        }
        return Signal.of(48_000, sum);
    }

    @Test
    void the_best_sentence_is_copied_to_the_front_and_the_chat_before_and_after_is_gone() throws Exception {
        Page page = crewOf("Dov Marsh");
        bringIn(page, "START", Map.of("Dov", Tones.voice(1200, 2, 0, 0.5, 400, 2, 0, 0.5, 800, 2, 0, 0.5, 600, 2, 0, 0.5, 1200, 3)));
        select(page, 2.5, 9.5);
        press(page, "#keep-only", "Kept only 7.00 s.");
        select(page, 2.5, 4.5);
        press(page, "#copy", "Copied 2.00 s.");
        page.locator("#page").focus();
        page.keyboard().press("Escape");
        page.keyboard().press("Home");
        page.keyboard().press("Control+v");
        page.getByText("Laid in 2.00 s at 0:00.00.").waitFor();
        assertThat(words(Tones.in(taken(page), 400, 600, 800, 1200))).containsExactly("800 Hz 2.0 s", "400 Hz 2.0 s", "pause 0.5 s", "800 Hz 2.0 s", "pause 0.5 s", "600 Hz 2.0 s");
    }

    @Test
    void one_recording_is_broken_into_three_parts_with_music_between_that_is_crossfaded_and_goes_down_under_the_voice() throws Exception {
        Page page = crewOf("Cleo Rush");
        bringIn(page, "START", Map.of("Cleo", Tones.voice(400, 3, 600, 3, 800, 3)));
        bringIn(page, "LIST", Map.of("tune", Tones.voice(1100, 6)));
        select(page, 3, 7);
        press(page, "#open-up", "A gap of 4.00 s is open");
        select(page, 10, 13);
        press(page, "#open-up", "A gap of 3.00 s is open");
        page.keyboard().press("Escape");
        page.getByText("Takes", new Page.GetByTextOptions().setExact(true)).click();
        for (double at : new double[] {2, 9}) {
            ribbonTo(page, at);
            page.getByLabel("Lay tune at the ribbon").click();
            page.waitForCondition(() -> timeline(page).getAsJsonArray("tracks").size() == 2 && clips(page, 1).size() == (at == 2 ? 1 : 2));
        }
        page.locator("[data-tab=takes]").click();
        long second = clips(page, 1).get(1).getAsJsonObject().get("id").getAsLong();
        page.locator(".clip-grip-move[data-clip='" + second + "']").first().focus();
        page.getByLabel("Starts at").fill("0:07.50");
        page.keyboard().press("Enter");
        page.waitForCondition(() -> clips(page, 1).get(1).getAsJsonObject().get("startFrame").getAsLong() == 360_000);
        page.locator("[data-tab=pauses]").click();
        page.locator("#fades-list").getByText("crossfade · Music").waitFor();
        page.locator("[data-tab=tracks]").click();
        page.getByLabel("Take Music down under the voices").click();
        page.getByText("Music goes down under the voices.").waitFor();
        float[] sound = taken(page);
        assertThat(Tones.in(sound, 400, 600, 800, 1100)).extracting(Tones.Heard::hertz).containsSubsequence(400, 1100, 600, 1100, 800);
        double[] music = levels(sound, 1100, 2.8, 5, 8.5, 12);
        assertThat(music[1] - music[0]).as("alone against under the first part, in dB").isGreaterThan(10);
        assertThat(music[1] - music[2]).as("and under the second").isGreaterThan(10);
        assertThat(music[3]).as("it is back between them").isCloseTo(music[1], within(1.0));
    }

    @Test
    void one_line_goes_to_another_track_and_to_the_side() throws Exception {
        Page page = crewOf("Elin Fen");
        bringIn(page, "START", Map.of("Elin", Tones.voice(400, 2, 600, 2), "Other", Tones.voice(0, 1)));
        select(page, 2, 4);
        tracks(page, "Elin");
        page.keyboard().press("Escape");
        ribbonTo(page, 2);
        page.keyboard().press("7");
        page.getByText("Split at 0:02.00.").waitFor();
        long clip = clips(page, 0).get(1).getAsJsonObject().get("id").getAsLong();
        page.locator(".clip-grip-move[data-clip='" + clip + "']").first().focus();
        page.getByLabel("On the track of").selectOption("Other");
        page.waitForCondition(() -> clips(page, 1).size() == 2);
        page.getByText("Tracks", new Page.GetByTextOptions().setExact(true)).click();
        page.getByLabel("Where Other stands between left and right").fill("1");
        page.getByText("Other: 100 % right. That is far for a voice").waitFor();
        List<Tones.Heard> left = Tones.in(taken(page), 400, 600);
        assertThat(words(left).get(0)).isEqualTo("400 Hz 2.0 s");
        assertThat(left).extracting(Tones.Heard::hertz).as("on the left side").doesNotContain(600);
    }

    @Test
    void a_remark_is_taken_out_by_marks_and_a_word_silenced_without_moving_anything() throws Exception {
        Page page = crewOf("Finn Brook");
        bringIn(page, "START", Map.of("Finn", Tones.voice(400, 2, 1200, 1, 400, 2, 700, 1, 600, 2)));
        ribbonTo(page, 2);
        page.keyboard().press("1");
        for (int i = 0; i < 10; i++) {
            page.keyboard().press("Shift+ArrowRight");
        }
        page.keyboard().press("2");
        page.keyboard().press("3");
        page.getByText("As if 1.00 s were gone. Nothing is changed.").waitFor();
        page.keyboard().press("4");
        page.getByText("Removed 1.00 s.").waitFor();
        select(page, 4, 5);
        press(page, "#clear", "Made silent 1.00 s.");
        assertThat(words(Tones.in(taken(page), 400, 600, 700, 1200))).containsExactly("400 Hz 4.0 s", "pause 1.0 s", "600 Hz 2.0 s");
    }

    @Test
    void music_is_shortened_faded_at_both_ends_and_loud_only_where_it_stands_alone() throws Exception {
        Page page = crewOf("Gia Weir");
        bringIn(page, "START", Map.of("Gia", Tones.voice(0, 4, 400, 2, 0, 4), "Tune", Tones.voice(1100, 12)));
        page.locator(".clip-grip-end").last().focus();
        page.getByLabel("Ends at").fill("0:10");
        page.keyboard().press("Enter");
        page.waitForCondition(() -> page.locator("#clip-end").inputValue().equals("0:10.00"));
        page.locator(".clip-grip-fade-in").last().focus();
        page.getByLabel("Fade in", new Page.GetByLabelOptions().setExact(true)).fill("1");
        page.keyboard().press("Enter");
        page.waitForCondition(() -> page.locator("#fade-in").inputValue().equals("1.00"));
        page.getByText("Tracks", new Page.GetByTextOptions().setExact(true)).click();
        page.getByLabel("Take Tune down under the voices").click();
        page.getByText("Tune goes down under the voices.").waitFor();
        double[] ducked = levels(taken(page), 1100, 2.5, 5, 8.5);
        assertThat(ducked[0] - ducked[1]).as("under the voice, against before it, in dB").isGreaterThan(10);
        assertThat(ducked[2]).as("behind it, it is back").isCloseTo(ducked[0], within(1.0));
        // one of its points is moved by hand: three steps of 3 dB further down, by keys
        Locator point = page.locator(".curve-point").nth(1);
        double was = Double.parseDouble(point.getAttribute("title").replace(" dB", ""));
        String frame = point.getAttribute("data-frame");
        point.focus();
        page.keyboard().down("Shift");
        for (int i = 0; i < 3; i++) {
            page.keyboard().press("ArrowDown");
        }
        page.keyboard().up("Shift");
        page.waitForCondition(() -> page.locator(".curve-point[data-frame='" + frame + "']").getAttribute("title").equals(String.format(Locale.ENGLISH, "%.1f dB", was - 9)));
        page.locator("#page").focus();
        page.keyboard().press("]");
        page.getByText("You hear it faster. Only for your ear.").waitFor();
        page.keyboard().press("Home");
        page.keyboard().press("Space");
        await(page, "document.getElementById('clock').textContent > '0:02.0'");
        page.keyboard().press("Space");
        assertThat(taken(page)).as("an export knows nothing of it").hasSize(10 * 48_000);
    }

    /** The level of a tone in dB around some seconds of a sound. */
    private static double[] levels(float[] sound, int hertz, double... seconds) {
        return Arrays.stream(seconds).map(second -> Tones.level(sound, (int) (48_000 * second), hertz)).toArray();
    }

    @Test
    void a_story_of_gathered_files_comes_out_as_loud_as_the_brief_asks_and_can_be_heard_whole() throws Exception {
        Page page = crewOf("Hal Lock");
        bringIn(page, "BEHIND", Map.of("beginning", Tones.voice(400, 3, 0, 0.5), "ending", Tones.voice(0, 0.5, 600, 4), "middle", Tones.voice(800, 3)));
        page.waitForCondition(() -> !timeline(page).get("finish").getAsString().startsWith("0_"));
        page.reload();
        page.locator("#drawer-tabs").waitFor();
        float[] sound = taken(page);
        assertThat(Tones.in(sound, 400, 600, 800)).extracting(Tones.Heard::hertz).containsExactly(400, 0, 600, 800);
        LoudnessMeter loudness = new LoudnessMeter(1);
        loudness.accept(new float[][] {sound}, sound.length);
        assertThat(loudness.integrated().orElseThrow()).as("one channel of two that are the same: 3 LU under −16").isCloseTo(-19, within(1.0));
        page.locator("#page").focus();
        page.keyboard().press("End");
        page.keyboard().press("Space");
        page.locator("#play[aria-label=Pause]").waitFor();
        await(page, "document.getElementById('gauge-word').textContent !== 'silent'");
        page.keyboard().press("Space");
    }
}
