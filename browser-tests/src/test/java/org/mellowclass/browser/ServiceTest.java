package org.mellowclass.browser;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What is shipped to run the application as a service. */
class ServiceTest {

    private static final Path DEPLOY = RunningApp.PROJECT.resolve("deploy");

    @TempDir
    private Path folder;

    @Test
    void the_unit_is_one_that_systemd_understands_and_starts_again_what_ends() throws Exception {
        Path unit = Files.copy(DEPLOY.resolve("mellow-class.service"), folder.resolve("mellow-class.service"));
        Command verified = Command.run("systemd-analyze", "verify", "--man=no", unit.toString());
        assertThat(verified.code()).as(verified.words()).isZero();
        assertThat(verified.words()).doesNotContain("mellow-class.service:");
        assertThat(Files.readString(unit)).contains("Restart=on-failure", "@/srv/mellow/deploy/java.options");
    }

    @Test
    void the_application_ends_when_memory_is_out_so_that_it_can_be_started_again() throws Exception {
        Path program = Files.writeString(folder.resolve("Full.java"), """
                class Full {
                    public static void main(String[] none) {
                        var all = new java.util.ArrayList<long[]>();
                        try {
                            while (true) all.add(new long[1 << 20]);
                        } catch (OutOfMemoryError caught) {
                            System.exit(0);
                        }
                    }
                }
                """);
        // the code with which the virtual machine ends itself then (java(1), ExitOnOutOfMemoryError)
        assertThat(Command.run("java", "@" + DEPLOY.resolve("java.options"), program.toString()).code()).isEqualTo(3);
    }
}
