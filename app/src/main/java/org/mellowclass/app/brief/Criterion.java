package org.mellowclass.app.brief;

import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * A line of the rubric.
 *
 * @param sentence what it asks for; may be empty
 * @param levels   what points mean, as it is typed: {@code 0 not yet; 3 mostly; 5 all through}; may be empty
 */
public record Criterion(long id, String name, int mostPoints, String sentence, String levels) {

    private static final Pattern LEVEL = Pattern.compile("(\\d{1,3})\\s+(\\S.{0,119})");
    private static final int MOST_LEVELS = 8;

    /** What so many points and more mean, up to the next level. */
    public record Level(int points, String words) {
    }

    /** The levels that were typed, by their points; empty if some cannot be read, are twice, or lie over the most points. */
    static Optional<List<Level>> read(String typed, int mostPoints) {
        List<String> each = Arrays.stream(typed.split("[;\\n]")).map(String::strip).filter(level -> !level.isEmpty()).toList();
        List<Level> levels = each.stream().map(LEVEL::matcher).filter(Matcher::matches).map(level -> new Level(Integer.parseInt(level.group(1)), level.group(2)))
                .filter(level -> level.points <= mostPoints).sorted(Comparator.comparingInt(Level::points)).toList();
        return levels.size() == each.size() && levels.size() <= MOST_LEVELS && levels.stream().map(Level::points).distinct().count() == levels.size()
                ? Optional.of(levels) : Optional.empty();
    }

    static String written(List<Level> levels) {
        return levels.stream().map(level -> level.points + " " + level.words).collect(Collectors.joining("; "));
    }

    /** What so many points mean; empty where that is not said. */
    public String level(int points) {
        return read(levels, mostPoints).orElse(List.of()).stream().filter(level -> level.points <= points).reduce((lower, higher) -> higher).map(Level::words).orElse("");
    }
}
