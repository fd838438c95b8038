package org.mellowclass.benchmarks;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;

/** Waits until the machine has done what it was asked for before: the bounds of the browser are those of an idle machine. */
final class AtRest {

    private static final Path TIMES = Path.of("/proc/stat");
    private static final Duration LOOK = Duration.ofSeconds(2);
    private static final Duration PATIENCE = Duration.ofMinutes(5);
    private static final double IDLE = 0.95;
    private static final int IDLE_COLUMN = 4;

    private AtRest() {
    }

    private record Times(long all, long idle) {

        /** Of all processors, as proc(5) tells them. */
        static Times now() throws IOException {
            String[] columns = Files.readAllLines(TIMES).get(0).split(" +");
            long all = 0;
            for (int i = 1; i < columns.length; i++) {
                all += Long.parseLong(columns[i]);
            }
            return new Times(all, Long.parseLong(columns[IDLE_COLUMN]));
        }
    }

    static void await() throws IOException, InterruptedException {
        long deadline = System.nanoTime() + PATIENCE.toNanos();
        Times before = Times.now();
        double idle = 0;
        while (idle < IDLE) {
            if (System.nanoTime() > deadline) {
                throw new IOException("the machine does not come to rest");
            }
            Thread.sleep(LOOK.toMillis());
            Times now = Times.now();
            idle = (double) (now.idle - before.idle) / (now.all - before.all);
            before = now;
        }
    }
}
