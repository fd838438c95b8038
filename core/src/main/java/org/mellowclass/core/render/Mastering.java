package org.mellowclass.core.render;

import java.io.IOException;
import java.util.OptionalDouble;

import org.mellowclass.core.dsp.Limiter;
import org.mellowclass.core.measure.LoudnessMeter;
import org.mellowclass.core.measure.TruePeakMeter;
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

    /** Opens the unfinished mix from its start; called once for each pass. */
    @FunctionalInterface
    public interface Opening {
        SampleSource open() throws IOException;
    }

    /**
     * Finds the mastering that brings a mix to a loudness: apply, measure, correct, until it is within 0.1 LU and its true
     * peak under the ceiling; five passes at most, the last correction stands. Silence is left as it is.
     *
     * @param mix         sound at 48 kHz, closed by this method after each pass
     * @param targetLufs  integrated loudness to reach
     * @param ceilingDbtp true peak not to pass
     */
    public static Mastering find(Opening mix, double targetLufs, double ceilingDbtp) throws IOException {
        Mastering mastering = new Mastering(0, ceilingDbtp, 0);
        OptionalDouble unfinished = mastering.measure(mix).loudnessLufs();
        if (unfinished.isEmpty()) {
            return mastering;
        }
        mastering = new Mastering(targetLufs - unfinished.getAsDouble(), ceilingDbtp, 0);
        for (int pass = 1; pass <= MOST_PASSES; pass++) {
            Result result = mastering.measure(mix);
            double offByLu = targetLufs - result.loudnessLufs().orElse(targetLufs);
            double overDb = result.truePeakDbtp().orElse(ceilingDbtp) - ceilingDbtp;
            mastering = new Mastering(mastering.gainDb, mastering.ceilingDbtp, result.reductionDb());
            if (Math.abs(offByLu) <= WITHIN_LU && overDb <= 0) {
                break;
            }
            double lower = overDb > 0 ? overDb + EXTRA_DB : 0;
            mastering = new Mastering(mastering.gainDb + (Math.abs(offByLu) > WITHIN_LU / 2 ? offByLu : 0),
                    mastering.ceilingDbtp - lower, result.reductionDb());
        }
        return mastering;
    }

    /** The finished sound; closing it closes the mix. */
    public SampleSource apply(SampleSource mix) {
        return new Limiter(mix, gainDb, ceilingDbtp);
    }

    private Result measure(Opening mix) throws IOException {
        try (Limiter finished = new Limiter(mix.open(), gainDb, ceilingDbtp)) {
            LoudnessMeter loudness = new LoudnessMeter(finished.channels());
            TruePeakMeter truePeak = new TruePeakMeter(finished.channels());
            SampleSink.drain(finished, loudness, truePeak);
            return new Result(loudness.integrated(), truePeak.truePeakDbtp(), finished.deepestReductionDb());
        }
    }

    private record Result(OptionalDouble loudnessLufs, OptionalDouble truePeakDbtp, double reductionDb) {
    }
}
