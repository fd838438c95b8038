package org.mellowclass.app.recording;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.OptionalDouble;
import java.util.stream.Collectors;

import org.mellowclass.core.soundcheck.Verdict;
import org.mellowclass.core.soundcheck.WorkingLevel;

/** The peaks of the last chunks of a recording, in whole dBFS, the newest last: how loud it is right now. */
public record RecentPeaks(List<Double> dbfs) {

    private static final int KEPT = 20;
    /** What stands for digital silence and everything under it. */
    private static final long LOWEST_DBFS = -96;
    /** A second or two say nothing yet. */
    private static final int FEWEST = 4;
    /** Not even a whisper is as quiet. */
    private static final double NOTHING_DBFS = -50;

    /** What can be said of a recording while it goes on. */
    public enum Word { LISTENING, NOTHING_HEARD, TOO_QUIET, GOOD, TOO_HOT }

    public RecentPeaks {
        dbfs = List.copyOf(dbfs);
    }

    /** As {@link #text} writes them. */
    static RecentPeaks of(String text) {
        return new RecentPeaks(text.isEmpty() ? List.of() : Arrays.stream(text.split(",")).map(Double::valueOf).toList());
    }

    String text() {
        return dbfs.stream().map(peak -> Long.toString(Math.round(peak))).collect(Collectors.joining(","));
    }

    /** @param amplitude the peak of the next chunk */
    RecentPeaks with(double amplitude) {
        List<Double> next = new ArrayList<>(dbfs.subList(Math.max(0, dbfs.size() + 1 - KEPT), dbfs.size()));
        next.add((double) Math.max(LOWEST_DBFS, Math.round(20 * Math.log10(amplitude))));
        return new RecentPeaks(next);
    }

    public OptionalDouble level() {
        return WorkingLevel.measured(dbfs);
    }

    public Word word() {
        OptionalDouble level = level();
        if (dbfs.size() < FEWEST || level.isEmpty()) {
            return Word.LISTENING;
        }
        if (level.getAsDouble() < NOTHING_DBFS) {
            return Word.NOTHING_HEARD;
        }
        if (WorkingLevel.STANDARD.verdict(level.getAsDouble()) != Verdict.FIX) {
            return Word.GOOD;
        }
        return level.getAsDouble() < WorkingLevel.STANDARD.lowCheck() ? Word.TOO_QUIET : Word.TOO_HOT;
    }
}
