package org.mellowclass.app.web;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;

import org.junit.jupiter.api.Test;

/** Whatever text comes from outside, looking at it takes no longer than its length allows: of each pattern in the code, by counting. */
class PatternsTest {

    private static final List<Path> CODE = List.of(Path.of("src/main/java"), Path.of("../core/src/main/java"), Path.of("../media/src/main/java"));
    /** A literal that is a pattern, wherever the library takes one. */
    private static final Pattern USED = Pattern.compile("(Pattern\\.compile|\\.matches|\\.split|\\.replaceAll|\\.replaceFirst)\\((\"(?:[^\"\\\\]|\\\\.)*\")(?=[,)])");
    private static final Pattern OF_PARTS = Pattern.compile("Pattern\\.compile\\((?!\"(?:[^\"\\\\]|\\\\.)*\"[,)])|\\.(?:matches|split|replaceAll|replaceFirst)\\((?:[A-Z_]{2,}|\"(?:[^\"\\\\]|\\\\.)*\" \\+)");
    /** Patterns that are made of parts: looked at by hand, and by tests of their own. */
    private static final List<String> MADE_OF_PARTS = List.of("Evened.java", "ErasedName.java", "MachineFault.java", "LaySpan.java");
    private static final int MOST_READS = 50;
    private static final int LONG = 100_000;
    private static final int SHORT = 1_000;
    private static final List<String> ATOMS = List.of(" ", "\t", "\n", "a", "A", "1", "0", "-", "–", ".", ",", ";", ":", "/", "\\", "\"", "'", "@", "=", "_", "é", "x ", " x", "1 ", "1:", "a.", ".a", "a@", "-a", "to", " to ", "//", "\"\"", "a,", ", ", "person-", "f");

    /** Counts each look at a character. */
    private static final class Counting implements CharSequence {

        private static final class Tired extends RuntimeException {
            private static final long serialVersionUID = 1;
        }

        private final String text;
        private final long most;
        private long reads;

        private Counting(String text) {
            this.text = text;
            this.most = (long) MOST_READS * text.length();
        }

        @Override
        public int length() {
            return text.length();
        }

        @Override
        public char charAt(int index) {
            if (++reads > most) {
                throw new Tired();
            }
            return text.charAt(index);
        }

        @Override
        public CharSequence subSequence(int start, int end) {
            return text.substring(start, end);
        }
    }

    /** @param wholly whether it is asked only whether a whole text is such a one */
    private static boolean bears(Pattern pattern, boolean wholly, String text) {
        try {
            pattern.matcher(new Counting(text)).matches();
            if (wholly) {
                return true;
            }
            Matcher all = pattern.matcher(new Counting(text));
            while (all.find()) {
                // each one that would be replaced, or split at
            }
            return true;
        } catch (Counting.Tired tired) {
            return false;
        }
    }

    private static List<String> unbearable(Pattern pattern, boolean wholly) {
        List<String> found = new ArrayList<>();
        for (String atom : ATOMS) {
            if (!bears(pattern, wholly, atom.repeat(LONG / atom.length()) + "!")) {
                found.add(atom);
            }
            for (String end : List.of("", "!", " ", "\n")) {
                if (!bears(pattern, wholly, atom.repeat(SHORT) + end) || !bears(pattern, wholly, "1" + atom.repeat(SHORT) + end)) {
                    found.add(atom + ", then " + end);
                }
            }
            for (String other : ATOMS) {
                if (!bears(pattern, wholly, (atom + other).repeat(SHORT / (atom.length() + other.length())) + "!")) {
                    found.add(atom + other);
                }
            }
        }
        return found;
    }

    @Test
    void no_pattern_takes_longer_than_its_text_is_long() throws IOException {
        SortedMap<String, Pattern> patterns = new TreeMap<>();
        SortedMap<String, Pattern> wholly = new TreeMap<>();
        List<String> madeOfParts = new ArrayList<>();
        for (Path folder : CODE) {
            try (Stream<Path> files = Files.walk(folder)) {
                for (Path file : files.filter(path -> path.toString().endsWith(".java")).toList()) {
                    String code = Files.readString(file);
                    if (OF_PARTS.matcher(code).find()) {
                        madeOfParts.add(file.getFileName().toString());
                    }
                    Matcher used = USED.matcher(code);
                    while (used.find()) {
                        String literal = used.group(2).substring(1, used.group(2).length() - 1)
                                .replaceAll("\\\\u([0-9A-F]{4})", "\\\\\\\\x{$1}").translateEscapes();
                        (used.group(1).equals(".matches") ? wholly : patterns).put(file.getFileName() + ": " + literal, Pattern.compile(literal));
                    }
                }
            }
        }
        assertThat(patterns).hasSizeGreaterThan(25);
        assertThat(madeOfParts).isSubsetOf(MADE_OF_PARTS);
        assertThat(patterns).allSatisfy((name, pattern) -> assertThat(unbearable(pattern, false)).as(name).isEmpty());
        assertThat(wholly).hasSizeGreaterThan(10).allSatisfy((name, pattern) -> assertThat(unbearable(pattern, true)).as(name).isEmpty());
        assertThat(unbearable(Pattern.compile("\\s*(?:-|–|to)\\s*"), false)).as("one that once took hours").isNotEmpty();
        assertThat(unbearable(Pattern.compile(".*[/\\\\]"), false)).isNotEmpty();
    }
}
