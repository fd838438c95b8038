package org.mellowclass.app.sounds;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;

import org.mellowclass.app.people.Person;
import org.mellowclass.app.takes.TakeShelf;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.app.web.Turnstile;
import org.mellowclass.core.measure.Spectrogram;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.RandomAccessSound;
import org.mellowclass.core.timeline.Timeline;
import org.springframework.stereotype.Service;

/** What pages draw sounds from where a skyline is not enough: the true wave, and which frequencies are in it. */
@Service
public class SoundDrawings {

    private static final long MOST_SAMPLES = 4L * Frames.RATE;
    /** More than any row has pixels. */
    private static final int MOST_COLUMNS = 2000;

    private final SoundMapper sounds;
    private final TakeShelf shelf;
    private final TakeSounds takes;
    private final Turnstile turnstile = new Turnstile(4);

    SoundDrawings(SoundMapper sounds, TakeShelf shelf, TakeSounds takes) {
        this.sounds = sounds;
        this.shelf = shelf;
        this.takes = takes;
    }

    /**
     * Samples of a sound as 16-bit numbers, little-endian, the mean of its channels.
     *
     * @throws Refusal if more than {@link #MOST_SAMPLES} are asked for
     */
    public byte[] samples(Person viewer, long soundId, long fromFrame, long toFrame) throws IOException {
        Sound sound = sound(viewer, soundId, fromFrame, toFrame);
        if (toFrame - fromFrame > MOST_SAMPLES) {
            throw Refusal.unfit("bench.SPAN_TOO_LONG");
        }
        int frames = (int) (toFrame - fromFrame);
        ByteBuffer samples = ByteBuffer.allocate(Short.BYTES * frames).order(ByteOrder.LITTLE_ENDIAN);
        try (RandomAccessSound open = takes.open(sound.takeId(), sound.treatment())) {
            float[][] block = new float[open.channels()][frames];
            open.readAt(fromFrame, block, 0, frames);
            for (int i = 0; i < frames; i++) {
                float sum = 0;
                for (float[] channel : block) {
                    sum += channel[i];
                }
                samples.putShort((short) Math.max(Short.MIN_VALUE, Math.min(Short.MAX_VALUE, Math.round(sum / block.length * -(float) Short.MIN_VALUE))));
            }
        }
        return samples.array();
    }

    /** Which frequencies a stretch of a sound has, in so many columns, see {@link Spectrogram}. */
    public byte[] spectrum(Person viewer, long soundId, long fromFrame, long toFrame, int columns) throws IOException {
        Sound sound = sound(viewer, soundId, fromFrame, toFrame);
        if (columns < 1 || columns > MOST_COLUMNS) {
            throw new NotFound();
        }
        return turnstile.pass(() -> {
            try (RandomAccessSound open = takes.open(sound.takeId(), sound.treatment())) {
                return Spectrogram.of(open, fromFrame, toFrame, columns);
            }
        });
    }

    private Sound sound(Person viewer, long soundId, long fromFrame, long toFrame) {
        Sound sound = sounds.find(soundId).orElseThrow(NotFound::new).sound();
        shelf.readyTake(viewer, sound.takeId());
        if (fromFrame < 0 || toFrame <= fromFrame || toFrame > Timeline.MOST_FRAMES) {
            throw new NotFound();
        }
        return sound;
    }
}
