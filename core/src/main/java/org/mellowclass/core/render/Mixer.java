package org.mellowclass.core.render;

import java.io.Closeable;
import java.io.IOException;
import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;

import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.RandomAccessSound;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.RoomSource;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;

/**
 * Mixes a timeline to stereo at 48 kHz, summed in float. Every gain is computed from the absolute frame, so that a span
 * rendered alone is bit-equal to the same span of the whole. One channel stands in the middle by the −3 dB law; two keep
 * their sides. Muted tracks are left out. A clip that runs on behind the end of its take is silent there.
 */
public final class Mixer implements Closeable {

    private static final float CENTRE = (float) Math.sqrt(0.5);
    private static final int BLOCK = 4096;

    private final Timeline timeline;
    private final Takes takes;
    private final Map<Long, RandomAccessSound> open = new HashMap<>();
    private final float[][] scratch = new float[2][BLOCK];

    public Mixer(Timeline timeline, Takes takes) {
        this.timeline = timeline;
        this.takes = takes;
    }

    /** Renders frames {@code fromFrame …} into {@code into[0 and 1][offset …]}, silence beyond the end. */
    public void render(long fromFrame, float[][] into, int offset, int frames) throws IOException {
        Arrays.fill(into[0], offset, offset + frames, 0f);
        Arrays.fill(into[1], offset, offset + frames, 0f);
        for (Track track : timeline.tracks()) {
            if (track.muted()) {
                continue;
            }
            double trackGain = Decibels.toAmplitude(track.gainDb());
            for (Clip clip : track.clips()) {
                long start = Math.max(fromFrame, clip.startFrame());
                long end = Math.min(fromFrame + frames, clip.endFrame());
                for (long at = start; at < end; at += BLOCK) {
                    add(clip, trackGain, at, (int) Math.min(BLOCK, end - at), into, (int) (at - fromFrame) + offset);
                }
            }
        }
    }

    /** The whole timeline from its start to its end; reading it uses this mixer, closing it does not. */
    public SampleSource whole() {
        return new Whole();
    }

    @Override
    public void close() throws IOException {
        for (RandomAccessSound sound : open.values()) {
            sound.close();
        }
        open.clear();
    }

    private void add(Clip clip, double trackGain, long at, int count, float[][] into, int offset) throws IOException {
        RandomAccessSound sound = sourceOf(clip);
        long clipFrame = at - clip.startFrame();
        sound.readAt(clip.sourceFrame() + clipFrame, scratch, 0, count);
        boolean mono = sound.channels() == 1;
        float gain = (float) (trackGain * clip.gain() * (mono ? CENTRE : 1));
        float[] left = scratch[0];
        float[] right = mono ? left : scratch[1];
        for (int i = 0; i < count; i++) {
            float here = clip.inFade(clipFrame + i) ? (float) (gain * clip.fadeAt(clipFrame + i)) : gain;
            into[0][offset + i] += here * left[i];
            into[1][offset + i] += here * right[i];
        }
    }

    private RandomAccessSound sourceOf(Clip clip) throws IOException {
        RandomAccessSound sound = open.get(clip.source().takeId());
        if (sound == null) {
            sound = takes.open(clip.source().takeId());
            open.put(clip.source().takeId(), sound);
        }
        return clip.source() instanceof RoomSource room ? new RepeatedRoom(sound, room) : sound;
    }

    private final class Whole implements SampleSource {

        private final long end = timeline.endFrame();
        private long position;

        @Override
        public int channels() {
            return 2;
        }

        @Override
        public int sampleRate() {
            return Frames.RATE;
        }

        @Override
        public int read(float[][] into, int offset, int frames) throws IOException {
            int count = (int) Math.min(frames, end - position);
            if (count > 0) {
                render(position, into, offset, count);
                position += count;
            }
            return count;
        }
    }
}
