package org.mellowclass.app.roster;

import java.io.IOException;
import java.io.StringReader;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Pattern;

import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import org.mellowclass.app.people.Consent;
import org.mellowclass.app.people.OnAirNames;
import org.mellowclass.app.people.SchoolOffice;
import org.mellowclass.app.web.Refusal;

/**
 * Reads a list of students as schools keep it: comma, semicolon or tab between the columns, with or without a header, with
 * or without quotes, in UTF-8, UTF-16 with its mark, or Windows-1252. A row that cannot be used says why, and the others are
 * read all the same.
 */
public final class RosterReader {

    /** More is no class. */
    static final int MOST_ROWS = 400;
    private static final int LONGEST_NUMBER = 40;
    private static final int LONGEST_CREW = 60;
    private static final int LONGEST_CONSENT = 60;
    /** A quoted field may run over a few lines; an open quote does not swallow the rest of the list. */
    private static final int MOST_LINES_A_ROW = 4;
    private static final String FORMULA = "=+-@";
    private static final char BYTE_ORDER_MARK = '\uFEFF';
    /** A letter of any alphabet first, so that no sheet takes a name for a formula. */
    private static final Pattern NAME = Pattern.compile("\\p{L}[^\\p{Cntrl}]*");
    /** What no list of names holds, in whatever encoding. */
    private static final Pattern NO_TEXT = Pattern.compile("[\\x00-\\x08\\x0E-\\x1F]");
    private static final Pattern NUMBER = Pattern.compile("[A-Za-z]{0,3}[-/]?\\d[\\w-]*");

    private RosterReader() {
    }

    /**
     * What a row says. Texts are stripped; what the list does not tell is empty.
     *
     * @param consent null if the list does not tell
     */
    public record Entry(String number, String name, String onAirName, String crew, Consent consent) {
    }

    /** Why a row cannot be used: {@code roster.CODE} in the messages. */
    public enum Problem { QUOTE, NO_NAME, NOT_A_NAME, NAME_TOO_LONG, NUMBER_TOO_LONG, CREW_TOO_LONG, CONSENT_TOO_LONG, SURNAME_ON_AIR, TOO_MANY_ROWS }

    /**
     * @param line    its first line in the text, from 1
     * @param stands  how many rows of the list it stands for: more than one where the rest is left out
     * @param entry   null if there is a problem
     * @param problem null if there is an entry
     * @param unclear what it says of the consent, where that is none of the steps; empty otherwise
     */
    public record Row(int line, String text, int stands, Entry entry, Problem problem, String unclear) {

        static Row problem(Raw raw, Problem problem) {
            return new Row(raw.line, raw.text, 1, null, problem, "");
        }
    }

    private enum Column {
        NUMBER("number", "no", "id", "student number", "student id", "pupil number", "admission number", "upn"),
        NAME("name", "full name", "student", "student name", "pupil", "pupil name"),
        FIRST("first name", "first", "forename", "given name"),
        LAST("last name", "last", "surname", "family name"),
        ON_AIR("on-air name", "on air name", "on air", "called"),
        CREW("crew", "group", "team"),
        CONSENT("consent", "voice consent", "permission");

        private final List<String> headings;

        Column(String... headings) {
            this.headings = List.of(headings);
        }

        static Column of(String heading) {
            String plain = heading.strip().toLowerCase(Locale.ROOT).replace('_', ' ');
            for (Column column : values()) {
                if (column.headings.contains(plain)) {
                    return column;
                }
            }
            return null;
        }
    }

    /** The text of a file, whichever of the usual encodings it is in. */
    static String decode(byte[] file) {
        if (file.length >= 2 && (file[0] == (byte) 0xFF && file[1] == (byte) 0xFE || file[0] == (byte) 0xFE && file[1] == (byte) 0xFF)) {
            return new String(file, StandardCharsets.UTF_16);
        }
        try {
            return StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(file)).toString();
        } catch (CharacterCodingException notUtf8) {
            return new String(file, Charset.forName("windows-1252"));
        }
    }

    /** @throws Refusal if it is no text: a picture, a sheet in its own format */
    static List<Row> read(String text) {
        if (NO_TEXT.matcher(text).find()) {
            throw Refusal.unfit("roster.NO_TEXT");
        }
        String plain = text.isEmpty() || text.charAt(0) != BYTE_ORDER_MARK ? text : text.substring(1);
        List<Raw> raws = rows(plain.split("\\r\\n|\\r|\\n", -1));
        char delimiter = delimiter(raws);
        List<Row> rows = new ArrayList<>();
        Map<Column, Integer> columns = null;
        for (Raw raw : raws) {
            List<String> fields = fields(raw, delimiter);
            if (fields == null) {
                rows.add(Row.problem(raw, Problem.QUOTE));
                continue;
            }
            if (columns == null) {
                columns = header(fields);
                if (!columns.isEmpty()) {
                    continue;
                }
                columns = usual(fields);
            }
            if (rows.size() >= MOST_ROWS) {
                int rest = raws.size() - raws.indexOf(raw);
                rows.add(new Row(raw.line, raw.text, rest, null, Problem.TOO_MANY_ROWS, ""));
                break;
            }
            rows.add(row(raw, fields, columns));
        }
        return rows;
    }

    private record Raw(int line, String text, boolean openQuote) {
    }

    /** The rows of the text without the empty ones: lines, put together where a quoted field runs on. */
    private static List<Raw> rows(String[] lines) {
        List<Raw> rows = new ArrayList<>();
        for (int i = 0; i < lines.length; i++) {
            if (lines[i].isBlank()) {
                continue;
            }
            StringBuilder text = new StringBuilder(lines[i]);
            int more = 0;
            while (openQuote(text) && more < MOST_LINES_A_ROW && i + more + 1 < lines.length) {
                text.append('\n').append(lines[i + ++more]);
            }
            if (openQuote(text)) {
                rows.add(new Raw(i + 1, lines[i], true));
            } else {
                rows.add(new Raw(i + 1, text.toString(), false));
                i += more;
            }
        }
        return rows;
    }

    private static boolean openQuote(CharSequence text) {
        return text.chars().filter(character -> character == '"').count() % 2 == 1;
    }

    /** What stands most often in the first row. */
    private static char delimiter(List<Raw> raws) {
        String first = raws.isEmpty() ? "" : raws.get(0).text.replaceAll("\"[^\"]*\"", "");
        char best = ',';
        for (char candidate : new char[] {';', '\t'}) {
            if (count(first, candidate) > count(first, best)) {
                best = candidate;
            }
        }
        return best;
    }

    private static long count(String text, char wanted) {
        return text.chars().filter(character -> character == wanted).count();
    }

    /** The fields of a row, stripped; null if its quotes make no sense. */
    private static List<String> fields(Raw raw, char delimiter) {
        if (raw.openQuote) {
            return null;
        }
        CSVFormat format = CSVFormat.DEFAULT.builder().setDelimiter(delimiter).setIgnoreSurroundingSpaces(true).setTrim(true).get();
        try (CSVParser parser = CSVParser.builder().setReader(new StringReader(raw.text)).setFormat(format).get()) {
            List<CSVRecord> records = parser.getRecords();
            return records.size() == 1 ? records.get(0).toList().stream().map(RosterReader::plain).toList() : null;
        } catch (IOException | RuntimeException broken) {
            return null;
        }
    }

    private static String plain(String field) {
        return field.replaceAll("[\\p{Cntrl}\\s\u00A0]+", " ").strip();
    }

    /** Which column stands where, if the first row is a header; empty if it is not. */
    private static Map<Column, Integer> header(List<String> fields) {
        Map<Column, Integer> columns = new EnumMap<>(Column.class);
        for (int i = 0; i < fields.size(); i++) {
            Column column = Column.of(fields.get(i));
            if (column != null) {
                columns.putIfAbsent(column, i);
            }
        }
        boolean names = columns.containsKey(Column.NAME) || columns.containsKey(Column.FIRST);
        return names ? columns : Map.of();
    }

    /** Without a header: a number if the first field looks like one, then the name, then the crew. */
    private static Map<Column, Integer> usual(List<String> fields) {
        Map<Column, Integer> columns = new EnumMap<>(Column.class);
        int at = 0;
        if (fields.size() > 1 && NUMBER.matcher(fields.get(0)).matches()) {
            columns.put(Column.NUMBER, at++);
        }
        columns.put(Column.NAME, at);
        columns.put(Column.CREW, at + 1);
        return columns;
    }

    private static Row row(Raw raw, List<String> fields, Map<Column, Integer> columns) {
        String whole = field(fields, columns, Column.NAME);
        String name = whole.isEmpty() ? (field(fields, columns, Column.FIRST) + " " + field(fields, columns, Column.LAST)).strip() : firstNameFirst(whole);
        String number = field(fields, columns, Column.NUMBER);
        String crew = field(fields, columns, Column.CREW);
        String onAir = field(fields, columns, Column.ON_AIR);
        String consentWords = field(fields, columns, Column.CONSENT);
        Consent consent = Consent.of(consentWords).orElse(null);
        Problem problem = null;
        if (name.isEmpty() || name.chars().noneMatch(Character::isLetter)) {
            problem = Problem.NO_NAME;
        } else if (!NAME.matcher(name).matches() || !onAir.isEmpty() && !NAME.matcher(onAir).matches() || !crew.isEmpty() && FORMULA.indexOf(crew.charAt(0)) >= 0) {
            problem = Problem.NOT_A_NAME;
        } else if (name.length() > SchoolOffice.LONGEST_NAME || onAir.length() > SchoolOffice.LONGEST_NAME) {
            problem = Problem.NAME_TOO_LONG;
        } else if (number.length() > LONGEST_NUMBER) {
            problem = Problem.NUMBER_TOO_LONG;
        } else if (crew.length() > LONGEST_CREW) {
            problem = Problem.CREW_TOO_LONG;
        } else if (consentWords.length() > LONGEST_CONSENT) {
            problem = Problem.CONSENT_TOO_LONG;
        } else if (!onAir.isEmpty() && OnAirNames.tellsSurname(onAir, name)) {
            problem = Problem.SURNAME_ON_AIR;
        }
        return problem == null ? new Row(raw.line, raw.text, 1, new Entry(number, name, onAir, crew, consent), null, consent == null ? consentWords : "") : Row.problem(raw, problem);
    }

    /** {@code Cruz, Dana} is Dana Cruz. */
    private static String firstNameFirst(String name) {
        int comma = name.indexOf(',');
        boolean two = comma > 0 && comma < name.length() - 1 && comma == name.lastIndexOf(',');
        return two ? name.substring(comma + 1).strip() + " " + name.substring(0, comma).strip() : name;
    }

    private static String field(List<String> fields, Map<Column, Integer> columns, Column column) {
        Integer at = columns.get(column);
        return at == null || at >= fields.size() ? "" : fields.get(at);
    }
}
