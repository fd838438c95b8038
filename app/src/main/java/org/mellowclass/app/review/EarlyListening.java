package org.mellowclass.app.review;

import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;

import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.store.SoundStore;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.app.web.Refusal;
import org.springframework.core.io.Resource;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Other crews that listen early, when a teacher invites them, for a time: they hear the newest hand-in and nothing else, and leave notes. */
@Service("early")
@Transactional
public class EarlyListening {

    private static final int MOST_DAYS = 14;
    private static final int MOST_NOTES = 20;

    private final EarlyMapper early;
    private final HandInMapper handIns;
    private final HandIns found;
    private final MarginNotes notes;
    private final Access access;
    private final SoundStore store;
    private final Clock clock;

    EarlyListening(EarlyMapper early, HandInMapper handIns, HandIns found, MarginNotes notes, Access access, SoundStore store, Clock clock) {
        this.early = early;
        this.handIns = handIns;
        this.found = found;
        this.notes = notes;
        this.access = access;
        this.store = store;
        this.clock = clock;
    }

    /** @param untilAt null where it is not invited */
    public record OtherCrew(long id, String name, Instant untilAt) {
    }

    public record ToHear(long handInId, String title, String crewName, Instant untilAt, long frames) {
    }

    /** A note that the viewer has written. */
    public record OwnNote(long id, MarginNote.Kind kind, String words, long startFrame, long endFrame) {
    }

    public record Written(String studentName, int notes) {
    }

    @Transactional(readOnly = true)
    public List<OtherCrew> others(HandIn handIn) {
        return early.others(handIn.episodeId(), clock.instant());
    }

    /** A crew of the same class may listen for some days; asked again, from now on. */
    public void invite(Person viewer, long handInId, long crewId, int days) {
        HandIn handIn = found.find(viewer, handInId);
        access.taughtEpisode(viewer, handIn.episodeId());
        if (days < 1 || days > MOST_DAYS || others(handIn).stream().noneMatch(crew -> crew.id == crewId)) {
            throw new NotFound();
        }
        early.invite(handIn.episodeId(), crewId, clock.instant().plus(Duration.ofDays(days)), clock.instant());
    }

    public void uninvite(Person viewer, long handInId, long crewId) {
        HandIn handIn = found.find(viewer, handInId);
        access.taughtEpisode(viewer, handIn.episodeId());
        early.uninvite(handIn.episodeId(), crewId);
    }

    /** What a student's crew is invited to hear. */
    @Transactional(readOnly = true)
    public List<ToHear> toHear(Person viewer) {
        return viewer.isTeacher() ? List.of() : early.toHear(viewer.id(), clock.instant());
    }

    /** @throws NotFound if the viewer is not invited to it, or no longer */
    @Transactional(readOnly = true)
    public ToHear guest(Person viewer, long handInId) {
        return toHear(viewer).stream().filter(it -> it.handInId == handInId).findFirst().orElseThrow(NotFound::new);
    }

    @Transactional(readOnly = true)
    public Resource sound(Person viewer, long handInId) throws IOException {
        guest(viewer, handInId);
        return store.stream(handIns.find(handInId).orElseThrow().soundKey());
    }

    @Transactional(readOnly = true)
    public byte[] skyline(Person viewer, long handInId) {
        guest(viewer, handInId);
        return found.skyline(handIns.find(handInId).orElseThrow());
    }

    @Transactional(readOnly = true)
    public List<OwnNote> own(Person viewer, long handInId) {
        guest(viewer, handInId);
        return early.own(handInId, viewer.id());
    }

    /** A note to another crew: a teacher looks at it before they see it. */
    public void write(Person viewer, long handInId, MarginNote.Kind kind, String words, long startFrame, long endFrame) {
        guest(viewer, handInId);
        if (kind == MarginNote.Kind.MEND) {
            throw new IllegalArgumentException("what is to be mended, a teacher says");
        }
        if (early.own(handInId, viewer.id()).size() >= MOST_NOTES) {
            throw Refusal.unfit("early.ENOUGH", MOST_NOTES).at("words");
        }
        notes.add(viewer, handIns.find(handInId).orElseThrow(), MarginNotes.Wish.of(kind, words, startFrame, endFrame), true);
    }

    /** How many notes the students of a class have written to other crews. */
    @Transactional(readOnly = true)
    public List<Written> written(Person viewer, long classId) {
        return early.written(access.taughtClass(viewer, classId).id());
    }
}
