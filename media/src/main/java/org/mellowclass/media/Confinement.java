package org.mellowclass.media;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermission;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;

/**
 * What a child process that reads strangers' files may reach: no network, and, where the application may change users, no file but
 * those that were handed to it open. Which of both this machine allows is tried once.
 */
enum Confinement {

    /** A network of its own in which nothing is, and a user of its own. */
    BOTH(List.of("unshare", "--net", "--"), As.OWN_USER),
    /** As {@link #BOTH}, where only a user namespace gives a network of one's own. */
    BOTH_BY_NAMESPACE(As.OWN_USER, As.USER_NAMESPACE),
    NETWORK_ONLY(As.USER_NAMESPACE, List.of()),
    USER_ONLY(As.OWN_USER, List.of()),
    NONE(List.of(), List.of());

    /** A number that Debian gives to nobody (Debian Policy 4.6, 9.2.2: reserved); setpriv(1) of util-linux. */
    static final int OWN_USER_ID = 65_533;
    /** The strongest one that this machine allows. */
    private static final Confinement ALLOWED = Stream.of(values()).filter(Confinement::works).findFirst().orElse(NONE);

    private final List<String> prefix;

    Confinement(List<String> outer, List<String> inner) {
        this.prefix = Stream.of(outer, inner).flatMap(List::stream).toList();
    }

    static Confinement allowed() {
        return ALLOWED;
    }

    List<String> prefix() {
        return prefix;
    }

    boolean withoutNetwork() {
        return this != USER_ONLY && this != NONE;
    }

    boolean asOwnUser() {
        return this != NETWORK_ONLY && this != NONE;
    }

    /** Lets the own user read a file that is handed to it; the folders above stay closed to it, so no other way leads there. */
    void letRead(Path file) throws IOException {
        if (asOwnUser()) {
            with(file, EnumSet.of(PosixFilePermission.OTHERS_READ));
        }
    }

    /** Makes an empty file that the own user may fill; {@link #keep} ends that. */
    void letWrite(Path file) throws IOException {
        Files.deleteIfExists(file);
        Files.createFile(file);
        if (asOwnUser()) {
            with(file, EnumSet.of(PosixFilePermission.OTHERS_READ, PosixFilePermission.OTHERS_WRITE));
        }
    }

    /** What was written belongs to the application alone. */
    void keep(Path file) throws IOException {
        if (asOwnUser()) {
            Set<PosixFilePermission> now = Files.getPosixFilePermissions(file);
            now.removeAll(EnumSet.of(PosixFilePermission.OTHERS_READ, PosixFilePermission.OTHERS_WRITE));
            Files.setPosixFilePermissions(file, now);
        }
    }

    /** How a command is started, as words in front of it. */
    private static final class As {

        private static final List<String> OWN_USER = List.of("setpriv", "--reuid=" + OWN_USER_ID, "--regid=" + OWN_USER_ID, "--clear-groups",
                "--no-new-privs", "--inh-caps=-all", "--");
        private static final List<String> USER_NAMESPACE = List.of("unshare", "--user", "--map-current-user", "--net", "--");
    }

    private static void with(Path file, Set<PosixFilePermission> more) throws IOException {
        Set<PosixFilePermission> now = Files.getPosixFilePermissions(file);
        if (now.addAll(more)) {
            Files.setPosixFilePermissions(file, now);
        }
    }

    /** Whether a process started so can read a file that is handed to it open in a folder that it may not enter. */
    private boolean works() {
        Path folder = null;
        try {
            folder = Files.createTempDirectory("confinement");
            Path file = Files.writeString(folder.resolve("handed"), "x");
            letRead(file);
            List<String> trial = new ArrayList<>(prefix);
            trial.addAll(List.of("grep", "-q", "x", ChildProcess.INPUT));
            return new ProcessBuilder(trial).redirectInput(file.toFile()).redirectErrorStream(true)
                    .redirectOutput(ProcessBuilder.Redirect.DISCARD).start().waitFor() == 0;
        } catch (IOException missing) {
            return false;
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return false;
        } finally {
            delete(folder);
        }
    }

    private static void delete(Path folder) {
        try {
            if (folder != null) {
                Files.deleteIfExists(folder.resolve("handed"));
                Files.deleteIfExists(folder);
            }
        } catch (IOException left) {
            // an empty file in the machine's temporary folder harms nobody
        }
    }
}
