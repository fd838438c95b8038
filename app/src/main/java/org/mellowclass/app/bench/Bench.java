package org.mellowclass.app.bench;

import java.time.Clock;
import java.util.List;
import java.util.OptionalLong;
import java.util.Set;
import java.util.stream.Collectors;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import org.mellowclass.app.bench.RevisionMapper.Revision;
import org.mellowclass.app.live.LiveEvents;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.takes.Take;
import org.mellowclass.app.takes.TakeShelf;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.core.timeline.Edit;
import org.mellowclass.core.timeline.HistoryPoint;
import org.mellowclass.core.timeline.LaySpan;
import org.mellowclass.core.timeline.LayTake;
import org.mellowclass.core.timeline.Rebase;
import org.mellowclass.core.timeline.Timeline;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Keeps an episode's revisions: applies edits, undoes and redoes them. Nothing is ever overwritten. */
@Service
@Transactional
public class Bench {

    /** The refusal that asks: undoing what somebody else did names them. */
    static final String UNDO_OF_OTHERS = "bench.UNDO_OF_OTHERS";

    private final RevisionMapper revisions;
    private final TimelineCodec codec;
    private final Access access;
    private final TakeShelf takes;
    private final Clock clock;
    private final LiveEvents live;
    /** A hash always means the same timeline, so entries never grow old. */
    private final Cache<String, Timeline> timelines = Caffeine.newBuilder().maximumSize(500).build();

    Bench(RevisionMapper revisions, TimelineCodec codec, Access access, TakeShelf takes, Clock clock, LiveEvents live) {
        this.revisions = revisions;
        this.codec = codec;
        this.access = access;
        this.takes = takes;
        this.clock = clock;
        this.live = live;
    }

    /** The live topic on which an episode's revisions are told. */
    static String topic(long episodeId) {
        return "bench-" + episodeId;
    }

    /** The newest revision. */
    @Transactional(readOnly = true)
    public Head head(Person viewer, long episodeId) {
        return head(access.episode(viewer, episodeId).id());
    }

    /** The timeline of any revision. */
    @Transactional(readOnly = true)
    public Timeline timeline(Person viewer, long episodeId, long seq) {
        access.episode(viewer, episodeId);
        return earlier(episodeId, seq);
    }

    private Timeline earlier(long episodeId, long seq) {
        return revisions.find(episodeId, seq).map(revision -> timeline(revision.timelineHash()))
                .orElseGet(() -> {
                    if (seq == HistoryPoint.first().seq()) {
                        return Timeline.empty();
                    }
                    throw new NotFound();
                });
    }

    /** A stored timeline, for those who know its hash from their own rows. */
    @Transactional(readOnly = true)
    public Timeline timeline(String hash) {
        return timelines.get(hash, key -> revisions.timeline(key)
                .map(stored -> codec.inflated(stored.formatVersion(), stored.body())).orElseThrow());
    }

    /**
     * The newest revision, held until the surrounding transaction ends: nobody can edit meanwhile.
     */
    public Head lockedHead(Person viewer, long episodeId) {
        access.ownEpisode(viewer, episodeId);
        access.hold(episodeId);
        return head(episodeId);
    }

    /**
     * Applies an edit that was made on revision {@code base}; if somebody has edited meanwhile, as {@link Rebase} says. One
     * that was applied already, by its client id, is not applied again.
     *
     * @return the newest revision afterwards
     */
    public Head edit(Person viewer, long episodeId, long base, String clientId, Edit edit) {
        Head head = lockedHead(viewer, episodeId);
        if (revisions.known(episodeId, clientId)) {
            return head;
        }
        Edit now = base == head.seq() ? edit : Rebase.of(edit, earlier(episodeId, base), head.timeline());
        return append(episodeId, head.point().afterEdit(), now.applyTo(head.timeline()).timeline(), now, viewer.id(), clientId);
    }

    /** Gives an episode that nobody has touched its first value; whoever asks has been let through. */
    public void begin(long episodeId, Timeline timeline) {
        access.hold(episodeId);
        if (revisions.newest(episodeId).isPresent()) {
            throw Refusal.conflict("bench.CHANGED_MEANWHILE");
        }
        store(episodeId, HistoryPoint.first(), timeline, null, null, "begin");
    }

    /** Lays a ready take of the episode behind everything on the track of that name. */
    public Head layTake(Person viewer, long episodeId, long base, String clientId, long takeId, String trackName) {
        access.ownEpisode(viewer, episodeId);
        Take take = takes.ready(episodeId).get(takeId);
        if (take == null) {
            throw new NotFound();
        }
        return edit(viewer, episodeId, base, clientId, take.leadFrames() == 0 ? new LayTake(takeId, take.frames(), 0, trackName)
                : LaySpan.behind(head(episodeId).timeline(), takeId, take.spoken(), trackName, List.of()));
    }

    /**
     * Brings back the value before the last edit.
     *
     * @param evenOfOthers whether the viewer was asked and wants to undo what somebody else did
     */
    public Head undo(Person viewer, long episodeId, long base, String clientId, boolean evenOfOthers) {
        if (!evenOfOthers) {
            revisions.authorOfEditBehind(episodeId, lockedHead(viewer, episodeId).timelineHash())
                    .filter(author -> author.id() != viewer.id()).ifPresent(author -> {
                        throw Refusal.conflict(UNDO_OF_OTHERS, author.name());
                    });
        }
        return step(viewer, episodeId, base, clientId, true);
    }

    /** Takes back the last undo. */
    public Head redo(Person viewer, long episodeId, long base, String clientId) {
        return step(viewer, episodeId, base, clientId, false);
    }

    /** The takes that are heard in a timeline. */
    public static Set<Long> takesIn(Timeline timeline) {
        return timeline.tracks().stream().flatMap(track -> track.clips().stream()).map(clip -> clip.source().takeId())
                .collect(Collectors.toSet());
    }

    private Head step(Person viewer, long episodeId, long base, String clientId, boolean back) {
        Head head = lockedHead(viewer, episodeId);
        if (revisions.known(episodeId, clientId)) {
            return head;
        }
        requireNewest(head, base);
        OptionalLong target = back ? head.point().undoTarget() : head.point().redoTarget();
        if (target.isEmpty()) {
            throw Refusal.conflict(back ? "bench.NOTHING_TO_UNDO" : "bench.NOTHING_TO_REDO");
        }
        Revision earlier = revisions.find(episodeId, target.getAsLong()).orElseThrow();
        HistoryPoint point = back ? head.point().afterUndo(point(earlier)) : head.point().afterRedo(point(earlier));
        return append(episodeId, point, timeline(earlier.timelineHash()), null, viewer.id(), clientId);
    }

    private static void requireNewest(Head head, long base) {
        if (base != head.seq()) {
            throw Refusal.conflict("bench.CHANGED_MEANWHILE");
        }
    }

    /** The newest revision, for those who have been let through. */
    Head head(long episodeId) {
        return revisions.newest(episodeId)
                .map(revision -> new Head(point(revision), revision.timelineHash(), timeline(revision.timelineHash())))
                .orElseGet(() -> new Head(HistoryPoint.first(), codec.hash(Timeline.empty()), Timeline.empty()));
    }

    /** Adds a revision, for those who have been let through and hold the episode. */
    Head append(long episodeId, HistoryPoint point, Timeline timeline, Edit edit, Long authorId, String clientId) {
        if (point.undoTo() == HistoryPoint.first().seq() && revisions.newest(episodeId).isEmpty()) {
            // the empty beginning becomes a row with the first edit, so that undo can come back to it
            store(episodeId, HistoryPoint.first(), Timeline.empty(), null, null, "begin");
        }
        String hash = store(episodeId, point, timeline, edit, authorId, clientId);
        return new Head(point, hash, timeline);
    }

    private String store(long episodeId, HistoryPoint point, Timeline timeline, Edit edit, Long authorId, String clientId) {
        TimelineCodec.Written written = codec.written(timeline);
        String hash = written.hash();
        revisions.addTimeline(hash, TimelineCodec.FORMAT_VERSION, written.deflated());
        // asked for at once, for the first sound after the edit
        timelines.put(hash, timeline);
        revisions.add(new Revision(episodeId, point.seq(), hash, point.undoTo(), point.redoTo()),
                edit == null ? null : codec.toJson(edit), authorId, clientId, clock.instant());
        live.changed(topic(episodeId), point.seq());
        return hash;
    }

    private static HistoryPoint point(Revision revision) {
        return new HistoryPoint(revision.seq(), revision.undoTo(), revision.redoTo());
    }
}
