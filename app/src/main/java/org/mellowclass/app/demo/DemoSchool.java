package org.mellowclass.app.demo;

import java.io.IOException;
import java.time.Clock;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.temporal.TemporalAdjusters;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;

import org.mellowclass.app.bench.Bench;
import org.mellowclass.app.feed.AirDesk;
import org.mellowclass.app.incoming.BringingIn;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Consent;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.SchoolOffice;
import org.mellowclass.app.people.Voices;
import org.mellowclass.app.people.Voices.Speaker;
import org.mellowclass.app.review.HandIn;
import org.mellowclass.app.review.HandIns;
import org.mellowclass.app.review.Listening;
import org.mellowclass.app.review.MarginNote;
import org.mellowclass.app.review.MarginNotes;
import org.mellowclass.app.review.Marks;
import org.mellowclass.app.roster.Roster;
import org.mellowclass.app.roster.Student;
import org.mellowclass.app.takes.TakeShelf;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.edit.Remove;
import org.springframework.stereotype.Component;

/**
 * The demo school: a class whose crews stand at different stages and show different troubles. Everything in it is made
 * through the services that people use; people, places and voices are made up.
 */
@Component
class DemoSchool {

    static final String TEACHER_EMAIL = "okoro@saltmarsh.example";
    static final String TEACHER_PASSWORD = "high tide at nine";
    static final String CLASS_CODE = "HERON8";

    /** A student of the demo school, as the start command tells them. */
    record SignIn(String crew, String name, String passphrase) {
    }

    static final List<SignIn> STUDENTS = List.of(
            new SignIn("Kingfisher", "Noor", "amber oar"), new SignIn("Kingfisher", "Ravi", "copper bell"),
            new SignIn("Mudlark", "Tess", "green jetty"), new SignIn("Mudlark", "Jonah", "salt rope"),
            new SignIn("Lantern", "Isla", "quiet lock"), new SignIn("Avocet", "Mina", "brown tide"),
            new SignIn("Sandpiper", "Otis", "long shore"), new SignIn("Ferry", "Wren", "two tickets"));

    private final SchoolOffice office;
    private final DemoBrief brief;
    private final Roster roster;
    private final Access access;
    private final Waiting waiting;
    private final BringingIn bringingIn;
    private final TakeShelf takes;
    private final Bench bench;
    private final HandIns handIns;
    private final MarginNotes notes;
    private final Listening listening;
    private final Marks marks;
    private final AirDesk airDesk;
    private final Voices voices;
    private final Clock clock;

    DemoSchool(SchoolOffice office, DemoBrief brief, Roster roster, Access access, Waiting waiting, BringingIn bringingIn, TakeShelf takes, Bench bench,
               HandIns handIns, MarginNotes notes, Listening listening, Marks marks, AirDesk airDesk, Voices voices, Clock clock) {
        this.office = office;
        this.brief = brief;
        this.roster = roster;
        this.access = access;
        this.waiting = waiting;
        this.bringingIn = bringingIn;
        this.takes = takes;
        this.bench = bench;
        this.handIns = handIns;
        this.notes = notes;
        this.listening = listening;
        this.marks = marks;
        this.airDesk = airDesk;
        this.voices = voices;
        this.clock = clock;
    }

    /** Loads the school into an empty database; a second call does nothing. */
    void load() throws IOException {
        if (office.hasSchool()) {
            return;
        }
        long school = office.addSchool("Saltmarsh Lane School", "Europe/London");
        Person teacher = office.addTeacher(school, "Ms Okoro", TEACHER_EMAIL, TEACHER_PASSWORD);
        long classId = office.addClass(teacher, "8 Heron", CLASS_CODE);
        LocalDate due = LocalDate.now(clock).plusDays(7).with(TemporalAdjusters.nextOrSame(DayOfWeek.FRIDAY));
        brief.fill(teacher, classId, due, waiting);

        Crew kingfisher = crew(school, classId, "Kingfisher", "The night the footbridge floated");
        Crew mudlark = crew(school, classId, "Mudlark", "Why the eels came back");
        Crew lantern = crew(school, classId, "Lantern", "The lock-keeper’s kettle");
        Crew avocet = crew(school, classId, "Avocet", "What the mud remembers");
        Crew sandpiper = crew(school, classId, "Sandpiper", "Bells at low water");
        crew(school, classId, "Ferry", "Two tickets to the far side");
        recordConsents(teacher, classId);
        for (Crew crew : List.of(kingfisher, mudlark, lantern, avocet, sandpiper)) {
            access.openedEpisode(crew.first(), crew.episodeId);
        }

        bringIn(kingfisher, "kingfisher-voices", "Noor and Ravi");
        bringIn(kingfisher, "tide-music", "Tide music");
        handIns.decide(teacher, handIn(kingfisher).id(), HandIn.Decision.CLEARED, "What a night. I could see the ducks.");
        listening.letUnheardThrough(teacher, handIn(kingfisher).id(), "We heard it together in class.");
        airDesk.publish(teacher, kingfisher.episodeId, "The night the footbridge floated",
                "A bridge goes for a swim, and forty people watch. By the Kingfisher crew.");
        waiting.until(() -> airDesk.onAir(kingfisher.episodeId).isPresent());

        bringIn(lantern, "lantern-kettle", "Isla");
        bringIn(lantern, "tide-music", "Tide music");
        HandIn kettle = handIn(lantern);
        handIns.decide(teacher, kettle.id(), HandIn.Decision.CLEARED, "Lovely. Next time, put the music further under you.");
        marks.save(teacher, kettle.id(), Map.of("points-0", "4", "sentence-0", "I did not see the lid coming.", "points-1", "3", "sentence-1", "The music is over you now and then.",
                "points-2", "3", "summary", "A small story, well told."), true);

        bringIn(avocet, "avocet-mud", "Mina");
        HandIn mud = handIn(avocet);
        notes.write(teacher, mud.id(), MarginNotes.Wish.of(MarginNote.Kind.LOVELY, "I can smell the mud. Keep this.", Frames.ofMillis(1_500), Frames.ofMillis(6_000)));
        notes.write(teacher, mud.id(), MarginNotes.Wish.of(MarginNote.Kind.MEND, "The laugh crackles here. Say it again, further back.",
                Frames.ofMillis(14_500), Frames.ofMillis(16_500)));
        notes.write(teacher, mud.id(), MarginNotes.Wish.of(MarginNote.Kind.QUESTION, "What happens in this silence?", Frames.ofMillis(27_500), Frames.ofMillis(32_000)));
        handIns.decide(teacher, mud.id(), HandIn.Decision.ANOTHER_PASS,
                "The laugh crackles and there is a long silence after it. Mend both, then hand in.");

        bringIn(mudlark, "mudlark-tess", "Tess");
        bringIn(mudlark, "mudlark-jonah", "Jonah");
        removeStart(mudlark);
        handIn(mudlark);

        bringIn(sandpiper, "sandpiper-bells", "Otis");
    }

    /** Numbers as the school's office has them, and consents: one child is heard in the school only, one has not answered yet. */
    private void recordConsents(Person teacher, long classId) {
        int number = 801;
        for (Student student : roster.students(teacher, classId)) {
            Consent consent = switch (student.name()) {
                case "Otis" -> Consent.SCHOOL;
                case "Wren" -> null;
                default -> Consent.PUBLIC;
            };
            roster.change(teacher, classId, student.id(), student.name(), Integer.toString(number++), student.onAirName(), consent);
        }
    }

    private record Crew(List<Person> members, long episodeId) {
        Person first() {
            return members.get(0);
        }
    }

    private Crew crew(long school, long classId, String name, String title) {
        List<Person> members = new ArrayList<>();
        for (SignIn student : STUDENTS) {
            if (student.crew.equals(name)) {
                members.add(office.addStudent(school, student.name, student.passphrase));
            }
        }
        return new Crew(List.copyOf(members), office.addCrew(classId, name, title, members));
    }

    private void bringIn(Crew crew, String sound, String track) throws IOException {
        long take = bringingIn.bringIn(crew.first(), crew.episodeId, sound + ".flac", track, DemoBrief.shipped(sound));
        waiting.until(() -> takes.ready(crew.episodeId).containsKey(take));
        List<Person> speak = crew.members.stream().filter(person -> track.contains(person.name())).toList();
        voices.name(crew.first(), crew.episodeId, take, speak.stream().map(person -> new Speaker.Student(person.id())).collect(Collectors.toSet()), speak.isEmpty());
    }

    /** The first edit of a crew: the silence before the first word. */
    private void removeStart(Crew crew) {
        Timeline timeline = bench.head(crew.first(), crew.episodeId).timeline();
        bench.edit(crew.first(), crew.episodeId, bench.head(crew.first(), crew.episodeId).seq(), "demo-first-edit",
                new Remove(new Span(0, Frames.ofMillis(300)), timeline.trackIds()));
    }

    private HandIn handIn(Crew crew) {
        HandIn handIn = handIns.handIn(crew.first(), crew.episodeId);
        waiting.until(() -> handIns.find(crew.first(), handIn.id()).ready());
        return handIn;
    }
}
