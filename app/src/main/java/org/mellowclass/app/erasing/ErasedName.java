package org.mellowclass.app.erasing;

import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

import org.mellowclass.app.people.OnAirNames;

/**
 * The names of somebody who is deleted. In the names of tracks and takes each of them goes, but for those that somebody else of the crew has
 * too; in sentences only the full name does, since a first name may be any word.
 */
final class ErasedName {

    static final String SOMEBODY = "Somebody";

    private final Pattern inNames;
    private final Pattern inSentences;

    /** @param others the full names of those who stay in the crew */
    ErasedName(String name, String onAirName, Collection<String> others) {
        Set<String> all = new HashSet<>(List.of(name, onAirName, OnAirNames.first(name)));
        Set<String> kept = others.stream().map(other -> OnAirNames.first(other).toLowerCase(Locale.ROOT)).collect(Collectors.toSet());
        all.removeIf(each -> kept.contains(each.toLowerCase(Locale.ROOT)));
        inNames = words(all);
        inSentences = words(Set.of(name));
    }

    private static Pattern words(Set<String> names) {
        // the longest first: a first name is the beginning of a full one
        String any = names.stream().sorted((one, other) -> other.length() - one.length()).map(Pattern::quote).collect(Collectors.joining("|"));
        return Pattern.compile("(?<![\\p{L}\\p{N}])(?:" + any + ")(?![\\p{L}\\p{N}])", Pattern.CASE_INSENSITIVE | Pattern.UNICODE_CASE);
    }

    String inName(String text) {
        return inNames.matcher(text).replaceAll(SOMEBODY);
    }

    String inSentence(String text) {
        return inSentences.matcher(text).replaceAll(SOMEBODY);
    }
}
