package org.mellowclass.core.render;

import java.io.IOException;
import java.util.OptionalDouble;
import java.util.function.DoubleSupplier;
import org.mellowclass.core.dsp.Limiter;
import org.mellowclass.core.measure.LoudnessMeter;
import org.mellowclass.core.measure.TruePeakMeter;
import org.mellowclass.core.sound.Alongside;
import org.mellowclass.core.sound.Opening;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.sound.SampleSource;

/**
 * How a mix is finished: one gain, then a true-peak limiter.
 *
 * @param gainDb       the gain before the limiter
 * @param ceilingDbtp  the limiter's ceiling
 * @param reductionDb  how deep the limiter had to reach, 0 if it did not
 */
public record Mastering(double gainDb, double ceilingDbtp, double reductionDb) {

    private static final int MOST_PASSES = 5;
    private static final double WITHIN_LU = 0.1;
    private static final double EXTRA_DB = 0.02;
    /** A room without a voice is not made as loud as one. */
    public static final double MOST_GAIN_DB = 30;
    private static final double LEAST_SLOPE = 0.1;

    /** In whole thousandths of a decibel, so that it can be named. */
    private static double named(double db) {
        return Math.round(1000 * db) / 1000.0;
    }

    /**
     * Finds the mastering that brings a mix to a loudness. It is measured without the limiter first: as long as the limiter has nothing to do,
     * the gain follows at once. Where it has, the gain is found by the secant method, from the highest gain at which it has not, until the
     * loudness is within 0.1 LU and the true peak under the ceiling; five passes through the limiter at most, the last correction stands. Silence
     * is left as it is, and nothing is raised by more than 30 dB.
     *
     * @param mix         sound at 48 kHz, closed by this method after each pass
     * @param targetLufs  integrated loudness to reach
     * @param ceilingDbtp true peak not to pass
     */
    public static Mastering find(Opening mix, double targetLufs, double ceilingDbtp) throws IOException {
        return find(new WholePasses(mix), targetLufs, ceilingDbtp);
    }

    /** As the other; how the mix is measured is the caller's. */
    public static Mastering find(Passes mix, double targetLufs, double ceilingDbtp) throws IOException {
        Result unfinished = mix.unfinished();
        if (unfinished.loudnessLufs.isEmpty()) {
            return new Mastering(0, ceilingDbtp, 0);
        }
        double mixLufs = unfinished.loudnessLufs.getAsDouble();
        double freeGainDb = ceilingDbtp - unfinished.truePeakDbtp.orElse(ceilingDbtp);
        double gainDb = Math.min(MOST_GAIN_DB, targetLufs - mixLufs);
        double earlierGainDb = Math.min(freeGainDb, gainDb);
        double earlierLufs = mixLufs + earlierGainDb;
        double limitDbtp = ceilingDbtp;
        if (gainDb <= freeGainDb) {
            return new Mastering(named(gainDb), ceilingDbtp, 0);
        }
        double reductionDb = 0;
        for (int pass = 1; pass <= MOST_PASSES; pass++) {
            gainDb = named(gainDb);
            limitDbtp = named(limitDbtp);
            Result result = mix.finished(gainDb, limitDbtp);
            reductionDb = result.reductionDb;
            double lufs = result.loudnessLufs.orElse(targetLufs);
            double overDb = result.truePeakDbtp.orElse(ceilingDbtp) - ceilingDbtp;
            double offByLu = targetLufs - lufs;
            boolean reached = Math.abs(offByLu) <= WITHIN_LU || offByLu > 0 && gainDb >= MOST_GAIN_DB;
            if (reached && overDb <= 0) {
                break;
            }
            limitDbtp -= overDb > 0 ? overDb + EXTRA_DB : 0;
            if (!reached) {
                double slope = (lufs - earlierLufs) / (gainDb - earlierGainDb);
                earlierGainDb = gainDb;
                earlierLufs = lufs;
                // a limiter that takes nearly all of a step has a slope near nothing: then a step of its own size
                gainDb = Math.min(MOST_GAIN_DB, gainDb + offByLu / (slope > LEAST_SLOPE && slope < 1 ? slope : slope >= 1 ? 1 : LEAST_SLOPE));
            }
        }
        return new Mastering(named(gainDb), named(limitDbtp), reductionDb);
    }

    /** The finished sound; closing it closes the mix. */
    public SampleSource apply(SampleSource mix) {
        return new Limiter(mix, gainDb, ceilingDbtp);
    }

    /** Measures a mix without the limiter, and behind it. */
    public interface Passes {

        Result unfinished() throws IOException;

        Result finished(double gainDb, double ceilingDbtp) throws IOException;
    }

    /**
     * @param loudnessLufs integrated; empty for silence
     * @param truePeakDbtp empty for silence
     * @param reductionDb  how deep the limiter reached
     */
    public record Result(OptionalDouble loudnessLufs, OptionalDouble truePeakDbtp, double reductionDb) {
    }

    /** Each pass renders the whole mix. */
    private record WholePasses(Opening mix) implements Passes {

        @Override
        public Result unfinished() throws IOException {
            try (SampleSource source = mix.open()) {
                return measure(source, () -> 0);
            }
        }

        @Override
        public Result finished(double gainDb, double ceilingDbtp) throws IOException {
            try (Limiter finished = new Limiter(mix.open(), gainDb, ceilingDbtp)) {
                return measure(finished, finished::deepestReductionDb);
            }
        }

        private static Result measure(SampleSource source, DoubleSupplier reductionDb) throws IOException {
            LoudnessMeter loudness = new LoudnessMeter(source.channels());
            TruePeakMeter truePeak = new TruePeakMeter(source.channels());
            try (Alongside meters = new Alongside(loudness, truePeak)) {
                SampleSink.drain(source, meters);
            }
            return new Result(loudness.integrated(), truePeak.truePeakDbtp(), reductionDb.getAsDouble());
        }
    }
}
