package org.mellowclass.core.render;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.mellowclass.core.testing.Seeds;
import org.mellowclass.core.testing.Signal;
import org.mellowclass.core.testing.Timelines;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Fade;
import org.mellowclass.core.timeline.RoomSource;
import org.mellowclass.core.timeline.TakeSource;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.timeline.VolumeCurve;
import org.mellowclass.core.treatment.Treatment;

/** The mixer against a slow one that is written from the definitions: doubles, one sample at a time. */
class MixerReferenceTest {

    private static final List<Signal> SOUNDS = List.of(Signal.noise(1, -6, 4.2, 1), Signal.noise(2, -6, 4.2, 2), Signal.noise(1, -20, 4.2, 3));

    static IntStream seeds() {
        return Seeds.first(20);
    }

    @ParameterizedTest
    @MethodSource("seeds")
    void every_sample_is_what_the_definitions_say(int seed) throws IOException {
        Timeline timeline = Timelines.generate(new Random(seed));
        try (Mixer mixer = new Mixer(timeline, (take, treatment) -> SOUNDS.get((int) take - 1))) {
            float[][] mixed = Signal.read(mixer.whole()).samples();
            double furthest = 0;
            for (int frame = 0; frame < timeline.endFrame(); frame++) {
                double[] expected = mixedAt(timeline, frame);
                for (int side = 0; side < 2; side++) {
                    // floats: relative to what is loud
                    furthest = Math.max(furthest, Math.abs(mixed[side][frame] - expected[side]) / Math.max(1, Math.abs(expected[side])));
                }
            }
            assertThat(furthest).isLessThan(2e-6);
        }
    }

    private static double[] mixedAt(Timeline timeline, long frame) {
        double[] sum = new double[2];
        for (Track track : timeline.tracks()) {
            for (Clip clip : track.clips()) {
                long into = frame - clip.startFrame();
                if (track.muted() || into < -over(clip.fadeIn()) || into >= clip.frames() + over(clip.fadeOut()) || clip.sourceFrame() + into < 0) {
                    continue;
                }
                double gain = Math.pow(10, (track.gainDb() + clip.gainDb()) / 20) * curve(track.curve().points(), frame) * fade(clip.fadeIn(), into)
                        * fade(clip.fadeOut(), clip.frames() - 1 - into);
                Signal sound = SOUNDS.get((int) clip.source().takeId() - 1);
                for (int side = 0; side < 2; side++) {
                    double turn = side == 0 ? -track.pan() : track.pan();
                    sum[side] += gain * (sound.channels() == 1 ? Math.sin(Math.PI / 4 * (1 + turn)) * played(clip, sound, 0, clip.sourceFrame() + into)
                            : Math.min(1, 1 + turn) * played(clip, sound, side, clip.sourceFrame() + into));
                }
            }
        }
        return sum;
    }

    private static long over(Fade fade) {
        return fade.seam() == Fade.Seam.INSIDE ? 0 : 240;
    }

    private static double curve(List<VolumeCurve.Point> points, long frame) {
        double gainDb = points.isEmpty() ? 0 : points.get(0).frame() > frame ? points.get(0).gainDb() : points.get(points.size() - 1).gainDb();
        for (int i = 1; i < points.size(); i++) {
            VolumeCurve.Point from = points.get(i - 1);
            VolumeCurve.Point to = points.get(i);
            if (frame >= from.frame() && frame < to.frame() && from.gainDb() != to.gainDb()) {
                return Math.pow(10, (from.gainDb() + (to.gainDb() - from.gainDb()) * (frame - from.frame()) / (to.frame() - from.frame())) / 20);
            } else if (frame >= from.frame() && frame < to.frame()) {
                gainDb = from.gainDb();
            }
        }
        return gainDb == -96 ? 0 : Math.pow(10, gainDb / 20);
    }

    private static double fade(Fade fade, long fromEdge) {
        double gain = 1;
        long into = Math.max(0, fromEdge + fade.skippedFrames());
        if (into < fade.frames()) {
            double x = (into + 0.5) / fade.frames();
            gain = switch (fade.shape()) {
                case STRAIGHT -> x;
                case GENTLE -> (1 - Math.cos(Math.PI * x)) / 2;
                case EQUAL_POWER -> Math.sin(Math.PI * x / 2);
                case SLOW_START -> Math.pow(x, 2);
                case SLOW_END -> 2 * x - x * x;
            };
        }
        double x = (fromEdge + over(fade) + 0.5) / (fade.edgeFrames() + over(fade));
        return fromEdge >= fade.edgeFrames() ? gain
                : gain * (fade.seam() == Fade.Seam.EQUAL_POWER ? Math.sin(Math.PI * x / 2) : (1 - Math.cos(Math.PI * x)) / 2);
    }

    private static double played(Clip clip, Signal sound, int channel, long frame) {
        if (!(clip.source() instanceof RoomSource room)) {
            return sample(sound, channel, frame);
        }
        long period = room.roomFrames() - 2400;
        long at = frame % period;
        double now = sample(sound, channel, room.roomFrame() + at);
        if (frame < period || at >= 2400) {
            return now;
        }
        double angle = Math.PI / 2 * (at + 0.5) / 2400;
        return Math.sin(angle) * now + Math.cos(angle) * sample(sound, channel, room.roomFrame() + period + at);
    }

    private static double sample(Signal sound, int channel, long frame) {
        return frame < sound.frames() ? sound.samples()[channel][(int) frame] : 0;
    }

    // ---- absolute samples, worked out by hand

    private static float[] left(Track track, Signal sound, int frames) throws IOException {
        try (Mixer mixer = new Mixer(new Timeline(List.of(track), List.of(), 9), (take, treatment) -> sound)) {
            float[][] mixed = new float[2][frames];
            mixer.render(0, mixed, 0, frames);
            return mixed[0];
        }
    }

    private static Signal constant(double... levels) {
        float[][] samples = new float[levels.length][1000];
        for (int c = 0; c < levels.length; c++) {
            Arrays.fill(samples[c], (float) levels[c]);
        }
        return Signal.of(48_000, samples);
    }

    private static Track track(double gainDb, Clip... clips) {
        return new Track(1, "Noor", 1, gainDb, false, List.of(clips));
    }

    private static Clip clip(double gainDb, Fade in, Fade out) {
        return new Clip(2, new TakeSource(1, Treatment.NONE), 0, 0, 1000, gainDb, in, out);
    }

    @Test
    void gains_of_clip_and_track_are_decibels_that_add_up() throws IOException {
        Signal mono = constant(0.5);
        assertThat(left(track(0, clip(0, Fade.NONE, Fade.NONE)), mono, 10)[5]).isCloseTo(0.353553f, within(1e-6f));
        assertThat(left(track(0, clip(-6.0206, Fade.NONE, Fade.NONE)), mono, 10)[5]).isCloseTo(0.176777f, within(1e-6f));
        assertThat(left(track(6.0206, clip(0, Fade.NONE, Fade.NONE)), mono, 10)[5]).isCloseTo(0.707107f, within(2e-6f));
        assertThat(left(track(6.0206, clip(-6.0206, Fade.NONE, Fade.NONE)), mono, 10)[5]).isCloseTo(0.353553f, within(2e-6f));
    }

    @Test
    void two_channels_keep_their_sides_and_one_stands_in_the_middle() throws IOException {
        Timeline timeline = new Timeline(List.of(track(0, clip(0, Fade.NONE, Fade.NONE))), List.of(), 9);
        try (Mixer mixer = new Mixer(timeline, (take, treatment) -> constant(0.25, -0.75))) {
            float[][] mixed = new float[2][4];
            mixer.render(100, mixed, 0, 4);
            assertThat(mixed[0]).containsOnly(0.25f);
            assertThat(mixed[1]).containsOnly(-0.75f);
        }
    }

    @Test
    void fades_begin_and_end_in_silence_and_are_half_way_in_the_middle() throws IOException {
        float[] heard = left(track(0, clip(0, Fade.of(100, Fade.Shape.GENTLE), Fade.of(200, Fade.Shape.EQUAL_POWER))), constant(1), 1000);
        assertThat(heard[0]).isCloseTo(0, within(1e-4f));
        assertThat((heard[49] + heard[50]) / 2).isCloseTo(0.353553f, within(1e-5f));
        assertThat(heard[100]).isCloseTo(0.707107f, within(1e-6f));
        assertThat(heard[799]).isCloseTo(0.707107f, within(1e-6f));
        assertThat((heard[899] + heard[900]) / 2).as("equal power: half of the power in the middle").isCloseTo(0.5f, within(1e-3f));
        assertThat(heard[999]).isCloseTo(0, within(0.01f));
    }
}
