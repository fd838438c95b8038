package org.mellowclass.app.bench;

import java.io.IOException;

import org.mellowclass.app.people.Person;
import org.mellowclass.app.sounds.TakeSounds;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.app.web.Turnstile;
import org.mellowclass.core.render.Mixer;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Pcm16;
import org.mellowclass.core.timeline.Timeline;
import org.springframework.stereotype.Service;

/** Renders what the bench plays, by the same mixer that makes a hand-in. */
@Service
public class PreviewSound {

    private static final long MOST_FRAMES = Frames.ofSeconds(10);

    private final Bench bench;
    private final TakeSounds sounds;
    private final Turnstile turnstile = new Turnstile(8);

    PreviewSound(Bench bench, TakeSounds sounds) {
        this.bench = bench;
        this.sounds = sounds;
    }

    /** Stereo 16-bit PCM of the unfinished mix of a revision; at most ten seconds. */
    public byte[] raw(Person viewer, long episodeId, long seq, long fromFrame, long toFrame) throws IOException {
        if (fromFrame < 0 || toFrame <= fromFrame) {
            throw new NotFound();
        }
        if (toFrame - fromFrame > MOST_FRAMES) {
            throw Refusal.unfit("bench.SPAN_TOO_LONG");
        }
        return turnstile.pass(() -> rendered(bench.timeline(viewer, episodeId, seq), fromFrame, (int) (toFrame - fromFrame)));
    }

    private byte[] rendered(Timeline timeline, long fromFrame, int frames) throws IOException {
        float[][] block = new float[2][frames];
        try (Mixer mixer = new Mixer(timeline, sounds)) {
            mixer.render(fromFrame, block, 0, frames);
        }
        return Pcm16.interleaved(block, frames);
    }
}
