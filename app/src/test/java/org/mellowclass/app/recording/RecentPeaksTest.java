package org.mellowclass.app.recording;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.mellowclass.app.recording.RecentPeaks.Word;

class RecentPeaksTest {

    private static RecentPeaks after(int chunks, double amplitude, RecentPeaks before) {
        RecentPeaks peaks = before;
        for (int i = 0; i < chunks; i++) {
            peaks = peaks.with(amplitude);
        }
        return peaks;
    }

    private static final RecentPeaks NONE = RecentPeaks.of("");

    @Test
    void after_a_few_seconds_there_is_a_word_for_the_level() {
        assertThat(after(3, 0.3, NONE).word()).isEqualTo(Word.LISTENING);
        assertThat(after(4, 0.3, NONE).word()).isEqualTo(Word.GOOD);
        assertThat(after(4, 0.01, NONE).word()).isEqualTo(Word.TOO_QUIET);
        assertThat(after(4, 1, NONE).word()).isEqualTo(Word.TOO_HOT);
        assertThat(after(4, 0, NONE).word()).as("digital silence").isEqualTo(Word.NOTHING_HEARD);
    }

    @Test
    void the_room_before_the_first_word_and_pauses_do_not_count() {
        RecentPeaks peaks = after(5, 0.25, after(3, 0.0005, NONE));
        assertThat(peaks.word()).isEqualTo(Word.GOOD);
        assertThat(peaks.level()).hasValue(-12);
    }

    @Test
    void it_is_kept_as_text_and_only_the_last_twenty_count() {
        RecentPeaks peaks = after(30, 0.25, after(5, 1, NONE));
        assertThat(peaks.dbfs()).hasSize(20).containsOnly(-12.0);
        assertThat(RecentPeaks.of(peaks.text())).isEqualTo(peaks);
        assertThat(peaks.text().length()).as("fits its column, even at its longest").isLessThan(200);
        assertThat(after(20, 0, NONE).text().length()).isLessThan(200);
    }
}
