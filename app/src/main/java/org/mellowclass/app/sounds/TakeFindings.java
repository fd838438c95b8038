package org.mellowclass.app.sounds;

import java.util.List;
import java.util.OptionalDouble;

import org.mellowclass.core.measure.ClippedSpot;
import org.mellowclass.core.measure.SpeechLevels;
import org.mellowclass.core.measure.StereoFinder;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.treatment.Findings;

/**
 * What was measured of a take, in frames at 48 kHz.
 *
 * @param noticed   what is odd about its two sides
 * @param roomFrame where its quietest second starts; null if it has none
 * @param speech    when nobody speaks in it and how loud it is; null for a take that an earlier version has measured
 */
public record TakeFindings(List<ClippedSpot> clipped, StereoFinder.Noticed noticed, Long roomFrame, Speech speech) {

    /** @param loudnessLufs integrated; null for silence */
    public record Speech(List<Span> pauses, Double loudnessLufs) {

        static Speech of(SpeechLevels levels) {
            OptionalDouble loudness = levels.loudness().integrated();
            return new Speech(levels.pauses().spans(), loudness.isPresent() ? loudness.getAsDouble() : null);
        }
    }

    public TakeFindings {
        clipped = List.copyOf(clipped);
    }

    Findings forTreatment(Findings.Returned returned) {
        return new Findings(clipped.stream().map(spot -> new Span(spot.startFrame(), spot.endFrame())).toList(), returned);
    }
}
