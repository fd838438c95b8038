package org.mellowclass.core.dsp;

/**
 * Takes down the room between words: what lies under a threshold goes down by as much again, up to a range. A word must stand a little over the
 * threshold to open it, so that it does not flutter; it opens faster than it closes, and looks ahead so that no word is cut.
 */
public final class Expander extends GainRider {

    private static final int AHEAD_STEPS = 45;
    private static final double OPEN_MS = 5;
    private static final double CLOSE_MS = 150;
    private static final double HYSTERESIS_DB = 3;

    private final double thresholdDbfs;
    private final double rangeDb;
    private final double ratio;
    private boolean open;

    /** @param thresholdDbfs of a sine by its peak */
    public Expander(int channels, double thresholdDbfs, double rangeDb, double ratio) {
        super(channels, AHEAD_STEPS, CLOSE_MS, OPEN_MS);
        this.thresholdDbfs = thresholdDbfs;
        this.rangeDb = rangeDb;
        this.ratio = ratio;
    }

    @Override
    double wantedDb(double levelDbfs) {
        open = levelDbfs > thresholdDbfs + (open ? 0 : HYSTERESIS_DB);
        return open ? 0 : Math.max(-rangeDb, Math.min(0, (levelDbfs - thresholdDbfs - HYSTERESIS_DB) * (ratio - 1)));
    }

    @Override
    public void reset() {
        super.reset();
        open = false;
    }
}
