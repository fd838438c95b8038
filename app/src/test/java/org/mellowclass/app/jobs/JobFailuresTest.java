package org.mellowclass.app.jobs;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;

import com.github.kagkarlsson.scheduler.task.Execution;
import com.github.kagkarlsson.scheduler.task.ExecutionComplete;
import com.github.kagkarlsson.scheduler.task.ExecutionOperations;
import com.github.kagkarlsson.scheduler.task.helper.OneTimeTask;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.mellowclass.app.testing.AppTest;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.dao.QueryTimeoutException;

@AppTest
class JobFailuresTest {

    private static final Instant NOW = Instant.parse("2026-11-26T10:00:00Z");

    @Autowired
    private Jobs jobs;
    private final List<Long> givenUp = new ArrayList<>();
    private OneTimeTask<Void> task;

    /** What the scheduler was told to do with a job that has failed. */
    private static final class Told extends ExecutionOperations<Void> {
        private Duration wait;

        Told(Execution execution) {
            super(null, null, execution);
        }

        @Override
        public void reschedule(ExecutionComplete completed, Instant next) {
            wait = Duration.between(NOW, next);
        }

        @Override
        public void stop() {
            wait = null;
        }
    }

    @BeforeEach
    void declare() {
        task = jobs.kind("test", id -> { }, givenUp::add);
    }

    /** How long a job waits that has failed so many times before, and now again; null if it is given up. */
    private Duration waits(Throwable cause, int before) {
        Execution execution = new Execution(NOW, task.instance("test-7"));
        execution.consecutiveFailures = before;
        Told told = new Told(execution);
        task.getFailureHandler().onFailure(ExecutionComplete.failure(execution, NOW, NOW, cause), told);
        return told.wait;
    }

    static List<Throwable> faultsOfTheMachine() {
        return List.of(new IOException("No space left on device"), new RuntimeException(new IOException("Connection reset")), new QueryTimeoutException("away"),
                new OutOfMemoryError());
    }

    @ParameterizedTest
    @MethodSource("faultsOfTheMachine")
    void what_the_machine_lacks_is_waited_for_over_a_day_and_bounded(Throwable fault) {
        Duration all = Duration.ZERO;
        int tries = 0;
        for (Duration wait = waits(fault, 0); wait != null; wait = waits(fault, tries)) {
            all = all.plus(wait);
            tries++;
        }
        assertThat(all).isBetween(Duration.ofDays(1), Duration.ofDays(3));
        assertThat(waits(fault, 0)).as("a short fault costs no time").isLessThan(Duration.ofSeconds(5));
        assertThat(givenUp).containsExactly(7L);
    }

    @Test
    void a_mistake_of_ours_is_tried_three_times() {
        Throwable mistake = new IllegalStateException("wrong");
        assertThat(List.of(waits(mistake, 0), waits(mistake, 1))).allMatch(wait -> wait.equals(Duration.ofSeconds(2)));
        assertThat(waits(mistake, 2)).isNull();
        assertThat(givenUp).containsExactly(7L);
    }

    @Test
    void what_is_waited_for_is_told_until_the_work_goes_on() {
        waits(new IOException("cannot write: No space left on device"), 0);
        assertThat(jobs.waitsFor("test", 7)).contains(Fault.DISK);
        jobs.progress("test", 7, 1, 10);
        assertThat(jobs.waitsFor("test", 7)).isEmpty();
        waits(new IOException("ffmpeg was killed"), 3);
        assertThat(jobs.waitsFor("test", 7)).contains(Fault.MACHINE);
        waits(new IOException("ffmpeg was killed"), 1000);
        assertThat(jobs.waitsFor("test", 7)).as("given up").isEmpty();
    }
}
