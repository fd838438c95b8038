package org.mellowclass.core.review;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;

import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Fade;
import org.mellowclass.core.timeline.Source;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.timeline.VolumeCurve;

/**
 * What of a timeline sounds as it did in an earlier one, whatever has been cut or moved around it: at a moment, the same frames of the same
 * sources play on the same tracks, each within 1 dB of its gain. Tracks that are muted are not heard; the few milliseconds of an edge do not count.
 */
public final class SharedSound {

    /** Gains that are no further apart are heard as the same, and places between left and right. */
    static final double SAME_GAIN_DB = 1;
    static final double SAME_PAN = 0.05;
    /** What lies deeper than this under full gain is not heard. */
    private static final double SILENT_DB = -60;
    /** Where gains cross is found as closely as this. */
    private static final long FINEST = Frames.ofMillis(1);
    /** In a fade, gains are compared so often. */
    private static final long IN_A_FADE = Frames.ofMillis(20);

    private final List<Stretch> stretches;
    private final Timeline is;

    /**
     * A stretch that sounds as it did.
     *
     * @param earlier how far from there it stood: the same was heard at {@code is − earlier}
     */
    public record Stretch(Span is, long earlier) {
    }

    private SharedSound(List<Stretch> stretches, Timeline is) {
        this.stretches = List.copyOf(stretches);
        this.is = is;
    }

    public static SharedSound of(Timeline was, Timeline is) {
        List<Stretch> found = new ArrayList<>();
        List<Span> covered = new ArrayList<>();
        for (Track track : heard(is)) {
            Map<Source, List<Clip>> before = new HashMap<>();
            was.track(track.id()).filter(other -> !other.muted()).ifPresent(other -> other.clips().forEach(clip ->
                    before.computeIfAbsent(clip.source(), any -> new ArrayList<>()).add(clip)));
            for (Clip clip : track.clips()) {
                for (Clip earlier : before.getOrDefault(clip.source(), List.of())) {
                    long from = Math.max(clip.sourceFrame(), earlier.sourceFrame());
                    long to = Math.min(clip.sourceFrame() + clip.frames(), earlier.sourceFrame() + earlier.frames());
                    if (from < to) {
                        long offset = clip.startFrame() - clip.sourceFrame();
                        long shift = offset - earlier.startFrame() + earlier.sourceFrame();
                        for (Span left : Span.without(List.of(new Span(from + offset, to + offset)), covered)) {
                            same(was, is, left, shift).forEach(span -> {
                                found.add(new Stretch(span, shift));
                                covered.add(span);
                            });
                        }
                    }
                }
            }
            List<Span> joined = Span.joined(covered, 0);
            covered.clear();
            covered.addAll(joined);
        }
        return new SharedSound(found, is);
    }

    /** Not overlapping. */
    public List<Stretch> stretches() {
        return stretches;
    }

    /** Where there is sound that was not there before; in order. */
    public List<Span> anew() {
        return Span.without(sounding(is), stretches.stream().map(Stretch::is).toList());
    }

    /** Where spans of the earlier timeline are heard in the later one, as they sounded; in order. */
    public List<Span> carried(Collection<Span> spans) {
        List<Span> carried = new ArrayList<>();
        for (Stretch stretch : stretches) {
            Span there = new Span(stretch.is.startFrame() - stretch.earlier, stretch.is.endFrame() - stretch.earlier);
            Span.within(spans, List.of(there)).forEach(span -> carried.add(new Span(span.startFrame() + stretch.earlier, span.endFrame() + stretch.earlier)));
        }
        return Span.joined(carried, 0);
    }

    /** Where a timeline has clips that are not muted. */
    public static List<Span> sounding(Timeline timeline) {
        return Span.joined(heard(timeline).stream().flatMap(track -> track.clips().stream()).map(Clip::span).toList(), 0);
    }

    private static List<Track> heard(Timeline timeline) {
        return timeline.tracks().stream().filter(track -> !track.muted()).toList();
    }

    /** The parts of a span of the later timeline that sound as what stood {@code shift} frames earlier does. */
    private static List<Span> same(Timeline was, Timeline is, Span span, long shift) {
        Span there = new Span(span.startFrame() - shift, span.endFrame() - shift);
        List<Layer> now = layers(is, span, 0);
        List<Layer> before = layers(was, there, shift);
        TreeSet<Long> edges = new TreeSet<>(List.of(span.startFrame(), span.endFrame()));
        now.forEach(layer -> layer.edges(edges));
        before.forEach(layer -> layer.edges(edges));
        List<Span> same = new ArrayList<>();
        Long from = null;
        for (long edge : edges.subSet(span.startFrame(), true, span.endFrame(), true)) {
            if (from != null) {
                add(same, now, from, edge, before);
            }
            from = edge;
        }
        return Span.joined(same, 0);
    }

    /** Where gains go apart or come together in between, it is as far the same as they are near. */
    private static void add(List<Span> same, List<Layer> now, long from, long to, List<Layer> before) {
        boolean first = sounds(now, from, from + 1, before);
        boolean last = sounds(now, to - 1, to, before);
        if (first && last) {
            same.add(new Span(from, to));
        } else if (to - from > FINEST && (first || last || curved(now, from) || curved(before, from))) {
            long middle = (from + to) / 2;
            add(same, now, from, middle, before);
            add(same, now, middle, to, before);
        }
    }

    private static boolean curved(List<Layer> layers, long frame) {
        return layers.stream().anyMatch(layer -> layer.covers(frame) && !layer.track.curve().points().isEmpty());
    }

    private static boolean sounds(List<Layer> now, long from, long to, List<Layer> before) {
        List<Layer> there = new ArrayList<>(before.stream().filter(layer -> layer.covers(from)).toList());
        for (Layer layer : now) {
            if (layer.covers(from)) {
                Layer match = there.stream().filter(other -> layer.sameAs(other, from, to)).findFirst().orElse(null);
                if (match == null) {
                    return false;
                }
                there.remove(match);
            }
        }
        return there.isEmpty();
    }

    private static List<Layer> layers(Timeline timeline, Span span, long shift) {
        List<Layer> layers = new ArrayList<>();
        for (Track track : heard(timeline)) {
            for (Clip clip : track.clips()) {
                if (clip.overlaps(span)) {
                    layers.add(new Layer(track, clip, shift));
                }
            }
        }
        return layers;
    }

    /** A clip with its track's settings, in the later timeline's time. */
    private record Layer(Track track, Clip clip, long shift) {

        boolean covers(long frame) {
            return frame >= clip.startFrame() + shift && frame < clip.endFrame() + shift;
        }

        void edges(TreeSet<Long> edges) {
            edges.add(clip.startFrame() + shift);
            edges.add(clip.endFrame() + shift);
            fading(edges, clip.startFrame() + shift, drawn(clip.fadeIn()));
            fading(edges, clip.endFrame() + shift - drawn(clip.fadeOut()), drawn(clip.fadeOut()));
            for (VolumeCurve.Point point : track.curve().points()) {
                if (point.frame() > clip.startFrame() && point.frame() < clip.endFrame()) {
                    edges.add(point.frame() + shift);
                }
            }
        }

        private static void fading(TreeSet<Long> edges, long from, long frames) {
            for (long at = 0; frames > 0 && at <= frames; at += IN_A_FADE) {
                edges.add(from + at);
            }
        }

        private static long drawn(Fade fade) {
            return Math.max(0, fade.frames() - fade.skippedFrames());
        }

        boolean sameAs(Layer other, long from, long to) {
            return track.id() == other.track.id() && clip.source().equals(other.clip.source())
                    && clip.sourceFrame() - clip.startFrame() - shift == other.clip.sourceFrame() - other.clip.startFrame() - other.shift
                    && Math.abs(track.pan() - other.track.pan()) <= SAME_PAN && near(other, from) && near(other, to - 1);
        }

        private boolean near(Layer other, long frame) {
            return Math.abs(gainDb(frame) - other.gainDb(frame)) <= SAME_GAIN_DB;
        }

        private double gainDb(long frame) {
            long inClip = frame - shift - clip.startFrame();
            double fade = smooth(clip.fadeIn()).gainAt(inClip) * smooth(clip.fadeOut()).gainAt(clip.frames() - 1 - inClip);
            double faded = fade <= 0 ? SILENT_DB : Math.max(SILENT_DB, 20 * Math.log10(fade));
            return Math.max(SILENT_DB, faded + clip.gainDb() + track.gainDb() + track.curve().gainDbAt(frame - shift));
        }

        /** Without the short edge of a cut. */
        private static Fade smooth(Fade fade) {
            return new Fade(fade.frames(), fade.shape(), fade.skippedFrames(), 0, Fade.Seam.INSIDE);
        }
    }
}
