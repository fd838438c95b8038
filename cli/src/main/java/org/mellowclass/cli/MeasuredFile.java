package org.mellowclass.cli;

import java.util.List;
import java.util.OptionalDouble;

import org.mellowclass.core.measure.Measurement;
import org.mellowclass.core.sound.Frames;

/** The measurement of a file as it is printed: times in seconds, and null for what has no value. */
record MeasuredFile(String file, int sampleRate, int channels, double seconds, Double integratedLufs,
                    Double maxMomentaryLufs, Double maxShortTermLufs, Double loudnessRangeLu, Double truePeakDbtp,
                    Double samplePeakDbfs, Double dcOffset, List<Run> clippedRuns, Double noiseFloorDbfs,
                    List<Pause> pauses) {

    record Run(int channel, double startSeconds, int frames) {
    }

    record Pause(double startSeconds, double endSeconds) {
    }

    static MeasuredFile of(String file, Measurement measured) {
        double rate = measured.sampleRate();
        return new MeasuredFile(file, measured.sampleRate(), measured.channels(), measured.frames() / rate,
                orNull(measured.loudness().integrated()), orNull(measured.loudness().maxMomentary()),
                orNull(measured.loudness().maxShortTerm()), orNull(measured.loudness().range()),
                orNull(measured.truePeak().truePeakDbtp()), orNull(measured.samples().peakDbfs()),
                orNull(measured.samples().dcOffset()),
                measured.clippedRuns().stream()
                        .map(run -> new Run(run.channel(), run.startFrame() / rate, run.frames())).toList(),
                orNull(measured.noiseFloorDbfs()),
                measured.pauses().spans().stream()
                        .map(pause -> new Pause(Frames.toSeconds(pause.startFrame()), Frames.toSeconds(pause.endFrame())))
                        .toList());
    }

    private static Double orNull(OptionalDouble value) {
        return value.isPresent() ? value.getAsDouble() : null;
    }
}
