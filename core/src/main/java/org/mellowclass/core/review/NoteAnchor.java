package org.mellowclass.core.review;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Set;

import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.TakeSource;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;

/**
 * What a note on a span speaks of, bound to the recorded sound: stretches of takes, in their frames at 48 kHz. So the note
 * finds its words again wherever they have gone and however they are treated.
 */
public record NoteAnchor(List<Piece> pieces) {

    /** A stretch of one take. */
    public record Piece(long takeId, long startFrame, long endFrame) {
    }

    /** Places closer together than this are one: words between which something was cut out. */
    private static final long ONE_PLACE = Frames.ofMillis(500);

    public NoteAnchor {
        pieces = List.copyOf(pieces);
    }

    /**
     * Binds a span of a timeline to the sound of the track that has most sound in it, the uppermost of those: the music
     * under a voice is not what a note speaks of. Empty where no take is heard.
     */
    public static NoteAnchor of(Timeline timeline, Span span) {
        return new NoteAnchor(timeline.tracks().stream().filter(track -> !track.muted()).map(track -> pieces(track, span))
                .reduce(List.of(), (upper, lower) -> frames(lower) > frames(upper) ? lower : upper));
    }

    /** As {@link #of(Timeline, Span)}, to the sound of chosen tracks, all of them; those that are muted are not heard. */
    public static NoteAnchor of(Timeline timeline, Span span, Set<Long> trackIds) {
        return new NoteAnchor(timeline.tracks().stream().filter(track -> !track.muted() && trackIds.contains(track.id())).flatMap(track -> pieces(track, span).stream()).toList());
    }

    /** Where the sound is heard in a timeline, in order; empty if it is gone. */
    public List<Span> places(Timeline timeline) {
        List<Span> heard = new ArrayList<>();
        for (Track track : timeline.tracks()) {
            for (Clip clip : track.clips()) {
                if (clip.source() instanceof TakeSource take) {
                    heardIn(clip, take, heard);
                }
            }
        }
        List<Span> places = new ArrayList<>();
        heard.stream().sorted(Comparator.comparingLong(Span::startFrame)).forEach(place -> join(places, place));
        return places;
    }

    private void heardIn(Clip clip, TakeSource take, List<Span> heard) {
        for (Piece piece : pieces) {
            if (piece.takeId == take.takeId()) {
                long offset = clip.startFrame() - clip.sourceFrame();
                long from = Math.max(take.treatment().fromTake(piece.startFrame) + offset, clip.startFrame());
                long to = Math.min(take.treatment().fromTake(piece.endFrame) + offset, clip.endFrame());
                if (from < to) {
                    heard.add(new Span(from, to));
                }
            }
        }
    }

    private static void join(List<Span> places, Span next) {
        Span last = places.isEmpty() ? null : places.get(places.size() - 1);
        if (last != null && next.startFrame() - last.endFrame() <= ONE_PLACE) {
            places.set(places.size() - 1, new Span(last.startFrame(), Math.max(last.endFrame(), next.endFrame())));
        } else {
            places.add(next);
        }
    }

    private static List<Piece> pieces(Track track, Span span) {
        List<Piece> pieces = new ArrayList<>();
        for (Clip clip : track.clips()) {
            long start = Math.max(clip.startFrame(), span.startFrame());
            long end = Math.min(clip.endFrame(), span.endFrame());
            if (start < end && clip.source() instanceof TakeSource take) {
                long offset = clip.sourceFrame() - clip.startFrame();
                pieces.add(new Piece(take.takeId(), take.treatment().toTake(start + offset), take.treatment().toTake(end + offset)));
            }
        }
        return pieces;
    }

    private static long frames(List<Piece> pieces) {
        return pieces.stream().mapToLong(piece -> piece.endFrame - piece.startFrame).sum();
    }
}
