package org.mellowclass.media;

import java.io.IOException;
import java.util.regex.Pattern;

/**
 * The machine has failed, not the file: a child process was killed, ran out of time or memory, or found no room on the disk. The same work
 * may succeed later.
 */
public final class MachineFault extends IOException {

    /** What {@code timeout} answers when time is over (coreutils, timeout(1)); codes above are those of signals (128 + signal). */
    private static final int TIMED_OUT = 124;
    private static final Pattern OF_THE_MACHINE = Pattern.compile(
            "No space left on device|Disk quota exceeded|Cannot allocate memory|Resource temporarily unavailable|Input/output error|Too many open files");

    MachineFault(String message) {
        super(message);
    }

    /** Whether a child process that ended so was ended by the machine, and not by what it was given. */
    static boolean is(int exitCode, String errors) {
        return exitCode >= TIMED_OUT || exitCode != 0 && OF_THE_MACHINE.matcher(errors).find();
    }

    /** @throws MachineFault if a process that has ended was ended by the machine */
    static void check(ChildProcess process) throws IOException {
        int exitCode = process.exitCode();
        if (is(exitCode, exitCode == 0 ? "" : process.errors())) {
            throw new MachineFault("a child process ended with " + exitCode + ": " + process.errors().strip());
        }
    }
}
