package org.mellowclass.app.roster;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;

import org.mellowclass.app.people.Consent;
import org.mellowclass.app.roster.RosterReader.Entry;
import org.mellowclass.app.roster.RosterReader.Row;

/**
 * What importing a list would do, row by row, before anything is written. The key is the school's student number if there
 * is one, else name and class; where that leaves a doubt, the row is asked about.
 */
public record RosterPlan(List<Line> lines) {

    /** The answer for a row in doubt: none of those known. */
    static final long SOMEBODY_NEW = 0;

    /**
     * What whoever brings a list in has said about it.
     *
     * @param who   for rows in doubt, by their lines: a student's id, or {@link #SOMEBODY_NEW}
     * @param means what the list's own words for a consent mean, by the words in small letters; empty where they say nothing
     */
    public record Answers(Map<Integer, Long> who, Map<String, Optional<Consent>> means) {

        public static final Answers NONE = new Answers(Map.of(), Map.of());
    }

    public enum Kind { NEW, JOINS, WAITS, CHANGED, SAME, ASK, BAD }

    /**
     * A student of the school, as far as the plan needs to know.
     *
     * @param classes the names of all their classes
     * @param free    whether the viewer may take them into a class without asking: they are in none, or in one that the viewer teaches
     */
    public record Known(long id, String number, String name, String onAirName, String crew, Consent consent, boolean inThisClass, String classes, boolean free) {
    }

    /**
     * @param student    who it is; null for somebody new, for a row in doubt and for one that cannot be used
     * @param problem    the message of a row that cannot be used; null for others
     * @param candidates whom a row in doubt may mean
     */
    public record Line(Row row, Kind kind, Known student, String problem, List<Known> candidates) {

        public Entry entry() {
            return row.entry();
        }
    }

    static RosterPlan of(List<Row> rows, List<Known> school, Answers answers) {
        List<Line> lines = new ArrayList<>();
        Set<String> numbers = new HashSet<>();
        Map<String, Row> names = new HashMap<>();
        Set<Long> met = new HashSet<>();
        for (Row said : rows) {
            Row row = meant(said, answers.means);
            Line line = line(row, school, answers.who);
            if (line.kind != Kind.BAD) {
                String number = row.entry().number();
                Row before = names.put(key(row.entry().name()), row);
                boolean twice = !number.isEmpty() && !numbers.add(key(number)) || line.student != null && !met.add(line.student.id)
                        || before != null && number.isEmpty() && before.entry().number().isEmpty();
                if (twice) {
                    line = new Line(row, Kind.BAD, null, "TWICE", List.of());
                }
            }
            lines.add(line);
        }
        return new RosterPlan(lines);
    }

    /** The row with the consent that its words mean, once somebody has said that. */
    private static Row meant(Row row, Map<String, Optional<Consent>> means) {
        Optional<Consent> meant = means.get(key(row.unclear()));
        if (row.unclear().isEmpty() || meant == null) {
            return row;
        }
        Entry entry = row.entry();
        return new Row(row.line(), row.text(), row.stands(), new Entry(entry.number(), entry.name(), entry.onAirName(), entry.crew(), meant.orElse(null)), null, "");
    }

    /** The words for a consent that nobody has said the meaning of, each once. */
    public List<String> unclear() {
        return lines.stream().map(line -> line.row.unclear()).filter(words -> !words.isEmpty()).map(RosterPlan::key).distinct().toList();
    }

    /** Whether nothing is in doubt. */
    public boolean clear() {
        return count(Kind.ASK) == 0 && unclear().isEmpty();
    }

    private static Line line(Row row, List<Known> school, Map<Integer, Long> answers) {
        if (row.entry() == null) {
            return new Line(row, Kind.BAD, null, row.problem().name(), List.of());
        }
        Entry entry = row.entry();
        if (!entry.number().isEmpty()) {
            for (Known known : school) {
                if (key(entry.number()).equals(key(known.number))) {
                    return found(row, known);
                }
            }
        }
        List<Known> namesakes = school.stream().filter(known -> key(known.name).equals(key(entry.name()))
                && (entry.number().isEmpty() || known.number.isEmpty())).toList();
        List<Known> here = namesakes.stream().filter(Known::inThisClass).toList();
        // the same name in this class, and no number that could tell more: the same student
        if (here.size() == 1 && entry.number().isEmpty() && namesakes.size() == 1) {
            return found(row, here.get(0));
        }
        if (namesakes.isEmpty()) {
            return new Line(row, Kind.NEW, null, null, List.of());
        }
        Long answer = answers.get(row.line());
        if (answer != null && answer == SOMEBODY_NEW) {
            return new Line(row, Kind.NEW, null, null, namesakes);
        }
        for (Known candidate : namesakes) {
            if (answer != null && answer == candidate.id) {
                Line found = found(row, candidate);
                return new Line(row, found.kind, candidate, null, namesakes);
            }
        }
        return new Line(row, Kind.ASK, null, null, namesakes);
    }

    private static Line found(Row row, Known known) {
        Entry entry = row.entry();
        boolean same = known.name.equals(entry.name()) && tells(entry.number(), known.number)
                && tells(entry.onAirName(), known.onAirName) && tells(entry.crew(), known.crew)
                && (entry.consent() == null || entry.consent() == known.consent);
        return new Line(row, !known.inThisClass ? known.free ? Kind.JOINS : Kind.WAITS : same ? Kind.SAME : Kind.CHANGED, known, null, List.of());
    }

    /** Whether what a list says is nothing new; an empty field says nothing. */
    private static boolean tells(String said, String known) {
        return said.isEmpty() || Objects.equals(said, known);
    }

    static String key(String text) {
        return text.toLowerCase(Locale.ROOT);
    }

    /** How many rows of the list are of a kind. */
    public long count(Kind kind) {
        return lines.stream().filter(line -> line.kind == kind).mapToLong(line -> line.row.stands()).sum();
    }

    /** How many rows would change something. */
    public long toWrite() {
        return count(Kind.NEW) + count(Kind.JOINS) + count(Kind.WAITS) + count(Kind.CHANGED);
    }
}
