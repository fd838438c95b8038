package org.mellowclass.app.jobs;

import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import java.util.OptionalInt;

import com.github.kagkarlsson.scheduler.Scheduler;
import com.github.kagkarlsson.scheduler.exceptions.TaskInstanceException;
import com.github.kagkarlsson.scheduler.task.ExecutionComplete;
import com.github.kagkarlsson.scheduler.task.ExecutionOperations;
import com.github.kagkarlsson.scheduler.task.TaskDescriptor;
import com.github.kagkarlsson.scheduler.task.TaskInstanceId;
import com.github.kagkarlsson.scheduler.task.helper.OneTimeTask;
import com.github.kagkarlsson.scheduler.task.helper.Tasks;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
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

    private static final Logger LOG = LoggerFactory.getLogger(Jobs.class);

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

    /**
     * Declares a kind of job, as a bean for the scheduler. One that fails is tried again for as long as its {@link Fault} says, then given
     * up.
     */
    public OneTimeTask<Void> kind(String name, Work work, GivingUp givingUp) {
        return kind(name, work, givingUp, false);
    }

    /** As {@link #kind}, of work that somebody looks on at and can ask for again: whatever its fault, it is given up within seconds. */
    public OneTimeTask<Void> lookedOnAt(String name, Work work, GivingUp givingUp) {
        return kind(name, work, givingUp, true);
    }

    private OneTimeTask<Void> kind(String name, Work work, GivingUp givingUp, boolean lookedOnAt) {
        return Tasks.oneTime(TaskDescriptor.of(name))
                .onFailure((complete, operations) -> failed(name, givingUp, lookedOnAt, complete, operations))
                .execute((instance, context) -> {
                    try {
                        work.run(idOf(instance.getId()));
                    } catch (Exception e) {
                        throw e instanceof RuntimeException unchecked ? unchecked : new JobFailed(e);
                    }
                });
    }

    private void failed(String kind, GivingUp givingUp, boolean lookedOnAt, ExecutionComplete complete, ExecutionOperations<Void> operations) {
        long id = idOf(complete.getExecution().taskInstance.getId());
        Fault fault = lookedOnAt ? Fault.OURS : complete.getCause().map(Fault::of).orElse(Fault.MACHINE);
        int failures = complete.getExecution().consecutiveFailures + 1;
        Duration wait = fault.waitAfter(failures);
        LOG.warn("{} {} has failed {} times ({}), {}", kind, id, failures, fault, wait == null ? "and is given up" : "and is tried again in " + wait,
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
        operations.reschedule(complete, complete.getTimeDone().plus(wait));
    }

    /** What a job waits for before it is tried again; empty for one that does not wait. */
    public Optional<Fault> waitsFor(String kind, long id) {
        return Optional.ofNullable(progress.waitsFor(name(kind, id)));
    }

    /** Tries a job again now that waits for its next try; asks for it if there is none. */
    public void again(String kind, long id) {
        if (!asked(kind, id)) {
            try {
                scheduler.reschedule(TaskInstanceId.of(kind, name(kind, id)), Instant.now());
            } catch (TaskInstanceException done) {
                LOG.info("{} {} is being tried already, or has been", kind, id);
            }
        }
        lookAfterCommit();
    }

    /** Asks for a job to run as soon as the surrounding transaction has ended: at once if a thread is free, the polling finds the rest. */
    public void ask(String kind, long id) {
        asked(kind, id);
        lookAfterCommit();
    }

    private boolean asked(String kind, long id) {
        return scheduler.scheduleIfNotExists(TaskDescriptor.of(kind).instance(name(kind, id)).scheduledTo(Instant.now()));
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
