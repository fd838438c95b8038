package org.mellowclass.app.board;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;

import java.io.IOException;
import java.util.List;
import java.util.zip.CRC32;

import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.recording.RecentPeaks;
import org.mellowclass.app.recording.Recording;
import org.mellowclass.app.review.HandIn;
import org.mellowclass.app.review.HandIns;
import org.mellowclass.app.roster.Crews;
import org.mellowclass.app.shelf.LayingIn;
import org.mellowclass.app.soundcheck.SoundChecks;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.As;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.app.testing.Statements;
import org.mellowclass.core.soundcheck.Reading;
import org.mellowclass.core.testing.Signal;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.test.web.servlet.MockMvc;

@AppTest
class ClassBoardTest {

    private static final int SECOND = 48_000;

    @Autowired
    private ClassBoard board;
    @Autowired
    private Access access;
    @Autowired
    private Crews crews;
    @Autowired
    private LayingIn layingIn;
    @Autowired
    private Recording recording;
    @Autowired
    private HandIns handIns;
    @Autowired
    private SoundChecks checks;
    @Autowired
    private Schools schools;
    @Autowired
    private Statements statements;
    @Autowired
    private MockMvc mvc;
    private Schools.School school;

    @BeforeEach
    void build() {
        school = schools.build();
    }

    private List<ClassBoard.Line> lines() {
        return board.lines(school.teacher(), access.taughtClass(school.teacher(), school.classId()));
    }

    private String page() throws Exception {
        return mvc.perform(get("/classes/" + school.classId()).with(As.person(school.teacher()))).andReturn().getResponse().getContentAsString();
    }

    private static byte[] tone(double amplitude) {
        byte[] pcm = new byte[2 * SECOND];
        for (int i = 0; i < SECOND; i++) {
            short sample = (short) Math.round(32767 * amplitude * Math.sin(2 * Math.PI * 300 * i / SECOND));
            pcm[2 * i] = (byte) sample;
            pcm[2 * i + 1] = (byte) (sample >> 8);
        }
        return pcm;
    }

    private void record(String key, int from, int seconds, double amplitude) {
        byte[] pcm = tone(amplitude);
        CRC32 crc = new CRC32();
        crc.update(pcm);
        for (int i = from; i < from + seconds; i++) {
            recording.chunk(key, i, (long) i * SECOND, crc.getValue(), pcm, false);
        }
    }

    @Test
    void the_number_of_statements_does_not_grow_with_the_crews() throws Exception {
        page();
        int withTwo = statements.sentBy(this::page);
        for (int i = 0; i < 28; i++) {
            crews.add(school.teacher(), school.classId(), "Crew " + i, "Episode " + i);
        }
        assertThat(lines()).hasSize(30);
        assertThat(statements.sentBy(this::page)).isEqualTo(withTwo).isLessThanOrEqualTo(17);
    }

    @Test
    void a_recording_shows_while_it_goes_on_and_its_level_while_it_can_still_be_helped() throws Exception {
        String key = recording.begin(school.student(), school.episodeId(), Recording.Start.on("Noor", SECOND)).uploadKey();
        record(key, 0, 3, 0.005);
        assertThat(lines().get(0).running().word()).as("too early to say").isEqualTo(RecentPeaks.Word.LISTENING);
        record(key, 3, 2, 0.005);
        assertThat(lines().get(0).running().word()).isEqualTo(RecentPeaks.Word.TOO_QUIET);
        assertThat(page()).contains("recording now", "too quiet", "Needs a hand now");
        record(key, 5, 20, 0.3);
        assertThat(lines().get(0).running().word()).as("the last twenty seconds count").isEqualTo(RecentPeaks.Word.GOOD);
        recording.end(key, 25, 25L * SECOND, false);
        assertThat(lines().get(0).running()).isNull();
    }

    @Test
    void it_says_who_waits_for_whom_and_sorts_by_it() throws IOException {
        schools.readyTake(school, Schools.speech(), "Noor");
        schools.readyHandIn(school);
        List<ClassBoard.Line> sorted = ClassBoard.Order.WAITING.sorted(lines());
        assertThat(sorted).extracting(ClassBoard.Line::waitsFor).containsExactly(ClassBoard.Waiting.YOU, ClassBoard.Waiting.CREW);
        assertThat(sorted.get(0).waitingSince()).isNotNull();
        handIns.decide(school.teacher(), sorted.get(0).handIn().id(), HandIn.Decision.ANOTHER_PASS, "Once more.");
        assertThat(lines()).extracting(ClassBoard.Line::waitsFor).containsOnly(ClassBoard.Waiting.CREW);
    }

    @Test
    void an_episode_that_nobody_has_opened_is_named_until_somebody_does() throws Exception {
        assertThat(page()).contains("nobody has opened it yet");
        mvc.perform(get("/episodes/" + school.episodeId() + "/bench").with(As.person(school.teacher())));
        assertThat(lines().get(0).openedAt()).as("the teacher does not count").isNull();
        mvc.perform(get("/episodes/" + school.episodeId() + "/bench").with(As.person(school.student())));
        assertThat(lines().get(0).openedAt()).isNotNull();
    }

    @Test
    void a_sound_from_the_shelf_is_no_take_of_the_crew() throws Exception {
        long jingle = schools.shelfSound(school, "Jingle", Signal.sine(2, 440, -12, 1));
        layingIn.layIn(school.student(), school.episodeId(), 1, "client-board-1", jingle, 0, "Music", 0);
        assertThat(lines().get(0).picture()).isNull();
        assertThat(mvc.perform(get("/episodes/" + school.episodeId() + "/bench").with(As.person(school.student()))).andReturn().getResponse()
                .getContentAsString()).contains("record your first take");
        schools.readyTake(school, Schools.speech(), "Noor");
        assertThat(lines().get(0).picture()).isNotNull();
    }

    @Test
    void episodes_stand_beside_each_other_as_soon_as_their_pages_are_read() throws Exception {
        String address = "/classes/" + school.classId() + "/compared";
        assertThat(mvc.perform(get(address).with(As.person(school.teacher()))).andReturn().getResponse().getContentAsString()).contains("not measured");
        schools.readyTake(school, Schools.speech(), "Noor");
        schools.readPage(school.episodeId());
        Schools.await(() -> checks.newest(school.episodeId()).isPresent());
        assertThat(board.lines(school.teacher(), access.taughtClass(school.teacher(), school.classId())).stream().filter(line -> line.episodeId() == school.episodeId()).findFirst().orElseThrow())
                .satisfies(line -> assertThat(line.value(Reading.Kind.LOUDNESS)).isCloseTo(-16.0, within(1.0)), line -> assertThat(line.good() + line.check() + line.fix()).isPositive());
        assertThat(mvc.perform(get(address).with(As.person(school.teacher()))).andReturn().getResponse().getContentAsString()).containsPattern("class=\"mark-(good|check|fix)\"");
    }
}
