package org.mellowclass.app.sounds;

import org.mellowclass.core.treatment.Treatment;

/**
 * A sound that is kept or can be made: a take as it is, or by a treatment. Only the first is kept for good; the others can be
 * made again.
 *
 * @param soundKey   the file of its sound at 48 kHz; null until it is made, as are the others
 * @param skylineKey the file of its skyline
 * @param failed     whether it could not be made
 */
public record Sound(long id, long takeId, Treatment treatment, String soundKey, String skylineKey, Integer channels, boolean failed) {

    public boolean made() {
        return soundKey != null;
    }
}
