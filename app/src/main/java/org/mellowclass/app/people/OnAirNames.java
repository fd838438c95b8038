package org.mellowclass.app.people;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;

/** What listeners may hear and read of a student: never a surname. */
public final class OnAirNames {

    private OnAirNames() {
    }

    /** The first name of a name; of one that is written with the surname in front (Haddad, Noor), what stands behind it. */
    public static String first(String name) {
        int comma = name.indexOf(',');
        String given = comma < 0 || comma == name.length() - 1 ? name : name.substring(comma + 1);
        return words(given).get(0);
    }

    /** Whether an on-air name gives away a part of the name behind the first name. */
    public static boolean tellsSurname(String onAirName, String name) {
        String first = first(name);
        List<String> told = words(onAirName.toLowerCase(Locale.ROOT));
        return words(name).stream().filter(word -> !word.equalsIgnoreCase(first))
                .anyMatch(word -> word.length() > 1 && told.contains(word.toLowerCase(Locale.ROOT)));
    }

    private static List<String> words(String name) {
        return Arrays.stream(name.strip().split("[\\s,]+")).filter(word -> !word.isEmpty()).toList();
    }
}
