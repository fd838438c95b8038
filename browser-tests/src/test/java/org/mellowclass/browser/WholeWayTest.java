package org.mellowclass.browser;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.regex.Pattern;

import com.google.gson.JsonArray;
import com.google.gson.JsonObject;
import com.microsoft.playwright.Browser;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Mouse;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.BoundingBox;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mellowclass.core.measure.LoudnessMeter;
import org.mellowclass.core.measure.TruePeakMeter;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.testing.Alignment;
import org.mellowclass.media.SoundDecoder;

/** From a microphone to the school feed, in real time. */
class WholeWayTest extends BrowserTest {

    private static final int ROW_FRAMES = 40 * Frames.RATE;
    private static final int LEAD_FRAMES = ROW_FRAMES / 40;

    @TempDir
    private Path folder;

    @Test
    void what_is_published_is_what_was_spoken_minus_what_was_removed() throws Exception {
        Path voice = Voices.speak(folder, List.of(
                "The ferry leaves at nine, with two tickets on board.",
                "No wait, that was wrong, I will say it again.",
                "It comes back at noon, and nobody has ever asked why."));
        float[] spoken = Voices.mono(voice);
        try (Browser withMicrophone = launchWithMicrophone()) {
            Page crew = page(withMicrophone);
            Microphones.speak(crew, voice);
            signInAsStudent(crew, "Wren", "two tickets");
            String episode = episodeOf(crew);
            record(crew, episode, spoken.length / Frames.RATE);
            crew.navigate(address("/episodes/" + episode + "/bench"));
            waitForRows(crew);
            JsonObject source = timeline(crew, episode).getAsJsonArray("sources").get(0).getAsJsonObject();
            float[] take = Voices.mono(fetch(crew, "/takes/" + source.get("takeId").getAsLong() + "/sound"), folder);
            assertThat(Heard.otherwise(spoken, take)).as("parts of the take that sound otherwise").isEmpty();

            int offset = Alignment.offset(spoken, take, Frames.RATE);
            int second = Voices.paddedFrames(folder, 0) + Frames.RATE;
            int third = second + Voices.paddedFrames(folder, 1);
            removeByDragging(crew, second + offset, third + offset);
            JsonObject removed = timeline(crew, episode);
            playsAndPauses(crew);
            undoAndRedoSurviveAReload(crew, episode, removed);

            crew.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Hand in")).click();
            crew.getByText("Sound check").waitFor();
            assertThat(crew.locator(".readings").first().innerText()).as("within 0.1 LU of the house sound").containsPattern("−(15\\.9|16\\.[01]) LUFS");

            Page teacher = page();
            signInAsTeacher(teacher);
            teacher.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName(Pattern.compile("Hear it.*Two tickets"))).click();
            waitForRows(teacher);
            teacher.getByLabel("Play", new Page.GetByLabelOptions().setExact(true)).click();
            await(teacher, "document.querySelector('audio').currentTime > 0.3");
            teacher.getByLabel("One sentence for the crew").fill("Lovely. It goes out as it is.");
            teacher.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Clear for air")).click();
            // what was heard last is told first
            teacher.locator("#unheard[open]").waitFor();
            assertThat(teacher.locator("#unheard-words").innerText()).startsWith("You have not heard 0:0");
            teacher.getByLabel("Why it may go on air all the same").fill("We heard it in class.");
            teacher.getByText("Clear it even so").click();
            teacher.waitForURL("**/air");
            agreedForWren(teacher);
            teacher.getByLabel("Description, for listeners").fill("A ferry, two tickets and no answer.");
            teacher.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Publish")).click();
            teacher.getByText("Open its page").click();

            assertPublished(teacher, arranged(take, clips(removed)));
            takeOffAir(teacher, episode);
        }
    }

    /** Nobody has recorded yet where this voice may be heard, and the gate says so. */
    private static void agreedForWren(Page teacher) {
        String desk = teacher.url();
        teacher.getByText("Wren: nobody has recorded what was agreed").waitFor();
        assertThat(teacher.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Publish")).isDisabled()).isTrue();
        teacher.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("Record what was agreed for Wren")).click();
        teacher.locator("input[name=consent][value=PUBLIC]").check();
        teacher.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Save")).click();
        teacher.waitForURL("**/crews");
        teacher.navigate(desk);
        teacher.getByText("Wren: in public").waitFor();
    }

    private void record(Page crew, String episode, int seconds) {
        crew.navigate(address("/episodes/" + episode + "/record"));
        Locator record = crew.locator("#record");
        record.click();
        awaitClock(crew, seconds);
        record.click();
        crew.getByLabel("Play Take 1").waitFor();
    }

    /** Drags across the first row of the page from one frame to another, and removes what is marked. */
    private static void removeByDragging(Page crew, int from, int to) {
        BoundingBox lane = crew.locator(".lane").first().boundingBox();
        double y = lane.y + lane.height / 2;
        crew.mouse().move(x(lane, from), y);
        crew.mouse().down();
        crew.mouse().move(x(lane, to), y, new Mouse.MoveOptions().setSteps(10));
        crew.mouse().up();
        assertThat(crew.locator("#card-span").innerText()).contains(" to ").contains(" s");
        crew.keyboard().press("4");
        crew.getByText("Undo brings it back.").waitFor();
    }

    private static double x(BoundingBox lane, int frame) {
        return lane.x + lane.width * (frame + LEAD_FRAMES) / (ROW_FRAMES + LEAD_FRAMES);
    }

    private static void playsAndPauses(Page crew) {
        crew.keyboard().press("Home");
        crew.keyboard().press("Space");
        await(crew, "document.getElementById('gauge-word').textContent === 'good'");
        crew.keyboard().press("Space");
        crew.locator("#play[aria-label=Play]").waitFor();
    }

    private static void undoAndRedoSurviveAReload(Page crew, String episode, JsonObject removed) {
        crew.keyboard().press("Control+z");
        await(crew, "!document.getElementById('redo').disabled");
        crew.reload();
        waitForRows(crew);
        assertThat(clips(timeline(crew, episode))).hasSize(1);
        crew.keyboard().press("Control+Shift+z");
        await(crew, "document.getElementById('redo').disabled");
        assertThat(timeline(crew, episode).get("tracks")).isEqualTo(removed.get("tracks"));
    }

    /** A take, arranged as the clips of the timeline say. */
    private static float[] arranged(float[] take, JsonArray clips) {
        float[] arranged = new float[0];
        for (var element : clips) {
            JsonObject clip = element.getAsJsonObject();
            int from = clip.get("sourceFrame").getAsInt();
            int start = clip.get("startFrame").getAsInt();
            int frames = clip.get("frames").getAsInt();
            arranged = Arrays.copyOf(arranged, start + frames);
            System.arraycopy(take, from, arranged, start, frames);
        }
        return arranged;
    }

    private void assertPublished(Page teacher, float[] expected) throws Exception {
        String link = teacher.getByText("Download the MP3").getAttribute("href");
        assertThat(link).endsWith("/two-tickets-to-the-far-side.mp3");
        Path mp3 = Files.write(folder.resolve("published.mp3"), fetch(teacher, link));
        float[] heard = Voices.mono(mp3);
        assertThat(Heard.otherwise(expected, heard)).as("parts of the page that are not in the MP3").isEmpty();

        SoundDecoder decoder = SoundDecoder.forUploads();
        LoudnessMeter loudness = new LoudnessMeter(2);
        TruePeakMeter peak = new TruePeakMeter(2);
        try (SampleSource sound = decoder.open(mp3, decoder.probe(mp3))) {
            SampleSink.drain(sound, loudness, peak);
        }
        assertThat(loudness.integrated().orElseThrow()).isCloseTo(-16, within(0.2));
        assertThat(peak.truePeakDbtp().orElseThrow()).isLessThanOrEqualTo(-1);

        await(teacher, "document.querySelector('audio').readyState >= 1");
        for (int second = 0; second < 3; second++) {
            teacher.getByLabel("Position in").press("ArrowRight");
        }
        await(teacher, "Math.abs(document.querySelector('audio').currentTime - 3) < 0.2");
    }

    private static void takeOffAir(Page teacher, String episode) {
        String page = teacher.url();
        teacher.navigate(address("/episodes/" + episode + "/air"));
        teacher.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Take off air")).click();
        teacher.getByText("It was taken off air.").waitFor();
        assertThat(teacher.context().request().get(page).status()).isEqualTo(410);
    }

    private static JsonArray clips(JsonObject timeline) {
        return timeline.getAsJsonArray("tracks").get(0).getAsJsonObject().getAsJsonArray("clips");
    }
}
