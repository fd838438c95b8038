package org.mellowclass.app.jobs;

import java.time.Duration;
import java.util.concurrent.ScheduledFuture;
import java.util.concurrent.ScheduledThreadPoolExecutor;
import java.util.concurrent.TimeUnit;

import jakarta.annotation.PreDestroy;
import org.springframework.stereotype.Component;

/** Interrupts work when its time is over. Reading sound, waiting for a child process and writing files end at an interruption. */
@Component
class TimeLimit {

    private final ScheduledThreadPoolExecutor clock = new ScheduledThreadPoolExecutor(1, work -> {
        Thread thread = new Thread(work, "time-limit");
        thread.setDaemon(true);
        return thread;
    });

    TimeLimit() {
        clock.setRemoveOnCancelPolicy(true);
    }

    @FunctionalInterface
    interface Work {
        void run() throws Exception;
    }

    /** Work and its clock, of which only one ends it. */
    private static final class Running {
        private final Thread worker = Thread.currentThread();
        private boolean ended;
        private boolean over;

        private synchronized void interrupt() {
            if (!ended) {
                over = true;
                worker.interrupt();
            }
        }

        /** Whether its time was over; the thread goes on with other work then. */
        private synchronized boolean end() {
            ended = true;
            if (over) {
                Thread.interrupted();
            }
            return over;
        }
    }

    /** @throws TookTooLong if the work failed after its time was over */
    void run(Duration limit, Work work) throws Exception {
        Running running = new Running();
        ScheduledFuture<?> end = clock.schedule(running::interrupt, limit.toMillis(), TimeUnit.MILLISECONDS);
        try {
            work.run();
            running.end();
        } catch (Exception e) {
            throw running.end() ? new TookTooLong(limit, e) : e;
        } finally {
            end.cancel(false);
        }
    }

    @PreDestroy
    void stop() {
        clock.shutdownNow();
    }
}
