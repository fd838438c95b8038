package org.mellowclass.core.cleanup;

import java.util.ArrayList;
import java.util.List;

/** What a recipe will do with a take, told before it is used: from what is known of the take, without making it. */
public final class Forecast {

    /** What is told. */
    public enum Kind {
        /** Mains frequency in Hz. */
        HUM_GOES,
        NO_HUM,
        /** How far the room goes down all the time, in dB. */
        ROOM_FALLS,
        NO_PAUSE_TO_LEARN_THE_ROOM,
        /** How far the room goes down between words, in dB. */
        GAPS_FALL,
        /** How many. */
        CLICKS_GO,
        POPS_GO,
        /** From where loud parts are held, in dBFS, and how many dB become one. */
        LOUD_PARTS_HELD,
        /** How far quiet parts rise, in dB; the room stays. */
        QUIET_PARTS_RISE,
        /** How far loud phrases come down at most, in dB. */
        PHRASES_FALL,
        /** The gain in dB, of the room too. */
        ALL_RISES,
        ALL_FALLS,
        /** The highest sample afterwards, in dBFS; the room rises or falls with it. */
        PEAK_IS_SET,
        /** The true peak that nothing passes, in dBTP. */
        PEAKS_HELD
    }

    /**
     * One thing that will happen.
     *
     * @param values what its kind says
     */
    public record Told(Kind kind, List<Double> values) {
    }

    private Forecast() {
    }

    /** In the order of the steps; of some there is nothing to tell that their names do not. */
    public static List<Told> of(Recipe recipe, Heard heard) {
        List<Told> told = new ArrayList<>();
        double roseDb = 0;
        for (Recipe.Step step : recipe.steps()) {
            if (!step.done()) {
                continue;
            }
            List<Double> values = step.values();
            double part = step.blendPercent() / 100.0;
            switch (step.kind()) {
                case HUM_OUT -> told.add(heard.hum().map(hum -> told(Kind.HUM_GOES, (double) hum.mainsHz())).orElse(told(Kind.NO_HUM)));
                case NOISE_DOWN -> told.add(heard.room().isEmpty() ? told(Kind.NO_PAUSE_TO_LEARN_THE_ROOM) : told(Kind.ROOM_FALLS, blended(StepKind.noiseDownDb(values, heard), part)));
                case ROOM_DOWN -> told.add(told(Kind.GAPS_FALL, blended(values.get(0), part)));
                case CLICKS -> told.add(told(Kind.CLICKS_GO, (double) heard.clicks().size()));
                case POPS -> told.add(told(Kind.POPS_GO, (double) heard.pops().size()));
                case COMPRESS -> {
                    told.add(told(Kind.LOUD_PARTS_HELD, values.get(0), values.get(1)));
                    if (values.get(5) > 0) {
                        told.add(told(Kind.QUIET_PARTS_RISE, values.get(5)));
                        roseDb += values.get(5);
                    }
                }
                case LEVEL -> told.add(told(Kind.PHRASES_FALL, values.get(0)));
                case LOUDNESS -> {
                    if (heard.loudnessLufs().isPresent()) {
                        double gainDb = values.get(0) - heard.loudnessLufs().getAsDouble() - roseDb;
                        told.add(told(gainDb >= 0 ? Kind.ALL_RISES : Kind.ALL_FALLS, Math.abs(gainDb)));
                    }
                }
                case PEAK -> told.add(told(Kind.PEAK_IS_SET, values.get(0)));
                case CEILING -> told.add(told(Kind.PEAKS_HELD, values.get(0)));
                case LOW_CUT, HIGH_CUT, SOFT_S, TONE -> {
                    // their names and numbers say it
                }
            }
        }
        return told;
    }

    private static Told told(Kind kind, Double... values) {
        return new Told(kind, List.of(values));
    }

    /** How far something goes down that is mixed with what it was, in dB. */
    private static double blended(double fallDb, double part) {
        double left = 1 - part + part * Math.pow(10, -fallDb / 20);
        return -20 * Math.log10(left);
    }
}
