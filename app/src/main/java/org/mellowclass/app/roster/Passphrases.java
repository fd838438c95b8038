package org.mellowclass.app.roster;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.security.SecureRandom;
import java.util.List;

/** Passphrases of two pairs of short words that children can type: describing word and thing, twice. More than 28 bits. */
final class Passphrases {

    private static final SecureRandom RANDOM = new SecureRandom();
    private static final List<String> DESCRIBING = words("describing");
    private static final List<String> THINGS = words("things");

    private Passphrases() {
    }

    static String next() {
        return pair() + " " + pair();
    }

    private static String pair() {
        return pick(DESCRIBING) + " " + pick(THINGS);
    }

    /** How many there are. */
    static long count() {
        long pairs = (long) DESCRIBING.size() * THINGS.size();
        return pairs * pairs;
    }

    private static String pick(List<String> words) {
        return words.get(RANDOM.nextInt(words.size()));
    }

    private static List<String> words(String list) {
        try (InputStream file = Passphrases.class.getResourceAsStream("/words/" + list + ".txt");
             BufferedReader reader = new BufferedReader(new InputStreamReader(file, StandardCharsets.UTF_8))) {
            return reader.lines().flatMap(line -> List.of(line.strip().split(" ")).stream()).filter(word -> !word.isEmpty()).toList();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
