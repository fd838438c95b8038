package org.mellowclass.app.jobs;

import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import java.util.OptionalInt;

import com.github.kagkarlsson.scheduler.Scheduler;
import com.github.kagkarlsson.scheduler.SchedulerName;
import com.github.kagkarlsson.scheduler.boot.config.DbSchedulerCustomizer;
import com.github.kagkarlsson.scheduler.exceptions.TaskInstanceException;
import com.github.kagkarlsson.scheduler.serializer.JacksonSerializer;
import com.github.kagkarlsson.scheduler.serializer.Serializer;
import com.github.kagkarlsson.scheduler.task.CompletionHandler;
import com.github.kagkarlsson.scheduler.task.ExecutionComplete;
import com.github.kagkarlsson.scheduler.task.ExecutionOperations;
import com.github.kagkarlsson.scheduler.task.Task;
import com.github.kagkarlsson.scheduler.task.TaskDescriptor;
import com.github.kagkarlsson.scheduler.task.TaskInstanceId;
import com.github.kagkarlsson.scheduler.task.helper.Tasks;
import org.mellowclass.core.sound.RandomAccessSound;
import org.mellowclass.core.sound.SampleSource;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.InitializingBean;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.sql.init.dependency.DependsOnDatabaseInitialization;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.context.annotation.Lazy;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;

/**
 * Background work. A job is named by its kind and the row it works on, and is scheduled in the transaction that asks for
 * it: asking twice gives one job, and a job that was killed half-way runs again. It takes the turn of a crew, see {@link Turns}, and
 * has a time limit.
 */
@Component
public class Jobs {

    private static final Logger LOG = LoggerFactory.getLogger(Jobs.class);

    /** The longest work, an episode of three hours made into MP3 in several tries, takes a third of it. */
    private static final Duration LONGEST = Duration.ofHours(1);
    /** How soon a job looks again whether it is its crew's turn. */
    private static final Duration NEXT_LOOK = Duration.ofSeconds(1);

    private final Scheduler scheduler;
    private final JobProgressMapper progress;
    private final Turns turns;
    private final TimeLimit limit;
    private final Courtesy courtesy;

    Jobs(@Lazy Scheduler scheduler, JobProgressMapper progress, Turns turns, TimeLimit limit, Courtesy courtesy) {
        this.scheduler = scheduler;
        this.progress = progress;
        this.turns = turns;
        this.limit = limit;
        this.courtesy = courtesy;
    }

    @Configuration
    static class Duties {

        /** The same for a process and for the one that is started in its place. */
        @Bean
        SchedulerName nodeName(@Value("${server.port:8080}") int port) {
            return new SchedulerName.Fixed(new SchedulerName.Hostname().getName() + ":" + port);
        }

        /** What this node was at when it ended is done at once, not when a lease is over. */
        @Bean
        @DependsOnDatabaseInitialization
        InitializingBean jobsOfTheProcessBefore(JobProgressMapper jobs, SchedulerName node) {
            return () -> {
                int freed = jobs.free(node.getName());
                if (freed > 0) {
                    LOG.info("{} jobs were cut off when this node ended, and go on", freed);
                }
            };
        }

        @Bean
        DbSchedulerCustomizer dutiesAsJson(SchedulerName node) {
            return new DbSchedulerCustomizer() {
                @Override
                public Optional<SchedulerName> schedulerName() {
                    return Optional.of(node);
                }

                @Override
                public Optional<Serializer> serializer() {
                    return Optional.of(new JacksonSerializer());
                }
            };
        }
    }

    /**
     * What the scheduler keeps with a job.
     *
     * @param turnOf   whose turn it takes
     * @param failures how often it has failed; the scheduler's own count forgets them when a job has to wait for its turn
     */
    record Duty(String turnOf, int failures) {

        /** Jobs of earlier versions have none. */
        static Duty of(Duty kept) {
            return kept == null ? new Duty("", 0) : kept;
        }

        Duty failed() {
            return new Duty(turnOf, failures + 1);
        }
    }

    /** Whose turn a job for an episode takes. */
    public static String ofEpisode(long episodeId) {
        return "episode-" + episodeId;
    }

    /** Whose turn a job for a class takes. */
    public static String ofClass(long classId) {
        return "class-" + classId;
    }

    /** Whether any job runs now in this node. */
    public boolean anyRuns() {
        return !scheduler.getCurrentlyExecuting().isEmpty();
    }

    /** The work of one kind of job, on the row with an id. */
    @FunctionalInterface
    public interface Work {
        void run(long id) throws Exception;
    }

    /** What to do when a job has failed for good. */
    @FunctionalInterface
    public interface GivingUp {
        void failed(long id);
    }

    /**
     * Declares a kind of job, as a bean for the scheduler. One that fails is tried again for as long as its {@link Fault} says, then given
     * up.
     */
    public Task<?> kind(String name, Work work, GivingUp givingUp) {
        return kind(name, work, givingUp, false);
    }

    /** As {@link #kind}, of work that somebody looks on at and can ask for again: whatever its fault, it is given up within seconds. */
    public Task<?> lookedOnAt(String name, Work work, GivingUp givingUp) {
        return kind(name, work, givingUp, true);
    }

    private Task<?> kind(String name, Work work, GivingUp givingUp, boolean lookedOnAt) {
        return Tasks.custom(TaskDescriptor.of(name, Duty.class))
                .onFailure((complete, operations) -> failed(name, givingUp, lookedOnAt, complete, operations))
                .execute((instance, context) -> {
                    Duty duty = Duty.of(instance.getData());
                    if (!turns.take(duty.turnOf)) {
                        return (complete, operations) -> operations.reschedule(complete, complete.getTimeDone().plus(NEXT_LOOK));
                    }
                    // who waits at a page comes first; this thread is the scheduler's, for jobs alone
                    Thread.currentThread().setPriority(Thread.MIN_PRIORITY);
                    try {
                        limit.run(LONGEST, () -> courtesy.work(() -> work.run(idOf(instance.getId()))));
                    } catch (Exception e) {
                        throw e instanceof RuntimeException unchecked ? unchecked : new JobFailed(e);
                    } finally {
                        turns.giveBack(duty.turnOf);
                    }
                    return new CompletionHandler.OnCompleteRemove<>();
                });
    }

    private void failed(String kind, GivingUp givingUp, boolean lookedOnAt, ExecutionComplete complete, ExecutionOperations<Duty> operations) {
        long id = idOf(complete.getExecution().taskInstance.getId());
        Fault fault = lookedOnAt ? Fault.OURS : complete.getCause().map(Fault::of).orElse(Fault.MACHINE);
        Duty duty = Duty.of((Duty) complete.getExecution().taskInstance.getData()).failed();
        Duration wait = fault.waitAfter(duty.failures);
        LOG.warn("{} {} has failed {} times ({}), {}", kind, id, duty.failures, fault, wait == null ? "and is given up" : "and is tried again in " + wait,
                complete.getCause().orElse(null));
        if (wait == null) {
            operations.stop();
            progress.delete(name(kind, id));
            givingUp.failed(id);
            return;
        }
        if (fault != Fault.OURS) {
            progress.waits(name(kind, id), fault);
        }
        operations.reschedule(complete, complete.getTimeDone().plus(wait), duty);
    }

    /** A sound that a job pauses at while somebody waits for a page, see {@link Courtesy}; anybody else reads it as it is. */
    public SampleSource courteousSource(SampleSource source) {
        return courtesy.source(source);
    }

    /** As {@link #courteousSource}, of a sound that is read at any place. */
    public RandomAccessSound courteousSound(RandomAccessSound sound) {
        return courtesy.sound(sound);
    }

    /** What a job waits for before it is tried again; empty for one that does not wait. */
    public Optional<Fault> waitsFor(String kind, long id) {
        return Optional.ofNullable(progress.waitsFor(name(kind, id)));
    }

    /** Tries a job again now that waits for its next try; asks for it if there is none. */
    public void again(String kind, long id, String turnOf) {
        if (!asked(kind, id, turnOf)) {
            try {
                scheduler.reschedule(TaskInstanceId.of(kind, name(kind, id)), Instant.now());
            } catch (TaskInstanceException done) {
                LOG.info("{} {} is being tried already, or has been", kind, id);
            }
        }
        lookAfterCommit();
    }

    /**
     * Asks for a job to run as soon as the surrounding transaction has ended: at once if a thread is free, the polling finds the rest.
     *
     * @param turnOf whose turn it takes: {@link #ofEpisode} or {@link #ofClass}
     */
    public void ask(String kind, long id, String turnOf) {
        asked(kind, id, turnOf);
        lookAfterCommit();
    }

    private boolean asked(String kind, long id, String turnOf) {
        return scheduler.scheduleIfNotExists(TaskDescriptor.of(kind, Duty.class).instance(name(kind, id)).data(new Duty(turnOf, 0)).scheduledTo(Instant.now()));
    }

    private void lookAfterCommit() {
        if (TransactionSynchronizationManager.isSynchronizationActive()) {
            TransactionSynchronizationManager.registerSynchronization(new TransactionSynchronization() {
                @Override
                public void afterCommit() {
                    scheduler.triggerCheckForDueExecutions();
                }
            });
        } else {
            scheduler.triggerCheckForDueExecutions();
        }
    }

    /** Says how far a job has come, in thousandths. */
    public void progress(String kind, long id, long done, long whole) {
        int permille = whole <= 0 ? 0 : (int) Math.max(0, Math.min(1000, done * 1000 / whole));
        progress.put(name(kind, id), permille);
    }

    /** How far a job has come, in percent; empty before it has begun. */
    public OptionalInt percent(String kind, long id) {
        Integer permille = progress.get(name(kind, id));
        return permille == null ? OptionalInt.empty() : OptionalInt.of(permille / 10);
    }

    /** Forgets the progress of a job that has ended. */
    public void ended(String kind, long id) {
        progress.delete(name(kind, id));
    }

    private static String name(String kind, long id) {
        return kind + "-" + id;
    }

    private static long idOf(String name) {
        return Long.parseLong(name.substring(name.lastIndexOf('-') + 1));
    }

    private static final class JobFailed extends RuntimeException {
        JobFailed(Exception cause) {
            super(cause);
        }
    }
}
