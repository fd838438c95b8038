package org.mellowclass.app.review;

import java.io.IOException;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.OptionalLong;
import java.util.Set;

import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.mellowclass.app.brief.Briefs;
import org.mellowclass.app.brief.Criterion;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Episode;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.web.Fields;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.app.web.Words;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Span;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Marks by the brief's rubric: drafts until they are sent; those of one student are seen by that student alone. */
@Service
@Transactional
public class Marks {

    private static final int LONGEST_SENTENCE = 300;
    private static final int LONGEST_SUMMARY = 1000;
    private static final int LONGEST_PLACES = 1000;
    private static final int MOST_PLACES = 5;
    private static final String[] CSV_HEADER = {"crew", "episode", "hand-in", "student", "criterion", "points", "most points", "level", "places", "sentence", "summary", "sent at"};

    private final MarksMapper marks;
    private final HandIns handIns;
    private final Briefs briefs;
    private final Access access;
    private final Words times;
    private final Clock clock;

    Marks(MarksMapper marks, HandIns handIns, Briefs briefs, Access access, Words times, Clock clock) {
        this.marks = marks;
        this.handIns = handIns;
        this.briefs = briefs;
        this.access = access;
        this.times = times;
        this.clock = clock;
    }

    /**
     * Points for a criterion.
     *
     * @param studentId whose alone; null for the crew's
     * @param points    null where none are given
     * @param level     what they meant then; may be empty
     */
    public record Mark(Long studentId, int position, String criterion, int mostPoints, Integer points, String level, String sentence) {
    }

    /** A place of the hand-in that speaks for the crew's mark by a criterion. */
    public record Place(int position, long startFrame, long endFrame) {

        public Span span() {
            return new Span(startFrame, endFrame);
        }
    }

    /** @param sentAt null for a draft, which only teachers see */
    public record Sheet(List<Mark> marks, List<Place> places, String summary, Instant sentAt) {

        public List<Span> placesOf(int position) {
            return places.stream().filter(place -> place.position == position).map(Place::span).toList();
        }

        /** The crew's own for a criterion, or what is known of it. */
        public Mark ofCrew(int position) {
            return find(position, null);
        }

        public Mark ofStudent(int position, long studentId) {
            return find(position, studentId);
        }

        private Mark find(int position, Long studentId) {
            return marks.stream().filter(mark -> mark.position == position && Objects.equals(mark.studentId, studentId)).findFirst().orElse(null);
        }

        public boolean sent() {
            return sentAt != null;
        }
    }

    /** What is asked for of a hand-in and who can be marked alone. */
    public record Asked(List<Criterion> rubric, List<Person> students) {
    }

    @Transactional(readOnly = true)
    public Asked asked(Person viewer, HandIn handIn) {
        Episode episode = access.episode(viewer, handIn.episodeId());
        return new Asked(briefs.whole(episode.classId()).rubric(), access.crewOf(episode));
    }

    /** As the viewer, whom {@link HandIns#find} has let through, may see it: the crew sees what was sent, and each student their own. */
    @Transactional(readOnly = true)
    public Sheet sheet(Person viewer, HandIn handIn) {
        MarksMapper.Marking marking = marks.marking(handIn.id()).filter(it -> viewer.isTeacher() || it.sentAt() != null).orElse(null);
        return marking == null ? new Sheet(List.of(), List.of(), "", null) : new Sheet(marks.of(handIn.id()).stream()
                .filter(mark -> viewer.isTeacher() || mark.studentId == null || mark.studentId == viewer.id()).toList(), marks.places(handIn.id()), marking.summary(), marking.sentAt());
    }

    /**
     * Keeps a draft, or sends it; what was sent before stays sent.
     *
     * @param typed {@code points-N} and {@code sentence-N} for the N-th criterion, {@code places-N} as {@code 0:12 to 0:15, 1:03.5 to 1:10}, {@code points-N-S} for student S alone, and {@code summary}
     */
    public void save(Person viewer, long handInId, Map<String, String> typed, boolean send) {
        HandIn handIn = handIns.find(viewer, handInId);
        access.taughtEpisode(viewer, handIn.episodeId());
        // nobody waits while it is read
        String summary = Fields.optional(typed.get("summary"), LONGEST_SUMMARY, "marks.TOO_LONG");
        Asked asked = asked(viewer, handIn);
        List<Mark> all = new ArrayList<>();
        Set<Place> places = new LinkedHashSet<>();
        for (int i = 0; i < asked.rubric.size(); i++) {
            Criterion criterion = asked.rubric.get(i);
            String sentence = Fields.optional(typed.get("sentence-" + i), LONGEST_SENTENCE, "marks.TOO_LONG");
            all.add(mark(null, i, criterion, points(typed.get("points-" + i), criterion), sentence));
            for (Span place : places(typed.get("places-" + i), criterion, handIn)) {
                places.add(new Place(i, place.startFrame(), place.endFrame()));
            }
            for (Person student : asked.students) {
                Integer own = points(typed.get("points-" + i + "-" + student.id()), criterion);
                if (own != null) {
                    all.add(mark(student.id(), i, criterion, own, ""));
                }
            }
        }
        access.hold(handIn.episodeId());
        Instant now = clock.instant();
        marks.save(handInId, viewer.id(), summary, now, send ? now : null);
        marks.forgetPoints(handInId);
        marks.forgetPlaces(handInId);
        all.forEach(mark -> marks.add(handInId, mark));
        places.forEach(place -> marks.addPlace(handInId, place));
    }

    private static Mark mark(Long studentId, int position, Criterion criterion, Integer points, String sentence) {
        return new Mark(studentId, position, criterion.name(), criterion.mostPoints(), points, points == null ? "" : criterion.level(points), sentence);
    }

    private List<Span> places(String typed, Criterion criterion, HandIn handIn) {
        List<Span> places = new ArrayList<>();
        if (typed != null && typed.length() > LONGEST_PLACES) {
            throw Refusal.unfit("marks.PLACES", criterion.name(), MOST_PLACES);
        }
        for (String place : typed == null || typed.isBlank() ? new String[0] : typed.split("[,;]")) {
            String[] ends = place.split("-|–|to", 2);
            OptionalLong start = times.frames(ends[0]);
            OptionalLong end = times.frames(ends[ends.length - 1]);
            if (ends.length < 2 || start.isEmpty() || end.isEmpty() || start.getAsLong() >= Math.min(end.getAsLong(), handIn.frames()) || places.size() == MOST_PLACES) {
                throw Refusal.unfit("marks.PLACES", criterion.name(), MOST_PLACES);
            }
            places.add(new Span(start.getAsLong(), Math.min(end.getAsLong(), handIn.frames())));
        }
        return places;
    }

    private static Integer points(String typed, Criterion criterion) {
        if (typed == null || typed.isBlank()) {
            return null;
        }
        if (!typed.matches("\\d{1,3}") || Integer.parseInt(typed) > criterion.mostPoints()) {
            throw Refusal.unfit("marks.POINTS", criterion.name(), criterion.mostPoints());
        }
        return Integer.valueOf(typed);
    }

    /** A mark with all that a list of the class says of it. */
    public record OfClass(long crewId, String crewName, String title, long handInId, int number, String studentName, int position, String criterion, int mostPoints,
                          Integer points, String level, String places, String sentence, String summary, Instant sentAt) {
    }

    /** All marks of a class, drafts among them, by crew, hand-in and criterion. */
    @Transactional(readOnly = true)
    public List<OfClass> ofClass(Person viewer, long classId) {
        return marks.ofClass(access.taughtClass(viewer, classId).id(), Frames.RATE);
    }

    /** The same as a table for other programs (RFC 4180), one line a mark; {@code sent at} is empty for drafts. */
    @Transactional(readOnly = true)
    public String csv(Person viewer, long classId) {
        StringWriter csv = new StringWriter();
        try (CSVPrinter printer = new CSVPrinter(csv, CSVFormat.RFC4180.builder().setHeader(CSV_HEADER).get())) {
            for (OfClass mark : ofClass(viewer, classId)) {
                printer.printRecord(disarmed(mark.crewName), disarmed(mark.title), mark.number, disarmed(mark.studentName), disarmed(mark.criterion), mark.points, mark.mostPoints, disarmed(mark.level), mark.places,
                        disarmed(mark.sentence), disarmed(mark.summary), mark.sentAt);
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return csv.toString();
    }

    /** What a spreadsheet would take for a formula gets an apostrophe in front (OWASP, CSV injection). */
    private static String disarmed(String text) {
        return text != null && text.matches("(?s)[=+\\-@\\t\\r].*") ? "'" + text : text;
    }
}
