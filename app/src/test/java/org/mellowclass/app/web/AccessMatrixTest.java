package org.mellowclass.app.web;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.DynamicTest.dynamicTest;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;

import java.io.IOException;
import java.net.URI;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.OptionalLong;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.TestFactory;
import org.mellowclass.app.feed.AirDesk;
import org.mellowclass.app.lineup.LineUps;
import org.mellowclass.app.lineup.LinedUp;
import org.mellowclass.app.outbox.Outbox;
import org.mellowclass.app.people.Invitations;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.SchoolOffice;
import org.mellowclass.app.recording.Recording;
import org.mellowclass.app.review.HandIn;
import org.mellowclass.app.review.EarlyListening;
import org.mellowclass.app.review.MarginNote;
import org.mellowclass.app.review.MarginNotes;
import org.mellowclass.app.review.SpokenNotes;
import org.mellowclass.app.roster.Classes;
import org.mellowclass.app.roster.Crews;
import org.mellowclass.app.roster.Roster;
import org.mellowclass.app.shelf.Shelf;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.As;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.core.testing.Signal;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.beans.factory.annotation.Qualifier;
import org.springframework.http.HttpMethod;
import org.springframework.http.MediaType;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.mock.web.MockMultipartFile;
import org.springframework.test.web.servlet.MockMvc;
import org.springframework.test.web.servlet.request.MockHttpServletRequestBuilder;
import org.springframework.test.web.servlet.request.MockMvcRequestBuilders;
import org.springframework.web.servlet.mvc.method.annotation.RequestMappingHandlerMapping;

/**
 * Each role against each address. The addresses are Spring's own, so that a new one without a line here fails the test.
 */
@AppTest
class AccessMatrixTest {

    /** Who may come in; everybody else is told that there is nothing, or sent to the sign-in. */
    private enum Open { TO_ALL, TO_NOBODY, TO_SIGNED_IN, TO_CREW, TO_CREW_AND_TEACHER, TO_INVITED, TO_CLASS, TO_TEACHER, TO_EVERY_TEACHER, TO_EVERY_STUDENT }

    private static final Map<String, Open> RULES = new TreeMap<>(Map.ofEntries(
            Map.entry("GET /", Open.TO_SIGNED_IN),
            Map.entry("POST /practice", Open.TO_EVERY_STUDENT),
            Map.entry("POST /practice/again", Open.TO_EVERY_STUDENT),
            Map.entry("GET /sign-in", Open.TO_ALL),
            Map.entry("POST /sign-in/teacher", Open.TO_ALL),
            Map.entry("POST /sign-in/student", Open.TO_ALL),
            Map.entry("GET /first-start", Open.TO_NOBODY),
            Map.entry("POST /first-start", Open.TO_NOBODY),
            Map.entry("GET /invitations/{invitationKey}", Open.TO_ALL),
            Map.entry("POST /invitations/{invitationKey}", Open.TO_ALL),
            Map.entry("GET /outbox", Open.TO_EVERY_TEACHER),
            Map.entry("GET /news", Open.TO_SIGNED_IN),
            Map.entry("POST /news/mail", Open.TO_EVERY_TEACHER),
            Map.entry("GET /account", Open.TO_EVERY_TEACHER),
            Map.entry("POST /account/password", Open.TO_EVERY_TEACHER),
            Map.entry("POST /account/elsewhere/end", Open.TO_EVERY_TEACHER),
            Map.entry("GET /account/second-step", Open.TO_EVERY_TEACHER),
            Map.entry("POST /account/second-step", Open.TO_EVERY_TEACHER),
            Map.entry("POST /account/second-step/end", Open.TO_EVERY_TEACHER),
            Map.entry("GET /sign-in/code", Open.TO_ALL),
            Map.entry("POST /sign-in/code", Open.TO_ALL),
            Map.entry("GET /again", Open.TO_SIGNED_IN),
            Map.entry("POST /again", Open.TO_SIGNED_IN),
            Map.entry("GET /sign-in/forgotten", Open.TO_ALL),
            Map.entry("POST /sign-in/forgotten", Open.TO_ALL),
            Map.entry("GET /sign-in/new-password/{resetKey}", Open.TO_ALL),
            Map.entry("POST /sign-in/new-password/{resetKey}", Open.TO_ALL),
            // the class's teacher is the first of the school, and leads it
            Map.entry("GET /school", Open.TO_TEACHER),
            Map.entry("POST /school/listeners", Open.TO_TEACHER),
            Map.entry("GET /school/let-go", Open.TO_TEACHER),
            Map.entry("POST /school/let-go", Open.TO_TEACHER),
            Map.entry("POST /school/take-back", Open.TO_TEACHER),
            Map.entry("GET /going", Open.TO_EVERY_TEACHER),
            Map.entry("GET /classes/{classId}/keeping", Open.TO_TEACHER),
            Map.entry("POST /classes/{classId}/keeping", Open.TO_TEACHER),
            Map.entry("POST /classes/{classId}/let-go", Open.TO_TEACHER),
            Map.entry("POST /classes/{classId}/take-back", Open.TO_TEACHER),
            Map.entry("GET /classes/{classId}/students/{studentId}/delete", Open.TO_TEACHER),
            Map.entry("POST /classes/{classId}/students/{studentId}/delete", Open.TO_TEACHER),
            Map.entry("GET /classes/{classId}/students/{studentId}/everything", Open.TO_TEACHER),
            Map.entry("GET /everything", Open.TO_EVERY_STUDENT),
            Map.entry("POST /classes/{classId}/teachers/{teacherId}/take-off", Open.TO_TEACHER),
            Map.entry("POST /classes", Open.TO_EVERY_TEACHER),
            Map.entry("GET /classes/{classId}", Open.TO_TEACHER),
            Map.entry("GET /classes/{classId}/now", Open.TO_TEACHER),
            Map.entry("GET /classes/{classId}/live", Open.TO_TEACHER),
            Map.entry("POST /classes/{classId}/turns", Open.TO_TEACHER),
            Map.entry("POST /classes/{classId}/turns/end", Open.TO_TEACHER),
            Map.entry("POST /episodes/{episodeId}/turn/done", Open.TO_CREW),
            Map.entry("GET /classes/{classId}/consents", Open.TO_TEACHER),
            Map.entry("POST /classes/{classId}/consents", Open.TO_TEACHER),
            Map.entry("GET /classes/{classId}/consents/form", Open.TO_TEACHER),
            Map.entry("GET /classes/{classId}/crews", Open.TO_TEACHER),
            Map.entry("POST /classes/{classId}/crews", Open.TO_TEACHER),
            Map.entry("POST /classes/{classId}/crews/deal", Open.TO_TEACHER),
            Map.entry("POST /classes/{classId}/crews/{crewId}/name", Open.TO_TEACHER),
            Map.entry("POST /classes/{classId}/crews/{crewId}/remove", Open.TO_TEACHER),
            Map.entry("POST /classes/{classId}/students", Open.TO_TEACHER),
            Map.entry("GET /classes/{classId}/students/{studentId}", Open.TO_TEACHER),
            Map.entry("POST /classes/{classId}/students/{studentId}", Open.TO_TEACHER),
            Map.entry("POST /classes/{classId}/students/{studentId}/move", Open.TO_TEACHER),
            Map.entry("POST /classes/{classId}/students/{studentId}/unlock", Open.TO_TEACHER),
            Map.entry("POST /classes/{classId}/students/{studentId}/joins/{otherClassId}", Open.TO_TEACHER),
            Map.entry("POST /classes/{classId}/students/{studentId}/leave", Open.TO_TEACHER),
            Map.entry("POST /classes/{classId}/passphrases", Open.TO_TEACHER),
            Map.entry("GET /classes/{classId}/cards", Open.TO_TEACHER),
            Map.entry("GET /classes/{classId}/cards.pdf", Open.TO_TEACHER),
            Map.entry("GET /classes/{classId}/roster", Open.TO_TEACHER),
            Map.entry("POST /classes/{classId}/roster", Open.TO_TEACHER),
            Map.entry("POST /classes/{classId}/roster/confirm", Open.TO_TEACHER),
            Map.entry("POST /classes/{classId}/invitations", Open.TO_TEACHER),
            Map.entry("GET /classes/{classId}/brief", Open.TO_TEACHER),
            Map.entry("POST /classes/{classId}/brief", Open.TO_TEACHER),
            Map.entry("POST /classes/{classId}/brief/copy", Open.TO_TEACHER),
            Map.entry("POST /episodes/{episodeId}/parts/{partId}", Open.TO_TEACHER),
            Map.entry("GET /classes/{classId}/shelf", Open.TO_TEACHER),
            Map.entry("GET /classes/{classId}/shelf/list", Open.TO_TEACHER),
            Map.entry("POST /classes/{classId}/shelf", Open.TO_TEACHER),
            Map.entry("POST /shelf/{soundId}/excerpts", Open.TO_TEACHER),
            Map.entry("POST /shelf/{soundId}/take-away", Open.TO_TEACHER),
            Map.entry("POST /shelf/{soundId}/again", Open.TO_TEACHER),
            Map.entry("POST /excerpts/{excerptId}/remove", Open.TO_TEACHER),
            Map.entry("GET /shelf/{soundId}/sound", Open.TO_CLASS),
            Map.entry("GET /episodes/{episodeId}/shelf", Open.TO_CREW_AND_TEACHER),
            Map.entry("POST /episodes/{episodeId}/shelf", Open.TO_CREW),
            Map.entry("GET /episodes/{episodeId}/record", Open.TO_CREW_AND_TEACHER),
            Map.entry("GET /episodes/{episodeId}/takes", Open.TO_CREW_AND_TEACHER),
            Map.entry("POST /episodes/{episodeId}/takes", Open.TO_CREW),
            Map.entry("POST /episodes/{episodeId}/recordings", Open.TO_CREW),
            Map.entry("GET /episodes/{episodeId}/room/live", Open.TO_CREW_AND_TEACHER),
            Map.entry("GET /episodes/{episodeId}/room/turn", Open.TO_CREW_AND_TEACHER),
            Map.entry("GET /episodes/{episodeId}/landing", Open.TO_CREW),
            Map.entry("POST /episodes/{episodeId}/takes/{takeId}/choose", Open.TO_CREW),
            Map.entry("POST /episodes/{episodeId}/guests", Open.TO_CREW),
            Map.entry("POST /episodes/{episodeId}/takes/{takeId}/fix", Open.TO_CREW),
            Map.entry("POST /episodes/{episodeId}/takes/{takeId}/louder", Open.TO_CREW),
            Map.entry("GET /episodes/{episodeId}/line-up", Open.TO_CREW_AND_TEACHER),
            Map.entry("GET /episodes/{episodeId}/line-up/pairs", Open.TO_CREW_AND_TEACHER),
            Map.entry("POST /episodes/{episodeId}/line-up", Open.TO_CREW),
            Map.entry("POST /episodes/{episodeId}/line-up/{lineUpId}/lay", Open.TO_CREW),
            Map.entry("POST /episodes/{episodeId}/files", Open.TO_CREW),
            Map.entry("HEAD /files/{uploadKey}", Open.TO_CREW),
            Map.entry("PATCH /files/{uploadKey}", Open.TO_CREW),
            Map.entry("GET /episodes/{episodeId}/together", Open.TO_CREW_AND_TEACHER),
            Map.entry("POST /episodes/{episodeId}/together/wait", Open.TO_CREW),
            Map.entry("POST /episodes/{episodeId}/together/start", Open.TO_CREW_AND_TEACHER),
            Map.entry("POST /episodes/{episodeId}/microphone-check", Open.TO_CREW),
            Map.entry("POST /takes/{takeId}/erase-request", Open.TO_CREW),
            Map.entry("POST /takes/{takeId}/keep", Open.TO_TEACHER),
            Map.entry("GET /takes/{takeId}/erase", Open.TO_TEACHER),
            Map.entry("POST /takes/{takeId}/erase", Open.TO_TEACHER),
            Map.entry("PUT /uploads/{uploadKey}/flags/{sourceFrame}", Open.TO_ALL),
            Map.entry("PUT /uploads/{uploadKey}/chunks/{number}", Open.TO_ALL),
            Map.entry("POST /uploads/{uploadKey}/sign", Open.TO_ALL),
            Map.entry("POST /uploads/{uploadKey}/end", Open.TO_ALL),
            Map.entry("POST /takes/{takeId}/complete", Open.TO_CREW),
            Map.entry("POST /takes/{takeId}/again", Open.TO_CREW),
            Map.entry("POST /takes/{takeId}/returned", Open.TO_CREW),
            Map.entry("GET /takes/{takeId}/cleanup", Open.TO_CREW_AND_TEACHER),
            Map.entry("GET /takes/{takeId}/cleanup/before", Open.TO_CREW_AND_TEACHER),
            Map.entry("GET /takes/{takeId}/cleanup/figures", Open.TO_CREW_AND_TEACHER),
            Map.entry("GET /takes/{takeId}/cleanup/after", Open.TO_CREW_AND_TEACHER),
            Map.entry("GET /takes/{takeId}/cleanup/removed", Open.TO_CREW_AND_TEACHER),
            Map.entry("GET /takes/{takeId}/cleanup/window/{part}", Open.TO_CREW_AND_TEACHER),
            Map.entry("POST /takes/{takeId}/cleanup/class-recipes", Open.TO_TEACHER),
            Map.entry("POST /takes/{takeId}/cleanup/class-recipes/{recipeId}/away", Open.TO_TEACHER),
            Map.entry("POST /takes/{takeId}/cleanup", Open.TO_CREW),
            Map.entry("GET /takes/{takeId}/sound", Open.TO_CREW_AND_TEACHER),
            Map.entry("GET /sounds/{soundId}/skyline/{level}/{tile}", Open.TO_CREW_AND_TEACHER),
            Map.entry("GET /sounds/{soundId}/samples/{from:\\d+}-{to:\\d+}", Open.TO_CREW_AND_TEACHER),
            Map.entry("GET /sounds/{soundId}/spectrum/{from:\\d+}-{to:\\d+}/{columns}", Open.TO_CREW_AND_TEACHER),
            Map.entry("GET /episodes/{episodeId}/pauses/{revision}", Open.TO_CREW_AND_TEACHER),
            Map.entry("GET /episodes/{episodeId}/fades/{revision}", Open.TO_CREW_AND_TEACHER),
            Map.entry("GET /episodes/{episodeId}/under-voice/{revision}/{frame}", Open.TO_CREW_AND_TEACHER),
            Map.entry("GET /episodes/{episodeId}/ducked/{revision}/{trackId}", Open.TO_CREW_AND_TEACHER),
            Map.entry("GET /hand-ins/{handInId}/same-words", Open.TO_CREW_AND_TEACHER),
            Map.entry("GET /episodes/{episodeId}/even/{revision}", Open.TO_CREW_AND_TEACHER),
            Map.entry("GET /episodes/{episodeId}/loudness/{revision}/{clipId}", Open.TO_CREW_AND_TEACHER),
            Map.entry("POST /episodes/{episodeId}/trials", Open.TO_CREW_AND_TEACHER),
            Map.entry("GET /episodes/{episodeId}/sound-check", Open.TO_CREW_AND_TEACHER),
            Map.entry("GET /classes/{classId}/house-sound", Open.TO_TEACHER),
            Map.entry("GET /classes/{classId}/compared", Open.TO_TEACHER),
            Map.entry("POST /classes/{classId}/house-sound", Open.TO_TEACHER),
            Map.entry("POST /episodes/{episodeId}/air/let-through", Open.TO_TEACHER),
            Map.entry("GET /episodes/{episodeId}/export/{revision}", Open.TO_CREW_AND_TEACHER),
            Map.entry("GET /episodes/{episodeId}/export/{revision}/file", Open.TO_CREW_AND_TEACHER),
            Map.entry("GET /episodes/{episodeId}/export/progress/{key}", Open.TO_CREW_AND_TEACHER),
            Map.entry("GET /episodes/{episodeId}/read-lines", Open.TO_CREW_AND_TEACHER),
            Map.entry("GET /episodes/{episodeId}/log", Open.TO_CREW_AND_TEACHER),
            Map.entry("POST /episodes/{episodeId}/versions/{revision}/name", Open.TO_CREW),
            Map.entry("POST /episodes/{episodeId}/go-back", Open.TO_CREW),
            Map.entry("POST /episodes/{episodeId}/here", Open.TO_CREW_AND_TEACHER),
            Map.entry("POST /episodes/{episodeId}/gone", Open.TO_CREW_AND_TEACHER),
            Map.entry("GET /episodes/{episodeId}/bench", Open.TO_CREW_AND_TEACHER),
            Map.entry("GET /episodes/{episodeId}/timeline", Open.TO_CREW_AND_TEACHER),
            Map.entry("GET /episodes/{episodeId}/live", Open.TO_CREW_AND_TEACHER),
            Map.entry("POST /episodes/{episodeId}/edits", Open.TO_CREW),
            Map.entry("POST /episodes/{episodeId}/undo", Open.TO_CREW),
            Map.entry("POST /episodes/{episodeId}/redo", Open.TO_CREW),
            Map.entry("GET /episodes/{episodeId}/sound/{revision}/{finish}/{from:\\d+}-{to:\\d+}", Open.TO_CREW_AND_TEACHER),
            Map.entry("POST /episodes/{episodeId}/hand-ins", Open.TO_CREW),
            Map.entry("GET /episodes/{episodeId}/hand-ins", Open.TO_CREW_AND_TEACHER),
            Map.entry("GET /hand-ins/{handInId}", Open.TO_CREW_AND_TEACHER),
            Map.entry("GET /hand-ins/{handInId}/progress", Open.TO_CREW_AND_TEACHER),
            Map.entry("GET /hand-ins/{handInId}/sound", Open.TO_CREW_AND_TEACHER),
            Map.entry("GET /hand-ins/{handInId}/timeline", Open.TO_CREW_AND_TEACHER),
            Map.entry("POST /hand-ins/{handInId}/decision", Open.TO_TEACHER),
            Map.entry("POST /hand-ins/{handInId}/notes", Open.TO_TEACHER),
            Map.entry("GET /hand-ins/{handInId}/notes", Open.TO_CREW_AND_TEACHER),
            Map.entry("GET /hand-ins/{handInId}/listening", Open.TO_CREW_AND_TEACHER),
            Map.entry("POST /hand-ins/{handInId}/heard", Open.TO_CREW_AND_TEACHER),
            Map.entry("POST /hand-ins/{handInId}/unheard", Open.TO_TEACHER),
            Map.entry("POST /hand-ins/{handInId}/marks", Open.TO_TEACHER),
            Map.entry("GET /classes/{classId}/marking", Open.TO_TEACHER),
            Map.entry("GET /classes/{classId}/marks", Open.TO_TEACHER),
            Map.entry("GET /classes/{classId}/marks.csv", Open.TO_TEACHER),
            Map.entry("POST /hand-ins/{handInId}/early-listeners", Open.TO_TEACHER),
            Map.entry("POST /notes/{noteId}/held", Open.TO_TEACHER),
            Map.entry("POST /notes/{noteId}/report", Open.TO_CREW),
            Map.entry("GET /early", Open.TO_SIGNED_IN),
            Map.entry("GET /early/{handInId}", Open.TO_INVITED),
            Map.entry("GET /early/{handInId}/sound", Open.TO_INVITED),
            Map.entry("POST /early/{handInId}/notes", Open.TO_INVITED),
            Map.entry("POST /notes/{noteId}/judged", Open.TO_TEACHER),
            Map.entry("POST /notes/{noteId}/replies", Open.TO_CREW_AND_TEACHER),
            Map.entry("GET /episodes/{episodeId}/notes/{revision}", Open.TO_CREW_AND_TEACHER),
            Map.entry("POST /notes/{noteId}/take-back", Open.TO_TEACHER),
            Map.entry("POST /notes/{noteId}/done", Open.TO_CREW),
            Map.entry("POST /hand-ins/{handInId}/spoken-notes", Open.TO_TEACHER),
            Map.entry("GET /notes/{noteId}/spoken", Open.TO_CREW_AND_TEACHER),
            Map.entry("GET /notes/{noteId}/sound", Open.TO_CREW_AND_TEACHER),
            Map.entry("POST /notes/{noteId}/spoken/complete", Open.TO_TEACHER),
            Map.entry("POST /notes/{noteId}/spoken/again", Open.TO_TEACHER),
            Map.entry("GET /classes/{classId}/students/{studentId}/on-air", Open.TO_TEACHER),
            Map.entry("POST /classes/{classId}/students/{studentId}/off-air", Open.TO_TEACHER),
            Map.entry("POST /episodes/{episodeId}/takes/{takeId}/voices", Open.TO_CREW_AND_TEACHER),
            Map.entry("GET /episodes/{episodeId}/air", Open.TO_TEACHER),
            Map.entry("GET /episodes/{episodeId}/air/state", Open.TO_TEACHER),
            Map.entry("POST /episodes/{episodeId}/air", Open.TO_TEACHER),
            Map.entry("POST /episodes/{episodeId}/air/correction", Open.TO_TEACHER),
            Map.entry("POST /episodes/{episodeId}/air/off", Open.TO_TEACHER),
            Map.entry("GET /f/{feedKey}", Open.TO_ALL),
            Map.entry("GET /f/{feedKey}/feed.xml", Open.TO_ALL),
            Map.entry("GET /f/{feedKey}/cover.png", Open.TO_ALL),
            Map.entry("GET /f/{feedKey}/{episodeKey}", Open.TO_ALL),
            Map.entry("GET /f/{feedKey}/{episodeKey}/{slug}.mp3", Open.TO_ALL)));

    /** Of four zero bytes. */
    private static final String ZEROS_CRC32 = "558161692";

    /** What is sent along, where an empty request would be refused before anybody asks whose it is. */
    private static final Map<String, String> BODIES = Map.ofEntries(
            Map.entry("POST /episodes/{episodeId}/guests", "{\"name\":\"Mr Pellow\",\"extent\":\"PUBLIC\"}"),
            Map.entry("POST /episodes/{episodeId}/recordings", "{\"trackName\":\"Noor\",\"sampleRate\":48000}"),
            Map.entry("POST /uploads/{uploadKey}/end", "{\"chunks\":1,\"frames\":100}"),
            Map.entry("POST /episodes/{episodeId}/edits",
                    "{\"clientId\":\"matrix-edit-1\",\"base\":1,\"edit\":{\"type\":\"remove\",\"startFrame\":0,\"endFrame\":9,\"trackIds\":[1]}}"),
            Map.entry("POST /episodes/{episodeId}/versions/{revision}/name", "{\"name\":\"first try\"}"),
            Map.entry("POST /episodes/{episodeId}/here", "{\"frame\":0}"),
            Map.entry("POST /episodes/{episodeId}/go-back", "{\"clientId\":\"matrix-back-1\",\"base\":99,\"seq\":1}"),
            Map.entry("POST /episodes/{episodeId}/trials", "{\"base\":1,\"edit\":{\"type\":\"remove\",\"startFrame\":0,\"endFrame\":9,\"trackIds\":[1]}}"),
            Map.entry("POST /notes/{noteId}/done", "{\"done\":true}"),
            Map.entry("POST /hand-ins/{handInId}/spoken-notes", "{\"kind\":\"LOVELY\",\"words\":\"\",\"from\":\"0\",\"to\":\"1\",\"sampleRate\":48000}"),
            Map.entry("POST /hand-ins/{handInId}/heard", "{\"clientId\":\"matrix-heard-1\",\"startFrame\":0,\"endFrame\":4800,\"elapsedMs\":100}"),
            Map.entry("POST /classes/{classId}/brief", """
                    {"version":1,"project":"P","story":"","loudnessLufs":-16,"ceilingDbtp":-1,"shortest":"0:10","longest":"1:00",
                     "dueDay":"","outputFormat":"FLAC","recipe":"NONE","parts":[],"lines":[],"rubric":[],"starter":[]}"""),
            Map.entry("POST /classes/{classId}/brief/copy", "{\"toClassId\":SECOND}"),
            Map.entry("POST /episodes/{episodeId}/parts/{partId}", "{\"personId\":0}"),
            Map.entry("POST /episodes/{episodeId}/shelf",
                    "{\"clientId\":\"matrix-shelf-1\",\"base\":1,\"soundId\":SOUND,\"excerptId\":0,\"trackName\":\"Music\",\"startFrame\":0}"),
            Map.entry("POST /episodes/{episodeId}/undo", "{\"clientId\":\"matrix-undo-1\",\"base\":99,\"evenOfOthers\":true}"),
            Map.entry("POST /episodes/{episodeId}/redo", "{\"clientId\":\"matrix-redo-1\",\"base\":99}"));

    @Autowired
    @Qualifier("requestMappingHandlerMapping")
    private RequestMappingHandlerMapping mappings;
    @Autowired
    private MockMvc mvc;
    @Autowired
    private Schools schools;
    @Autowired
    private Recording recording;
    @Autowired
    private Roster roster;
    @Autowired
    private Classes classes;
    @Autowired
    private Crews crews;
    @Autowired
    private Shelf shelf;
    @Autowired
    private Outbox outbox;
    @Autowired
    private SchoolOffice office;
    @Autowired
    private Invitations invitations;
    @Autowired
    private EarlyListening early;
    @Autowired
    private MarginNotes notes;
    @Autowired
    private SpokenNotes spokenNotes;
    @Autowired
    private LineUps lineUps;
    @Autowired
    private AirDesk airDesk;

    private Schools.School school;
    private String feedKey;
    private String episodeKey;
    private long readyTake;
    private long takeToErase;
    private long lineTake;
    private String uploadKey;
    private HandIn handIn;
    private long crewId;
    private long spareStudent;
    private long leavingStudent;
    private long deletedStudent;
    private long secondClass;
    private long partId;
    private long soundId;
    @Autowired
    private JdbcTemplate jdbc;
    private long excerptId;
    private String invitationKey;
    private String resetKey;
    private long secondTeacher;
    private long guestsNote;
    private long noteToTick;
    private long spokenNote;
    private long noteToTakeBack;
    private long lineUpId;
    private String fileKey;

    @TestFactory
    List<DynamicTest> every_role_against_every_address() throws IOException {
        build();
        Map<String, Person> viewers = new TreeMap<>(Map.of("the crew's student", school.student(),
                "another crew's student", school.neighbour(), "another class's student", school.stranger(),
                "the class's teacher", school.teacher(), "another class's teacher", school.otherTeacher()));
        List<DynamicTest> tests = new ArrayList<>();
        tests.add(dynamicTest("every address has its line", () -> assertThat(addresses()).isEqualTo(RULES.keySet())));
        for (String address : addresses()) {
            Open rule = RULES.get(address);
            if (rule == null) {
                continue;
            }
            tests.add(dynamicTest(address + " for nobody", () -> assertNobody(address, rule, status(address, null))));
            viewers.forEach((who, viewer) -> tests.add(dynamicTest(address + " for " + who, () -> {
                int status = status(address, viewer);
                if (mayEnter(rule, viewer)) {
                    assertThat(status).isNotIn(401, 403, 404, 405, 500);
                } else {
                    assertThat(status).isEqualTo(404);
                }
            })));
        }
        return tests;
    }

    private void build() throws IOException {
        school = schools.build();
        readyTake = schools.readyTake(school, Schools.speech(), "Noor");
        takeToErase = schools.readyTake(school, Schools.speech(), "Tess");
        lineTake = schools.takeOfLine(school, schools.line(school, "Hello."));
        handIn = schools.readyHandIn(school);
        crewId = crews.ofClass(school.teacher(), school.classId()).get(0).id();
        spareStudent = added("Spare");
        leavingStudent = added("Leaving");
        deletedStudent = added("Deleted");
        secondClass = classes.add(school.teacher(), "Second");
        partId = schools.part(school, "Ending");
        soundId = schools.shelfSound(school, "Bell", Signal.sine(2, 500, -20, 1));
        shelf.addExcerpt(school.teacher(), soundId, "start", OptionalLong.of(0), OptionalLong.of(100));
        excerptId = shelf.excerpts(school.teacher(), school.classId()).get(soundId).get(0).id();
        invitationKey = invitations.invite(school.teacher(), school.classId(), "colleague@school.example");
        secondTeacher = office.addTeacher(school.teacher().schoolId(), "Ms Rush", "second-" + school.teacherEmail(), Schools.PASSWORD).id();
        office.addTeacherToClass(school.classId(), office.person(secondTeacher).orElseThrow());
        resetKey = askedReset();
        long secondLaptop = schools.readyTake(school, Signal.noise(1, -12, 6, 7), "Tess");
        lineUps.ask(school.student(), school.episodeId(), List.of(schools.readyTake(school, Signal.noise(1, -12, 6, 7), "Noor"), secondLaptop));
        lineUpId = lineUps.ofEpisode(school.student(), school.episodeId()).get(0).id();
        Schools.await(() -> lineUps.ofEpisode(school.student(), school.episodeId()).get(0).state() == LinedUp.State.MATCHED);
        fileKey = begunFile();
        uploadKey = recording.begin(school.student(), school.episodeId(), Recording.Start.on("Noor", 48_000)).uploadKey();
        for (int i = 0; i < 2; i++) {
            notes.write(school.teacher(), handIn.id(), MarginNotes.Wish.of(MarginNote.Kind.LOVELY, "Lovely.", 0, 48_000));
        }
        noteToTick = notes.in(school.teacher(), handIn, handIn).get(0).note().id();
        noteToTakeBack = notes.in(school.teacher(), handIn, handIn).get(1).note().id();
        SpokenNotes.Begun spoken = spokenNotes.begin(school.teacher(), handIn.id(), MarginNotes.Wish.of(MarginNote.Kind.LOVELY, "", 0, 48_000), 48_000, null);
        schools.send(spoken.recording(), Schools.speech());
        spokenNote = spoken.noteId();
        Schools.await(() -> notes.find(school.teacher(), spokenNote).shown());
        feedKey = airDesk.feedKey(school.teacher(), school.classId());
        early.invite(school.teacher(), handIn.id(), early.others(handIn).get(0).id(), 3);
        early.write(school.neighbour(), handIn.id(), MarginNote.Kind.QUESTION, "Who rings the bell?", 0, 4_800);
        guestsNote = early.own(school.neighbour(), handIn.id()).get(0).id();
        notes.hold(school.teacher(), guestsNote, false);
        schools.clear(school.teacher(), handIn.id());
        airDesk.publish(school.teacher(), school.episodeId(), "Eels", "A story.");
        Schools.await(() -> airDesk.onAir(school.episodeId()).isPresent());
        episodeKey = airDesk.onAir(school.episodeId()).orElseThrow().publicKey();
    }

    private String askedReset() throws IOException {
        try {
            mvc.perform(MockMvcRequestBuilders.post("/sign-in/forgotten").param("email", school.teacherEmail()).with(csrf()));
        } catch (Exception e) {
            throw new IOException(e);
        }
        List<String> lines = outbox.sentBy(school.teacher()).get(0).lines();
        return lines.get(lines.size() - 1).replaceAll(".*/", "");
    }

    private String begunFile() throws IOException {
        try {
            return mvc.perform(MockMvcRequestBuilders.post("/episodes/" + school.episodeId() + "/files").header("Upload-Length", "1000")
                    .header("Upload-Metadata", "trackName Tm9vcg==").with(csrf()).with(As.person(school.student()))).andReturn().getResponse()
                    .getHeader("Location").substring("/files/".length());
        } catch (Exception e) {
            throw new IOException(e);
        }
    }

    private long classRecipe() {
        jdbc.update("INSERT IGNORE INTO class_recipe (class_id, name, advice, recipe, created_at) VALUES (?, 'Hall', 'For the hall.', 'low-cut:80', now())", school.classId());
        return jdbc.queryForObject("SELECT max(id) FROM class_recipe WHERE class_id = ?", Long.class, school.classId());
    }

    private long added(String name) {
        roster.add(school.teacher(), school.classId(), name);
        return roster.students(school.teacher(), school.classId()).stream().filter(it -> it.name().equals(name)).findFirst()
                .orElseThrow().id();
    }

    private static void assertNobody(String address, Open rule, int status) {
        if (rule == Open.TO_ALL) {
            assertThat(status).isNotIn(401, 403, 404, 500);
        } else if (rule == Open.TO_NOBODY) {
            assertThat(status).isEqualTo(404);
        } else {
            assertThat(status).as("to the sign-in").isEqualTo(302);
        }
    }

    private boolean mayEnter(Open rule, Person viewer) {
        return switch (rule) {
            case TO_ALL, TO_SIGNED_IN -> true;
            case TO_NOBODY -> false;
            case TO_EVERY_TEACHER -> viewer.isTeacher();
            case TO_EVERY_STUDENT -> !viewer.isTeacher();
            case TO_CLASS -> viewer.equals(school.student()) || viewer.equals(school.neighbour()) || viewer.equals(school.teacher());
            case TO_INVITED -> viewer.equals(school.neighbour());
            case TO_CREW -> viewer.equals(school.student());
            case TO_TEACHER -> viewer.equals(school.teacher());
            case TO_CREW_AND_TEACHER -> viewer.equals(school.student()) || viewer.equals(school.teacher());
        };
    }

    private int status(String address, Person viewer) throws Exception {
        String method = address.substring(0, address.indexOf(' '));
        URI path = URI.create(filled(address));
        MockHttpServletRequestBuilder request;
        if (address.equals("POST /episodes/{episodeId}/takes") || address.equals("POST /takes/{takeId}/returned") || address.equals("POST /classes/{classId}/shelf")) {
            request = MockMvcRequestBuilders.multipart(path)
                    .file(new MockMultipartFile("file", "a.wav", "audio/wav", "no sound".getBytes())).param("trackName", "Noor");
        } else {
            request = MockMvcRequestBuilders.request(HttpMethod.valueOf(method), path);
            if (method.equals("PUT")) {
                request.contentType(MediaType.APPLICATION_OCTET_STREAM).content(new byte[4]);
            } else if (BODIES.containsKey(address)) {
                request.contentType(MediaType.APPLICATION_JSON).content(BODIES.get(address).replace("SOUND", Long.toString(soundId))
                        .replace("SECOND", Long.toString(secondClass)));
            }
        }
        request.param("laptop", "00000000-0000-4000-8000-000000000000").param("rate", "48000").param("channels", "1").param("track", "Noor");
        for (Map.Entry<String, String> parameter : Map.of("firstFrame", "0", "crc32", ZEROS_CRC32, "decision", "ANOTHER_PASS", "email", "x",
                "password", "x", "code", "x", "name", "x", "passphrase", "x", "title", "", "description", "").entrySet()) {
            request.param(parameter.getKey(), parameter.getValue());
        }
        if (address.endsWith("/let-through")) {
            request.param("kind", "HUM").param("reason", "It is the river.");
        }
        if (address.endsWith("/unheard")) {
            request.param("reason", "We heard it in class.");
        }
        if (address.endsWith("/early-listeners")) {
            request.param("crew", "1");
        }
        if (address.endsWith("/news/mail")) {
            request.param("mail", "DAILY");
        }
        if (address.endsWith("/held")) {
            request.param("held", "false");
        }
        if (address.endsWith("/judged")) {
            request.param("agreed", "true");
        }
        if (address.endsWith("/replies")) {
            request.param("words", "We will.");
        }
        if (address.endsWith("/class-recipes")) {
            request.param("steps", "low-cut:80").param("advice", "For the hall.");
        }
        if (address.endsWith("/consents")) {
            request.param("consent", "PUBLIC");
        }
        if (address.endsWith("/cleanup")) {
            request.param("steps", "low-cut:80");
        }
        if (address.endsWith("/shelf")) {
            request.param("kind", "MUSIC");
        }
        if (address.endsWith("/voices")) {
            request.param("nobody", "true");
        }
        if (address.contains("/joins/")) {
            request.param("yes", "true");
        }
        if (address.endsWith("/notes")) {
            request.param("kind", "LOVELY").param("words", "Well said.").param("from", "0:00").param("to", "0:01.5");
        }
        request.with(csrf());
        if (viewer != null) {
            request.with(As.person(viewer));
        }
        return mvc.perform(request).andReturn().getResponse().getStatus();
    }

    private String filled(String address) {
        Map<String, Object> values = Map.ofEntries(Map.entry("crewId", crewId), Map.entry("studentId", address.endsWith("/leave") ? leavingStudent : address.endsWith("/delete") ? deletedStudent : spareStudent), Map.entry("partId", partId),
                Map.entry("soundId", address.contains("/sounds/") ? schools.sound(school, readyTake).id() : soundId), Map.entry("excerptId", excerptId), Map.entry("invitationKey", invitationKey),
                Map.entry("resetKey", resetKey), Map.entry("teacherId", secondTeacher),
                Map.entry("classId", address.matches(".*/(let-go|take-back)") ? secondClass : school.classId()), Map.entry("otherClassId", school.otherClassId()), Map.entry("lineUpId", lineUpId),
                Map.entry("episodeId", school.episodeId()), Map.entry("handInId", handIn.id()),
                Map.entry("sourceFrame", 100), Map.entry("part", "AFTER"), Map.entry("recipeId", address.contains("class-recipes") ? classRecipe() : 0), Map.entry("takeId", address.endsWith("/erase") ? takeToErase : address.endsWith("/choose") ? lineTake : readyTake), Map.entry("noteId", address.contains("/spoken") || address.contains("/notes/{noteId}/sound") ? spokenNote : address.contains("take-back") ? noteToTakeBack : address.endsWith("/held") || address.endsWith("/report") ? guestsNote : noteToTick), Map.entry("uploadKey", address.contains("/files/") ? fileKey : uploadKey), Map.entry("number", 0), Map.entry("level", 0), Map.entry("tile", 0), Map.entry("revision", 2),
                Map.entry("trackId", 1), Map.entry("columns", 8), Map.entry("frame", 0), Map.entry("key", "a".repeat(32)), Map.entry("clipId", 1), Map.entry("finish", "0_-1000"), Map.entry("from", 0), Map.entry("to", 480), Map.entry("feedKey", feedKey),
                Map.entry("episodeKey", episodeKey), Map.entry("slug", "eels"));
        Matcher matcher = Pattern.compile("\\{(\\w+)(:[^}]*)?}").matcher(address.substring(address.indexOf(' ') + 1));
        return matcher.replaceAll(match -> values.get(match.group(1)).toString());
    }

    private Set<String> addresses() {
        Set<String> addresses = new TreeSet<>();
        mappings.getHandlerMethods().forEach((info, handler) -> {
            if (handler.getBeanType().getName().startsWith("org.mellowclass")) {
                for (String path : info.getPatternValues()) {
                    info.getMethodsCondition().getMethods().forEach(method -> addresses.add(method + " " + path));
                    assertThat(info.getMethodsCondition().getMethods()).as("methods of %s", path).isNotEmpty();
                }
            }
        });
        return addresses;
    }
}
