package org.mellowclass.core.testing;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;

import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.AddFlag;
import org.mellowclass.core.timeline.Blank;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Edit;
import org.mellowclass.core.timeline.Fade;
import org.mellowclass.core.timeline.Flag;
import org.mellowclass.core.timeline.Move;
import org.mellowclass.core.timeline.Remove;
import org.mellowclass.core.timeline.RemoveFlag;
import org.mellowclass.core.timeline.SetClipGain;
import org.mellowclass.core.timeline.SetTrackGain;
import org.mellowclass.core.timeline.Soften;
import org.mellowclass.core.timeline.Split;
import org.mellowclass.core.timeline.TakeSource;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.timeline.Trim;

/** Makes timelines and edits from a seed, for tests of what must hold for every one of them. */
public final class Timelines {

    private static final int FLAGS = 3;

    private Timelines() {
    }

    /** One to four tracks, each with up to six clips and gaps between them; ends after frame 2 000 at the earliest. */
    public static Timeline generate(Random random) {
        List<Track> tracks = new ArrayList<>();
        long id = 1;
        int trackCount = 1 + random.nextInt(4);
        for (int t = 0; t < trackCount; t++) {
            long trackId = id++;
            List<Clip> clips = new ArrayList<>();
            long at = random.nextInt(3000);
            int clipCount = 1 + random.nextInt(6);
            for (int c = 0; c < clipCount; c++) {
                long frames = 2000 + random.nextInt(8000);
                clips.add(new Clip(id++, new TakeSource(1 + random.nextInt(3)), at, random.nextInt(50_000), frames,
                        random.nextInt(13) - 6, edge(random), edge(random)));
                at += frames + (random.nextBoolean() ? 0 : random.nextInt(4000));
            }
            tracks.add(new Track(trackId, "Voice " + t, 1, random.nextInt(7) - 3, random.nextInt(5) == 0, clips));
        }
        return new Timeline(tracks, flags(tracks, random, id), id + FLAGS);
    }

    private static List<Flag> flags(List<Track> tracks, Random random, long firstId) {
        List<Flag> flags = new ArrayList<>();
        for (int i = 0; i < FLAGS; i++) {
            Track track = tracks.get(random.nextInt(tracks.size()));
            flags.add(new Flag(firstId + i, track.id(), random.nextLong(track.endFrame()), "flag " + i));
        }
        return flags;
    }

    private static Fade edge(Random random) {
        return random.nextBoolean() ? Fade.EDGE : Fade.NONE;
    }

    /** A clip of a take, without gain and fades. */
    public static Clip clip(long id, long takeId, long startFrame, long takeFrame, long frames) {
        return new Clip(id, new TakeSource(takeId), startFrame, takeFrame, frames, 0, Fade.NONE, Fade.NONE);
    }

    /** Any edit but laying a take; it may turn out not to apply. */
    public static Edit edit(Timeline timeline, Random random) {
        Remove span = removal(timeline, random);
        List<Clip> clips = timeline.tracks().stream().flatMap(track -> track.clips().stream()).toList();
        if (clips.isEmpty()) {
            return span;
        }
        Clip clip = clips.get(random.nextInt(clips.size()));
        long trackId = timeline.tracks().get(random.nextInt(timeline.tracks().size())).id();
        return switch (random.nextInt(11)) {
            case 0, 1 -> span;
            case 2 -> new Blank(span.span(), span.trackIds(), Map.of(1L, new Span(100, 20_100)));
            case 3 -> new Soften(span.span(), span.trackIds());
            case 4 -> new Split(span.span().startFrame(), span.trackIds());
            case 5 -> new Move(clip.id(), trackId, random.nextLong(timeline.endFrame() + 5000));
            case 6 -> new Trim(clip.id(), Trim.Edge.START, clip.startFrame() + random.nextInt(4000) - 1000, 200_000);
            case 7 -> new Trim(clip.id(), Trim.Edge.END, clip.endFrame() + random.nextInt(4000) - 3000, 200_000);
            case 8 -> new SetClipGain(clip.id(), random.nextInt(60) - 40);
            case 9 -> new SetTrackGain(trackId, random.nextInt(60) - 40);
            default -> random.nextBoolean() || timeline.flags().isEmpty()
                    ? new AddFlag(trackId, random.nextLong(timeline.endFrame()), "here")
                    : new RemoveFlag(timeline.flags().get(random.nextInt(timeline.flags().size())).id());
        };
    }

    /** A removal on some of the tracks, which starts before the timeline's end. */
    public static Remove removal(Timeline timeline, Random random) {
        long start = random.nextLong(timeline.endFrame());
        Set<Long> chosen = new HashSet<>();
        for (Track track : timeline.tracks()) {
            if (random.nextInt(3) > 0) {
                chosen.add(track.id());
            }
        }
        if (chosen.isEmpty()) {
            chosen.add(timeline.tracks().get(0).id());
        }
        return new Remove(new Span(start, start + 1 + random.nextInt(9000)), chosen);
    }
}
