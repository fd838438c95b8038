package org.mellowclass.core.review;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
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
        Search search = new Search(lanes(was), lanes(is));
        search.run();
        return new SharedSound(search.found, is);
    }

    /** A track that is heard, with its clips in the order of their starts. */
    private record Lane(Track track, long longest) {

        List<Clip> overlapping(Span span) {
            List<Clip> clips = track.clips();
            int low = 0;
            int high = clips.size();
            while (low < high) {
                int middle = (low + high) >>> 1;
                if (clips.get(middle).startFrame() < span.startFrame() - longest) {
                    low = middle + 1;
                } else {
                    high = middle;
                }
            }
            List<Clip> overlapping = new ArrayList<>();
            for (; low < clips.size() && clips.get(low).startFrame() < span.endFrame(); low++) {
                if (clips.get(low).overlaps(span)) {
                    overlapping.add(clips.get(low));
                }
            }
            return overlapping;
        }
    }

    private static List<Lane> lanes(Timeline timeline) {
        return heard(timeline).stream().map(track -> new Lane(track, track.clips().stream().mapToLong(Clip::frames).max().orElse(0))).toList();
    }

    /** Clip by clip of the later timeline. */
    private static final class Search {

        private final List<Lane> was;
        private final List<Lane> is;
        private final List<Stretch> found = new ArrayList<>();
        /** What was found, by its start. */
        private final TreeMap<Long, Span> covered = new TreeMap<>();
        private long lately;

        Search(List<Lane> was, List<Lane> is) {
            this.was = was;
            this.is = is;
        }

        void run() {
            for (Lane lane : is) {
                Map<Source, List<Clip>> before = new HashMap<>();
                was.stream().filter(other -> other.track.id() == lane.track.id()).forEach(other -> other.track.clips().forEach(clip ->
                        before.computeIfAbsent(clip.source(), any -> new ArrayList<>()).add(clip)));
                for (Clip clip : lane.track.clips()) {
                    find(clip, before.getOrDefault(clip.source(), List.of()));
                }
            }
        }

        private void find(Clip clip, List<Clip> earlier) {
            List<Span> left = left(clip.span());
            if (left.isEmpty()) {
                return;
            }
            // what stood beside it has most likely moved with it: of many copies, few are tried
            List<Clip> likeliest = earlier.stream().filter(other -> other.sourceFrame() < clip.sourceFrame() + clip.frames() && clip.sourceFrame() < other.sourceFrame() + other.frames())
                    .sorted(Comparator.comparingLong(other -> Math.abs(shift(other, clip) - lately))).toList();
            for (int i = 0; i < likeliest.size() && !left.isEmpty(); i++) {
                Clip other = likeliest.get(i);
                long shift = shift(other, clip);
                List<Span> shared = new ArrayList<>();
                for (Span span : Span.within(left, List.of(new Span(Math.max(0, other.startFrame() + shift), Math.max(1, other.endFrame() + shift))))) {
                    shared.addAll(same(was, is, span, shift));
                }
                for (Span span : shared) {
                    found.add(new Stretch(span, shift));
                    covered.put(span.startFrame(), span);
                    lately = shift;
                }
                left = Span.without(left, shared);
            }
        }

        private List<Span> left(Span span) {
            Long first = covered.floorKey(span.startFrame());
            return Span.without(List.of(span), covered.subMap(first == null ? span.startFrame() : first, span.endFrame()).values());
        }
    }

    /** How much later a clip plays its source than another one. */
    private static long shift(Clip earlier, Clip later) {
        return later.startFrame() - later.sourceFrame() - earlier.startFrame() + earlier.sourceFrame();
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
    private static List<Span> same(List<Lane> was, List<Lane> is, Span span, long shift) {
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

    private static List<Layer> layers(List<Lane> lanes, Span span, long shift) {
        List<Layer> layers = new ArrayList<>();
        for (Lane lane : lanes) {
            lane.overlapping(span).forEach(clip -> layers.add(new Layer(lane.track, clip, shift)));
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
