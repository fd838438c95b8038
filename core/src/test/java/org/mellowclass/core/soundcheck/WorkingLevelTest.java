package org.mellowclass.core.soundcheck;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class WorkingLevelTest {

    @Test
    void it_is_the_median_peak_of_the_seconds_in_which_somebody_speaks() {
        assertThat(WorkingLevel.measured(List.of(-60.0, -14.0, -12.0, -58.0, -16.0))).hasValue(-14);
        assertThat(WorkingLevel.measured(List.of(-14.0, -12.0))).hasValue(-13);
        assertThat(WorkingLevel.measured(List.of())).isEmpty();
    }

    @Test
    void seconds_within_twenty_decibels_of_the_loudest_count_as_speaking() {
        assertThat(WorkingLevel.measured(List.of(-10.0, -30.0, -30.01))).hasValue(-20);
    }

    @ParameterizedTest
    @CsvSource({"-24, GOOD", "-6, GOOD", "-24.01, CHECK", "-5.99, CHECK", "-36, CHECK", "-3, CHECK", "-36.01, FIX", "-2.99, FIX"})
    void its_verdict_follows_the_bands(double dbfs, Verdict verdict) {
        assertThat(WorkingLevel.STANDARD.verdict(dbfs)).isEqualTo(verdict);
    }
}
