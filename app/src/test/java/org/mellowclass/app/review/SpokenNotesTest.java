package org.mellowclass.app.review;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import java.util.zip.CRC32;

import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.mellowclass.app.bench.Bench;
import org.mellowclass.app.erasing.Erasing;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.Voices;
import org.mellowclass.app.recording.Recording;
import org.mellowclass.app.store.SoundStore;
import org.mellowclass.app.takes.Take;
import org.mellowclass.app.takes.TakeShelf;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.As;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.WavReader;
import org.mellowclass.core.testing.Signal;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.http.MediaType;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.test.web.servlet.MockMvc;

@AppTest
class SpokenNotesTest {

    private static final Signal SAID = Signal.sine(1, 440, -12, 2);

    @Autowired
    private SpokenNotes spoken;
    @Autowired
    private MarginNotes notes;
    @Autowired
    private Recording recording;
    @Autowired
    private TakeShelf takes;
    @Autowired
    private Voices voices;
    @Autowired
    private Bench bench;
    @Autowired
    private Erasing erasing;
    @Autowired
    private Access access;
    @Autowired
    private SoundStore store;
    @Autowired
    private Schools schools;
    @Autowired
    private MockMvc mvc;
    @Autowired
    private JdbcClient database;
    @TempDir
    private Path folder;
    private Schools.School school;
    private HandIn handIn;

    @BeforeEach
    void handIn() throws IOException {
        school = schools.build();
        schools.readyTake(school, Schools.speech(), "Noor");
        handIn = schools.readyHandIn(school);
    }

    private SpokenNotes.Begun begin() {
        return spoken.begin(school.teacher(), handIn.id(), MarginNotes.Wish.of(MarginNote.Kind.MEND, "", 0, 48_000), Frames.RATE, null);
    }

    private long said() {
        SpokenNotes.Begun begun = begin();
        schools.send(begun.recording(), SAID);
        Schools.await(() -> notes.find(school.teacher(), begun.noteId()).shown());
        return begun.noteId();
    }

    private void silentSecond(SpokenNotes.Begun begun, int number) {
        byte[] second = new byte[2 * Frames.RATE];
        CRC32 crc = new CRC32();
        crc.update(second);
        recording.chunk(begun.recording().uploadKey(), number, (long) number * Frames.RATE, crc.getValue(), second, false);
    }

    private List<MarginNotes.Placed> seenBy(Person viewer) {
        return notes.in(viewer, handIn, handIn);
    }

    private int status(Person viewer, String address) throws Exception {
        return mvc.perform(get(address).with(As.person(viewer))).andReturn().getResponse().getStatus();
    }

    @Test
    void what_is_spoken_is_heard_by_the_crew_where_the_note_stands_once_all_of_it_is_there() throws Exception {
        SpokenNotes.Begun begun = begin();
        assertThat(seenBy(school.teacher())).as("it stands from its first word on").hasSize(1);
        assertThat(spoken.of(school.teacher(), begun.noteId()).unfinished().live()).isTrue();
        assertThat(seenBy(school.student())).isEmpty();
        assertThat(status(school.student(), "/notes/" + begun.noteId() + "/sound")).isEqualTo(404);
        assertThat(notes.open(handIn)).as("nothing to look at yet").isEmpty();
        schools.send(begun.recording(), SAID);
        Schools.await(() -> !seenBy(school.student()).isEmpty());
        assertThat(notes.open(handIn)).isEqualTo("1 note, 1 to mend");
        assertThat(spoken.of(school.student(), begun.noteId()).picture()).isNotNull();
        Path file = folder.resolve("note.wav");
        Files.write(file, mvc.perform(get("/notes/" + begun.noteId() + "/sound").with(As.person(school.partner()))).andReturn().getResponse().getContentAsByteArray());
        try (WavReader heard = WavReader.open(file)) {
            float[][] samples = new float[1][(int) SAID.frames()];
            assertThat(heard.frames()).isEqualTo(SAID.frames());
            heard.readAt(0, samples, 0, samples[0].length);
            for (int i = 0; i < samples[0].length; i += 7) {
                assertThat(samples[0][i]).isBetween(SAID.samples()[0][i] - 1e-4f, SAID.samples()[0][i] + 1e-4f);
            }
        }
        for (Person other : List.of(school.neighbour(), school.stranger(), school.otherTeacher())) {
            assertThat(status(other, "/notes/" + begun.noteId() + "/sound")).isEqualTo(404);
        }
    }

    @Test
    void it_is_none_of_the_crews_takes() throws Exception {
        SpokenNotes.Begun running = begin();
        assertThat(recording.runningOfClass(access.taughtClass(school.teacher(), school.classId()))).as("the crew records nothing").isEmpty();
        long note = said();
        long take = notes.find(school.teacher(), note).takeId();
        assertThat(takes.ofEpisode(school.teacher(), school.episodeId())).extracting(Take::id).doesNotContain(take, running.recording().takeId());
        assertThat(takes.ready(school.episodeId())).doesNotContainKey(take);
        assertThat(voices.unnamedOf(school.episodeId(), Set.of(take))).as("nobody is asked whose voice it is").isEmpty();
        assertThat(Bench.takesIn(bench.head(school.student(), school.episodeId()).timeline())).doesNotContain(take);
        long sound = database.sql("SELECT id FROM sound WHERE take_id = ?").param(take).query(Long.class).single();
        assertThat(status(school.student(), "/takes/" + take + "/sound")).isEqualTo(404);
        assertThat(status(school.student(), "/sounds/" + sound + "/skyline/0/0")).isEqualTo(404);
        assertThatThrownBy(() -> erasing.ask(school.student(), take)).isInstanceOf(NotFound.class);
        assertThatThrownBy(() -> recording.complete(school.student(), take)).isInstanceOf(NotFound.class);
        assertThatThrownBy(() -> voices.name(school.student(), school.episodeId(), take, Set.of(), true)).isInstanceOf(NotFound.class);
        String layIn = """
                {"clientId":"note-lay-1","base":%d,"edit":{"type":"layIn","takeId":%d,"startFrame":0,"endFrame":48000,"trackId":1,"atFrame":0}}"""
                .formatted(bench.head(school.student(), school.episodeId()).seq(), take);
        assertThat(mvc.perform(post("/episodes/" + school.episodeId() + "/edits").with(As.person(school.student())).with(csrf())
                .contentType(MediaType.APPLICATION_JSON).content(layIn)).andReturn().getResponse().getStatus()).isBetween(400, 499);
    }

    @Test
    void taken_back_it_is_gone_with_its_sound() throws Exception {
        long note = said();
        long take = notes.find(school.teacher(), note).takeId();
        List<String> keys = database.sql("SELECT sound_key FROM sound WHERE take_id = ? UNION ALL SELECT skyline_key FROM sound WHERE take_id = ? UNION ALL SELECT original_key FROM original WHERE take_id = ?")
                .params(take, take, take).query(String.class).list();
        assertThat(keys).hasSize(3).doesNotContainNull();
        assertThatThrownBy(() -> notes.takeBack(school.student(), note)).isInstanceOf(NotFound.class);
        notes.takeBack(school.teacher(), note);
        assertThat(seenBy(school.teacher())).isEmpty();
        assertThat(database.sql("SELECT state FROM take WHERE id = ?").param(take).query(String.class).single()).isEqualTo("ERASED");
        for (String key : keys) {
            assertThatThrownBy(() -> store.hold(key)).as(key).isInstanceOf(NoSuchFileException.class);
        }
        assertThat(status(school.teacher(), "/notes/" + note + "/sound")).isEqualTo(404);
    }

    @Test
    void one_that_is_taken_back_while_it_is_being_spoken_takes_nothing_more() {
        SpokenNotes.Begun begun = begin();
        notes.takeBack(school.teacher(), begun.noteId());
        assertThatThrownBy(() -> schools.send(begun.recording(), SAID)).isInstanceOf(NotFound.class);
    }

    @Test
    void one_that_has_broken_off_is_kept_with_what_has_come() throws IOException {
        SpokenNotes.Begun begun = begin();
        silentSecond(begun, 0);
        assertThatThrownBy(() -> spoken.complete(school.teacher(), begun.noteId())).as("it goes on").isInstanceOf(Refusal.class);
        database.sql("UPDATE recording SET last_sign_at = last_sign_at - INTERVAL 121 SECOND WHERE take_id = ?").param(begun.recording().takeId()).update();
        assertThat(spoken.of(school.teacher(), begun.noteId()).unfinished().safeFrames()).isEqualTo(Frames.RATE);
        assertThatThrownBy(() -> spoken.complete(school.student(), begun.noteId())).isInstanceOf(NotFound.class);
        spoken.complete(school.teacher(), begun.noteId());
        Schools.await(() -> !seenBy(school.student()).isEmpty());
        assertThat(spoken.of(school.student(), begun.noteId()).take().frames()).isEqualTo(Frames.RATE);
    }

    @Test
    void a_note_takes_the_chunk_in_which_its_three_minutes_end_and_nothing_behind_it() {
        SpokenNotes.Begun begun = begin();
        database.sql("UPDATE recording SET begun_at = begun_at - INTERVAL 10 MINUTE WHERE take_id = ?").param(begun.recording().takeId()).update();
        silentSecond(begun, 180);
        assertThatThrownBy(() -> silentSecond(begun, 185)).hasMessage("take.CHUNK");
    }

    @ParameterizedTest
    @CsvSource({"96000, 48000, 48000, note.SPAN", "-1, 48000, 48000, note.SPAN", "0, 48000, 4000, take.RATE"})
    void one_that_does_not_fit_begins_nothing(long from, long to, int rate, String problem) {
        MarginNotes.Wish wish = MarginNotes.Wish.of(MarginNote.Kind.LOVELY, "", from, to);
        assertThatThrownBy(() -> spoken.begin(school.teacher(), handIn.id(), wish, rate, null)).hasMessage(problem);
        assertThat(database.sql("SELECT count(*) FROM take WHERE origin = 'NOTE' AND episode_id = ?").param(school.episodeId()).query(Integer.class).single()).isZero();
        assertThatThrownBy(() -> spoken.begin(school.student(), handIn.id(), wish, Frames.RATE, null)).isInstanceOf(NotFound.class);
    }
}
