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
 * Each role against each address. The addresses are Spring's own, so that a new one without a line in {@link AccessRules} fails the test.
 */
@AppTest
class AccessMatrixTest {

    /** Of four zero bytes. */
    private static final String ZEROS_CRC32 = "558161692";

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
        tests.add(dynamicTest("every address has its line", () -> assertThat(addresses()).isEqualTo(AccessRules.OPEN.keySet())));
        for (String address : addresses()) {
            AccessRules.Open rule = AccessRules.OPEN.get(address);
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

    private static void assertNobody(String address, AccessRules.Open rule, int status) {
        if (rule == AccessRules.Open.TO_ALL) {
            assertThat(status).isNotIn(401, 403, 404, 500);
        } else if (rule == AccessRules.Open.TO_NOBODY) {
            assertThat(status).isEqualTo(404);
        } else {
            assertThat(status).as("to the sign-in").isEqualTo(302);
        }
    }

    private boolean mayEnter(AccessRules.Open rule, Person viewer) {
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
            } else if (AccessRules.BODIES.containsKey(address)) {
                request.contentType(MediaType.APPLICATION_JSON).content(AccessRules.BODIES.get(address).replace("SOUND", Long.toString(soundId))
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
                Map.entry("episodeKey", episodeKey), Map.entry("slug", "eels"), Map.entry("id", 0));
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
