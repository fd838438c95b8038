package org.mellowclass.core.timeline.edit;

/** How far gains go. */
public final class Gains {

    public static final double LOWEST_DB = -48;
    public static final double HIGHEST_DB = 24;

    private Gains() {
    }

    static void check(double gainDb) {
        if (!(gainDb >= LOWEST_DB && gainDb <= HIGHEST_DB)) {
            throw new EditRefused(EditRefused.Reason.GAIN_OUT_OF_RANGE);
        }
    }

    static void check(double gainDb, double now) {
        check(gainDb);
        if (gainDb == now) {
            throw new EditRefused(EditRefused.Reason.CHANGES_NOTHING);
        }
    }
}
