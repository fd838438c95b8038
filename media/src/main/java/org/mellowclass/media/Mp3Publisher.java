package org.mellowclass.media;

import java.io.IOException;
import java.nio.file.Path;

import org.mellowclass.core.measure.LoudnessMeter;
import org.mellowclass.core.measure.TruePeakMeter;
import org.mellowclass.core.render.Mastering;
import org.mellowclass.core.sound.Opening;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.sound.SampleSource;

/**
 * Makes an MP3 that measures right as a listener's player decodes it: MP3 is lossy in level too and can overshoot, so what
 * was written is decoded, measured, and corrected.
 */
public final class Mp3Publisher {

    private static final int MOST_TRIES = 5;
    private static final double FIRST_CEILING_UNDER_DB = 0.5;
    private static final double WITHIN_LU = 0.2;
    private static final double AIM_WITHIN_LU = 0.05;
    private static final double EXTRA_DB = 0.1;

    private final SoundEncoder encoder;
    private final SoundDecoder decoder;

    public Mp3Publisher(SoundEncoder encoder, SoundDecoder decoder) {
        this.encoder = encoder;
        this.decoder = decoder;
    }

    /** What was measured on the decoded MP3. */
    public record Published(double loudnessLufs, double truePeakDbtp, long frames) {
    }

    /**
     * Writes the MP3 of a finished sound.
     *
     * @param finished    opens the sound at 48 kHz, stereo; opened once for each try
     * @param targetLufs  loudness of the decoded MP3, reached within 0.2 LU
     * @param ceilingDbtp true peak that the decoded MP3 does not pass
     * @throws IllegalStateException if it has not measured right after five tries
     * @throws IOException           if it cannot be written
     */
    public Published write(Opening finished, double targetLufs, double ceilingDbtp, Tags tags, Path target)
            throws IOException, SoundRefused {
        double gainDb = 0;
        double ceiling = ceilingDbtp - FIRST_CEILING_UNDER_DB;
        Published best = null;
        for (int attempt = 1; attempt <= MOST_TRIES; attempt++) {
            encoder.mp3(new Mastering(gainDb, ceiling, 0).apply(finished.open()), tags, target);
            best = measure(target);
            double offByLu = targetLufs - best.loudnessLufs();
            double overDb = best.truePeakDbtp() - ceilingDbtp;
            if (overDb <= 0 && Math.abs(offByLu) <= (attempt == 1 ? AIM_WITHIN_LU : WITHIN_LU)) {
                return best;
            }
            gainDb += offByLu;
            if (overDb > 0) {
                ceiling -= overDb + EXTRA_DB;
            }
        }
        throw new IllegalStateException("the MP3 measures " + best + " and could not be corrected");
    }

    private Published measure(Path mp3) throws IOException, SoundRefused {
        SoundFacts facts = decoder.probe(mp3);
        LoudnessMeter loudness = new LoudnessMeter(facts.channels());
        TruePeakMeter peak = new TruePeakMeter(facts.channels());
        try (SampleSource decoded = decoder.open(mp3, facts)) {
            long frames = SampleSink.drain(decoded, loudness, peak);
            return new Published(loudness.integrated().orElseThrow(() -> new IllegalStateException("the episode is silent")),
                    peak.truePeakDbtp().orElseThrow(() -> new IllegalStateException("the episode is silent")), frames);
        }
    }
}
