package org.mellowclass.core.render;

import java.util.List;

import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.timeline.VolumeCurve;
import org.mellowclass.core.timeline.VolumeCurve.Point;

/**
 * Applies a volume curve to samples. Between two points the gain is a geometric series: one power every {@link #STEP} frames, counted from the
 * earlier point, and a product for each frame, so that a frame's gain does not depend on where a block starts.
 */
final class CurveGain {

    private static final int STEP = 256;

    private CurveGain() {
    }

    /** Multiplies {@code count} samples of each channel, of which the first stands at a frame of the timeline. */
    static void apply(VolumeCurve curve, long frame, float[][] samples, int channels, int count) {
        List<Point> points = curve.points();
        if (points.isEmpty()) {
            return;
        }
        for (int done = 0; done < count; ) {
            long at = frame + done;
            int next = curve.after(at);
            long end = next == points.size() ? frame + count : Math.min(frame + count, points.get(next).frame());
            int part = (int) (end - at);
            if (next == 0 || next == points.size() || points.get(next - 1).gainDb() == points.get(next).gainDb()) {
                steady(points.get(next == 0 ? 0 : next - 1).gainDb(), samples, channels, done, part);
            } else {
                sloping(points.get(next - 1), points.get(next), at, samples, channels, done, part);
            }
            done += part;
        }
    }

    private static void steady(double gainDb, float[][] samples, int channels, int offset, int count) {
        float gain = gainDb <= VolumeCurve.SILENT_DB ? 0 : (float) Decibels.toAmplitude(gainDb);
        if (gain == 1) {
            return;
        }
        for (int c = 0; c < channels; c++) {
            for (int i = offset; i < offset + count; i++) {
                samples[c][i] *= gain;
            }
        }
    }

    private static void sloping(Point from, Point to, long frame, float[][] samples, int channels, int offset, int count) {
        double slopeDb = (to.gainDb() - from.gainDb()) / (to.frame() - from.frame());
        double ratio = Decibels.toAmplitude(slopeDb);
        for (int done = 0; done < count; ) {
            long into = frame + done - from.frame();
            long step = into / STEP;
            int within = (int) (into % STEP);
            double gain = Decibels.toAmplitude(from.gainDb() + slopeDb * step * STEP);
            for (int i = 0; i < within; i++) {
                gain *= ratio;
            }
            int part = Math.min(count - done, STEP - within);
            for (int i = offset + done; i < offset + done + part; i++) {
                for (int c = 0; c < channels; c++) {
                    samples[c][i] *= (float) gain;
                }
                gain *= ratio;
            }
            done += part;
        }
    }
}
