package org.mellowclass.app.soundcheck;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

import org.mellowclass.core.soundcheck.HeardSound;
import org.mellowclass.core.soundcheck.HouseSound;
import org.mellowclass.core.soundcheck.Reading;
import org.mellowclass.core.soundcheck.SoundCheck;
import org.springframework.stereotype.Component;

/** Draws readings as small pictures, {@value #WIDTH} by {@value #HEIGHT}: what they say is beside them in words. */
@Component
public class ReadingPictures {

    public static final int WIDTH = 120;
    public static final int HEIGHT = 32;

    private static final double LOWEST_LUFS = -48;
    private static final double HIGHEST_LUFS = -6;
    private static final double BAND_LU = 1;
    private static final double LOWEST_DBTP = -24;
    private static final double HIGHEST_DBTP = 1;
    private static final double DEEPEST_LU = 30;
    private static final double GOOD_UNDER_VOICE_LU = 12;
    private static final double LOWEST_ROOM_DBFS = -110;
    private static final double HIGHEST_ROOM_DBFS = -40;
    private static final double LEAST_WIDTH = 2;

    /** A filled box; with a name where it is a voice's. */
    public record Box(double x, double y, double width, double height, String name) {
    }

    /**
     * A picture.
     *
     * @param line  an SVG path; empty for none
     * @param good  where values are good; null where that is not drawn
     * @param ruled whether time is ruled under it
     */
    public record Drawn(String line, Box good, List<Box> boxes, boolean ruled) {
    }

    /** @param trackNames by track; @param frames the length of the mix */
    public Optional<Drawn> of(Reading reading, SoundCheck check, HouseSound house, long frames, Map<Long, String> trackNames) {
        return switch (reading.kind()) {
            case LOUDNESS -> line(check.pictures().loudnessLufs(), HIGHEST_LUFS, LOWEST_LUFS, house.loudnessLufs() + BAND_LU, house.loudnessLufs() - BAND_LU);
            case TRUE_PEAK -> line(check.pictures().peaksDbtp(), HIGHEST_DBTP, LOWEST_DBTP, house.ceilingDbtp(), LOWEST_DBTP)
                    .map(drawn -> new Drawn(drawn.line, drawn.good, over(check.pictures().peaksDbtp(), house.ceilingDbtp()), false));
            case MUSIC_UNDER_VOICE -> line(check.pictures().underVoiceLu(), 0, DEEPEST_LU, GOOD_UNDER_VOICE_LU, DEEPEST_LU);
            case VOICES_EVEN -> voices(check.pictures().voicesLufs(), trackNames);
            case ROOM_NOISE -> line(check.pictures().roomDbfs(), HIGHEST_ROOM_DBFS, LOWEST_ROOM_DBFS, null, null);
            case HUM -> line(check.pictures().roomDbfs(), HIGHEST_ROOM_DBFS, LOWEST_ROOM_DBFS, null, null)
                    .map(drawn -> reading.value() == null ? drawn : new Drawn(drawn.line, null, harmonics(reading.value(), check.pictures().roomDbfs().size()), false));
            default -> reading.places().isEmpty() || frames == 0 ? Optional.empty()
                    : Optional.of(new Drawn("", null, reading.places().stream().map(place -> new Box(rounded((double) WIDTH * place.startFrame() / frames), 6,
                            Math.max(LEAST_WIDTH, rounded((double) WIDTH * place.frames() / frames)), HEIGHT - 14, "")).toList(), true));
        };
    }

    private static double rounded(double value) {
        return Math.rint(10 * value) / 10;
    }

    private static double y(double value, double top, double bottom) {
        return rounded(HEIGHT * Math.max(0, Math.min(1, (top - value) / (top - bottom))));
    }

    /** What is over time or frequency; where there is no value, the line is broken. */
    private static Optional<Drawn> line(List<Double> values, double top, double bottom, Double goodFrom, Double goodTo) {
        if (values.stream().noneMatch(value -> value != null)) {
            return Optional.empty();
        }
        StringBuilder path = new StringBuilder();
        boolean drawing = false;
        for (int i = 0; i < values.size(); i++) {
            if (values.get(i) != null) {
                path.append(String.format(Locale.ROOT, "%s%.1f %.1f", drawing ? "L" : "M", WIDTH * (i + 0.5) / values.size(), y(values.get(i), top, bottom)));
                if (!drawing) {
                    // one value alone is seen too
                    path.append("h0.1");
                }
            }
            drawing = values.get(i) != null;
        }
        Box good = goodFrom == null ? null : new Box(0, y(goodFrom, top, bottom), WIDTH, y(goodTo, top, bottom) - y(goodFrom, top, bottom), "");
        return Optional.of(new Drawn(path.toString(), good, List.of(), false));
    }

    private static Optional<Drawn> voices(Map<Long, Double> lufs, Map<Long, String> names) {
        List<Box> bars = new ArrayList<>();
        double height = (double) HEIGHT / Math.max(1, lufs.size());
        for (Map.Entry<Long, Double> voice : new TreeMap<>(lufs).entrySet()) {
            bars.add(new Box(0, rounded(bars.size() * height + 1), Math.max(LEAST_WIDTH, rounded(WIDTH - WIDTH * y(voice.getValue(), HIGHEST_LUFS, LOWEST_LUFS) / HEIGHT)),
                    rounded(height - 2), names.getOrDefault(voice.getKey(), "")));
        }
        return bars.size() < 2 ? Optional.empty() : Optional.of(new Drawn("", null, bars, false));
    }

    /** A mark at each stretch whose peak lies over a ceiling, as it is said: to a tenth. */
    private static List<Box> over(List<Double> peaks, double ceiling) {
        List<Box> marks = new ArrayList<>();
        double width = (double) WIDTH / peaks.size();
        for (int i = 0; i < peaks.size(); i++) {
            if (peaks.get(i) != null && peaks.get(i) > ceiling) {
                marks.add(new Box(rounded(i * width), 0, Math.max(LEAST_WIDTH, rounded(width)), 4, ""));
            }
        }
        return marks;
    }

    /** The multiples of the mains. */
    private static List<Box> harmonics(double mainsHz, int steps) {
        List<Box> marks = new ArrayList<>();
        for (int multiple = 1; multiple * mainsHz < steps * HeardSound.ROOM_STEP_HZ; multiple++) {
            double x = WIDTH * (multiple * mainsHz / HeardSound.ROOM_STEP_HZ - 0.5) / steps;
            marks.add(new Box(rounded(x - 0.5), 0, 1, 3, ""));
        }
        return marks;
    }
}
