package org.mellowclass.browser;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import org.junit.jupiter.api.Test;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.testing.Signal;
import org.mellowclass.media.SoundRefused;

/** A crew whose recording hums, whose second speaker is far too soft, and who begin late, follows the sound check and hands in. */
class SoundCheckWayTest extends JobSchool {

    private static final Pattern LOUDNESS = Pattern.compile("I:\\s+(-?[\\d.]+) LUFS");
    private static final int MOST_FIXES = 8;
    private static final List<String> SENTENCES = List.of("The tide comes in twice a day, and nobody here looks at the clock.", "How do you know when it is time to go home?",
            "The birds tell us, they move along the bank before the water does.", "And what happens when the fog is so thick that you hear no bird at all?",
            "Then we listen for the bell, it rings on its own when the river lifts it.", "I would be afraid, out there alone with the water all around me.",
            "You are never alone on the river, somebody always rings back to you.", "That is a good thing to know, and we thank you for telling us.",
            "Come back in the spring, when the geese are on the flats again.", "We will, and we will bring the whole class to listen with us.",
            "Bring warm boots as well, the mud is cold until the middle of May.", "Boots, bells and birds, that is all that we need to remember.");

    /** Every other sentence on one track; both with the room and the hum of the lamp. */
    private Signal voice(int which, double gain) throws IOException, InterruptedException, SoundRefused {
        float[] all = Voices.mono(Voices.speak(Files.createDirectories(folder.resolve("spoken-" + which)), SENTENCES));
        float[] room = Signal.noise(1, -68, (double) all.length / Frames.RATE, 11 + which).samples()[0];
        int[] starts = new int[SENTENCES.size() + 1];
        for (int i = 0; i < SENTENCES.size(); i++) {
            starts[i + 1] = starts[i] + Voices.paddedFrames(folder.resolve("spoken-" + which), i);
        }
        float[] sound = new float[all.length];
        for (int i = 0; i < sound.length; i++) {
            int sentence = 0;
            while (sentence < SENTENCES.size() - 1 && i >= starts[sentence + 1]) {
                sentence++;
            }
            double hum = which == 0 ? 0.004 * Math.sin(2 * Math.PI * 50.02 * i / Frames.RATE) + 0.003 * Math.sin(2 * Math.PI * 150.06 * i / Frames.RATE) : 0;
            sound[i] = (float) ((sentence % 2 == which ? gain * all[i] : 0) + room[i] + hum);
        }
        return Signal.of(Frames.RATE, sound);
    }

    @Test
    void three_fixes_by_keyboard_and_every_reading_is_good() throws Exception {
        Page page = crewOf("Gia Weir");
        Signal gia = voice(0, 1);
        Signal hugo = voice(1, 0.27);
        bringIn(page, "START", Map.of("Gia", gia, "Hugo", hugo));
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Check").setExact(true)).click();
        page.locator("#check [data-kind=VOICES_EVEN] .verdict-fix").waitFor();
        assertThat(page.locator("#check [data-kind=HUM] .verdict-fix, #check [data-kind=HUM] .verdict-check").count()).isEqualTo(1);
        assertAccessible(page);
        int fixes = 0;
        while (page.locator("#check [data-fix]").count() > 0) {
            assertThat(++fixes).as(page.locator("#check").innerText()).isLessThanOrEqualTo(MOST_FIXES);
            Locator fix = page.locator("#check [data-fix]").first();
            if (!fix.isVisible()) {
                page.locator(".check-rest summary").focus();
                page.keyboard().press("Enter");
            }
            fix.focus();
            page.keyboard().press("Enter");
            page.locator("#offer-keep").waitFor();
            page.locator("#offer-keep").focus();
            page.keyboard().press("Enter");
            page.locator("#check [data-old]").waitFor();
            page.waitForCondition(() -> page.locator("#check [data-old]").count() == 0, new Page.WaitForConditionOptions().setTimeout(60_000));
        }
        assertThat(fixes).isGreaterThanOrEqualTo(3);
        assertThat(page.locator("#check .verdict-fix, #check .verdict-check").count()).as(page.locator("#check").innerText()).isZero();
        assertThat(page.locator(".check-changes").innerText()).isNotBlank();
        page.locator("#hand-in button").focus();
        page.keyboard().press("Enter");
        page.waitForURL("**/hand-ins/*");
        page.locator(".readings").first().waitFor(new Locator.WaitForOptions().setTimeout(60_000));
        assertThat(page.locator(".verdict-fix, .verdict-check").count()).as(page.locator(".readings").first().innerText()).isZero();
        byte[] flac = page.request().get(page.url() + "/sound").body();
        float[] mix = Voices.mono(flac, folder);
        assertThat(loudness(flac)).isCloseTo(-16, within(1.0));
        assertThat(hum(mix)).as("the hum is gone").isLessThan(hum(gia.samples()[0]) - 12);
    }

    /** How loud 50 Hz is where they are softest, against all of the sound, in dB. */
    private static double hum(float[] sound) {
        double quietest = 0;
        double power = 0;
        for (int frame = 0; frame + Frames.RATE / 2 < sound.length; frame += Frames.RATE / 2) {
            quietest = Math.min(quietest, Tones.level(sound, frame, 50));
        }
        for (float sample : sound) {
            power += (double) sample * sample / sound.length;
        }
        return quietest - 10 * Math.log10(power);
    }

    /** As ffmpeg measures it. */
    private double loudness(byte[] flac) throws IOException, InterruptedException {
        Path file = Files.write(folder.resolve("handed-in.flac"), flac);
        Process process = new ProcessBuilder("ffmpeg", "-hide_banner", "-nostdin", "-i", file.toString(), "-filter_complex", "ebur128", "-f", "null", "-").redirectErrorStream(true).start();
        String said = new String(process.getInputStream().readAllBytes());
        process.waitFor();
        Matcher loudness = LOUDNESS.matcher(said);
        double last = Double.NaN;
        while (loudness.find()) {
            last = Double.parseDouble(loudness.group(1));
        }
        return last;
    }
}
