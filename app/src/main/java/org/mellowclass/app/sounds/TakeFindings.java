package org.mellowclass.app.sounds;

import java.util.List;

import org.mellowclass.core.measure.ClippedSpot;
import org.mellowclass.core.measure.StereoFinder;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.treatment.Findings;

/**
 * What was measured of a take, in frames at 48 kHz.
 *
 * @param noticed   what is odd about its two sides
 * @param roomFrame where its quietest second starts; null if it has none
 */
public record TakeFindings(List<ClippedSpot> clipped, StereoFinder.Noticed noticed, Long roomFrame) {

    public TakeFindings {
        clipped = List.copyOf(clipped);
    }

    Findings forTreatment() {
        return new Findings(clipped.stream().map(spot -> new Span(spot.startFrame(), spot.endFrame())).toList());
    }
}
