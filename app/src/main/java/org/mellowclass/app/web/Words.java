package org.mellowclass.app.web;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.Locale;

import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Span;
import org.springframework.stereotype.Component;

/** How lengths, levels and times are written on pages. */
@Component("words")
public class Words {

    private static final DateTimeFormatter DAY_AND_TIME = DateTimeFormatter.ofPattern("EEEE d MMMM, H:mm", Locale.UK);
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("EEEE d MMMM", Locale.UK);

    /** Minutes and seconds of a length in frames: 1:05. */
    public String clock(long frames) {
        long seconds = frames / Frames.RATE;
        return seconds / 60 + ":" + String.format(Locale.ROOT, "%02d", seconds % 60);
    }

    /** Minutes, seconds and hundredths of a place in frames: 1:05.32. */
    public String fineClock(long frames) {
        return clock(frames) + String.format(Locale.ROOT, ".%02d", frames % Frames.RATE * 100 / Frames.RATE);
    }

    /** A span with its ends: 0:03.00 to 0:04.00. */
    public String span(Span span) {
        return fineClock(span.startFrame()) + " to " + fineClock(span.endFrame());
    }

    /** A number with one decimal and a true minus sign. */
    public String decimal(double value) {
        String text = String.format(Locale.ROOT, "%.1f", value);
        return (text.equals("-0.0") ? "0.0" : text).replace('-', '\u2212');
    }

    public String dayAndTime(Instant instant, String zone) {
        return DAY_AND_TIME.format(instant.atZone(ZoneId.of(zone)));
    }

    public String day(LocalDate day) {
        return DAY.format(day);
    }
}
