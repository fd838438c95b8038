package org.mellowclass.core.talk;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.timeline.VolumeCurve;

/** Takes music down where somebody speaks, and brings it back: as points of its volume curve, which can be moved. */
public final class Ducking {

    /** How far the music lies under the voice then. */
    public static final double UNDER_VOICE_LU = 14;

    private static final long DOWN_BEFORE = Frames.ofMillis(400);
    private static final long BACK_AFTER = Frames.ofMillis(800);
    /** Shorter gaps between words stay down. */
    private static final long STAYS_DOWN = Frames.ofMillis(2500);

    private Ducking() {
    }

    /**
     * The curve of a track that is to be under the voices on the others, whatever it holds itself. Empty where nobody speaks over it, where it lies
     * low enough by itself, or where its loudness or that of the voices is not known.
     */
    public static Optional<VolumeCurve> curve(Timeline timeline, long trackId, TalkFacts facts) {
        Track music = timeline.track(trackId).orElseThrow();
        Timeline others = timeline.mapTracks(track -> track.id() == trackId ? track.withMuted(true) : track, timeline.nextId());
        Optional<Double> voice = EvenVoices.of(Levels.spoken(others, facts)).map(EvenVoices::targetLufs);
        Optional<Double> loudest = music.clips().stream().map(clip -> Levels.lufs(music, clip, facts)).flatMap(Optional::stream).max(Double::compare);
        if (voice.isEmpty() || loudest.isEmpty()) {
            return Optional.empty();
        }
        double downDb = Math.rint(2 * (voice.get() - UNDER_VOICE_LU - loudest.get())) / 2;
        List<Span> spoken = over(music, stretches(Talk.of(others, facts).anybody()));
        if (downDb >= 0 || spoken.isEmpty()) {
            return Optional.empty();
        }
        Map<Long, VolumeCurve.Point> points = new TreeMap<>();
        double down = Math.max(VolumeCurve.SILENT_DB, downDb);
        for (Span span : spoken) {
            long before = Math.max(0, span.startFrame() - DOWN_BEFORE);
            if (before < span.startFrame()) {
                points.put(before, new VolumeCurve.Point(before, 0));
            }
            points.put(span.startFrame(), new VolumeCurve.Point(span.startFrame(), down));
            points.put(span.endFrame(), new VolumeCurve.Point(span.endFrame(), down));
            points.put(span.endFrame() + BACK_AFTER, new VolumeCurve.Point(span.endFrame() + BACK_AFTER, 0));
        }
        return Optional.of(new VolumeCurve(new ArrayList<>(points.values())));
    }

    /** Speech with the short gaps in it. */
    private static List<Span> stretches(List<Span> spoken) {
        List<Span> stretches = new ArrayList<>();
        for (Span span : spoken) {
            Span last = stretches.isEmpty() ? null : stretches.get(stretches.size() - 1);
            if (last != null && span.startFrame() - last.endFrame() < STAYS_DOWN) {
                stretches.set(stretches.size() - 1, new Span(last.startFrame(), span.endFrame()));
            } else {
                stretches.add(span);
            }
        }
        return stretches;
    }

    /** Those that the music is heard under. */
    private static List<Span> over(Track music, List<Span> stretches) {
        return stretches.stream().filter(span -> music.clips().stream().map(Clip::span)
                .anyMatch(clip -> clip.startFrame() < span.endFrame() + BACK_AFTER && span.startFrame() - DOWN_BEFORE < clip.endFrame())).toList();
    }
}
