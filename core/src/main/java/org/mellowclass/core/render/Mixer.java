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
import org.mellowclass.core.treatment.Treatment;

/**
 * Mixes a timeline to stereo at 48 kHz, summed in float. Every gain is computed from the absolute frame, so that a span
 * rendered alone is bit-equal to the same span of the whole. One channel is panned by the −3 dB law, so that it is as loud anywhere; of two, the
 * side that is turned away from gets quieter, 0 dB in the middle. Muted tracks are left out. A clip that runs on behind the end of its take is silent there.
 */
public final class Mixer implements Closeable {

    private static final int BLOCK = 4096;

    private final Timeline timeline;
    private final Sounds sounds;
    private final Map<Heard, RandomAccessSound> open = new HashMap<>();
    private final float[][] scratch = new float[2][BLOCK];
    private final float[] middle = new float[BLOCK];
    private final float[] left = new float[BLOCK];
    private final float[] right = new float[BLOCK];

    /** What is opened once for all clips that play it. */
    private record Heard(long takeId, Treatment treatment) {
    }

    public Mixer(Timeline timeline, Sounds sounds) {
        this.timeline = timeline;
        this.sounds = sounds;
    }

    /** Renders frames {@code fromFrame …} into {@code into[0 and 1][offset …]}, silence beyond the end. */
    public void render(long fromFrame, float[][] into, int offset, int frames) throws IOException {
        for (int done = 0; done < frames; done += BLOCK) {
            renderBlock(fromFrame + done, into, offset + done, Math.min(BLOCK, frames - done));
        }
    }

    private void renderBlock(long fromFrame, float[][] into, int offset, int frames) throws IOException {
        Arrays.fill(middle, 0, frames, 0f);
        boolean sides = false;
        for (Track track : timeline.tracks()) {
            if (track.muted()) {
                continue;
            }
            double trackGain = Decibels.toAmplitude(track.gainDb());
            for (Clip clip : track.clips()) {
                long start = Math.max(fromFrame, clip.firstHeard());
                long end = Math.min(fromFrame + frames, clip.heardUntil());
                if (start < end) {
                    if (!sides && (track.pan() != 0 || sourceOf(clip).channels() > 1)) {
                        Arrays.fill(left, 0, frames, 0f);
                        Arrays.fill(right, 0, frames, 0f);
                        sides = true;
                    }
                    add(track, clip, trackGain, start, (int) (end - start), (int) (start - fromFrame));
                }
            }
        }
        if (sides) {
            sum(left, into[0], offset, frames);
            sum(right, into[1], offset, frames);
        } else {
            System.arraycopy(middle, 0, into[0], offset, frames);
            System.arraycopy(middle, 0, into[1], offset, frames);
        }
    }

    /** The whole timeline from its start to its end; reading it uses this mixer, closing it does not. */
    public SampleSource whole() {
        return from(0);
    }

    /** The mix as a stream from a frame on. */
    public SampleSource from(long frame) {
        return new Rest(frame);
    }

    @Override
    public void close() throws IOException {
        for (RandomAccessSound sound : open.values()) {
            sound.close();
        }
        open.clear();
    }

    /** Adds {@code count} frames of a clip from a frame of the timeline on, which stands at {@code at} in this block. */
    private void add(Track track, Clip clip, double trackGain, long frame, int count, int at) throws IOException {
        RandomAccessSound sound = sourceOf(clip);
        long clipFrame = frame - clip.startFrame();
        sound.readAt(clip.sourceFrame() + clipFrame, scratch, 0, count);
        CurveGain.apply(track.curve(), frame, scratch, sound.channels(), count);
        double gain = trackGain * clip.gain();
        double pan = track.pan();
        if (sound.channels() > 1) {
            addFaded(clip, clipFrame, (float) (gain * Math.min(1, 1 - pan)), count, scratch[0], left, at);
            addFaded(clip, clipFrame, (float) (gain * Math.min(1, 1 + pan)), count, scratch[1], right, at);
        } else if (pan == 0) {
            // one channel in the middle is the same on both sides: it is summed once
            addFaded(clip, clipFrame, (float) (gain * Math.sqrt(0.5)), count, scratch[0], middle, at);
        } else {
            double angle = 0.25 * Math.PI * (1 + pan);
            addFaded(clip, clipFrame, (float) (gain * Math.cos(angle)), count, scratch[0], left, at);
            addFaded(clip, clipFrame, (float) (gain * Math.sin(angle)), count, scratch[0], right, at);
        }
    }

    private static void addSteady(float gain, int from, int to, float[] samples, float[] into, int at) {
        for (int i = from; i < to; i++) {
            into[at + i] += gain * samples[i];
        }
    }

    private void sum(float[] side, float[] into, int offset, int frames) {
        for (int i = 0; i < frames; i++) {
            into[offset + i] = side[i] + middle[i];
        }
    }

    /** A fade at either end, and nothing but one gain between them. */
    private static void addFaded(Clip clip, long clipFrame, float gain, int count, float[] samples, float[] into, int at) {
        int steady = (int) Math.max(0, Math.min(count, clip.fadeIn().reach() - clipFrame));
        int fading = (int) Math.max(steady, Math.min(count, clip.frames() - clip.fadeOut().reach() - clipFrame));
        for (int i = 0; i < steady; i++) {
            into[at + i] += (float) (gain * clip.fadeAt(clipFrame + i)) * samples[i];
        }
        addSteady(gain, steady, fading, samples, into, at);
        for (int i = fading; i < count; i++) {
            into[at + i] += (float) (gain * clip.fadeAt(clipFrame + i)) * samples[i];
        }
    }

    private RandomAccessSound sourceOf(Clip clip) throws IOException {
        Heard heard = new Heard(clip.source().takeId(), clip.source().treatment());
        RandomAccessSound sound = open.get(heard);
        if (sound == null) {
            sound = sounds.open(heard.takeId, heard.treatment);
            open.put(heard, sound);
        }
        return clip.source() instanceof RoomSource room ? new RepeatedRoom(sound, room) : sound;
    }

    private final class Rest implements SampleSource {

        private final long end = timeline.endFrame();
        private long position;

        Rest(long from) {
            position = from;
        }

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
            int count = (int) Math.max(0, Math.min(frames, end - position));
            if (count > 0) {
                render(position, into, offset, count);
                position += count;
            }
            return count;
        }
    }
}
