package org.mellowclass.core.timeline.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mellowclass.core.testing.Timelines.TAKES;

import java.util.Random;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.testing.Timelines;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;

class LaySpanTest {

    private static LaySpan lay(long startFrame) {
        return new LaySpan(7, new Span(1000, 4000), "Music", startFrame, -6);
    }

    @Test
    void it_lies_where_it_was_asked_for_with_its_stretch_of_the_take() {
        Clip clip = lay(500).applyTo(Timeline.empty(), TAKES).timeline().tracks().get(0).clips().get(0);
        assertThat(clip.span()).isEqualTo(new Span(500, 3500));
        assertThat(clip.sourceFrame()).isEqualTo(1000);
        assertThat(clip.gainDb()).isEqualTo(-6);
    }

    @Test
    void where_something_stands_already_it_goes_to_a_free_track_of_that_name() {
        Timeline one = lay(500).applyTo(Timeline.empty(), TAKES).timeline();
        assertThat(lay(3500).landing(one)).as("behind it there is room").isEqualTo("Music");
        assertThat(lay(3499).landing(one)).isEqualTo("Music 2");
        Timeline two = lay(3499).applyTo(one, TAKES).timeline();
        Timeline three = lay(400).applyTo(two, TAKES).timeline();
        assertThat(three.tracks()).extracting(Track::name).as("the second has room at its start").containsExactly("Music", "Music 2");
        assertThat(three.tracks().get(1).clips()).hasSize(2);
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15, 16, 17, 18, 19, 20})
    void nothing_that_was_there_is_touched(int seed) {
        Random random = new Random(seed);
        Timeline before = Timelines.generate(random);
        LaySpan edit = new LaySpan(9, new Span(0, 1 + random.nextInt(20_000)), "Voice " + random.nextInt(4), random.nextInt(30_000), 0);
        Timeline after = edit.applyTo(before, TAKES).timeline();
        for (Track track : before.tracks()) {
            assertThat(after.track(track.id()).orElseThrow().clips()).containsAll(track.clips());
        }
        after.tracks().forEach(track -> {
            for (int i = 1; i < track.clips().size(); i++) {
                Clip clip = track.clips().get(i);
                if (clip.source().takeId() == 9) {
                    assertThat(clip.startFrame()).isGreaterThanOrEqualTo(track.clips().get(i - 1).endFrame());
                }
            }
        });
        assertThat(after.flags()).isEqualTo(before.flags());
    }

    @Test
    void a_gain_out_of_range_and_a_missing_name_are_refused() {
        assertThatThrownBy(() -> new LaySpan(1, new Span(0, 10), " ", 0, 0).applyTo(Timeline.empty(), TAKES)).isInstanceOf(EditRefused.class);
        assertThatThrownBy(() -> new LaySpan(1, new Span(0, 10), "Music", 0, 30).applyTo(Timeline.empty(), TAKES)).isInstanceOf(EditRefused.class);
    }
}
