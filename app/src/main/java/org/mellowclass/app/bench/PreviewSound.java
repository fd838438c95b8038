package org.mellowclass.app.bench;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.sounds.TakeSounds;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.app.web.Turnstile;
import org.mellowclass.core.dsp.Limiter;
import org.mellowclass.core.render.Mixer;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.timeline.Timeline;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;

/** Renders what the bench plays, by the same mixer that makes a hand-in. */
@Service
public class PreviewSound {

    private static final long MOST_FRAMES = Frames.ofSeconds(10);

    private final Bench bench;
    private final TakeSounds sounds;
    private final Finishes finishes;
    private final ApplicationEventPublisher events;
    private final Turnstile turnstile = new Turnstile(8);

    PreviewSound(Bench bench, TakeSounds sounds, Finishes finishes, ApplicationEventPublisher events) {
        this.bench = bench;
        this.sounds = sounds;
        this.finishes = finishes;
        this.events = events;
    }

    /**
     * The finished mix of a revision as interleaved 32-bit floats, stereo: the very samples that the whole of it would have there. At most ten
     * seconds.
     */
    public byte[] finished(Person viewer, long episodeId, long seq, Finish finish, long fromFrame, long toFrame) throws IOException {
        if (fromFrame < 0 || toFrame <= fromFrame) {
            throw new NotFound();
        }
        if (toFrame - fromFrame > MOST_FRAMES) {
            throw Refusal.unfit("bench.SPAN_TOO_LONG");
        }
        Timeline timeline = bench.timeline(viewer, episodeId, seq);
        if (finishes.measured(episodeId).isEmpty()) {
            events.publishEvent(new TimelineChanged(episodeId));
        }
        return turnstile.pass(() -> rendered(timeline, finish, fromFrame, (int) (toFrame - fromFrame)));
    }

    private byte[] rendered(Timeline timeline, Finish finish, long fromFrame, int frames) throws IOException {
        long start = Math.max(0, fromFrame - Limiter.MEMORY_FRAMES);
        float[][] block = new float[2][Math.max(frames, Limiter.MEMORY_FRAMES)];
        ByteBuffer samples = ByteBuffer.allocate(2 * Float.BYTES * frames).order(ByteOrder.LITTLE_ENDIAN);
        try (Mixer mixer = new Mixer(timeline, sounds); SampleSource mix = finish.mastering().apply(mixer.from(start))) {
            skip(mix, block, fromFrame - start);
            int read = 0;
            for (int more; read < frames && (more = mix.read(block, read, frames - read)) > 0; ) {
                read += more;
            }
            for (int i = 0; i < read; i++) {
                samples.putFloat(block[0][i]).putFloat(block[1][i]);
            }
        }
        return samples.array();
    }

    private static void skip(SampleSource sound, float[][] block, long frames) throws IOException {
        for (long left = frames; left > 0; ) {
            int read = sound.read(block, 0, (int) Math.min(left, block[0].length));
            if (read == 0) {
                return;
            }
            left -= read;
        }
    }
}
