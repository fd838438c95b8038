package org.mellowclass.app.soundcheck;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.List;
import java.util.Map;

import org.junit.jupiter.api.Test;
import org.mellowclass.app.soundcheck.ReadingPictures.Box;
import org.mellowclass.app.soundcheck.ReadingPictures.Drawn;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.soundcheck.HouseSound;
import org.mellowclass.core.soundcheck.Pictures;
import org.mellowclass.core.soundcheck.Reading;
import org.mellowclass.core.soundcheck.Reading.Kind;
import org.mellowclass.core.soundcheck.SoundCheck;
import org.mellowclass.core.soundcheck.Verdict;

class ReadingPicturesTest {

    private static final HouseSound HOUSE = new HouseSound(-16, -1, 0, 1000);
    private static final Pictures PICTURES = new Pictures(Arrays.asList(-6.0, null, -48.0, -99.0), Arrays.asList(-24.0, null, -1.0, 1.0), Map.of(1L, -6.0, 2L, -27.0), List.of(), Arrays.asList(new Double[20]));

    private static Drawn drawn(Kind kind, Double value, Span... places) {
        Reading reading = new Reading(kind, Verdict.CHECK, value, List.of(places));
        return new ReadingPictures().of(reading, new SoundCheck(List.of(reading), PICTURES), HOUSE, 1200, Map.of(1L, "Noor", 2L, "Ravi")).orElse(null);
    }

    @Test
    void loudness_over_time_is_a_line_that_silence_breaks_over_the_band_of_the_house() {
        Drawn drawn = drawn(Kind.LOUDNESS, -16.0);
        assertThat(drawn.line()).as("four steps of 30 across 120, from −6 at the top to −48 at the foot").isEqualTo("M15.0 0.0h0.1M75.0 32.0h0.1L105.0 32.0");
        assertThat(drawn.good()).isEqualTo(new Box(0, 6.9, 120, 8.4 - 6.9, ""));
    }

    @Test
    void true_peaks_over_time_are_a_line_under_the_ceiling_with_a_mark_where_one_is_over_it() {
        Drawn drawn = drawn(Kind.TRUE_PEAK, 1.0);
        assertThat(drawn.line()).as("from 1 dBTP at the top to −24 at the foot").isEqualTo("M15.0 32.0h0.1M75.0 2.6h0.1L105.0 0.0");
        assertThat(drawn.good()).as("−1 dBTP and less").isEqualTo(new Box(0, 2.6, 120, 32 - 2.6, ""));
        assertThat(drawn.boxes()).containsExactly(new Box(90, 0, 30, 4, ""));
    }

    @Test
    void voices_are_bars_with_their_names() {
        assertThat(drawn(Kind.VOICES_EVEN, 21.0).boxes()).containsExactly(new Box(0, 1, 120, 14, "Noor"), new Box(0, 17, 60, 14, "Ravi"));
    }

    @Test
    void places_stand_on_a_ruler_of_the_episode_and_can_always_be_seen() {
        Drawn drawn = drawn(Kind.DROPOUTS, 2.0, new Span(300, 301), new Span(600, 900));
        assertThat(drawn.ruled()).isTrue();
        assertThat(drawn.boxes()).containsExactly(new Box(30, 6, 2, 18, ""), new Box(60, 6, 30, 18, ""));
        assertThat(drawn(Kind.DROPOUTS, 0.0)).as("nothing to show").isNull();
    }

    @Test
    void what_was_not_measured_is_not_drawn() {
        assertThat(drawn(Kind.MUSIC_UNDER_VOICE, 10.0)).isNull();
        assertThat(drawn(Kind.HUM, 50.0)).isNull();
        assertThat(new ReadingPictures().of(new Reading(Kind.LOUDNESS, Verdict.GOOD, -16.0, List.of()), SoundCheck.NONE, HOUSE, 0, Map.of())).isEmpty();
    }
}
