package org.mellowclass.browser;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.stream.Stream;

import com.google.gson.JsonObject;
import com.google.gson.JsonParser;
import com.microsoft.playwright.Page;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A copy of the school that is made while it runs, and goes on elsewhere. */
class BackupTest extends BrowserTest {

    @TempDir
    private Path folder;

    @Test
    void a_crew_goes_on_working_from_the_restored_copy() throws Exception {
        Path backup = folder.resolve("school.tar");
        Command made = Command.run(app, "backup", backup.toString());
        assertThat(made.code()).as(made.words()).isZero();
        assertThat(Command.run(app, "backup", backup.toString()).words()).as("never written over").contains("is there already");

        RunningApp restored = RunningApp.notStarted("mellow_restored");
        Command put = Command.run(restored, "restore", backup.toString());
        assertThat(put.code()).as(put.words()).isZero();
        assertThat(Command.run(restored, "restore", backup.toString()).words()).contains("There is a school").contains("nothing was touched");
        assertThat(Command.run(restored, "check-store").code()).isZero();
        restored.startAgain();
        try {
            goOnWorking(restored);
        } finally {
            restored.kill();
        }
        damageOne(restored.folder());
        Command damaged = Command.run(restored, "check-store");
        assertThat(damaged.code()).isNotZero();
        assertThat(damaged.words()).contains("FAILED", "Take them from a backup.");
        assertThat(Command.run(restored, "backup", folder.resolve("damaged.tar").toString()).words()).as("nor is it copied unnoticed").contains("are damaged");
    }

    private void goOnWorking(RunningApp restored) {
        Page page = page();
        signInAsStudent(page, restored.address(""), "Isla", "quiet lock");
        waitForRows(page);
        String timeline = "/episodes/" + episodeOf(page) + "/timeline";
        JsonObject before = parsed(page, restored.address(timeline));
        page.locator("#play").click();
        await(page, "document.getElementById('play').getAttribute('aria-label') === 'Pause'");
        page.locator("#play").click();
        page.locator("#page").press("Home");
        page.keyboard().press("1");
        page.locator("#card-span").waitFor();
        page.keyboard().press("4");
        page.getByText("Removed 1.00 s. Undo brings it back.").waitFor();
        JsonObject after = parsed(page, restored.address(timeline));
        assertThat(after.get("revision").getAsLong()).isEqualTo(before.get("revision").getAsLong() + 1);
        assertThat(after.get("frames").getAsLong()).isEqualTo(before.get("frames").getAsLong() - 48_000);
    }

    private static JsonObject parsed(Page page, String address) {
        return JsonParser.parseString(page.context().request().get(address).text()).getAsJsonObject();
    }

    /** One bit of one sound. */
    private static void damageOne(Path folder) throws IOException {
        try (Stream<Path> files = Files.walk(folder.resolve("sounds"))) {
            Path checksum = files.filter(file -> file.toString().endsWith(".sha256")).findFirst().orElseThrow();
            Path sound = checksum.resolveSibling(checksum.getFileName().toString().replace(".sha256", ""));
            byte[] bytes = Files.readAllBytes(sound);
            bytes[bytes.length / 2] ^= 1;
            Files.write(sound, bytes, StandardOpenOption.TRUNCATE_EXISTING);
        }
    }
}
