package org.mellowclass.browser;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;

/** The demo school, which is made once for all processes of the journeys: a backup of it is what each of them begins with. */
final class DemoCopy {

    private static final Path FOLDER = Path.of(System.getenv("MELLOW_FOLDER"));
    private static final Path FILE = FOLDER.resolve("demo-school.tar");

    private DemoCopy() {
    }

    /** Puts it in place for an application that has not been started yet. */
    static void restore(RunningApp into) throws IOException, InterruptedException {
        Files.createDirectories(FOLDER);
        try (FileChannel channel = FileChannel.open(FOLDER.resolve("demo-school.lock"), StandardOpenOption.CREATE, StandardOpenOption.WRITE); FileLock ignored = channel.lock()) {
            if (!Files.exists(FILE)) {
                make();
            }
        }
        Command.run(into, "restore", FILE.toString()).orFail();
    }

    private static void make() throws IOException, InterruptedException {
        RunningApp demo = RunningApp.notStarted("mellow_demo_school");
        demo.startAgain(true);
        Command.run(demo, "backup", FILE.toString()).orFail();
        demo.kill();
    }
}
