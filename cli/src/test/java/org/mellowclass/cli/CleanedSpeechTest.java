package org.mellowclass.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static org.mellowclass.cli.SpeechQuality.kurtosis;
import static org.mellowclass.cli.SpeechQuality.lufs;
import static org.mellowclass.cli.SpeechQuality.powerDb;
import static org.mellowclass.cli.SpeechQuality.powers;
import static org.mellowclass.cli.SpeechQuality.segmentalSnr;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.mellowclass.core.cleanup.Cleanup;
import org.mellowclass.core.cleanup.Harm;
import org.mellowclass.core.cleanup.Heard;
import org.mellowclass.core.cleanup.Recipe;
import org.mellowclass.core.cleanup.StarterRecipe;
import org.mellowclass.core.cleanup.StepKind;
import org.mellowclass.core.measure.ClippingFinder.Search;
import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Opening;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.soundcheck.HeardSound;
import org.mellowclass.core.testing.Signal;

/** What cleaning does to speech of three voices into which noise, hum, clicks, pops and dropouts were planted. */
class CleanedSpeechTest {

    private static SpokenVoices spoken;

    @BeforeAll
    static void speak() throws Exception {
        spoken = SpokenVoices.ofAllTests();
    }

    private static float[] noisy(int voice, SpokenVoices.Room kind, double distanceLu) throws Exception {
        return spoken.noisy(voice, kind, distanceLu);
    }

    private static Opening opening(float[] sound) {
        return Opening.of(Signal.of(Frames.RATE, sound));
    }

    private static float[] cleaned(float[] sound, Recipe recipe) throws IOException {
        try (SampleSource take = opening(sound).open()) {
            return Signal.read(Cleanup.prepare(recipe, opening(sound), Heard.of(opening(sound)), null).process(take)).samples()[0];
        }
    }

    private static HeardSound heard(float[] sound) throws IOException {
        return HeardSound.of(Signal.of(Frames.RATE, sound).stream(), Search.FULL_SCALE_AND_FLAT_TOPS);
    }

    @ParameterizedTest(name = "{0} at {1} dB")
    @CsvSource({"WHITE, 10", "WHITE, 20", "PINK, 10", "PINK, 15", "PINK, 20", "HUM, 10", "HUM, 20", "BABBLE, 20"})
    void noise_goes_down_by_what_was_asked_and_words_are_not_chopped(SpokenVoices.Room kind, double distanceLu) throws Exception {
        for (int voice = 0; voice < SpokenVoices.COUNT; voice++) {
            float[] before = noisy(voice, kind, distanceLu);
            float[] after = cleaned(before, Recipe.of(StepKind.NOISE_DOWN.with(12)));
            assertThat(after).hasSameSizeAs(before);
            Heard heard = Heard.of(opening(before));
            double down = powerDb(before, heard.room()) - powerDb(after, heard.room());
            assertThat(down).as("voice %d", voice).isBetween(0.8 * 12, 12.5);
            Harm harm = Harm.of(opening(before), opening(after), heard);
            assertThat(harm.onsetLossDb()).isLessThan(1);
            assertThat(harm.kinds()).isEmpty();
        }
    }

    @ParameterizedTest(name = "{0}")
    @CsvSource({"WHITE", "PINK", "HUM"})
    void the_voice_stands_out_by_4_dB_more_and_nothing_of_the_noise_sings(SpokenVoices.Room kind) throws Exception {
        for (int voice = 0; voice < SpokenVoices.COUNT; voice++) {
            float[] clean = spoken.voice(voice);
            float[] before = noisy(voice, kind, 10);
            float[] after = cleaned(before, Recipe.of(StepKind.NOISE_DOWN.with(12)));
            assertThat(segmentalSnr(clean, after) - segmentalSnr(clean, before)).as("voice %d", voice).isGreaterThanOrEqualTo(4);
            List<Span> room = Heard.of(opening(before)).room();
            assertThat(Math.log10(kurtosis(after, room) / kurtosis(before, room))).as("voice %d", voice).isLessThan(0.3);
        }
    }

    @ParameterizedTest
    @ValueSource(ints = {0, 1, 2})
    void speech_in_a_quiet_room_comes_out_as_it_was(int voice) throws Exception {
        float[] before = SpokenVoices.withRoom(spoken.voice(voice), -85, 3);
        float[] after = cleaned(before, Recipe.of(StepKind.NOISE_DOWN.with(12)));
        for (int hertz = 125; hertz <= 8000; hertz *= 2) {
            assertThat(bandDb(after, hertz)).as("around %d Hz", hertz).isCloseTo(bandDb(before, hertz), within(0.5));
        }
    }

    @ParameterizedTest
    @CsvSource({"0, 50.03", "1, 59.96", "2, 49.98"})
    void a_hum_is_named_and_taken_out_and_the_voice_stays(int voice, double mainsHz) throws Exception {
        float[] clean = SpokenVoices.withRoom(spoken.voice(voice), -70, 1);
        float[] sound = clean.clone();
        double[] levels = {-38, -46, -42, -60, -50};
        for (int i = 0; i < sound.length; i++) {
            for (int h = 0; h < levels.length; h++) {
                sound[i] += (float) (Decibels.toAmplitude(levels[h]) * Math.sin(2 * Math.PI * mainsHz * (h + 1) * i / Frames.RATE + h));
            }
        }
        assertThat(heard(sound).hum().orElseThrow().exactHz()).isCloseTo(mainsHz, within(0.05));
        float[] after = cleaned(sound, Recipe.of(StepKind.HUM_OUT.usual()));
        assertThat(heard(after).hum()).isEmpty();
        float[] left = new float[after.length];
        float[] planted = new float[after.length];
        for (int i = 0; i < left.length; i++) {
            left[i] = after[i] - clean[i];
            planted[i] = sound[i] - clean[i];
        }
        // the first and the last half second have a window on one side only
        List<Span> inside = List.of(new Span(Frames.RATE, after.length - Frames.RATE));
        assertThat(powerDb(planted, inside) - powerDb(left, inside)).isGreaterThan(9);
        assertThat(lufs(after)).isCloseTo(lufs(clean), within(0.2));
    }

    @ParameterizedTest
    @ValueSource(ints = {0, 1, 2})
    void planted_clicks_and_pops_are_found_and_mended_and_clean_speech_has_none(int voice) throws Exception {
        float[] clean = SpokenVoices.withRoom(spoken.voice(voice), -62, 2);
        double minutes = Frames.toSeconds(clean.length) / 60;
        HeardSound before = heard(clean);
        assertThat(before.clicks().size()).as("clicks in clean speech").isLessThanOrEqualTo((int) Math.ceil(minutes));
        assertThat(before.pops().size()).as("pops in clean speech").isLessThanOrEqualTo((int) Math.ceil(minutes));

        float[] sound = clean.clone();
        List<Integer> clicks = new ArrayList<>();
        List<Integer> pops = new ArrayList<>();
        for (int at = 40_000; at + 40_000 < sound.length; at += 61_000) {
            clicks.add(at);
            for (int i = 0; i < 96; i++) {
                sound[at + i] += (float) (0.25 * Math.exp(-i / 24.0) * Math.sin(1.9 * i * (1 + 0.01 * (i % 7))));
            }
        }
        for (int at = 70_000; at + 70_000 < sound.length; at += 150_000) {
            pops.add(at);
            for (int i = 0; i < 4320; i++) {
                sound[at + i] += (float) (0.5 * Math.sin(Math.PI * i / 4320) * Math.sin(2 * Math.PI * 55 * i / Frames.RATE));
            }
        }
        HeardSound planted = heard(sound);
        assertThat(found(clicks, planted.clicks(), 96)).as("%s of %s", planted.clicks(), clicks).isGreaterThanOrEqualTo((int) Math.ceil(0.9 * clicks.size()));
        assertThat(found(pops, planted.pops(), 4320)).as("%s of %s", planted.pops(), pops).isGreaterThanOrEqualTo((int) Math.ceil(0.9 * pops.size()));
        float[] after = cleaned(sound, Recipe.of(StepKind.CLICKS.usual(), StepKind.POPS.usual()));
        assertThat(heard(after).clicks().size()).isLessThanOrEqualTo(planted.clicks().size() / 5);
        assertThat(heard(after).pops().size()).isLessThanOrEqualTo(planted.pops().size() / 2);
    }

    private static long found(List<Integer> planted, List<Span> found, int frames) {
        return planted.stream().filter(at -> found.stream().anyMatch(span -> span.startFrame() < at + frames && span.endFrame() > at)).count();
    }

    @ParameterizedTest
    @ValueSource(ints = {0, 1, 2})
    void planted_dropouts_are_found_and_clean_takes_have_none(int voice) throws Exception {
        float[] sound = SpokenVoices.withRoom(spoken.voice(voice), -50, 4);
        assertThat(heard(sound).dropouts()).isEmpty();
        List<Span> planted = new ArrayList<>();
        for (int at = 30_000; at + 10_000 < sound.length; at += 47_000) {
            int frames = 240 + planted.size() * 50;
            float beside = 0;
            float behind = 0;
            for (int i = 1; i <= 40; i++) {
                beside = Math.max(beside, Math.abs(sound[at - i]));
                behind = Math.max(behind, Math.abs(sound[at + frames + i]));
            }
            if (beside > 0.02 && behind > 0.02) {
                Arrays.fill(sound, at, at + frames, 0f);
                planted.add(new Span(at, at + frames));
            }
        }
        assertThat(planted).isNotEmpty();
        assertThat(heard(sound).dropouts()).isEqualTo(planted);
    }

    @ParameterizedTest
    @ValueSource(ints = {0, 1, 2})
    void a_lisp_ranks_above_clean_speech_and_is_softened(int voice) throws Exception {
        float[] clean = spoken.voice(voice);
        float[] lisping = cleaned(clean, Recipe.of(StepKind.TONE.with(0, 0, 12), StepKind.TONE.with(0, 0, 12)));
        double before = heard(lisping).sibilants().orElseThrow();
        assertThat(before).isGreaterThan(heard(clean).sibilants().orElseThrow() + 5);
        assertThat(heard(cleaned(lisping, Recipe.of(StepKind.SOFT_S.with(8)))).sibilants().orElseThrow()).isLessThan(before);
    }

    @ParameterizedTest
    @CsvSource({"0, NOISY_CLASSROOM", "1, QUIET_ROOM", "2, PHONE_CORRIDOR", "0, MUSIC_BED"})
    void starter_recipes_do_no_harm_to_a_voice_in_a_classroom(int voice, StarterRecipe recipe) throws Exception {
        float[] before = noisy(voice, SpokenVoices.Room.PINK, 18);
        float[] after = cleaned(before, recipe.recipe());
        assertThat(after).hasSameSizeAs(before);
        Harm harm = Harm.of(opening(before), opening(after), Heard.of(opening(before)));
        assertThat(harm.onsetLossDb()).isLessThan(3);
        assertThat(harm.dullnessDb()).isLessThan(6);
        assertThat(harm.pumpingDb()).isLessThan(6);
    }

    /** The power of an octave, of every tenth window. */
    private static double bandDb(float[] sound, int hertz) {
        int size = 1024;
        double sum = 0;
        for (int start = 0; start + size <= sound.length; start += 10 * size) {
            double[] powers = powers(sound, start, size);
            for (int line = (int) Math.ceil(hertz / Math.sqrt(2) * size / Frames.RATE); line <= hertz * Math.sqrt(2) * size / Frames.RATE; line++) {
                sum += powers[line];
            }
        }
        return Decibels.ofPower(sum);
    }
}
