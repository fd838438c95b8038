package org.mellowclass.app.bench;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.Set;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.sounds.TakeSounds;
import org.mellowclass.app.store.RandomKey;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.app.web.Turnstile;
import org.mellowclass.core.dsp.TimeStretch;
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
    private final Trials trials;
    private final Access access;
    private final TakeSounds sounds;
    private final Finishes finishes;
    private final ApplicationEventPublisher events;
    private final Turnstile turnstile = new Turnstile(8);

    PreviewSound(Bench bench, Trials trials, Access access, TakeSounds sounds, Finishes finishes, ApplicationEventPublisher events) {
        this.bench = bench;
        this.trials = trials;
        this.access = access;
        this.sounds = sounds;
        this.finishes = finishes;
        this.events = events;
    }

    /**
     * The finished mix of a revision as interleaved 32-bit floats, stereo: the very samples that the whole of it would have there. At most ten
     * seconds.
     */
    public byte[] finished(Person viewer, long episodeId, long seq, Finish finish, long fromFrame, long toFrame) throws IOException {
        return finished(viewer, episodeId, String.valueOf(seq), finish, fromFrame, toFrame, ForTheEar.AS_IT_IS);
    }

    /**
     * What is only for the ear, and never part of an export.
     *
     * @param without tracks that are left out
     * @param percent how fast it is played, with unchanged pitch
     */
    public record ForTheEar(Set<Long> without, int percent) {

        static final ForTheEar AS_IT_IS = new ForTheEar(Set.of(), 100);

        public ForTheEar {
            without = Set.copyOf(without);
            if (percent < 50 || percent > 200) {
                throw new NotFound();
            }
        }

        Timeline of(Timeline timeline) {
            return without.isEmpty() ? timeline : timeline.mapTracks(track -> without.contains(track.id()) ? track.withMuted(true) : track, timeline.nextId());
        }
    }

    /**
     * As {@link #finished(Person, long, long, Finish, long, long)}, for the ear.
     *
     * @param sound a revision's number, or the key of a trial
     */
    byte[] finished(Person viewer, long episodeId, String sound, Finish finish, long fromFrame, long toFrame, ForTheEar ear) throws IOException {
        if (fromFrame < 0 || toFrame <= fromFrame) {
            throw new NotFound();
        }
        if (toFrame - fromFrame > MOST_FRAMES) {
            throw Refusal.unfit("bench.SPAN_TOO_LONG");
        }
        Timeline timeline = ear.of(timeline(viewer, episodeId, sound));
        if (finishes.newest(episodeId).revision() == 0) {
            events.publishEvent(new TimelineChanged(episodeId));
        }
        return turnstile.pass(() -> rendered(timeline, finish, fromFrame, (int) (toFrame - fromFrame), ear.percent));
    }

    private Timeline timeline(Person viewer, long episodeId, String sound) {
        if (RandomKey.is(sound)) {
            access.episode(viewer, episodeId);
            return trials.timeline(episodeId, sound).orElseThrow(NotFound::new);
        }
        if (!sound.matches("\\d{1,18}")) {
            throw new NotFound();
        }
        return bench.timeline(viewer, episodeId, Long.parseLong(sound));
    }

    private byte[] rendered(Timeline timeline, Finish finish, long fromFrame, int frames, int percent) throws IOException {
        float[][] block = new float[2][frames];
        try (Mixer mixer = new Mixer(timeline, sounds); SampleSource mix = finish.from(mixer, fromFrame)) {
            int read = 0;
            for (int more; read < frames && (more = mix.read(block, read, frames - read)) > 0; ) {
                read += more;
            }
        }
        return interleaved(percent == 100 ? block : TimeStretch.stretched(block, (int) (100L * frames / percent)));
    }

    private static byte[] interleaved(float[][] sound) {
        ByteBuffer samples = ByteBuffer.allocate(2 * Float.BYTES * sound[0].length).order(ByteOrder.LITTLE_ENDIAN);
        for (int i = 0; i < sound[0].length; i++) {
            samples.putFloat(sound[0][i]).putFloat(sound[1][i]);
        }
        return samples.array();
    }
}
