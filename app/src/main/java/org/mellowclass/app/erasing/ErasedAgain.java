package org.mellowclass.app.erasing;

import java.io.IOException;
import java.util.List;
import java.util.function.LongConsumer;

import com.github.kagkarlsson.scheduler.task.helper.RecurringTask;
import com.github.kagkarlsson.scheduler.task.helper.Tasks;
import com.github.kagkarlsson.scheduler.task.schedule.FixedDelay;
import org.mellowclass.app.erasing.ErasedJournal.Kind;
import org.mellowclass.app.keeping.Keeping;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.InitializingBean;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/** Erases what has to go though nobody presses: what a restored backup has brought back, and what was hidden long enough. */
@Component
class ErasedAgain implements InitializingBean {

    private static final Logger LOG = LoggerFactory.getLogger(ErasedAgain.class);

    private final Erasures takes;
    private final StudentErasing students;
    private final ClassErasing classes;
    private final ClassMapper ids;
    private final ErasedFiles files;
    private final ErasedJournal journal;
    private final Keeping keeping;

    ErasedAgain(Erasures takes, StudentErasing students, ClassErasing classes, ClassMapper ids, ErasedFiles files, ErasedJournal journal, Keeping keeping) {
        this.takes = takes;
        this.students = students;
        this.classes = classes;
        this.ids = ids;
        this.files = files;
        this.journal = journal;
        this.keeping = keeping;
    }

    @Configuration
    static class Schedule {
        @Bean
        RecurringTask<Void> goneJob(ErasedAgain erased) {
            return Tasks.recurring("delete-what-is-gone", FixedDelay.ofHours(1)).execute((instance, context) -> erased.lookAtWhatGoes());
        }
    }

    /** Before anything can be made here. */
    @Override
    public void afterPropertiesSet() {
        above(Kind.TAKE, ids::takeIdsFrom);
        above(Kind.STUDENT, ids::personIdsFrom);
        above(Kind.CLASS, ids::classIdsFrom);
        above(Kind.SCHOOL, ids::schoolIdsFrom);
    }

    private void above(Kind kind, LongConsumer idsFrom) {
        journal.ids(kind).stream().mapToLong(id -> id).max().ifPresent(most -> idsFrom.accept(most + 1));
    }

    /**
     * Does to its end what was killed half-way, and erases again what a restored backup has brought back. What cannot be erased now keeps
     * no school from starting: it stands in the journal until the next start.
     */
    @EventListener(ApplicationReadyEvent.class)
    public void again() throws IOException {
        each("take", journal.ids(Kind.TAKE), takes::again);
        each("student", journal.ids(Kind.STUDENT), students::again);
        each("class", journal.ids(Kind.CLASS), classes::erase);
        each("school", journal.ids(Kind.SCHOOL), classes::eraseSchool);
        files.delete(journal.files());
    }

    /** Hides classes whose time is over, and deletes what nobody has taken back. */
    void lookAtWhatGoes() {
        keeping.look();
        each("class", keeping.classesToDelete(), classes::erase);
        each("school", keeping.schoolsToDelete(), classes::eraseSchool);
    }

    @FunctionalInterface
    private interface Eraser {
        void erase(long id) throws IOException;
    }

    private static void each(String what, List<Long> ids, Eraser eraser) {
        for (long id : ids) {
            try {
                eraser.erase(id);
            } catch (IOException | RuntimeException failed) {
                LOG.error("{} {} could not be erased", what, id, failed);
            }
        }
    }
}
