package org.mellowclass.core.review;

import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

import org.mellowclass.core.review.Change.Kind;
import org.mellowclass.core.review.Change.Place;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.RoomSource;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;

/**
 * What is different in a timeline from an earlier one, track by track. The recorded sound itself tells what stayed: stretches of takes that come in
 * the same order are the same, of several ways to see it the one that keeps most. What stands between them was taken out, put in, or both, which
 * is a swap; sound that is elsewhere was moved.
 */
public final class Changes {

    /** Less is the edge of a cut. */
    private static final long LEAST = Frames.ofMillis(15);
    private static final long GAIN_STEP = Frames.ofMillis(500);
    /** Changes of a kind that are as close as this are one. */
    private static final long ONE_PLACE = Frames.ofMillis(500);

    private final Timeline was;
    private final Timeline is;
    private final List<Change> changes = new ArrayList<>();

    private Changes(Timeline was, Timeline is) {
        this.was = was;
        this.is = is;
    }

    /** In the order of their places now. */
    public static List<Change> between(Timeline was, Timeline is) {
        Changes between = new Changes(was, is);
        for (Track track : is.tracks()) {
            Optional<Track> before = was.track(track.id());
            if (before.isPresent()) {
                between.ofTrack(before.get(), track);
            } else if (!track.clips().isEmpty()) {
                between.add(Kind.TRACK_ADDED, track, new Place(track.clips().get(0).startFrame(), track.clips().get(0).startFrame()), whole(track), 0);
            }
        }
        for (Track track : was.tracks()) {
            if (is.track(track.id()).isEmpty() && !track.clips().isEmpty()) {
                long at = Math.min(track.clips().get(0).startFrame(), is.endFrame());
                between.add(Kind.TRACK_GONE, track, whole(track), new Place(at, at), 0);
            }
        }
        return between.changes.stream().sorted(Comparator.comparingLong((Change change) -> change.is().startFrame()).thenComparing(change -> change.was().startFrame())).toList();
    }

    /** Those at some places of the earlier timeline, or at places of the later one. */
    public static List<Change> at(List<Change> changes, List<Span> was, List<Span> is) {
        return changes.stream().filter(change -> was.stream().anyMatch(span -> change.was().meets(span.startFrame(), span.endFrame()))
                || is.stream().anyMatch(span -> change.is().meets(span.startFrame(), span.endFrame()))).toList();
    }

    private void add(Kind kind, Track track, Place before, Place now, double amountDb) {
        changes.add(new Change(kind, track.id(), track.name(), before, now, amountDb));
    }

    private static Place whole(Track track) {
        return track.clips().isEmpty() ? new Place(0, 0) : new Place(track.clips().get(0).startFrame(), track.endFrame());
    }

    private void ofTrack(Track before, Track now) {
        if (before.muted() != now.muted()) {
            add(now.muted() ? Kind.MUTED : Kind.HEARD_AGAIN, now, whole(before), whole(now), 0);
        }
        if (before.muted() && now.muted()) {
            return;
        }
        if (Math.abs(before.pan() - now.pan()) > SharedSound.SAME_PAN) {
            add(Kind.PANNED, now, whole(before), whole(now), 0);
        }
        List<Match> all = matches(before, now);
        List<Match> kept = KeptOrder.of(all);
        between(before, now, all, kept);
        List<Change> heard = new ArrayList<>();
        kept.forEach(match -> compare(before, now, match, heard));
        changes.addAll(joined(heard));
    }

    // ---- what stayed

    /** A stretch that is there before and now. */
    record Match(Clip before, Clip now, Place was, Place is) {
    }

    /** A clip up to where the next one begins: what is crossfaded counts once. */
    private record Heard(Clip clip, long frames, long fromInTake, long toInTake) {

        static List<Heard> on(Track track) {
            List<Heard> heard = new ArrayList<>();
            List<Clip> clips = track.clips();
            for (int i = 0; i < clips.size(); i++) {
                long end = i + 1 < clips.size() ? Math.min(clips.get(i).endFrame(), clips.get(i + 1).startFrame()) : clips.get(i).endFrame();
                if (end > clips.get(i).startFrame()) {
                    long frames = end - clips.get(i).startFrame();
                    heard.add(new Heard(clips.get(i), frames, inTake(clips.get(i), 0), inTake(clips.get(i), frames)));
                }
            }
            return heard;
        }

        Span span() {
            return new Span(clip.startFrame(), clip.startFrame() + frames);
        }
    }

    private static List<Match> matches(Track before, Track now) {
        Map<Object, List<Heard>> earlier = new HashMap<>();
        Heard.on(before).forEach(heard -> earlier.computeIfAbsent(said(heard.clip), any -> new ArrayList<>()).add(heard));
        List<Match> matches = new ArrayList<>();
        for (Heard heard : Heard.on(now)) {
            for (Heard other : earlier.getOrDefault(said(heard.clip), List.of())) {
                long from = Math.max(other.fromInTake, heard.fromInTake);
                long to = Math.min(other.toInTake, heard.toInTake);
                if (from < to) {
                    Place there = onPage(other, from, to);
                    Place here = onPage(heard, from, to);
                    if (there.frames() >= LEAST && here.frames() >= LEAST) {
                        matches.add(new Match(other.clip, heard.clip, there, here));
                    }
                }
            }
        }
        return matches;
    }

    /** A room is not what was said in its take. */
    private static Object said(Clip clip) {
        return clip.source() instanceof RoomSource room ? List.of(room.takeId(), "room") : clip.source().takeId();
    }

    private static long inTake(Clip clip, long clipFrame) {
        return clip.source() instanceof RoomSource ? clip.sourceFrame() + clipFrame : clip.source().treatment().toTake(clip.sourceFrame() + clipFrame);
    }

    private static Place onPage(Heard heard, long from, long to) {
        return new Place(onPage(heard, from), onPage(heard, to));
    }

    private static long onPage(Heard heard, long frame) {
        Clip clip = heard.clip;
        long inSource = clip.source() instanceof RoomSource ? frame : clip.source().treatment().fromTake(frame);
        return clip.startFrame() + Math.max(0, Math.min(heard.frames, inSource - clip.sourceFrame()));
    }

    // ---- what came and went between

    private void between(Track before, Track now, List<Match> all, List<Match> kept) {
        List<Span> gone = Span.without(spans(before), kept.stream().map(match -> span(match.was)).toList());
        List<Span> come = Span.without(spans(now), kept.stream().map(match -> span(match.is)).toList());
        Set<Match> stayed = Collections.newSetFromMap(new IdentityHashMap<>());
        stayed.addAll(kept);
        for (Match match : all) {
            if (stayed.contains(match)) {
                continue;
            }
            List<Span> from = Span.within(List.of(span(match.was)), gone);
            List<Span> to = Span.within(List.of(span(match.is)), come);
            if (Span.total(from) >= LEAST && Span.total(to) >= LEAST && Span.total(from) > match.was.frames() / 2 && Span.total(to) > match.is.frames() / 2) {
                add(Kind.MOVED, now, match.was, match.is, 0);
                gone = Span.without(gone, from);
                come = Span.without(come, to);
            }
        }
        Leftover went = new Leftover(gone);
        Leftover came = new Leftover(come);
        long wasFrom = 0;
        long isFrom = 0;
        for (int i = 0; i <= kept.size(); i++) {
            boolean last = i == kept.size();
            long wasTo = last ? Math.max(wasFrom, before.endFrame()) : kept.get(i).was.startFrame();
            long isTo = last ? Math.max(isFrom, now.endFrame()) : kept.get(i).is.startFrame();
            cameAndWent(now, went.next(wasFrom, wasTo), came.next(isFrom, isTo), wasFrom, isFrom);
            if (!last) {
                wasFrom = kept.get(i).was.endFrame();
                isFrom = kept.get(i).is.endFrame();
            }
        }
    }

    private void cameAndWent(Track track, Optional<Place> went, Optional<Place> came, long wasFrom, long isFrom) {
        if (went.isPresent() && came.isPresent()) {
            add(Kind.SWAPPED, track, went.get(), came.get(), 0);
        } else if (went.isPresent()) {
            add(Kind.TAKEN_OUT, track, went.get(), new Place(isFrom, isFrom), 0);
        } else if (came.isPresent()) {
            add(Kind.PUT_IN, track, new Place(wasFrom, wasFrom), came.get(), 0);
        }
    }

    /** Spans that are worth it, in order, of which one stretch after the other is asked for. */
    private static final class Leftover {

        private final List<Span> spans;
        private int next;

        Leftover(List<Span> spans) {
            this.spans = spans.stream().filter(span -> span.frames() >= LEAST).toList();
        }

        /** From the first to the last of those that lie in a stretch, which begins no earlier than the one before. */
        Optional<Place> next(long from, long to) {
            while (next < spans.size() && spans.get(next).endFrame() <= from) {
                next++;
            }
            int behind = next;
            while (behind < spans.size() && spans.get(behind).startFrame() < to) {
                behind++;
            }
            return behind == next ? Optional.empty() : Optional.of(new Place(Math.max(from, spans.get(next).startFrame()), Math.min(to, spans.get(behind - 1).endFrame())));
        }
    }

    private static List<Span> spans(Track track) {
        return Heard.on(track).stream().map(Heard::span).toList();
    }

    private static Span span(Place place) {
        return new Span(place.startFrame(), place.endFrame());
    }

    // ---- what sounds otherwise

    private void compare(Track before, Track now, Match match, List<Change> heard) {
        if (!match.before.source().treatment().equals(match.now.source().treatment())) {
            heard.add(new Change(Kind.TREATED, now.id(), now.name(), match.was, match.is, 0));
        }
        for (long at = 0; at < match.is.frames(); at += GAIN_STEP) {
            long end = Math.min(match.is.frames(), at + GAIN_STEP);
            long middle = (at + end) / 2;
            long wasMiddle = match.was.startFrame() + Math.min(match.was.frames() - 1, middle * match.was.frames() / match.is.frames());
            double louderDb = gainDb(now, match.now, match.is.startFrame() + middle) - gainDb(before, match.before, wasMiddle);
            if (Math.abs(louderDb) > SharedSound.SAME_GAIN_DB) {
                heard.add(new Change(louderDb > 0 ? Kind.LOUDER : Kind.SOFTER, now.id(), now.name(),
                        new Place(match.was.startFrame() + at * match.was.frames() / match.is.frames(), match.was.startFrame() + end * match.was.frames() / match.is.frames()),
                        new Place(match.is.startFrame() + at, match.is.startFrame() + end), louderDb));
            }
        }
    }

    private static double gainDb(Track track, Clip clip, long frame) {
        return clip.gainDb() + track.gainDb() + track.curve().gainDbAt(frame);
    }

    private static List<Change> joined(List<Change> changes) {
        Map<Kind, Change> open = new EnumMap<>(Kind.class);
        List<Change> joined = new ArrayList<>();
        for (Change next : changes) {
            Change before = open.get(next.kind());
            boolean one = before != null && next.is().startFrame() - before.is().endFrame() <= ONE_PLACE && next.was().startFrame() - before.was().endFrame() <= ONE_PLACE
                    && Math.abs(next.amountDb() - before.amountDb()) <= 2 * SharedSound.SAME_GAIN_DB;
            if (one) {
                double share = (double) next.is().frames() / (before.is().frames() + next.is().frames());
                next = new Change(next.kind(), next.trackId(), next.trackName(), before.was().and(next.was()), before.is().and(next.is()),
                        before.amountDb() + share * (next.amountDb() - before.amountDb()));
            } else if (before != null) {
                joined.add(before);
            }
            open.put(next.kind(), next);
        }
        joined.addAll(open.values());
        return joined;
    }
}
