package org.mellowclass.app.brief;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class CriterionTest {

    @ParameterizedTest
    @CsvSource({"0, not yet", "2, not yet", "3, mostly there", "4, mostly there", "5, all through"})
    void points_mean_what_the_highest_level_under_them_says(int points, String words) {
        assertThat(new Criterion(0, "Clear", 5, "", "0 not yet; 3 mostly there; 5 all through").level(points)).isEqualTo(words);
    }

    @Test
    void below_the_lowest_level_and_without_any_points_mean_nothing() {
        assertThat(new Criterion(0, "Clear", 5, "", "2 some").level(1)).isEmpty();
        assertThat(new Criterion(0, "Clear", 5, "", "").level(5)).isEmpty();
    }

    @Test
    void levels_are_kept_in_the_order_of_their_points() {
        assertThat(Criterion.written(Criterion.read(" 5 all through ;0  not yet\n3 mostly; ", 5).orElseThrow())).isEqualTo("0 not yet; 3 mostly; 5 all through");
        assertThat(Criterion.read("", 5).orElseThrow()).isEmpty();
    }

    @ParameterizedTest
    @ValueSource(strings = {"not yet", "6 too many", "3 twice; 3 twice", "1 a; 2 b; 3 c; 4 d; 5 e; 0 f; 01 g", "-1 less"})
    void what_cannot_be_meant_is_none(String typed) {
        assertThat(Criterion.read(typed, 5)).isEmpty();
    }
}
