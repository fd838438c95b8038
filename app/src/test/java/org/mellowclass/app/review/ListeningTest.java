package org.mellowclass.app.review;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.status;

import java.io.IOException;
import java.util.List;
import java.util.Set;

import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mellowclass.app.bench.Bench;
import org.mellowclass.app.bench.Head;
import org.mellowclass.app.feed.AirDesk;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.As;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.core.review.Change;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.testing.Signal;
import org.mellowclass.core.timeline.edit.Remove;
import org.mellowclass.core.timeline.edit.Soften;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.test.web.servlet.MockMvc;

@AppTest
class ListeningTest {

    @Autowired
    private Listening listening;
    @Autowired
    private MarginNotes notes;
    @Autowired
    private MockMvc mvc;
    @Autowired
    private Differences differences;
    @Autowired
    private HandIns handIns;
    @Autowired
    private AirDesk airDesk;
    @Autowired
    private Bench bench;
    @Autowired
    private Schools schools;
    private Schools.School school;
    private HandIn first;

    /** Ten seconds. */
    @BeforeEach
    void handIn() throws IOException {
        school = schools.build();
        schools.readyTake(school, Signal.noise(1, -12, 10, 3), "Noor");
        first = schools.readyHandIn(school);
    }

    private void hear(Person who, HandIn handIn, String id, double from, double to) {
        listening.heard(who, handIn.id(), id, (long) (from * Frames.RATE), (long) (to * Frames.RATE), (long) ((to - from) * 1000));
    }

    private Span seconds(double from, double to) {
        return new Span((long) (from * Frames.RATE), (long) (to * Frames.RATE));
    }

    private HandIn handInAfter(org.mellowclass.core.timeline.edit.Edit edit) throws IOException {
        Head head = bench.head(school.student(), school.episodeId());
        bench.edit(school.student(), school.episodeId(), head.seq(), "edit-" + head.seq() + "-heard", edit);
        return schools.readyHandIn(school);
    }

    @Test
    void what_was_played_is_added_up_for_each_person_and_sent_twice_it_is_one() {
        hear(school.teacher(), first, "stretch-1", 0, 4);
        hear(school.teacher(), first, "stretch-1", 0, 4);
        hear(school.teacher(), first, "stretch-2", 3, 6);
        assertThat(listening.map(school.teacher(), first).heard()).containsExactly(seconds(0, 6));
        assertThat(listening.map(school.teacher(), first).left()).containsExactly(seconds(6, 10));
        assertThat(listening.map(school.student(), first).heard()).isEmpty();
    }

    @Test
    void more_than_twice_the_time_it_took_is_refused_also_in_many_small_pieces() {
        assertThatThrownBy(() -> listening.heard(school.teacher(), first.id(), "too-fast-1", 0, 10 * Frames.RATE, 3000)).hasMessageContaining("TOO_FAST");
        assertThatThrownBy(() -> {
            for (int i = 0; i < 100; i++) {
                hear(school.teacher(), first, "in-pieces-" + i, 0, 10);
            }
        }).hasMessageContaining("TOO_FAST");
        assertThatThrownBy(() -> listening.heard(school.teacher(), first.id(), "backwards", 100, 50, 1000)).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> hear(school.otherTeacher(), first, "stranger-1", 0, 1)).isInstanceOf(NotFound.class);
    }

    @Test
    void after_a_cut_only_what_sounds_otherwise_is_left_to_be_heard() throws IOException {
        hear(school.teacher(), first, "all-of-it", 0, 10);
        long track = bench.head(school.student(), school.episodeId()).timeline().tracks().get(0).id();
        HandIn second = handInAfter(new Remove(seconds(2, 3), Set.of(track)));
        assertThat(second.newFrames()).isZero();
        assertThat(listening.map(school.teacher(), second).whole()).isTrue();
        HandIn third = handInAfter(new Soften(seconds(4, 6), Set.of(track)));
        assertThat(third.newFrames()).isEqualTo(2 * Frames.RATE);
        assertThat(listening.map(school.teacher(), third).left()).containsExactly(seconds(4, 6));
        Differences.Difference since = differences.between(second, third);
        assertThat(since.changes()).extracting(Change::kind).containsExactly(Change.Kind.SOFTER);
        assertThat(differences.between(first, second).changes()).extracting(Change::kind).containsExactly(Change.Kind.TAKEN_OUT);
        assertThat(differences.between(first, third).changes()).extracting(Change::kind).containsExactlyInAnyOrder(Change.Kind.TAKEN_OUT, Change.Kind.SOFTER);
        assertThat(since.anew()).containsExactly(seconds(4, 6));
    }

    @Test
    void a_teacher_reads_what_changed_what_became_of_the_notes_and_how_much_is_new() throws Exception {
        notes.write(school.teacher(), first.id(), MarginNotes.Wish.of(MarginNote.Kind.MEND, "Softer here.", seconds(4, 6).startFrame(), seconds(4, 6).endFrame()));
        notes.write(school.teacher(), first.id(), MarginNotes.Wish.of(MarginNote.Kind.QUESTION, "Do we need this?", seconds(2, 3).startFrame(), seconds(2, 3).endFrame()));
        notes.tick(school.student(), notes.in(school.teacher(), first, first).get(1).note().id(), true, "Half as loud.");
        long track = bench.head(school.student(), school.episodeId()).timeline().tracks().get(0).id();
        handInAfter(new Soften(seconds(4, 6), Set.of(track)));
        HandIn third = handInAfter(new Remove(seconds(2, 3), Set.of(track)));
        String page = page("/hand-ins/" + third.id());
        assertThat(page).contains("What changed since hand-in 2: 1", "Noor: 1.0 s taken out", "Said of hand-in 2");
        assertThat(page("/hand-ins/" + handIns.ofEpisode(school.teacher(), school.episodeId()).get(1).id()))
                .contains("Noor: 2.0 s softer by 12.0 dB", "Half as loud.", "Nothing was changed there.", "2.0 s of new sound");
        assertThat(page("/classes/" + school.classId() + "/marking")).contains("1 hand-in waits", "0.0 s new of 0:09");
        assertThat(page("/classes/" + school.classId() + "/marks")).contains("No marks are given yet");
    }

    private String page(String address) throws Exception {
        return mvc.perform(get(address).with(As.person(school.teacher()))).andExpect(status().isOk()).andReturn().getResponse().getContentAsString();
    }

    @Test
    void nothing_goes_on_air_unheard_without_a_reason_that_is_kept() {
        handIns.decide(school.teacher(), first.id(), HandIn.Decision.CLEARED, "");
        hear(school.student(), first, "the-crew-itself", 0, 10);
        assertThat(airDesk.gate(first).heard()).as("the crew's own ears do not count").isFalse();
        assertThatThrownBy(() -> airDesk.publish(school.teacher(), school.episodeId(), "Eels", "A story.")).hasMessageContaining("air.HEARD");
        assertThatThrownBy(() -> listening.letUnheardThrough(school.student(), first.id(), "Please.")).isInstanceOf(NotFound.class);
        listening.letUnheardThrough(school.teacher(), first.id(), "Heard in class.");
        assertThat(airDesk.gate(handIns.find(school.teacher(), first.id()))).satisfies(gate -> {
            assertThat(gate.heard()).isTrue();
            assertThat(gate.unheardReason()).isEqualTo("Heard in class.");
            assertThat(gate.unheard()).isEqualTo(List.of(seconds(0, 10)));
        });
    }

    @Test
    void what_a_teacher_has_heard_in_full_needs_no_reason() {
        hear(school.teacher(), first, "all-of-it", 0, 10);
        assertThat(airDesk.gate(first).heard()).isTrue();
    }
}
