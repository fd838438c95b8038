package org.mellowclass.core.soundcheck;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;

import org.junit.jupiter.api.Test;

class WorkingLevelTest {

    @Test
    void it_is_the_median_peak_of_the_seconds_in_which_somebody_speaks() {
        assertThat(WorkingLevel.measured(List.of(-60.0, -14.0, -12.0, -58.0, -16.0))).hasValue(-14);
        assertThat(WorkingLevel.measured(List.of(-14.0, -12.0))).hasValue(-13);
        assertThat(WorkingLevel.measured(List.of())).isEmpty();
    }

    @Test
    void its_verdict_follows_the_bands() {
        assertThat(WorkingLevel.STANDARD.verdict(-24)).isEqualTo(Verdict.GOOD);
        assertThat(WorkingLevel.STANDARD.verdict(-24.1)).isEqualTo(Verdict.CHECK);
        assertThat(WorkingLevel.STANDARD.verdict(-36.1)).isEqualTo(Verdict.FIX);
        assertThat(WorkingLevel.STANDARD.verdict(-5.9)).isEqualTo(Verdict.CHECK);
        assertThat(WorkingLevel.STANDARD.verdict(-2.9)).isEqualTo(Verdict.FIX);
    }
}
