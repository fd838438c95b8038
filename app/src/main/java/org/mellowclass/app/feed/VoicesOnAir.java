package org.mellowclass.app.feed;

import java.io.IOException;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalTime;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.function.IntSupplier;

import com.github.kagkarlsson.scheduler.task.helper.RecurringTask;
import com.github.kagkarlsson.scheduler.task.helper.Tasks;
import com.github.kagkarlsson.scheduler.task.schedule.Schedules;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Consent;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.Voices;
import org.mellowclass.app.people.Voices.Speaker;
import org.mellowclass.app.people.VoicesChanged;
import org.mellowclass.app.review.HandIns;
import org.mellowclass.app.securitylog.SecurityLog;
import org.mellowclass.app.store.SoundStore;
import org.mellowclass.app.web.NotFound;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Nothing is on air with a voice that may not be heard in public: when a consent is taken back, or somebody says that such a voice is in a take, every episode
 * with it goes off air in the same transaction, in whichever class, and a correction with it is not made. Each night all that is on air is looked at.
 */
@Service
public class VoicesOnAir {

    private static final Logger LOG = LoggerFactory.getLogger(VoicesOnAir.class);
    private static final LocalTime NIGHT = LocalTime.of(2, 40);

    private final TakenBackMapper takenBack;
    private final FeedMapper feeds;
    private final AirDesk desk;
    private final HandIns handIns;
    private final Voices voices;
    private final Access access;
    private final SoundStore store;
    private final SecurityLog log;
    private final Clock clock;
    private final TransactionTemplate transaction;

    VoicesOnAir(TakenBackMapper takenBack, FeedMapper feeds, AirDesk desk, HandIns handIns, Voices voices, Access access, SoundStore store, SecurityLog log, Clock clock,
                TransactionTemplate transaction) {
        this.takenBack = takenBack;
        this.feeds = feeds;
        this.desk = desk;
        this.handIns = handIns;
        this.voices = voices;
        this.access = access;
        this.store = store;
        this.log = log;
        this.clock = clock;
        this.transaction = transaction;
    }

    @Configuration
    static class Schedule {
        @Bean
        RecurringTask<Void> voicesOnAirJob(VoicesOnAir voices) {
            return Tasks.recurring("voices-on-air", Schedules.daily(NIGHT)).execute((instance, context) -> voices.lookAtAll());
        }
    }

    /**
     * What went off air because of a voice.
     *
     * @param correction whether it is a newer hand-in that was to take the place of what is on air, and does not
     */
    public record TakenBack(long id, long episodeId, String title, long classId, String className, boolean correction, Instant at) {
    }

    /** Takes off air what does not fit any more, and stops what is on its way there. */
    @EventListener
    @Transactional(propagation = Propagation.MANDATORY)
    public void changed(VoicesChanged change) {
        episodes(change).forEach(episodeId -> look(episodeId, change.by()));
    }

    private List<Long> episodes(VoicesChanged change) {
        if (change instanceof VoicesChanged.SpeakersSaid said) {
            return List.of(said.episodeId());
        }
        Speaker of = ((VoicesChanged.ConsentSaid) change).of();
        return of instanceof Speaker.Student student ? takenBack.liveWithStudent(student.personId()) : takenBack.liveWithGuest(((Speaker.OfGuest) of).guestId());
    }

    /** Looks at all that is on air; returns how many episodes did not fit. */
    int lookAtAll() {
        int found = 0;
        for (long episodeId : takenBack.live()) {
            if (Boolean.TRUE.equals(transaction.execute(status -> look(episodeId, null)))) {
                LOG.error("episode {} was on air, or on its way there, with a voice that may not be heard in public; it is off air now", episodeId);
                found++;
            }
        }
        return found;
    }

    /** @param by null for the nightly look */
    private boolean look(long episodeId, Person by) {
        access.hold(episodeId);
        Publication live = feeds.holdNewest(episodeId).filter(Publication::live).orElse(null);
        if (live == null) {
            return false;
        }
        if (!mayBeHeard(episodeId, live.handInId())) {
            desk.takeOff(episodeId, publication -> true).ifPresent(this::deleteWhenDone);
            note(episodeId, live.handInId(), live.title(), false, by);
            return true;
        }
        if (live.nextHandInId() != null && !mayBeHeard(episodeId, live.nextHandInId())) {
            feeds.failed(live.id());
            note(episodeId, live.nextHandInId(), live.title(), true, by);
            return true;
        }
        return false;
    }

    /** Puts on air what is on its way there, if all who are heard in it may still be heard; otherwise it stays away, and 0 is returned. */
    int ifTheyMayBeHeard(long episodeId, IntSupplier goesOnAir) {
        return Objects.requireNonNull(transaction.execute(status -> {
            look(episodeId, null);
            return goesOnAir.getAsInt();
        }));
    }

    /** Whether all who are heard in a hand-in may be heard in public. */
    private boolean mayBeHeard(long episodeId, long handInId) {
        return voices.heardIn(episodeId, handIns.takesHeard(handInId)).stream().allMatch(voice -> voice.extent() == Consent.PUBLIC);
    }

    private void note(long episodeId, long handInId, String title, boolean correction, Person by) {
        takenBack.add(handInId, title, correction, by == null ? null : by.id(), clock.instant());
        log.note(takenBack.schoolOf(episodeId), SecurityLog.Kind.OFF_AIR, by == null ? null : by.id(), null,
                (correction ? "correction of episode " : "episode ") + episodeId + ", a voice may not be heard in public");
    }

    private void deleteWhenDone(String file) {
        TransactionSynchronizationManager.registerSynchronization(new TransactionSynchronization() {
            @Override
            public void afterCommit() {
                try {
                    store.delete(file);
                } catch (IOException e) {
                    // no address leads there any more, and the store is swept
                    LOG.warn("the file of what went off air could not be deleted now", e);
                }
            }
        });
    }

    /** What went off air in a class and has not been read, and what the viewer's own words took off air in others. */
    @Transactional(readOnly = true)
    public List<TakenBack> unread(Person viewer, long classId) {
        access.taughtClass(viewer, classId);
        return takenBack.unreadOfClass(classId, viewer.id());
    }

    /** The same for an episode that has been let through. */
    @Transactional(readOnly = true)
    public List<TakenBack> unreadOfEpisode(long episodeId) {
        return takenBack.unreadOfEpisode(episodeId);
    }

    /** The same for a whole school, for who leads it. */
    @Transactional(readOnly = true)
    public List<TakenBack> unreadOfSchool(Person viewer) {
        access.requireLead(viewer);
        return takenBack.unreadOfSchool(viewer.schoolId());
    }

    /** A teacher of the class has read it. */
    @Transactional
    public void read(Person viewer, long classId, long id) {
        access.taughtClass(viewer, classId);
        takenBack.read(id, classId, clock.instant());
    }

    /** What is on air, or on its way there, with the voice of a student of the viewer's class, in any class of the school. */
    @Transactional(readOnly = true)
    public List<Publication> with(Person viewer, long classId, long personId) {
        access.taughtClass(viewer, classId);
        if (!takenBack.isIn(classId, personId)) {
            throw new NotFound();
        }
        return takenBack.liveWithStudent(personId).stream().map(feeds::newest).flatMap(Optional::stream)
                .filter(live -> isHeard(live.episodeId(), live.handInId(), personId) || live.nextHandInId() != null && isHeard(live.episodeId(), live.nextHandInId(), personId)).toList();
    }

    private boolean isHeard(long episodeId, long handInId, long personId) {
        return voices.heardIn(episodeId, handIns.takesHeard(handInId)).stream().anyMatch(voice -> Long.valueOf(personId).equals(voice.personId()));
    }
}
