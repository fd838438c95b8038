package org.mellowclass.app.jobs;

import java.time.Duration;
import java.time.Instant;
import java.util.OptionalInt;

import com.github.kagkarlsson.scheduler.Scheduler;
import com.github.kagkarlsson.scheduler.task.FailureHandler;
import com.github.kagkarlsson.scheduler.task.TaskDescriptor;
import com.github.kagkarlsson.scheduler.task.helper.OneTimeTask;
import com.github.kagkarlsson.scheduler.task.helper.Tasks;
import org.springframework.context.annotation.Lazy;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;

/**
 * Background work. A job is named by its kind and the row it works on, and is scheduled in the transaction that asks for
 * it: asking twice gives one job, and a job that was killed half-way runs again.
 */
@Component
public class Jobs {

    private static final int MOST_RETRIES = 2;

    private final Scheduler scheduler;
    private final JobProgressMapper progress;

    Jobs(@Lazy Scheduler scheduler, JobProgressMapper progress) {
        this.scheduler = scheduler;
        this.progress = progress;
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

    /** Declares a kind of job, as a bean for the scheduler: tried three times, then given up. */
    public static OneTimeTask<Void> kind(String name, Work work, GivingUp givingUp) {
        return Tasks.oneTime(TaskDescriptor.of(name))
                .onFailure(new FailureHandler.MaxRetriesFailureHandler<>(MOST_RETRIES,
                        new FailureHandler.OnFailureRetryLater<>(Duration.ofSeconds(2)),
                        (complete, operations) -> givingUp.failed(idOf(complete.getExecution().taskInstance.getId()))))
                .execute((instance, context) -> {
                    try {
                        work.run(idOf(instance.getId()));
                    } catch (Exception e) {
                        throw e instanceof RuntimeException unchecked ? unchecked : new JobFailed(e);
                    }
                });
    }

    /** Asks for a job to run as soon as the surrounding transaction has ended: at once if a thread is free, the polling finds the rest. */
    public void ask(String kind, long id) {
        scheduler.scheduleIfNotExists(TaskDescriptor.of(kind).instance(name(kind, id)).scheduledTo(Instant.now()));
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
