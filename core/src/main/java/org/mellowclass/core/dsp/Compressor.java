package org.mellowclass.core.dsp;

/**
 * Takes down what is louder than a threshold, in the log domain with a soft knee (Giannoulis, Massberg and Reiss 2012, equation 4), and
 * lifts everything by a make-up gain, but nothing that lies near the room.
 */
public final class Compressor extends GainRider {

    private static final int AHEAD_STEPS = 15;
    /** Nothing within so much of the room is raised, and nothing suddenly. */
    private static final double OVER_ROOM_DB = 10;
    private static final double ROOM_SLOPE_DB = 6;

    private final Curve curve;

    /**
     * What gain a level gets; all levels are those of a sine by its peak.
     *
     * @param ratio    1 for none
     * @param kneeDb   how wide the bend is
     * @param makeUpDb a gain for what is not near the room
     * @param roomDbfs the room's level
     */
    public record Curve(double thresholdDbfs, double ratio, double kneeDb, double makeUpDb, double roomDbfs) {

        public double gainDb(double levelDbfs) {
            double over = levelDbfs - thresholdDbfs;
            double slope = 1 / ratio - 1;
            double reduction;
            if (2 * over < -kneeDb) {
                reduction = 0;
            } else if (2 * over > kneeDb) {
                reduction = slope * over;
            } else {
                double into = over + kneeDb / 2;
                reduction = slope * into * into / (2 * kneeDb);
            }
            double raised = Math.max(0, Math.min(1, (levelDbfs - roomDbfs - OVER_ROOM_DB) / ROOM_SLOPE_DB));
            return reduction + (makeUpDb > 0 ? raised * makeUpDb : makeUpDb);
        }
    }

    public Compressor(int channels, Curve curve, double attackMs, double releaseMs) {
        super(channels, AHEAD_STEPS, attackMs, releaseMs);
        this.curve = curve;
    }

    @Override
    double wantedDb(double levelDbfs) {
        return curve.gainDb(levelDbfs);
    }
}
