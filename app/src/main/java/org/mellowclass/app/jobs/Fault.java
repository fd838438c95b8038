package org.mellowclass.app.jobs;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.sql.SQLException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.regex.Pattern;

import org.springframework.dao.DataAccessException;
import org.springframework.transaction.TransactionException;

/**
 * Why a job has failed, and how long it is tried again: what the machine lacks comes back, what is wrong in the work itself stays
 * wrong.
 */
public enum Fault {

    /** There is no room on the disk. */
    DISK(Patience.DAYS),
    /** Anything else of the machine: memory, a killed process, the database. */
    MACHINE(Patience.DAYS),
    /** It took longer than any such work should; it may have been the machine, or the work never ends. */
    TIME(List.of(Duration.ofMinutes(5), Duration.ofHours(1))),
    /** A mistake of this application's. */
    OURS(Patience.SECONDS);

    private static final Pattern NO_ROOM = Pattern.compile("No space left on device|Disk quota exceeded");

    private final List<Duration> waits;

    Fault(List<Duration> waits) {
        this.waits = waits;
    }

    /** How long to wait before each next try. */
    private static final class Patience {
        private static final List<Duration> SECONDS = List.of(Duration.ofSeconds(2), Duration.ofSeconds(2));
        /** Two days in all. */
        private static final List<Duration> DAYS = days();

        private static List<Duration> days() {
            List<Duration> waits = new ArrayList<>(List.of(Duration.ofSeconds(2), Duration.ofSeconds(10), Duration.ofMinutes(1),
                    Duration.ofMinutes(5), Duration.ofMinutes(15), Duration.ofMinutes(30)));
            waits.addAll(Collections.nCopies(47, Duration.ofHours(1)));
            return List.copyOf(waits);
        }
    }

    /** How long to wait after so many tries have failed; null if it is given up. */
    Duration waitAfter(int failures) {
        return failures <= waits.size() ? waits.get(failures - 1) : null;
    }

    static Fault of(Throwable thrown) {
        boolean ofMachine = false;
        for (Throwable cause = thrown; cause != null; cause = cause.getCause()) {
            if (cause.getMessage() != null && NO_ROOM.matcher(cause.getMessage()).find()) {
                return DISK;
            }
            if (cause instanceof TookTooLong) {
                return TIME;
            }
            ofMachine |= cause instanceof IOException || cause instanceof UncheckedIOException || cause instanceof DataAccessException
                    || cause instanceof TransactionException || cause instanceof SQLException || cause instanceof VirtualMachineError;
        }
        return ofMachine ? MACHINE : OURS;
    }
}
