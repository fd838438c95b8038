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
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.As;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.app.testing.Statements;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.edit.Remove;
import org.mellowclass.core.timeline.Track;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.test.web.servlet.MockMvc;

@AppTest
class MarginNotesTest {

    @Autowired
    private MockMvc mvc;
    @Autowired
    private Statements statements;
    @Autowired
    private MarginNotes notes;
    @Autowired
    private Bench bench;
    @Autowired
    private Schools schools;
    private Schools.School school;
    private HandIn handIn;

    @BeforeEach
    void handIn() throws IOException {
        school = schools.build();
        schools.readyTake(school, Schools.speech(), "Noor");
        handIn = schools.readyHandIn(school);
    }

    @Test
    void a_note_stays_at_its_words_when_earlier_sound_is_removed_and_says_when_they_are_gone() {
        write("Lovely bells.", 96_000, 144_000);
        Head shorter = remove(0, 48_000);
        assertThat(placed(shorter.seq())).singleElement().satisfies(note -> {
            assertThat(note.note().words()).isEqualTo("Lovely bells.");
            assertThat(note.places()).containsExactly(new Span(48_000, 96_000));
        });
        Head gone = remove(40_000, 110_000);
        assertThat(placed(gone.seq()).get(0).places()).isEmpty();
        assertThat(placed(shorter.seq()).get(0).places()).as("an earlier revision still has them").isNotEmpty();
    }

    private MarginNote written() {
        return notes.in(school.teacher(), handIn, handIn).get(0).note();
    }

    @Test
    void the_crew_says_how_it_was_done_and_the_teacher_agrees_or_opens_it_again() {
        write("Mend this click.", 0, 4_800);
        long note = written().id();
        notes.tick(school.student(), note, true, "We said it again.");
        assertThat(written().doneWords()).isEqualTo("We said it again.");
        notes.judge(school.teacher(), note, true);
        assertThat(written().agreed()).isTrue();
        notes.judge(school.teacher(), note, false);
        assertThat(written().done()).as("opened again").isFalse();
        notes.judge(school.teacher(), note, true);
        assertThat(written().agreed()).as("nothing to agree to").isFalse();
        notes.tick(school.partner(), note, true, "");
        assertThat(written().agreed()).as("ticked anew").isFalse();
        assertThatThrownBy(() -> notes.judge(school.student(), note, true)).isInstanceOf(NotFound.class);
        assertThatThrownBy(() -> notes.judge(school.otherTeacher(), note, true)).isInstanceOf(NotFound.class);
    }

    @Test
    void a_note_is_answered_by_its_crew_and_its_teacher_alone() {
        write("What is this?", 0, 4_800);
        long note = written().id();
        notes.reply(school.partner(), note, "The lock.");
        notes.reply(school.teacher(), note, "Say so.");
        assertThat(notes.in(school.teacher(), handIn, handIn).get(0).replies()).extracting(MarginNoteMapper.Reply::words).containsExactly("The lock.", "Say so.");
        assertThatThrownBy(() -> notes.reply(school.neighbour(), note, "Hello.")).isInstanceOf(NotFound.class);
        assertThatThrownBy(() -> notes.reply(school.student(), note, " ")).hasMessageContaining("note.REPLY");
    }

    @Test
    void what_a_teacher_writes_again_is_offered_for_its_kind() throws Exception {
        for (String words : List.of("I can see it.", "I can see it.", "Only once.")) {
            notes.write(school.teacher(), handIn.id(), MarginNotes.Wish.of(MarginNote.Kind.LOVELY, words, 0, 4_800));
        }
        assertThat(notes.phrases(school.teacher())).containsEntry(MarginNote.Kind.LOVELY, List.of("I can see it.")).containsEntry(MarginNote.Kind.MEND, List.of());
        assertThat(mvc.perform(get("/hand-ins/" + handIn.id()).with(As.person(school.teacher()))).andReturn().getResponse().getContentAsString())
                .contains(">I can see it.</button>").doesNotContain(">Only once.</button>");
        assertThat(notes.phrases(school.otherTeacher()).get(MarginNote.Kind.LOVELY)).isEmpty();
    }

    @Test
    void the_crew_ticks_it_done_and_not_done_and_nobody_else_does() {
        write("Mend this click.", 0, 4_800);
        long note = written().id();
        notes.tick(school.partner(), note, true, null);
        assertThat(written().done()).isTrue();
        notes.tick(school.student(), note, false, null);
        assertThat(written().done()).isFalse();
        assertThatThrownBy(() -> notes.tick(school.neighbour(), note, true, null)).isInstanceOf(NotFound.class);
        assertThatThrownBy(() -> notes.tick(school.teacher(), note, true, null)).isInstanceOf(NotFound.class);
    }

    @Test
    void a_note_on_chosen_tracks_names_them_and_one_on_all_or_on_none_that_is_there_is_on_the_whole() throws IOException {
        schools.readyTake(school, Schools.speech(), "Tess");
        HandIn two = schools.readyHandIn(school);
        List<Track> tracks = bench.timeline(two.timelineHash()).tracks();
        for (Set<Long> on : List.of(Set.of(tracks.get(1).id()), Set.of(tracks.get(0).id(), tracks.get(1).id()), Set.of(-1L), Set.<Long>of())) {
            notes.write(school.teacher(), two.id(), new MarginNotes.Wish(MarginNote.Kind.MEND, "Softer.", 0, 4_800, on));
        }
        assertThat(notes.in(school.teacher(), two, two)).extracting(placed -> placed.note().trackNames()).containsExactly(tracks.get(1).name(), null, null, null);
    }

    @Test
    void the_number_of_statements_of_the_review_page_does_not_grow_with_its_notes() throws Exception {
        write("One.", 0, 4_800);
        mvc.perform(get("/hand-ins/" + handIn.id()).with(As.person(school.teacher()))).andExpect(status().isOk());
        int withOne = statements.sentBy(() -> mvc.perform(get("/hand-ins/" + handIn.id()).with(As.person(school.teacher()))));
        for (int i = 0; i < 40; i++) {
            write("Note " + i, 0, 4_800);
        }
        assertThat(statements.sentBy(() -> mvc.perform(get("/hand-ins/" + handIn.id()).with(As.person(school.teacher()))))).isEqualTo(withOne).isLessThanOrEqualTo(40);
    }

    @Test
    void the_teacher_takes_a_note_back() {
        write("Hm.", 0, 4_800);
        long note = written().id();
        assertThatThrownBy(() -> notes.takeBack(school.otherTeacher(), note)).isInstanceOf(NotFound.class);
        notes.takeBack(school.teacher(), note);
        assertThat(notes.in(school.teacher(), handIn, handIn)).isEmpty();
    }

    @Test
    void a_note_without_words_or_span_is_refused_and_one_that_runs_over_the_end_ends_there() {
        assertThatThrownBy(() -> write("  ", 0, 100)).hasMessage("note.WORDS_MISSING");
        assertThatThrownBy(() -> write("x".repeat(501), 0, 100)).hasMessage("note.TOO_LONG");
        assertThatThrownBy(() -> write("Here.", 100, 100)).hasMessage("note.SPAN");
        assertThatThrownBy(() -> write("Here.", handIn.frames(), handIn.frames() + 10)).hasMessage("note.SPAN");
        write("To the end.", 4_800, Long.MAX_VALUE);
        assertThat(written().endFrame()).isEqualTo(handIn.frames());
    }

    private void write(String words, long from, long to) {
        notes.write(school.teacher(), handIn.id(), MarginNotes.Wish.of(MarginNote.Kind.MEND, words, from, to));
    }

    private List<MarginNotes.Placed> placed(long revision) {
        return notes.at(school.student(), school.episodeId(), revision);
    }

    private Head remove(long start, long frames) {
        Head head = bench.head(school.student(), school.episodeId());
        return bench.edit(school.student(), school.episodeId(), head.seq(), "client-" + start,
                new Remove(new Span(start, start + frames), head.timeline().trackIds()));
    }
}
