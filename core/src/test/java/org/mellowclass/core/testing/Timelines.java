package org.mellowclass.core.testing;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;

import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Remove;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;

/** Makes timelines and edits from a seed, for tests of what must hold for every one of them. */
public final class Timelines {

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
                clips.add(new Clip(id++, 1 + random.nextInt(3), at, random.nextInt(50_000), frames,
                        random.nextInt(13) - 6, random.nextInt(3) * 200L, random.nextInt(3) * 200L));
                at += frames + (random.nextBoolean() ? 0 : random.nextInt(4000));
            }
            tracks.add(new Track(trackId, "Voice " + t, 1, random.nextInt(7) - 3, random.nextInt(5) == 0, clips));
        }
        return new Timeline(tracks, id);
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
