package org.mellowclass.core.cleanup;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import org.mellowclass.core.measure.LoudnessMeter;
import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Opening;
import org.mellowclass.core.sound.RandomAccessSound;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.testing.Signal;
import org.mellowclass.core.testing.SungVoice;

class CleanupTest {

    /** Four sung phrases of 1.5 s with a second of room between them, the third one much louder. */
    private static final float[] TAKE = take();
    private static final Opening OPENING = Opening.of(Signal.of(Frames.RATE, TAKE));

    private static float[] take() {
        float[] sound = new float[10 * Frames.RATE];
        float[] sung = SungVoice.of(10 * Frames.RATE);
        Random random = new Random(5);
        for (int i = 0; i < sound.length; i++) {
            double within = (double) (i % (5 * Frames.RATE / 2)) / Frames.RATE;
            double phrase = within < 1.5 ? Math.min(1, Math.min(within, 1.5 - within) / 0.05) : 0;
            double loud = i / (5 * Frames.RATE / 2) == 2 ? 0.8 : 0.15;
            sound[i] = (float) (loud * phrase * sung[i] + 0.002 * random.nextGaussian());
        }
        return sound;
    }

    private static Cleanup prepared(Recipe recipe) throws IOException {
        return Cleanup.prepare(recipe, OPENING, Heard.of(OPENING), null);
    }

    private static float[] cleaned(Recipe recipe) throws IOException {
        return Signal.read(prepared(recipe).process(OPENING.open())).samples()[0];
    }

    @ParameterizedTest
    @EnumSource(StepKind.class)
    void every_step_leaves_a_take_as_long_as_it_was(StepKind kind) throws IOException {
        assertThat(cleaned(Recipe.of(kind.usual()))).hasSameSizeAs(TAKE);
    }

    @ParameterizedTest
    @EnumSource(StarterRecipe.class)
    void a_stretch_sounds_as_it_does_in_the_whole(StarterRecipe recipe) throws IOException {
        float[] whole = cleaned(recipe.recipe());
        Span span = new Span(230_000, 270_000);
        float[] stretch = prepared(recipe.recipe()).hear(OPENING, span)[0];
        double error = 0;
        double power = 0;
        for (int i = 0; i < stretch.length; i++) {
            error += Math.pow(stretch[i] - whole[230_000 + i], 2);
            power += Math.pow(whole[230_000 + i], 2);
        }
        assertThat(10 * Math.log10(error / power)).as("what differs, against the sound").isLessThan(-40);
    }

    @Test
    void a_step_that_is_off_or_blended_to_nothing_does_nothing() throws IOException {
        Recipe.Step off = new Recipe.Step(StepKind.LOW_CUT, List.of(300.0), false, 100);
        Recipe.Step nothing = new Recipe.Step(StepKind.LOW_CUT, List.of(300.0), true, 0);
        assertThat(Recipe.of(off, nothing).changesNothing()).isTrue();
        assertThat(cleaned(Recipe.of(off, nothing))).isEqualTo(TAKE);
    }

    @ParameterizedTest
    @CsvSource({"LOUDNESS, -23", "LOUDNESS, -30"})
    void loudness_is_reached_as_the_steps_before_leave_the_take(StepKind kind, double lufs) throws IOException {
        float[] made = cleaned(Recipe.of(StepKind.TONE.with(6, 0, 0), StepKind.LEVEL.with(6), kind.with(lufs)));
        LoudnessMeter meter = new LoudnessMeter(1);
        SampleSink.drain(Signal.of(Frames.RATE, made).stream(), meter);
        assertThat(meter.integrated().orElseThrow()).isCloseTo(lufs, within(0.1));
    }

    @Test
    void phrases_become_even_and_nothing_is_raised() throws IOException {
        float[] made = cleaned(Recipe.of(StepKind.LEVEL.with(12)));
        for (int i = 0; i < made.length; i++) {
            assertThat(Math.abs(made[i])).isLessThanOrEqualTo(Math.abs(TAKE[i]) + 1e-7f);
        }
        // the middle of the loud phrase, and that of the first, which stays
        assertThat(rms(made, 5.6, 5.9) / rms(TAKE, 5.6, 5.9)).isLessThan(0.6);
        assertThat(rms(made, 0.6, 0.9) / rms(TAKE, 0.6, 0.9)).isCloseTo(1, within(0.12));
    }

    private static double rms(float[] sound, double from, double to) {
        double sum = 0;
        for (int i = (int) (from * Frames.RATE); i < to * Frames.RATE; i++) {
            sum += sound[i] * sound[i];
        }
        return Math.sqrt(sum);
    }

    @Test
    void an_order_that_defeats_itself_and_numbers_out_of_range_are_refused() {
        assertThatThrownBy(() -> Recipe.of(StepKind.CEILING.usual(), StepKind.LOUDNESS.usual())).isInstanceOf(CleanupRefused.class).hasMessage("CEILING_NOT_LAST");
        assertThatThrownBy(() -> StepKind.NOISE_DOWN.with(25)).isInstanceOf(CleanupRefused.class).hasMessage("OUT_OF_RANGE");
        assertThatThrownBy(() -> StepKind.NOISE_DOWN.with(Double.NaN)).isInstanceOf(CleanupRefused.class).hasMessage("OUT_OF_RANGE");
        assertThatThrownBy(() -> StepKind.HUM_OUT.with(3)).isInstanceOf(CleanupRefused.class).hasMessage("OUT_OF_RANGE");
        Recipe.Step[] many = new Recipe.Step[Recipe.MOST_STEPS + 1];
        Arrays.fill(many, StepKind.LOW_CUT.usual());
        assertThatThrownBy(() -> Recipe.of(many)).isInstanceOf(CleanupRefused.class).hasMessage("TOO_MANY_STEPS");
    }

    @Test
    void a_room_that_was_chosen_must_be_one() throws IOException {
        Heard heard = Heard.of(OPENING);
        Cleanup.checkRoom(new Span(78_000, 110_000), heard);
        assertThatThrownBy(() -> Cleanup.checkRoom(new Span(60_000, 110_000), heard)).hasMessage("ROOM_HAS_SPEECH");
        assertThatThrownBy(() -> Cleanup.checkRoom(new Span(78_000, 90_000), heard)).hasMessage("ROOM_TOO_SHORT");
        assertThatThrownBy(() -> Cleanup.checkRoom(new Span(470_000, 500_000), heard)).hasMessage("ROOM_TOO_SHORT");
    }

    @Test
    void what_finds_nothing_to_do_is_told() throws IOException {
        assertThat(prepared(Recipe.of(StepKind.HUM_OUT.usual(), StepKind.CLICKS.usual(), StepKind.LOW_CUT.usual())).notDone()).containsExactlyInAnyOrder(StepKind.HUM_OUT, StepKind.CLICKS);
        Opening endless = Opening.of(Signal.noise(1, -20, 3, 1));
        assertThat(Cleanup.prepare(Recipe.of(StepKind.NOISE_DOWN.usual()), endless, Heard.of(endless), null).notDone()).containsExactly(StepKind.NOISE_DOWN);
    }

    @Test
    void a_room_is_not_learned_from_digital_silence() throws IOException {
        Opening switchedOff = Opening.of(Signal.of(Frames.RATE, Arrays.copyOf(TAKE, TAKE.length + 30 * Frames.RATE)));
        Heard heard = Heard.of(switchedOff);
        assertThat(heard.pauses()).last().satisfies(pause -> assertThat(pause.endFrame()).isEqualTo(TAKE.length + 30 * Frames.RATE));
        assertThat(heard.room()).isNotEmpty().allSatisfy(room -> assertThat(room.endFrame()).isLessThanOrEqualTo(TAKE.length));
        float[] cleaned = Signal.read(Cleanup.prepare(Recipe.of(StepKind.NOISE_DOWN.with(12)), switchedOff, heard, null).process(switchedOff.open())).samples()[0];
        // the room between the first words
        assertThat(Decibels.ofPower(power(TAKE, 80_000, 110_000) / power(cleaned, 80_000, 110_000))).isBetween(10.0, 13.0);
    }

    private static double power(float[] sound, int from, int to) {
        double sum = 0;
        for (int i = from; i < to; i++) {
            sum += (double) sound[i] * sound[i];
        }
        return sum / (to - from);
    }

    @Test
    void what_a_recipe_does_not_ask_for_is_not_measured_and_changes_nothing() throws IOException {
        Recipe recipe = Recipe.of(StepKind.NOISE_DOWN.with(12), StepKind.SOFT_S.usual());
        Heard asked = Heard.of(OPENING, recipe);
        assertThat(asked.hum()).isEmpty();
        assertThat(Signal.read(Cleanup.prepare(recipe, OPENING, asked, null).process(OPENING.open())).samples()[0]).isEqualTo(cleaned(recipe));
    }

    /** Steps in another order, with other numbers, or behind others learn anew; the second time, nothing of the take is read any more. */
    @Test
    void recipes_that_are_tried_one_after_the_other_sound_as_each_does_alone_and_nothing_is_learned_twice() throws IOException {
        Heard heard = Heard.of(OPENING);
        Learned learned = new Learned();
        List<Recipe> tried = Stream.of("noise-down:12;room-down:6", "noise-down:6;room-down:6", "room-down:6;noise-down:6", "low-cut:200;noise-down:6;room-down:6;loudness:-16",
                "low-cut:200;noise-down:6;loudness:-16", "noise-down:12@50;room-down:6", "compress;peak:-3", "compress:-30;peak:-3").map(RecipeText::recipe).toList();
        for (Recipe recipe : tried) {
            assertThat(Signal.read(Cleanup.prepare(recipe, OPENING, heard, null, learned).process(OPENING.open())).samples()[0]).as("%s", recipe).isEqualTo(cleaned(recipe));
        }
        Opening unreadable = Opening.of(new RandomAccessSound() {
            @Override
            public int channels() {
                return 1;
            }

            @Override
            public long frames() {
                return TAKE.length;
            }

            @Override
            public void readAt(long fromFrame, float[][] into, int offset, int frames) throws IOException {
                throw new IOException("read again");
            }

            @Override
            public void close() {
            }
        });
        for (Recipe recipe : tried) {
            Cleanup.prepare(recipe, unreadable, heard, null, learned);
        }
        assertThatThrownBy(() -> Cleanup.prepare(tried.get(0), unreadable, heard, null)).isInstanceOf(IOException.class);
    }

    @Test
    void harm_is_told_by_its_kind() throws IOException {
        Heard heard = Heard.of(OPENING);
        assertThat(Harm.of(OPENING, OPENING, heard)).isEqualTo(new Harm(0, 0, 0, 0));
        float[] chopped = TAKE.clone();
        for (int phrase = 0; phrase < 4; phrase++) {
            int start = phrase * 5 * Frames.RATE / 2;
            for (int i = start; i < start + 4800; i++) {
                chopped[i] *= 0.3f;
            }
        }
        assertThat(Harm.of(OPENING, Opening.of(Signal.of(Frames.RATE, chopped)), heard).kinds()).contains(Harm.Kind.WORDS_CHOPPED);
        float[] raised = TAKE.clone();
        for (Span pause : heard.pauses()) {
            for (int i = (int) pause.startFrame(); i < pause.endFrame(); i++) {
                raised[i] *= 2;
            }
        }
        Harm roomUp = Harm.of(OPENING, Opening.of(Signal.of(Frames.RATE, raised)), heard);
        assertThat(roomUp.roomRaisedDb()).isCloseTo(6, within(0.3));
        assertThat(roomUp.kinds()).containsExactly(Harm.Kind.ROOM_RAISED);
    }
}
