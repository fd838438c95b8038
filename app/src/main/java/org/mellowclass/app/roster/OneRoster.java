package org.mellowclass.app.roster;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.StringReader;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;

import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVPrinter;
import org.apache.commons.csv.CSVRecord;
import org.mellowclass.app.web.Fields;
import org.mellowclass.app.web.Refusal;

/**
 * Reads who is in which class from a set of CSV files in a ZIP, as school systems give it out (1EdTech OneRoster 1.1, CSV
 * tables: users, classes, enrollments). Names and numbers of students are taken; addresses, parents and marks are not looked at.
 */
final class OneRoster {

    private static final int LARGEST_TABLE = 8 << 20;
    private static final int MOST_ENTRIES = 200;
    private static final int MOST_ROWS = 100_000;
    private static final int MOST_CLASSES = 60;
    private static final Set<String> TABLES = Set.of("users.csv", "classes.csv", "enrollments.csv");

    private OneRoster() {
    }

    /**
     * A class of the set.
     *
     * @param list its students, as {@link RosterReader} reads them
     */
    public record OfClass(String title, int students, String list) {
    }

    /** Whether a file is a ZIP at all. */
    static boolean isZip(byte[] file) {
        return file.length > 4 && file[0] == 'P' && file[1] == 'K' && file[2] == 3 && file[3] == 4;
    }

    /**
     * The classes that have students, by their titles.
     *
     * @throws Refusal if a table is missing, larger than 8 MB, or cannot be read
     */
    static List<OfClass> read(byte[] zip) {
        Map<String, String> tables = tables(zip);
        if (!tables.keySet().containsAll(TABLES)) {
            throw Refusal.unfit("roster.ONE_ROSTER");
        }
        Map<String, CSVRecord> students = new HashMap<>();
        for (CSVRecord user : records(tables.get("users.csv"))) {
            if (active(user) && value(user, "role").equalsIgnoreCase("student") && !value(user, "enabledUser").equalsIgnoreCase("false")) {
                students.put(value(user, "sourcedId"), user);
            }
        }
        Map<String, Set<CSVRecord>> enrolled = new HashMap<>();
        for (CSVRecord enrolment : records(tables.get("enrollments.csv"))) {
            CSVRecord student = students.get(value(enrolment, "userSourcedId"));
            if (active(enrolment) && student != null && value(enrolment, "role").equalsIgnoreCase("student")) {
                enrolled.computeIfAbsent(value(enrolment, "classSourcedId"), any -> new LinkedHashSet<>()).add(student);
            }
        }
        List<OfClass> classes = new ArrayList<>();
        for (CSVRecord schoolClass : records(tables.get("classes.csv"))) {
            Set<CSVRecord> here = enrolled.getOrDefault(value(schoolClass, "sourcedId"), Set.of());
            if (active(schoolClass) && !here.isEmpty() && classes.size() < MOST_CLASSES) {
                classes.add(new OfClass(value(schoolClass, "title"), here.size(), list(here)));
            }
        }
        if (classes.isEmpty()) {
            throw Refusal.unfit("roster.ONE_ROSTER");
        }
        classes.sort(Comparator.comparing(OfClass::title));
        return classes;
    }

    private static String list(Set<CSVRecord> students) {
        StringBuilder list = new StringBuilder();
        try (CSVPrinter printer = new CSVPrinter(list, CSVFormat.DEFAULT)) {
            printer.printRecord("number", "first name", "last name");
            for (CSVRecord student : students) {
                String number = value(student, "identifier");
                printer.printRecord(number.isEmpty() ? value(student, "sourcedId") : number, value(student, "givenName"), value(student, "familyName"));
            }
        } catch (IOException impossible) {
            throw new IllegalStateException(impossible);
        }
        return list.toString();
    }

    private static Map<String, String> tables(byte[] zip) {
        Map<String, String> tables = new HashMap<>();
        try (ZipInputStream in = new ZipInputStream(new ByteArrayInputStream(zip))) {
            int entries = 0;
            for (ZipEntry entry = in.getNextEntry(); entry != null && entries++ < MOST_ENTRIES; entry = in.getNextEntry()) {
                String name = Fields.lastOfPath(entry.getName()).toLowerCase(Locale.ROOT);
                if (TABLES.contains(name)) {
                    byte[] table = in.readNBytes(LARGEST_TABLE + 1);
                    if (table.length > LARGEST_TABLE) {
                        throw Refusal.unfit("roster.TOO_LARGE");
                    }
                    tables.put(name, RosterReader.decode(table));
                }
            }
        } catch (IOException | IllegalArgumentException broken) {
            throw Refusal.unfit("roster.ONE_ROSTER");
        }
        return tables;
    }

    private static List<CSVRecord> records(String table) {
        CSVFormat format = CSVFormat.DEFAULT.builder().setHeader().setSkipHeaderRecord(true).setIgnoreHeaderCase(true).setTrim(true)
                .setAllowMissingColumnNames(true).setMaxRows(MOST_ROWS).get();
        String plain = table.isEmpty() || table.charAt(0) != '\uFEFF' ? table : table.substring(1);
        try (CSVParser parser = CSVParser.builder().setReader(new StringReader(plain)).setFormat(format).get()) {
            return parser.getRecords();
        } catch (IOException | RuntimeException broken) {
            throw Refusal.unfit("roster.ONE_ROSTER");
        }
    }

    private static String value(CSVRecord row, String column) {
        return row.isSet(column) ? row.get(column).strip() : "";
    }

    /** Of a bulk file the status is empty; in a delta one, what is to be deleted says so. */
    private static boolean active(CSVRecord row) {
        return !value(row, "status").equalsIgnoreCase("tobedeleted");
    }
}
