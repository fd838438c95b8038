package org.mellowclass.app.shelf;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.util.OptionalLong;

import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mellowclass.app.bench.Bench;
import org.mellowclass.app.bench.Head;
import org.mellowclass.app.sounds.TakeSounds;
import org.mellowclass.app.takes.TakeShelf;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.core.testing.Signal;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.treatment.Treatment;
import org.springframework.beans.factory.annotation.Autowired;

@AppTest
class ShelfTest {

    @Autowired
    private Shelf shelf;
    @Autowired
    private LayingIn layingIn;
    @Autowired
    private Bench bench;
    @Autowired
    private TakeShelf takes;
    @Autowired
    private TakeSounds sounds;
    @Autowired
    private Schools schools;
    private Schools.School school;
    private long bell;

    @BeforeEach
    void bell() throws IOException {
        school = schools.build();
        bell = schools.shelfSound(school, "Buoy bell", Signal.sine(1, 600, -12, 3));
    }

    @Test
    void a_sound_is_found_by_any_of_its_words_and_has_a_credit_even_when_none_was_written() {
        assertThat(shelf.find(school.student(), school.classId(), "BUOY")).singleElement()
                .satisfies(sound -> assertThat(sound.credit()).isEqualTo("“Buoy bell” by Ms Reed, CC0 1.0"));
        assertThat(shelf.find(school.student(), school.classId(), "reed")).hasSize(1);
        assertThat(shelf.find(school.student(), school.classId(), "gull")).isEmpty();
        assertThatThrownBy(() -> shelf.find(school.stranger(), school.classId(), "")).isInstanceOf(NotFound.class);
    }

    @Test
    void an_excerpt_is_laid_in_at_its_place_beside_what_is_there_and_plays_the_shelfs_own_file() throws IOException {
        shelf.addExcerpt(school.teacher(), bell, "stroke", OptionalLong.of(48_000), OptionalLong.of(96_000));
        long excerpt = shelf.excerpts(school.student(), school.classId()).get(bell).get(0).id();
        Head first = layingIn.layIn(school.student(), school.episodeId(), 1, "client-lay-1", bell, 0, "Music", 24_000);
        Head second = layingIn.layIn(school.student(), school.episodeId(), first.seq(), "client-lay-2", bell, excerpt, "Music", 48_000);
        assertThat(second.timeline().tracks()).extracting(Track::name).containsExactly("Music", "Music 2");
        Clip clip = second.timeline().tracks().get(1).clips().get(0);
        assertThat(clip.startFrame()).isEqualTo(48_000);
        assertThat(clip.sourceFrame()).isEqualTo(48_000);
        assertThat(clip.frames()).isEqualTo(48_000);
        assertThat(sounds.sound(school.student(), clip.source().takeId())).isEqualTo(shelf.file(school.student(), bell));
        assertThat(bench.undo(school.student(), school.episodeId(), second.seq(), "client-lay-3", false).timeline()).isEqualTo(first.timeline());
    }

    @Test
    void what_is_taken_off_the_shelf_stays_with_the_crews_that_use_it() throws IOException {
        Head head = layingIn.layIn(school.student(), school.episodeId(), 1, "client-lay-1", bell, 0, "Music", 0);
        shelf.takeAway(school.teacher(), bell);
        assertThat(shelf.find(school.student(), school.classId(), "")).isEmpty();
        assertThat(sounds.open(head.timeline().tracks().get(0).clips().get(0).source().takeId(), Treatment.NONE).frames()).isEqualTo(144_000);
    }

    @Test
    void a_sound_needs_everything_that_has_to_be_said_of_it() {
        assertThatThrownBy(() -> new Shelf.About("Bell", ShelfSound.Kind.EFFECT, "Ms Reed", " ", "made here", ""))
                .hasMessage("shelf.LICENCE");
        assertThatThrownBy(() -> shelf.addExcerpt(school.teacher(), bell, "too far", OptionalLong.of(0), OptionalLong.of(900_000)))
                .hasMessage("shelf.EXCERPT_SPAN");
    }

    @Test
    void a_crew_of_another_class_cannot_lay_it_in() {
        assertThatThrownBy(() -> layingIn.layIn(school.stranger(), school.otherEpisodeId(), 1, "client-lay-1", bell, 0, "Music", 0))
                .isInstanceOf(NotFound.class);
    }
}
