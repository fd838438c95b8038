package org.mellowclass.core.timeline;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashSet;
import java.util.List;

import org.junit.jupiter.api.Test;

class FadeTest {

    private static List<Fade> each() {
        return List.of(new Fade(480, Fade.Shape.GENTLE, 48, 240, Fade.Seam.INSIDE), new Fade(481, Fade.Shape.GENTLE, 48, 240, Fade.Seam.INSIDE),
                new Fade(480, Fade.Shape.STRAIGHT, 48, 240, Fade.Seam.INSIDE), new Fade(480, Fade.Shape.GENTLE, 49, 240, Fade.Seam.INSIDE),
                new Fade(480, Fade.Shape.GENTLE, 48, 241, Fade.Seam.INSIDE), new Fade(480, Fade.Shape.GENTLE, 48, 240, Fade.Seam.EQUAL_GAIN));
    }

    @Test
    void fadesThatAreTheSameInAllPartsAreEqual() {
        assertThat(each()).isEqualTo(each());
        assertThat(new HashSet<>(each())).containsExactlyInAnyOrderElementsOf(each());
    }

    @Test
    void fadesThatDifferInAnyPartAreNotEqual() {
        assertThat(each()).doesNotHaveDuplicates();
        assertThat(each().get(0)).isNotEqualTo(null).isNotEqualTo("a fade");
    }
}
