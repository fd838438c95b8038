package org.mellowclass.app.bench;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Clock;
import java.util.List;
import java.util.OptionalLong;
import java.util.Set;
import java.util.stream.Collectors;
import org.mellowclass.app.bench.RevisionMapper.Revision;
import org.mellowclass.app.live.LiveEvents;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.sounds.FormerTakes;
import org.mellowclass.app.sounds.TakeSounds;
import org.mellowclass.app.sounds.Treating;
import org.mellowclass.app.takes.Take;
import org.mellowclass.app.takes.TakeShelf;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.core.timeline.TakeSource;
import org.mellowclass.core.timeline.TimeMaps;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.edit.Edit;
import org.mellowclass.core.timeline.edit.Edited;
import org.mellowclass.core.timeline.edit.LaySpan;
import org.mellowclass.core.timeline.edit.LayTake;
import org.mellowclass.core.timeline.edit.Together;
import org.mellowclass.core.timeline.edit.Treat;
import org.mellowclass.core.timeline.history.HistoryPoint;
import org.mellowclass.core.timeline.history.Rebase;
import org.mellowclass.core.timeline.history.Trail;
import org.mellowclass.core.treatment.CleanUp;
import org.mellowclass.core.treatment.Treatment;
import org.springframework.context.ApplicationEventPublisher;
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
    private final TakeSounds sounds;
    private final Treating treating;
    private final FormerTakes formerTakes;
    private final StoredMaps storedMaps;
    private final Clock clock;
    private final LiveEvents live;
    private final ApplicationEventPublisher events;
    /** A hash always means the same timeline, so entries never grow old. */
    private final Cache<String, Timeline> timelines = Caffeine.newBuilder().maximumSize(500).build();

    Bench(RevisionMapper revisions, TimelineCodec codec, Access access, TakeShelf takes, TakeSounds sounds, Treating treating,
          FormerTakes formerTakes, StoredMaps storedMaps, Clock clock, LiveEvents live, ApplicationEventPublisher events) {
        this.revisions = revisions;
        this.codec = codec;
        this.access = access;
        this.takes = takes;
        this.sounds = sounds;
        this.treating = treating;
        this.formerTakes = formerTakes;
        this.storedMaps = storedMaps;
        this.clock = clock;
        this.live = live;
        this.events = events;
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
                .map(stored -> codec.inflated(stored.formatVersion(), stored.body(), formerTakes::of)).orElseThrow());
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
     * Applies an edit that was made on revision {@code base}; if somebody has edited meanwhile, as {@link Rebase} says: one
     * that nothing is left for changes nothing. One that was applied already, by its client id, is not applied again.
     *
     * @return the newest revision afterwards
     */
    public Head edit(Person viewer, long episodeId, long base, String clientId, Edit edit) {
        Head head = lockedHead(viewer, episodeId);
        if (revisions.known(episodeId, clientId)) {
            return head;
        }
        if (base == head.seq()) {
            return append(episodeId, head, edit, viewer.id(), clientId);
        }
        return Rebase.of(edit, earlier(episodeId, base), head.timeline(), maps(episodeId, base, head.seq()), sounds.facts(episodeId))
                .map(rebase -> append(episodeId, head, rebase.edit(), rebase.edited(), viewer.id(), clientId)).orElse(head);
    }

    /** Where the time of tracks has gone from one revision to a later one; an earlier one and one that is not there have gone nowhere. */
    @Transactional(readOnly = true)
    public TimeMaps maps(Person viewer, long episodeId, long from, long to) {
        access.episode(viewer, episodeId);
        return maps(episodeId, from, to);
    }

    private TimeMaps maps(long episodeId, long from, long to) {
        if (from >= to) {
            return TimeMaps.NONE;
        }
        String start = revisions.find(episodeId, from).map(Revision::timelineHash).orElse("");
        return Trail.maps(start, revisions.steps(episodeId, from, to).stream()
                .map(step -> new Trail.Step(step.timelineHash(), storedMaps.read(step.maps()))).toList());
    }

    /** Gives an episode that nobody has touched its first value; whoever asks has been let through. */
    public void begin(long episodeId, Timeline timeline) {
        access.hold(episodeId);
        if (revisions.newest(episodeId).isPresent()) {
            throw Refusal.conflict("bench.CHANGED_MEANWHILE");
        }
        store(episodeId, HistoryPoint.first(), timeline, null, TimeMaps.NONE, null, "begin");
    }

    /** Lays a ready take of the episode on the track of that name: from a frame on, or behind everything if there is none. */
    public Head layTake(Person viewer, long episodeId, long base, String clientId, long takeId, String trackName, Long startFrame) {
        access.ownEpisode(viewer, episodeId);
        Take take = takes.ready(episodeId).get(takeId);
        if (take == null) {
            throw new NotFound();
        }
        if (startFrame != null) {
            return edit(viewer, episodeId, base, clientId, asOnPage(episodeId, takeId, new LaySpan(takeId, take.spoken(), trackName, startFrame, 0)));
        }
        return edit(viewer, episodeId, base, clientId, asOnPage(episodeId, takeId, take.leadFrames() == 0 ? new LayTake(takeId, take.frames(), 0, trackName)
                : LaySpan.behind(head(episodeId).timeline(), takeId, take.spoken(), trackName, List.of())));
    }

    /** A take that is laid again is cleaned as it is where it plays already. */
    private Edit asOnPage(long episodeId, long takeId, Edit lay) {
        return head(episodeId).timeline().clipsOf(takeId).stream().flatMap(clip -> clip.source().treatment().step(CleanUp.class).stream()).findFirst()
                .map(cleaned -> (Edit) new Together(List.of(lay, new Treat(takeId, cleaned)))).orElse(lay);
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

    /** Brings back the value of any earlier revision, as an edit of its own: what was there before can be brought back again. */
    public Head goBack(Person viewer, long episodeId, long base, String clientId, long seq) {
        Head head = lockedHead(viewer, episodeId);
        if (revisions.known(episodeId, clientId)) {
            return head;
        }
        requireNewest(head, base);
        Revision earlier = revisions.find(episodeId, seq).orElseThrow(NotFound::new);
        if (earlier.timelineHash().equals(head.timelineHash())) {
            return head;
        }
        TimeMaps maps = maps(episodeId, seq, head.seq()).inverse();
        return store(episodeId, head.point().afterEdit(), timeline(earlier.timelineHash()), EditWords.goneBack(seq), maps, viewer.id(), clientId);
    }

    /** The takes that are heard in a timeline. */
    public static Set<Long> takesIn(Timeline timeline) {
        return timeline.tracks().stream().flatMap(track -> track.clips().stream()).map(clip -> clip.source().takeId())
                .collect(Collectors.toSet());
    }

    /** The sounds that a timeline plays: takes, each by the treatments it has there. */
    public static Set<TakeSource> soundsIn(Timeline timeline) {
        return timeline.tracks().stream().flatMap(track -> track.clips().stream())
                .map(clip -> new TakeSource(clip.source().takeId(), clip.source().treatment())).collect(Collectors.toSet());
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
        // what has been between the two revisions goes back to where it was
        TimeMaps maps = maps(episodeId, earlier.seq(), head.seq()).inverse();
        return store(episodeId, point, timeline(earlier.timelineHash()), null, maps, viewer.id(), clientId);
    }

    private static void requireNewest(Head head, long base) {
        if (base != head.seq()) {
            throw Refusal.conflict("bench.CHANGED_MEANWHILE");
        }
    }

    /** The newest revision, for those who have been let through. */
    public Head head(long episodeId) {
        return revisions.newest(episodeId)
                .map(revision -> new Head(point(revision), revision.timelineHash(), timeline(revision.timelineHash())))
                .orElseGet(() -> new Head(HistoryPoint.first(), codec.hash(Timeline.empty()), Timeline.empty()));
    }

    /** Applies an edit to the newest revision, for those who have been let through and hold the episode. */
    Head append(long episodeId, Head head, Edit edit, Long authorId, String clientId) {
        return append(episodeId, head, edit, edit.applyTo(head.timeline(), sounds.facts(episodeId)), authorId, clientId);
    }

    private Head append(long episodeId, Head head, Edit edit, Edited edited, Long authorId, String clientId) {
        HistoryPoint point = head.point().afterEdit();
        if (point.undoTo() == HistoryPoint.first().seq() && revisions.newest(episodeId).isEmpty()) {
            // the empty beginning becomes a row with the first edit, so that undo can come back to it
            store(episodeId, HistoryPoint.first(), Timeline.empty(), null, TimeMaps.NONE, null, "begin");
        }
        return store(episodeId, point, edited.timeline(), codec.toJson(edit), edited.maps(), authorId, clientId);
    }

    /** @param edit as it is stored; null where a value only comes back */
    private Head store(long episodeId, HistoryPoint point, Timeline timeline, String edit, TimeMaps maps, Long authorId, String clientId) {
        TimelineCodec.Written written = codec.written(timeline);
        String hash = written.hash();
        revisions.addTimeline(hash, TimelineCodec.FORMAT_VERSION, written.deflated());
        // asked for at once, for the first sound after the edit
        timelines.put(hash, timeline);
        revisions.add(new Revision(episodeId, point.seq(), hash, point.undoTo(), point.redoTo()),
                edit, storedMaps.write(maps), authorId, clientId, clock.instant());
        soundsIn(timeline).stream().filter(sound -> !sound.treatment().equals(Treatment.NONE))
                .forEach(sound -> treating.want(sound.takeId(), sound.treatment()));
        live.changed(topic(episodeId), point.seq());
        events.publishEvent(new TimelineChanged(episodeId));
        return new Head(point, hash, timeline);
    }

    private static HistoryPoint point(Revision revision) {
        return new HistoryPoint(revision.seq(), revision.undoTo(), revision.redoTo());
    }
}
