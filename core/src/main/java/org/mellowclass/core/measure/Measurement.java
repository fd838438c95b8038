package org.mellowclass.core.measure;

import java.io.IOException;
import java.util.List;
import java.util.OptionalDouble;

import org.mellowclass.core.dsp.Resampler;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.sound.Tap;

/**
 * All that one pass over a sound measures. Peaks, DC offset and clipping are taken at the sound's own rate, loudness and
 * pauses after conversion to 48 kHz.
 *
 * @param frames      its length at its own rate
 * @param clippedRuns at its own rate
 */
public record Measurement(int sampleRate, int channels, long frames, LoudnessMeter loudness, TruePeakMeter truePeak,
                          SampleStatistics samples, List<ClippedRun> clippedRuns, Pauses pauses) {

    /** Reads a sound to its end, in constant memory, and measures it. */
    public static Measurement of(SampleSource sound, ClippingFinder.Search search) throws IOException {
        int channels = sound.channels();
        TruePeakMeter truePeak = new TruePeakMeter(channels);
        SampleStatistics samples = new SampleStatistics(channels);
        ClippingFinder clipping = ClippingFinder.ofRuns(channels, sound.sampleRate(), search);
        SpeechLevels levels = new SpeechLevels(channels);
        try (SampleSource converted = Resampler.to(Frames.RATE, new Tap(sound, truePeak, samples, clipping))) {
            SampleSink.drain(converted, levels);
        }
        return new Measurement(sound.sampleRate(), channels, samples.frames(), levels.loudness(), truePeak, samples,
                clipping.runs(), levels.pauses());
    }

    /** The noise floor in dBFS RMS; empty for digital silence. */
    public OptionalDouble noiseFloorDbfs() {
        return pauses.noiseFloorDbfs();
    }
}
