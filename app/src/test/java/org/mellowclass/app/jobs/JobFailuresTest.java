package org.mellowclass.app.jobs;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;

import com.github.kagkarlsson.scheduler.SchedulerName;
import com.github.kagkarlsson.scheduler.task.Execution;
import com.github.kagkarlsson.scheduler.task.ExecutionComplete;
import com.github.kagkarlsson.scheduler.task.ExecutionOperations;
import com.github.kagkarlsson.scheduler.task.Task;
import com.github.kagkarlsson.scheduler.task.TaskInstance;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.sound.SampleSource;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.dao.QueryTimeoutException;
import org.springframework.jdbc.core.simple.JdbcClient;

@AppTest
class JobFailuresTest {

    private static final Instant NOW = Instant.parse("2026-11-26T10:00:00Z");

    @Autowired
    private Jobs jobs;
    @Autowired
    private SchedulerName node;
    @Autowired
    private JobProgressMapper progress;
    @Autowired
    private JdbcClient database;
    @Value("${db-scheduler.threads}")
    private int threads;
    private final List<Long> givenUp = new ArrayList<>();
    private Task<Jobs.Duty> task;

    /** What the scheduler was told to do with a job that has failed. */
    private static final class Told extends ExecutionOperations<Jobs.Duty> {
        private Duration wait;

        Told(Execution execution) {
            super(null, null, execution);
        }

        @Override
        public void reschedule(ExecutionComplete completed, Instant next) {
            wait = Duration.between(NOW, next);
        }

        @Override
        public void reschedule(ExecutionComplete completed, Instant next, Jobs.Duty data) {
            assertThat(data.failures()).isEqualTo(((Jobs.Duty) completed.getExecution().taskInstance.getData()).failures() + 1);
            reschedule(completed, next);
        }

        @Override
        public void stop() {
            wait = null;
        }
    }

    @BeforeEach
    void declare() {
        task = kind(id -> { });
    }

    @SuppressWarnings("unchecked")
    private Task<Jobs.Duty> kind(Jobs.Work work) {
        return (Task<Jobs.Duty>) jobs.kind("test", work, givenUp::add);
    }

    /** How long a job waits that has failed so many times before, and now again; null if it is given up. */
    private Duration waits(Throwable cause, int before) {
        Execution execution = new Execution(NOW, task.instance("test-7", new Jobs.Duty("episode-1", before)));
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
    void what_this_node_was_at_when_it_ended_is_free_when_it_starts_and_what_others_are_at_is_not() {
        String other = node.getName() + "1";
        for (String name : List.of(node.getName(), other)) {
            database.sql("INSERT INTO scheduled_tasks (task_name, task_instance, execution_time, picked, picked_by, last_heartbeat, version) VALUES ('cut-off', ?, now(6) + INTERVAL 9 DAY, TRUE, ?, now(6), 1)")
                    .params(name, name).update();
        }
        progress.free(node.getName());
        assertThat(database.sql("SELECT picked_by FROM scheduled_tasks WHERE task_name = 'cut-off' AND picked").query(String.class).list()).containsExactly(other);
        database.sql("DELETE FROM scheduled_tasks WHERE task_name = 'cut-off'").update();
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

    /** What is to be done with a job of a crew after it has run: null if it has ended. */
    private Duration runs(Task<Jobs.Duty> of, String crew) {
        TaskInstance<Jobs.Duty> instance = of.instance("test-8", new Jobs.Duty(crew, 0));
        Execution execution = new Execution(NOW, instance);
        Told told = new Told(execution);
        of.execute(instance, null).complete(ExecutionComplete.success(execution, NOW, NOW), told);
        return told.wait;
    }

    @Test
    void a_crew_leaves_one_thread_to_the_others_and_its_work_waits_without_being_given_up() throws Exception {
        CountDownLatch begun = new CountDownLatch(threads - 1);
        CountDownLatch end = new CountDownLatch(1);
        Task<Jobs.Duty> lengthy = kind(id -> {
            begun.countDown();
            end.await();
        });
        ExecutorService busy = Executors.newFixedThreadPool(threads);
        try {
            List<Future<Duration>> running = new ArrayList<>();
            for (int i = 0; i < threads - 1; i++) {
                running.add(busy.submit(() -> runs(lengthy, "episode-1")));
            }
            begun.await();
            assertThat(runs(task, "episode-1")).as("its crew has its turns already").isBetween(Duration.ofMillis(500), Duration.ofSeconds(2));
            assertThat(runs(task, "episode-2")).as("another crew's").isNull();
            end.countDown();
            for (Future<Duration> each : running) {
                assertThat(each.get()).isNull();
            }
            assertThat(runs(task, "episode-1")).as("a turn has been given back").isNull();
            assertThat(givenUp).isEmpty();
        } finally {
            busy.shutdownNow();
        }
    }

    @Test
    void work_that_does_not_end_is_ended_and_tried_again_a_few_times() {
        SampleSource endless = new SampleSource() {
            @Override
            public int channels() {
                return 1;
            }

            @Override
            public int sampleRate() {
                return 48_000;
            }

            @Override
            public int read(float[][] into, int offset, int count) {
                return count;
            }
        };
        assertThatThrownBy(() -> new TimeLimit().run(Duration.ofMillis(20), () -> SampleSink.drain(endless))).isInstanceOf(TookTooLong.class)
                .satisfies(tooLong -> {
                    assertThat(waits(tooLong, 0)).isNotNull();
                    assertThat(jobs.waitsFor("test", 7)).contains(Fault.TIME);
                    assertThat(waits(tooLong, 2)).isNull();
                });
        assertThat(Thread.currentThread().isInterrupted()).as("the thread goes on with other work").isFalse();
    }
}
