package org.mellowclass.core.render;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.testing.Signal;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Fade;
import org.mellowclass.core.timeline.TakeSource;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.timeline.VolumeCurve;
import org.mellowclass.core.treatment.Treatment;

class BlockPassesTest {

    private static final Signal VOICE = withClicks(Signal.concat(Signal.noise(1, -30, 4.3, 1), Signal.silence(1, 2.2), Signal.noise(1, -24, 6, 2)));
    private static final Signal MUSIC = Signal.sine(2, 330, -26, 12);

    private final Map<BlockPasses.Window, BlockPasses.Block> kept = new HashMap<>();
    private final Set<Long> measured = new HashSet<>();
    private final BlockPasses.Known known = new BlockPasses.Known() {
        @Override
        public Optional<BlockPasses.Block> find(BlockPasses.Window window) {
            return Optional.ofNullable(kept.get(window));
        }

        @Override
        public void keep(BlockPasses.Window window, BlockPasses.Block block) {
            measured.add(window.startFrame() / Frames.RATE);
            kept.put(window, block);
        }
    };

    /** Peaks that the limiter has to take down, some of them where seconds meet, and one at the very end. */
    private static Signal withClicks(Signal voice) {
        float[] samples = voice.samples()[0];
        for (int at : new int[] {47_999, 48_000, 50_000, 144_002, 400_000, samples.length - 1}) {
            samples[at] = 0.9f;
        }
        return voice;
    }

    private static Timeline episode(double voiceGainDb, VolumeCurve musicCurve) {
        Clip voice = new Clip(3, new TakeSource(1, Treatment.NONE), 7_000, 0, VOICE.frames(), voiceGainDb, Fade.NONE, Fade.NONE);
        Clip music = new Clip(4, new TakeSource(2, Treatment.NONE), 0, 0, MUSIC.frames(), 0, Fade.NONE, Fade.NONE);
        return new Timeline(List.of(new Track(1, "Noor", 1, 0, false, List.of(voice)), new Track(2, "Music", 1, 0, 0.2, false, musicCurve, List.of(music))), List.of(), 5);
    }

    private static Mixer mixer(Timeline timeline) {
        return new Mixer(timeline, (id, treatment) -> id == 1 ? VOICE : MUSIC);
    }

    @ParameterizedTest
    @ValueSource(doubles = {-36, -23, -16, -8, 10})
    void seconds_put_together_finish_as_the_whole_does(double targetLufs) throws IOException {
        Timeline timeline = episode(3, VolumeCurve.NONE);
        try (Mixer mixer = mixer(timeline)) {
            Mastering whole = Mastering.find(mixer::whole, targetLufs, -1);
            Mastering together = Mastering.find(new BlockPasses(timeline, mixer, known), targetLufs, -1);
            assertThat(together.gainDb()).isCloseTo(whole.gainDb(), within(0.0011));
            assertThat(together.ceilingDbtp()).isCloseTo(whole.ceilingDbtp(), within(0.0011));
            assertThat(together.reductionDb()).isCloseTo(whole.reductionDb(), within(0.0011));
        }
    }

    @Test
    void a_second_whose_sound_did_not_change_is_not_measured_again() throws IOException {
        find(episode(0, VolumeCurve.NONE));
        assertThat(measured).containsExactlyInAnyOrder(0L, 1L, 2L, 3L, 4L, 5L, 6L, 7L, 8L, 9L, 10L, 11L, 12L);
        measured.clear();
        find(episode(0, VolumeCurve.NONE));
        assertThat(measured).isEmpty();
        find(episode(0, new VolumeCurve(List.of(new VolumeCurve.Point(5 * Frames.RATE + 1000, 0), new VolumeCurve.Point(6 * Frames.RATE, -20),
                new VolumeCurve.Point(7 * Frames.RATE, 0)))));
        assertThat(measured).contains(5L, 6L).doesNotContain(0L, 1L, 2L, 3L, 9L, 10L, 11L);
    }

    @Test
    void what_was_kept_of_one_episode_does_not_change_the_finish_of_the_next() throws IOException {
        find(episode(0, VolumeCurve.NONE));
        Mastering after = find(episode(8, VolumeCurve.NONE));
        kept.clear();
        assertThat(after).isEqualTo(find(episode(8, VolumeCurve.NONE)));
    }

    private Mastering find(Timeline timeline) throws IOException {
        try (Mixer mixer = mixer(timeline)) {
            return Mastering.find(new BlockPasses(timeline, mixer, known), -16, -1);
        }
    }
}
