package org.mellowclass.core.render;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static org.mellowclass.core.testing.Timelines.TAKES;

import java.io.IOException;
import java.util.Arrays;
import java.util.List;
import java.util.Random;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.mellowclass.core.measure.LoudnessMeter;
import org.mellowclass.core.measure.TruePeakMeter;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.testing.Signal;
import org.mellowclass.core.testing.Timelines;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Fade;
import org.mellowclass.core.timeline.RoomSource;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.timeline.edit.LayTake;
import org.mellowclass.core.timeline.edit.Remove;
import org.mellowclass.core.treatment.Treatment;

class MixerTest {

    private static final List<Signal> SOUNDS = List.of(Signal.noise(1, -6, 1.5, 1), Signal.noise(2, -6, 1.5, 2),
            Signal.noise(1, -20, 1.5, 3));

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8})
    void any_chunk_is_bit_equal_to_the_same_frames_of_the_whole(long seed) throws IOException {
        Random random = new Random(seed);
        Timeline timeline = Timelines.generate(random);
        try (Mixer mixer = mixer(timeline)) {
            float[][] whole = Signal.read(mixer.whole()).samples();
            assertThat(whole[0].length).isEqualTo((int) timeline.endFrame());
            for (int i = 0; i < 50; i++) {
                int from = random.nextInt(whole[0].length - 1);
                int frames = 1 + random.nextInt(Math.min(9000, whole[0].length - from));
                float[][] chunk = new float[2][frames];
                mixer.render(from, chunk, 0, frames);
                assertThat(chunk[0]).isEqualTo(Arrays.copyOfRange(whole[0], from, from + frames));
                assertThat(chunk[1]).isEqualTo(Arrays.copyOfRange(whole[1], from, from + frames));
            }
        }
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8})
    void removing_from_all_tracks_keeps_every_other_sample(long seed) throws IOException {
        Random random = new Random(seed);
        Timeline before = Timelines.generate(random);
        long start = before.endFrame() / 3;
        Span gone = new Span(start, start + 700);
        Timeline after = new Remove(gone, before.trackIds()).applyTo(before, TAKES).timeline();
        try (Mixer old = mixer(before); Mixer now = mixer(after)) {
            float[][] was = Signal.read(old.whole()).samples();
            float[][] is = Signal.read(now.whole()).samples();
            int fade = (int) Fade.EDGE_FRAMES;
            int cut = (int) gone.startFrame();
            int kept = cut + fade;
            for (int c = 0; c < 2; c++) {
                // a clip cut shorter than its old fade plays another part of that fade: leave its neighbourhood out too
                assertThat(Arrays.copyOfRange(is[c], 0, cut - 2 * fade))
                        .isEqualTo(Arrays.copyOfRange(was[c], 0, cut - 2 * fade));
                assertThat(Arrays.copyOfRange(is[c], kept + fade, is[c].length))
                        .isEqualTo(Arrays.copyOfRange(was[c], kept + fade + 700, was[c].length));
            }
        }
    }

    @Test
    void repeated_room_goes_on_without_a_step_and_any_chunk_of_it_is_the_same() throws IOException {
        Signal take = Signal.sine(1, 100, -20, 3);
        RoomSource room = new RoomSource(1, Treatment.NONE, 10_000, 30_000);
        Clip clip = new Clip(2, room, 0, 5_000, 200_000, 0, Fade.NONE, Fade.NONE);
        Timeline timeline = new Timeline(List.of(new Track(1, "Noor", 1, 0, false, List.of(clip))), List.of(), 3);
        try (Mixer mixer = new Mixer(timeline, (id, treatment) -> take)) {
            float[] whole = Signal.read(mixer.whole()).samples()[0];
            float steepest = 0;
            for (int i = 1; i < whole.length; i++) {
                steepest = Math.max(steepest, Math.abs(whole[i] - whole[i - 1]));
            }
            // a sine of 100 Hz changes by at most 2π·100/48000 of its amplitude a frame; two blended ones by √2 of that
            assertThat(steepest).isLessThan((float) (0.1 * Math.sqrt(0.5) * Math.sqrt(2) * 2 * Math.PI * 100 / 48_000 * 1.05));
            float[][] chunk = new float[2][70_000];
            mixer.render(20_000, chunk, 0, 70_000);
            assertThat(chunk[0]).isEqualTo(Arrays.copyOfRange(whole, 20_000, 90_000));
        }
    }

    @Test
    void one_channel_stands_in_the_middle_with_its_loudness_kept() throws IOException {
        Signal voice = Signal.sine(1, 1000, -20, 5);
        Timeline timeline = new LayTake(1, voice.frames(), 0, "Noor").applyTo(Timeline.empty(), TAKES).timeline();
        try (Mixer mixer = new Mixer(timeline, (id, treatment) -> voice)) {
            LoudnessMeter mixed = new LoudnessMeter(2);
            SampleSink.drain(mixer.whole(), mixed);
            LoudnessMeter alone = new LoudnessMeter(1);
            SampleSink.drain(voice.stream(), alone);
            assertThat(mixed.integrated().orElseThrow()).isCloseTo(alone.integrated().orElseThrow(), within(0.01));
        }
    }

    @Test
    void a_muted_track_is_left_out() throws IOException {
        Timeline loud = new LayTake(1, 48_000, 0, "Noor").applyTo(Timeline.empty(), TAKES).timeline();
        Track track = loud.tracks().get(0);
        Timeline muted = new Timeline(List.of(new Track(track.id(), "Noor", 1, 0, true, track.clips())), List.of(), 9);
        try (Mixer mixer = mixer(muted)) {
            assertThat(Signal.read(mixer.whole()).samples()[0]).containsOnly(0f);
        }
    }

    @Test
    void a_quiet_mix_is_brought_to_the_house_sound() throws IOException {
        assertFinished(Signal.sine(1, 440, -38, 6), 0);
    }

    @Test
    void a_mix_with_high_peaks_is_brought_to_the_house_sound_by_limiting() throws IOException {
        Signal clicks = Signal.noise(2, -35, 8, 9);
        for (int i = 6000; i < clicks.frames(); i += 9600) {
            clicks.samples()[0][i] = 0.9f;
            clicks.samples()[1][i + 2] = -0.9f;
        }
        assertFinished(clicks, 6);
    }

    @Test
    void a_mix_far_over_full_scale_reaches_its_loudness_too() throws IOException {
        Signal loud = Signal.concat(Signal.noise(2, 24, 3, 1), Signal.noise(2, 4, 3, 2), Signal.noise(2, 18, 3, 3));
        assertFinished(loud, 0);
    }

    @Test
    void a_room_without_a_voice_is_raised_by_30_dB_at_most() throws IOException {
        Signal room = Signal.noise(1, -66, 4, 4);
        assertThat(Mastering.find(room::stream, -16, -1)).isEqualTo(new Mastering(Mastering.MOST_GAIN_DB, -1, 0));
    }

    @Test
    void a_mix_that_the_limiter_does_not_touch_is_measured_once() throws IOException {
        Signal quiet = Signal.sine(1, 997, -30, 4);
        int[] passes = {0};
        Mastering mastering = Mastering.find(() -> {
            passes[0]++;
            return quiet.stream();
        }, -23, -1);
        assertThat(passes[0]).isEqualTo(1);
        assertFinished(quiet, 0);
        assertThat(mastering.reductionDb()).isZero();
    }

    @Test
    void silence_is_left_as_it_is() throws IOException {
        Mastering mastering = Mastering.find(() -> Signal.silence(2, 3).stream(), -16, -1);
        assertThat(mastering).isEqualTo(new Mastering(0, -1, 0));
    }

    private static void assertFinished(Signal mix, double reductionAtLeast) throws IOException {
        double target = -16;
        Mastering mastering = Mastering.find(mix::stream, target, -1);
        try (SampleSource finished = mastering.apply(mix.stream())) {
            LoudnessMeter loudness = new LoudnessMeter(mix.channels());
            TruePeakMeter peak = new TruePeakMeter(mix.channels());
            assertThat(SampleSink.drain(finished, loudness, peak)).isEqualTo(mix.frames());
            assertThat(loudness.integrated().orElseThrow()).isCloseTo(target, within(0.1));
            assertThat(peak.truePeakDbtp().orElseThrow()).isLessThanOrEqualTo(-1);
        }
        assertThat(mastering.reductionDb()).isGreaterThanOrEqualTo(reductionAtLeast);
    }

    private static Mixer mixer(Timeline timeline) {
        return new Mixer(timeline, (id, treatment) -> SOUNDS.get((int) id - 1));
    }

    @Test
    void the_length_of_a_second_is_the_rate() {
        assertThat(Frames.ofMillis(1000)).isEqualTo(Frames.RATE);
        assertThat(Frames.toMillis(Frames.ofSeconds(3))).isEqualTo(3000);
    }
}
