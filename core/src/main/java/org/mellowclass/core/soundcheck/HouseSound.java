package org.mellowclass.core.soundcheck;

/**
 * What a class's episodes should sound like.
 *
 * @param loudnessLufs   integrated loudness of a stereo episode
 * @param ceilingDbtp    true peak not to pass
 * @param shortestFrames the brief's shortest length, at 48 kHz
 * @param longestFrames  the brief's longest length
 */
public record HouseSound(double loudnessLufs, double ceilingDbtp, long shortestFrames, long longestFrames) {

    /** House sounds that ship, in LUFS and dBTP; a class may have numbers of its own. */
    public enum Preset {
        SPEECH_FEED(-16, -1), BROADCAST(-23, -1), SCHOOL_HALL(-20, -1);

        private final double loudnessLufs;
        private final double ceilingDbtp;

        Preset(double loudnessLufs, double ceilingDbtp) {
            this.loudnessLufs = loudnessLufs;
            this.ceilingDbtp = ceilingDbtp;
        }

        public double loudnessLufs() {
            return loudnessLufs;
        }

        public double ceilingDbtp() {
            return ceilingDbtp;
        }
    }
}
