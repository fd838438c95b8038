package org.mellowclass.app.review;

import java.time.Clock;
import java.time.Instant;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.function.LongFunction;
import java.util.stream.Collectors;

import com.fasterxml.jackson.core.type.TypeReference;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import org.mellowclass.app.bench.Bench;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.sounds.FormerTakes;
import org.mellowclass.app.store.StoredJson;
import org.mellowclass.app.takes.TakeReady;
import org.mellowclass.app.web.Fields;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.core.review.Change;
import org.mellowclass.core.review.Changes;
import org.mellowclass.core.review.NoteAnchor;
import org.mellowclass.core.review.NotePlace;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Margin notes: written by teachers on hand-ins, found again on the bench, ticked by crews. */
@Service
@Transactional
public class MarginNotes {

    private static final int LONGEST = 500;
    private static final int LONGEST_HOW = 300;
    private static final int LONGEST_NAMES = 300;
    private static final int MOST_NOTES = 500;
    private static final int MOST_REPLIES = 50;
    private static final int MOST_PHRASES = 4;

    private final MarginNoteMapper notes;
    private final HandIns handIns;
    private final HandInMapper frozen;
    private final Bench bench;
    private final Access access;
    private final StoredJson<NoteAnchor> anchors;
    private final ApplicationEventPublisher events;
    private final Clock clock;

    MarginNotes(MarginNoteMapper notes, HandIns handIns, HandInMapper frozen, Bench bench, Access access, FormerTakes formerTakes, ObjectMapper json,
                ApplicationEventPublisher events, Clock clock) {
        this.notes = notes;
        this.handIns = handIns;
        this.frozen = frozen;
        this.bench = bench;
        this.access = access;
        this.anchors = anchorsAsStored(json, formerTakes::of);
        this.events = events;
        this.clock = clock;
    }

    /**
     * What is to stand in the margin.
     *
     * @param words      may be empty for a note that is spoken
     * @param startFrame in the hand-in, at 48 kHz
     * @param trackIds   the tracks that it speaks of; none for the whole
     */
    public record Wish(MarginNote.Kind kind, String words, long startFrame, long endFrame, Set<Long> trackIds) {

        /** Of the whole. */
        public static Wish of(MarginNote.Kind kind, String words, long startFrame, long endFrame) {
            return new Wish(kind, words, startFrame, endFrame, Set.of());
        }

        private Wish plain(String text, long end) {
            return new Wish(kind, text, startFrame, end, trackIds);
        }
    }

    /** Writes a note on a hand-in. */
    public void write(Person viewer, long handInId, Wish wish) {
        HandIn handIn = handIns.find(viewer, handInId);
        access.taughtEpisode(viewer, handIn.episodeId());
        add(viewer, handIn, wish, false);
    }

    /**
     * A note by somebody whom the caller has let through.
     *
     * @param held whether a teacher looks at it before its crew sees it
     */
    void add(Person author, HandIn handIn, Wish wish, boolean held) {
        if (Fields.plain(wish.words).isEmpty()) {
            throw Refusal.unfit("note.WORDS_MISSING").at("words");
        }
        Instant now = clock.instant();
        notes.add(row(author, handIn, wish, held ? now : null, null));
    }

    /** As {@link #add}, of one that is spoken as a take, whose crew sees it once it can be heard. Returns its id. */
    long addSpoken(Person author, HandIn handIn, Wish wish, long takeId) {
        MarginNoteMapper.NewRow row = row(author, handIn, wish, null, takeId);
        notes.add(row);
        return row.id;
    }

    private MarginNoteMapper.NewRow row(Person author, HandIn handIn, Wish wish, Instant heldAt, Long takeId) {
        Wish checked = checked(handIn, wish);
        Timeline timeline = bench.timeline(handIn.timelineHash());
        Span span = new Span(checked.startFrame, checked.endFrame);
        Set<Long> on = checked.trackIds;
        boolean whole = timeline.trackIds().stream().allMatch(on::contains) || timeline.trackIds().stream().noneMatch(on::contains);
        NoteAnchor anchor = whole ? NoteAnchor.of(timeline, span) : NoteAnchor.of(timeline, span, on);
        String names = whole ? null : timeline.tracks().stream().filter(track -> on.contains(track.id())).map(Track::name).collect(Collectors.joining(", "));
        return new MarginNoteMapper.NewRow(handIn.id(), author.id(), checked, names == null || names.length() <= LONGEST_NAMES ? names : names.substring(0, LONGEST_NAMES),
                anchors.write(anchor), clock.instant(), heldAt, takeId);
    }

    /** With its words in plain form, and no longer than the hand-in. */
    private Wish checked(HandIn handIn, Wish wish) {
        String text = Fields.plain(wish.words);
        if (text.length() > LONGEST) {
            throw Refusal.unfit("note.TOO_LONG", LONGEST).at("words");
        }
        long end = Math.min(wish.endFrame, handIn.frames());
        if (wish.startFrame < 0 || end <= wish.startFrame) {
            throw Refusal.unfit("note.SPAN").at("from");
        }
        if (notes.count(handIn.id()) >= MOST_NOTES) {
            throw Refusal.unfit("note.MANY", MOST_NOTES);
        }
        return wish.plain(text, end);
    }

    /** Takes a note back: its author's, or a teacher's to take. */
    public MarginNote takeBack(Person viewer, long noteId) {
        MarginNote note = notes.find(noteId).orElseThrow(NotFound::new);
        if (note.authorId() != viewer.id()) {
            access.taughtEpisode(viewer, note.episodeId());
        }
        notes.delete(noteId);
        if (note.spoken()) {
            events.publishEvent(new SpokenNoteGone(note.takeId(), viewer));
        }
        return note;
    }

    /** Forgets the note whose sound is erased, if it is still there. */
    public void forgetSpoken(long takeId) {
        notes.deleteSpoken(takeId);
    }

    /** What was spoken can be heard: its crew sees it from now on. */
    @EventListener
    public void ready(TakeReady take) {
        notes.canBeHeard(take.takeId(), clock.instant());
    }

    /** A note that the viewer sees. */
    @Transactional(readOnly = true)
    public MarginNote find(Person viewer, long noteId) {
        MarginNote note = notes.find(noteId).filter(it -> viewer.isTeacher() || it.shown()).orElseThrow(NotFound::new);
        access.episode(viewer, note.episodeId());
        return note;
    }

    /** A teacher lets a crew see a note by a student of another one, or not. */
    public MarginNote hold(Person viewer, long noteId, boolean held) {
        MarginNote note = notes.find(noteId).filter(MarginNote::byStudent).orElseThrow(NotFound::new);
        access.taughtEpisode(viewer, note.episodeId());
        notes.hold(noteId, held ? clock.instant() : null, held ? note.reportedAt() : null, clock.instant());
        return note;
    }

    /** Somebody of the crew reports a note by a student: it is hidden until a teacher has looked at it. */
    public MarginNote report(Person viewer, long noteId) {
        MarginNote note = notes.find(noteId).filter(it -> it.byStudent() && it.shown()).orElseThrow(NotFound::new);
        access.ownEpisode(viewer, note.episodeId());
        notes.hold(noteId, clock.instant(), clock.instant(), clock.instant());
        return note;
    }

    /**
     * A note and where its words are now.
     *
     * @param place at 48 kHz
     */
    public record Placed(MarginNote note, NotePlace place, List<MarginNoteMapper.Reply> replies) {

        public List<Span> places() {
            return place.places();
        }

        /** Whether it stands at what was put in the place of its words. */
        public boolean swapped() {
            return place.kind() == NotePlace.Kind.AT_SWAP;
        }
    }

    /** All notes of an episode as they stand at a revision. */
    @Transactional(readOnly = true)
    public List<Placed> at(Person viewer, long episodeId, long revision) {
        Timeline timeline = bench.timeline(viewer, episodeId, revision);
        return placed(viewer, notes.ofEpisode(episodeId), timeline, episodeId);
    }

    /** The notes of a hand-in as they stand in a hand-in, which may be a later one; {@link HandIns#find} has let both through. */
    @Transactional(readOnly = true)
    public List<Placed> in(Person viewer, HandIn handIn, HandIn of) {
        return placed(viewer, notes.ofHandIn(of.id()), bench.timeline(handIn.timelineHash()), handIn.episodeId());
    }

    private List<Placed> placed(Person viewer, List<MarginNote> those, Timeline timeline, long episodeId) {
        Map<Long, List<MarginNoteMapper.Reply>> replies = notes.repliesOfEpisode(episodeId).stream().collect(Collectors.groupingBy(MarginNoteMapper.Reply::noteId));
        Map<Long, List<Change>> since = new HashMap<>();
        return those.stream().filter(note -> viewer.isTeacher() || note.shown()).map(note -> new Placed(note, NotePlace.of(anchors.read(note.anchor()), note.span(), timeline,
                () -> since.computeIfAbsent(note.handInId(), id -> Changes.between(handedIn(id), timeline))), replies.getOrDefault(note.id(), List.of()))).toList();
    }

    private Timeline handedIn(long handInId) {
        return bench.timeline(frozen.find(handInId).orElseThrow().timelineHash());
    }

    /**
     * Ticks a note done, or not done after all; whether the teacher agrees is asked anew.
     *
     * @param how it was done; may be empty
     */
    public void tick(Person viewer, long noteId, boolean done, String how) {
        MarginNote note = notes.find(noteId).filter(MarginNote::shown).orElseThrow(NotFound::new);
        access.ownEpisode(viewer, note.episodeId());
        String words = Fields.optional(how, LONGEST_HOW, "note.TOO_LONG");
        notes.tick(noteId, done ? viewer.id() : null, done ? clock.instant() : null, done && !words.isEmpty() ? words : null);
    }

    /** The teacher agrees that a note is done, or opens it again. */
    public MarginNote judge(Person viewer, long noteId, boolean agreed) {
        MarginNote note = notes.find(noteId).orElseThrow(NotFound::new);
        access.taughtEpisode(viewer, note.episodeId());
        if (agreed) {
            notes.agree(noteId, clock.instant());
        } else {
            notes.reopen(noteId);
        }
        return note;
    }

    /** Answers to a note, by its crew or a teacher. */
    public MarginNote reply(Person viewer, long noteId, String words) {
        MarginNote note = find(viewer, noteId);
        String text = Fields.required(words, LONGEST, "note.REPLY");
        if (notes.replies(noteId) >= MOST_REPLIES) {
            throw Refusal.unfit("note.MANY_REPLIES");
        }
        notes.reply(noteId, viewer.id(), text, clock.instant());
        return note;
    }

    /** In words, what of a hand-in's notes is not ticked: <em>3 notes, 1 to mend</em>; empty where all are. */
    @Transactional(readOnly = true)
    public String open(HandIn handIn) {
        MarginNoteMapper.Open open = notes.open(handIn.id());
        return open.notes() == 0 ? "" : open.notes() + (open.notes() == 1 ? " note" : " notes") + (open.toMend() == 0 ? "" : ", " + open.toMend() + " to mend");
    }

    /** What a teacher has written more than once, to be written again with one press. */
    @Transactional(readOnly = true)
    public Map<MarginNote.Kind, List<String>> phrases(Person viewer) {
        return Arrays.stream(MarginNote.Kind.values()).collect(Collectors.toMap(Function.identity(), kind -> notes.phrases(viewer.id(), kind, MOST_PHRASES)));
    }

    /** Version 2 names takes as they were said; before, some were made of others. */
    static StoredJson<NoteAnchor> anchorsAsStored(ObjectMapper json, LongFunction<Optional<FormerTakes.Former>> formerTakes) {
        return new StoredJson<>(json, new TypeReference<>() {
        }, List.of(anchor -> {
            for (JsonNode each : anchor.get("pieces")) {
                ObjectNode piece = (ObjectNode) each;
                formerTakes.apply(piece.get("takeId").asLong()).ifPresent(former -> piece.put("takeId", former.takeId())
                        .put("startFrame", former.treatment().toTake(piece.get("startFrame").asLong()))
                        .put("endFrame", former.treatment().toTake(piece.get("endFrame").asLong())));
            }
            return anchor;
        }));
    }
}
