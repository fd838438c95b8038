package org.mellowclass.core.talk;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;
import static org.assertj.core.api.Assertions.within;
import static org.mellowclass.core.testing.Timelines.clip;

import java.util.List;
import java.util.Map;
import java.util.Optional;

import org.junit.jupiter.api.Test;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.talk.Talk.Pause;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.timeline.VolumeCurve;

/** Two voices and music: Noor speaks at 0–5 and 8–20 s of her take, Ravi at 0–2 s of his. */
class TalkTest {

    private static final TalkFacts FACTS = take -> Optional.ofNullable(Map.of(
            1L, new TalkFacts.Measured(true, List.of(seconds(5, 8), seconds(20, 22)), -20.0),
            2L, new TalkFacts.Measured(true, List.of(), -26.0),
            3L, new TalkFacts.Measured(false, List.of(seconds(0, 60)), -18.0)).get(take));

    private static Span seconds(double from, double to) {
        return new Span(frames(from), frames(to));
    }

    private static long frames(double seconds) {
        return Math.round(seconds * Frames.RATE);
    }

    private static final Track NOOR = new Track(1, "Noor", 1, 0, false, List.of(clip(11, 1, frames(1), 0, frames(22))));
    private static final Track RAVI = new Track(2, "Ravi", 1, 0, false, List.of(clip(12, 2, frames(7), 0, frames(1))));
    private static final Track BED = new Track(3, "Bed", 1, 0, false, List.of(clip(13, 3, 0, 0, frames(60))));
    private static final Timeline PAGE = new Timeline(List.of(NOOR, RAVI, BED), List.of(), 20);

    @Test
    void speech_is_where_the_clips_of_voices_have_no_pauses() {
        assertThat(Talk.of(PAGE, FACTS).speech()).isEqualTo(Map.of(1L, List.of(seconds(1, 6), seconds(9, 21)), 2L, List.of(seconds(7, 8))));
        Timeline cut = new Timeline(List.of(new Track(1, "Noor", 1, 0, false, List.of(clip(11, 1, 0, frames(4), frames(5))))), List.of(), 20);
        assertThat(Talk.of(cut, FACTS).speech()).isEqualTo(Map.of(1L, List.of(seconds(0, 1), seconds(4, 5))));
    }

    @Test
    void a_pause_is_quiet_only_where_nobody_speaks_and_its_too_long_middle_can_be_cut() {
        List<Pause> pauses = Talk.of(PAGE, FACTS).pauses();
        assertThat(pauses).extracting(Pause::trackId, Pause::span, Pause::allQuiet).containsExactly(
                tuple(1L, seconds(6, 7), true),
                tuple(1L, seconds(6, 9), false),
                tuple(2L, seconds(8, 9), true));
        Pause first = pauses.get(0);
        assertThat(first.naturalFrames()).as("too few to know").isEqualTo(frames(0.6));
        assertThat(first.cut()).isEqualTo(seconds(6.36, 6.76));
        assertThat(pauses.get(1).cut()).as("somebody else speaks there").isNull();
    }

    @Test
    void what_is_cut_leaves_every_pause_as_long_as_the_speaker_makes_it_and_never_touches_a_word() {
        for (double length : List.of(0.3, 0.61, 1.0, 4.0, 30.0)) {
            Talk talk = new Talk(Map.of(1L, List.of(seconds(0, 1), seconds(1 + length, 9 + length))));
            Pause pause = talk.pauses().get(0);
            if (length <= 0.6) {
                assertThat(pause.cut()).isNull();
                continue;
            }
            assertThat(pause.span().frames() - pause.cut().frames()).isEqualTo(frames(0.6));
            assertThat(pause.cut().startFrame() - pause.span().startFrame()).isGreaterThanOrEqualTo(frames(0.12));
            assertThat(pause.span().endFrame() - pause.cut().endFrame()).isGreaterThanOrEqualTo(frames(0.08));
        }
    }

    @Test
    void a_muted_voice_does_not_speak() {
        assertThat(Talk.of(new Timeline(List.of(NOOR.withMuted(true), RAVI), List.of(), 20), FACTS).speech()).containsOnlyKeys(2L);
    }

    @Test
    void music_is_fourteen_under_the_voice_while_somebody_speaks_and_back_afterwards() {
        VolumeCurve curve = Ducking.curve(PAGE, 3, FACTS).orElseThrow();
        double voice = 10 * Math.log10((22 * Math.pow(10, -2.0) + Math.pow(10, -2.6)) / 23);
        double down = voice - 14 + 18;
        assertThat(curve.gainDbAt(frames(1))).isCloseTo(down, within(0.26));
        assertThat(curve.gainDbAt(frames(8.5))).as("gaps under 2.5 s stay down").isCloseTo(down, within(0.26));
        assertThat(curve.gainDbAt(frames(21))).isCloseTo(down, within(0.26));
        assertThat(curve.gainDbAt(frames(0.6))).isEqualTo(0);
        assertThat(curve.gainDbAt(frames(0.8))).isCloseTo(down / 2, within(0.13));
        assertThat(curve.gainDbAt(frames(21.4))).isCloseTo(down / 2, within(0.13));
        assertThat(curve.gainDbAt(frames(21.8))).isEqualTo(0);
    }

    @Test
    void a_track_goes_under_the_voices_of_the_others_whatever_it_holds_itself() {
        VolumeCurve curve = Ducking.curve(PAGE, 1, FACTS).orElseThrow();
        assertThat(curve.gainDbAt(frames(7.5))).as("under Ravi, who is at −26").isCloseTo(-26 - 14 + 20, within(0.26));
        assertThat(curve.gainDbAt(frames(3))).isEqualTo(0);
    }

    @Test
    void music_that_is_low_or_alone_needs_no_curve() {
        assertThat(Ducking.curve(new Timeline(List.of(NOOR, BED.withGain(-30)), List.of(), 20), 3, FACTS)).isEmpty();
        assertThat(Ducking.curve(new Timeline(List.of(BED), List.of(), 20), 3, FACTS)).isEmpty();
    }

    @Test
    void even_voices_come_to_their_mean_loudness() {
        EvenVoices even = EvenVoices.of(Levels.spoken(PAGE, FACTS)).orElseThrow();
        double mean = 10 * Math.log10((22 * Math.pow(10, -2.0) + Math.pow(10, -2.6)) / 23);
        assertThat(even.targetLufs()).isCloseTo(mean, within(1e-9));
        assertThat(even.gainsDb()).containsOnlyKeys(11L, 12L);
        assertThat(-20 + even.gainsDb().get(11L)).isCloseTo(mean, within(0.25));
        assertThat(-26 + even.gainsDb().get(12L)).isCloseTo(mean, within(0.25));
        assertThat(even.voices()).extracting(EvenVoices.Voice::trackId).containsExactly(1L, 2L);
        assertThat(even.voices()).extracting(EvenVoices.Voice::lufs).usingElementComparator((a, b) -> Math.abs(a - b) < 1e-9 ? 0 : 1).containsExactly(-20.0, -26.0);
        assertThat(even.voices()).allSatisfy(voice -> assertThat(voice.evenLufs()).isCloseTo(mean, within(0.25)));
        assertThat(Levels.spoken(new Timeline(List.of(BED), List.of(), 20), FACTS)).isEmpty();
        assertThat(EvenVoices.of(List.of())).isEmpty();
    }
}
