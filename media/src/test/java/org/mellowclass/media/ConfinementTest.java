package org.mellowclass.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.List;

import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class ConfinementTest {

    private final Confinement allowed = Confinement.allowed();
    @TempDir
    Path folder;
    private Path handed;

    @BeforeEach
    void a_file_in_a_closed_folder() throws IOException {
        handed = Files.writeString(folder.resolve("handed"), "handed over");
        Files.setPosixFilePermissions(handed, PosixFilePermissions.fromString("rw-------"));
        Files.writeString(folder.resolve("secret"), "somebody's voice");
        Files.setPosixFilePermissions(folder, PosixFilePermissions.fromString("rwx------"));
    }

    @Test
    void a_child_reads_the_file_that_is_handed_to_it() throws IOException {
        assertThat(output("cat", ChildProcess.INPUT)).isEqualTo("handed over");
    }

    @Test
    void a_child_reaches_no_network() throws IOException {
        assumeTrue(allowed.withoutNetwork());
        List<String> devices = output("cat", "/proc/net/dev").lines().filter(line -> line.contains(":")).map(line -> line.split(":")[0].strip()).toList();
        assertThat(devices).containsExactly("lo");
    }

    @Test
    void a_child_runs_as_a_user_that_reads_no_other_sound_of_the_application() throws IOException {
        assumeTrue(allowed.asOwnUser());
        assertThat(output("sh", "-c", "id -u; cat " + folder.resolve("secret") + " 2>&1 || echo refused"))
                .startsWith(Confinement.OWN_USER_ID + "\n").contains("Permission denied").endsWith("refused\n").doesNotContain("voice");
    }

    @Test
    void a_child_of_that_user_can_become_no_other_again() throws IOException {
        assumeTrue(allowed.asOwnUser());
        assertThat(output("grep", "-E", "CapEff|NoNewPrivs", "/proc/self/status")).contains("NoNewPrivs:\t1").contains("CapEff:\t0000000000000000");
    }

    @Test
    void a_child_is_told_nothing_of_what_the_application_was_told() throws IOException {
        assertThat(output("env").lines().map(line -> line.split("=")[0])).isSubsetOf("PATH", "PWD", "SHLVL", "_");
    }

    @Test
    void what_a_child_wrote_belongs_to_the_application_alone() throws IOException {
        Path written = folder.resolve("written");
        allowed.letWrite(written);
        try (ChildProcess child = ChildProcess.start(allowed, handed, 10, 1000, ProcessBuilder.Redirect.to(written.toFile()),
                List.of("sh", "-c", "echo made > " + ChildProcess.OUTPUT))) {
            assertThat(child.exitCode()).isZero();
        }
        allowed.keep(written);
        assertThat(written).hasContent("made");
        assumeTrue(allowed.asOwnUser());
        assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(written))).endsWith("---");
    }

    private String output(String... command) throws IOException {
        try (ChildProcess child = ChildProcess.start(allowed, handed, 10, 0, ProcessBuilder.Redirect.PIPE, List.of(command))) {
            return new String(child.output().readAllBytes(), StandardCharsets.UTF_8);
        }
    }
}
