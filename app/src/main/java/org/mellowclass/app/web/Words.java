package org.mellowclass.app.web;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.OptionalLong;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Span;
import org.springframework.stereotype.Component;

/** How lengths, levels and times are written on pages. */
@Component("words")
public class Words {

    private static final Pattern TIME = Pattern.compile("(?:(\\d{1,4}):)?(\\d{1,6})(?:[.,](\\d{1,3}))?");

    private static final DateTimeFormatter DAY_AND_TIME = DateTimeFormatter.ofPattern("EEEE d MMMM, H:mm", Locale.UK);
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("EEEE d MMMM", Locale.UK);

    /** Minutes and seconds of a length in frames: 1:05. */
    public String clock(long frames) {
        long seconds = frames / Frames.RATE;
        return seconds / 60 + ":" + String.format(Locale.ROOT, "%02d", seconds % 60);
    }

    /** A length as people say it: 3.4 s, or 1:05 from a minute on. */
    public String seconds(long frames) {
        return frames >= Frames.ofSeconds(60) ? clock(frames)
                : String.format(Locale.ROOT, "%.1f s", (double) frames / Frames.RATE);
    }

    /** Minutes, seconds and hundredths of a place in frames: 1:05.32. */
    public String fineClock(long frames) {
        return clock(frames) + String.format(Locale.ROOT, ".%02d", frames % Frames.RATE * 100 / Frames.RATE);
    }

    /** The frames of a time as people write it: 1:05.32 or 65.3; empty if it is none. */
    public OptionalLong frames(String text) {
        Matcher time = TIME.matcher(text == null ? "" : text.strip());
        if (!time.matches()) {
            return OptionalLong.empty();
        }
        long minutes = time.group(1) == null ? 0 : Long.parseLong(time.group(1));
        long millis = time.group(3) == null ? 0 : Long.parseLong((time.group(3) + "00").substring(0, 3));
        return OptionalLong.of(Frames.ofSeconds(60 * minutes + Long.parseLong(time.group(2))) + Frames.ofMillis(millis));
    }

    /** A span with its ends: 0:03.00 to 0:04.00. */
    public String span(Span span) {
        return fineClock(span.startFrame()) + " to " + fineClock(span.endFrame());
    }

    /** Spans as people write them: 0:03.00 to 0:04.00, 0:10.00 to 0:12.50. */
    public String places(List<Span> spans) {
        return spans.stream().map(this::span).collect(Collectors.joining(", "));
    }

    /** Spans for a script: {@code 0-48000 96000-120000}. */
    public String spans(List<Span> spans) {
        return spans.stream().map(span -> span.startFrame() + "-" + span.endFrame()).collect(Collectors.joining(" "));
    }

    /** A number with one decimal and a true minus sign. */
    public String decimal(double value) {
        String text = String.format(Locale.ROOT, "%.1f", value);
        return (text.equals("-0.0") ? "0.0" : text).replace('-', '\u2212');
    }

    /** The icon of a kind of margin note. */
    public String noteIcon(Enum<?> kind) {
        return switch (kind.name()) {
            case "LOVELY" -> "heart";
            case "QUESTION" -> "circle-help";
            default -> "wrench";
        };
    }

    public String dayAndTime(Instant instant, String zone) {
        return DAY_AND_TIME.format(instant.atZone(ZoneId.of(zone)));
    }

    /** A day of the last week, in the zone of a school: since Monday; earlier ones with their date. */
    public String since(Instant instant, Instant now, String zone) {
        LocalDate day = instant.atZone(ZoneId.of(zone)).toLocalDate();
        boolean thisWeek = day.isAfter(now.atZone(ZoneId.of(zone)).toLocalDate().minusDays(7));
        return "since " + (thisWeek ? DateTimeFormatter.ofPattern("EEEE", Locale.UK) : DAY).format(day);
    }

    /** How long ago something was: a moment, 40 min, 3 h, 2 days. */
    public String ago(Instant instant, Instant now) {
        long minutes = Math.max(0, Duration.between(instant, now).toMinutes());
        return minutes == 0 ? "a moment" : minutes < 60 ? minutes + " min" : minutes < 48 * 60 ? minutes / 60 + " h" : minutes / (24 * 60) + " days";
    }

    public String day(LocalDate day) {
        return DAY.format(day);
    }
}
