package org.mellowclass.core.cleanup;

/**
 * One number of a step that can be set.
 *
 * @param name  unique in its step
 * @param unit  dB, Hz, ms, LUFS, dBFS, dBTP, or : for a ratio
 * @param usual what it is as long as nobody sets it
 */
public record Parameter(String name, String unit, double least, double most, double usual) {

    public boolean allows(double value) {
        return value >= least && value <= most;
    }
}
