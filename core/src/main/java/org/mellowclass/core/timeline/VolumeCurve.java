package org.mellowclass.core.timeline;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.TreeMap;

/**
 * The gain of a track over time: straight in decibels between points, the first one's before them and the last one's behind
 * them. Without points it is 0 dB.
 *
 * @param points ordered by their frames, at most one at a frame
 */
public record VolumeCurve(List<Point> points) {

    /** What stays so low is silent: before the first point, behind the last one, or between two. */
    public static final double SILENT_DB = -96;
    public static final double HIGHEST_DB = 24;
    public static final int MOST_POINTS = 4000;

    public static final VolumeCurve NONE = new VolumeCurve(List.of());

    /** The gain at one frame of the timeline. */
    public record Point(long frame, double gainDb) {
        public Point {
            if (frame < 0 || !(gainDb >= SILENT_DB && gainDb <= HIGHEST_DB)) {
                throw new IllegalArgumentException("not a point: " + frame + ", " + gainDb);
            }
        }
    }

    /** @throws IllegalArgumentException for two points at one frame, or too many */
    public VolumeCurve {
        points = points.stream().sorted(Comparator.comparingLong(Point::frame)).toList();
        for (int i = 1; i < points.size(); i++) {
            if (points.get(i).frame == points.get(i - 1).frame) {
                throw new IllegalArgumentException("two points at frame " + points.get(i).frame);
            }
        }
        if (points.size() > MOST_POINTS) {
            throw new IllegalArgumentException(points.size() + " points");
        }
    }

    /** The gain at a frame in dB; {@link #SILENT_DB} for silence. */
    public double gainDbAt(long frame) {
        int next = after(frame);
        if (points.isEmpty()) {
            return 0;
        } else if (next == 0) {
            return points.get(0).gainDb;
        } else if (next == points.size()) {
            return points.get(next - 1).gainDb;
        }
        Point from = points.get(next - 1);
        Point to = points.get(next);
        return from.gainDb + (to.gainDb - from.gainDb) * (frame - from.frame) / (to.frame - from.frame);
    }

    /** The first of the points behind a frame, by its place. */
    public int after(long frame) {
        int low = 0;
        int high = points.size();
        while (low < high) {
            int middle = (low + high) >>> 1;
            if (points.get(middle).frame <= frame) {
                low = middle + 1;
            } else {
                high = middle;
            }
        }
        return low;
    }

    /**
     * The curve where time has gone: every frame that is still there keeps its gain, so that cuts get a point on either side. Time that was
     * opened has the gain of what stands before it.
     */
    public VolumeCurve moved(TimeMap map) {
        if (points.isEmpty() || map.equals(TimeMap.IDENTITY)) {
            return this;
        }
        TreeMap<Long, Double> moved = new TreeMap<>();
        List<TimeMap.Piece> pieces = new ArrayList<>(map.pieces());
        for (int i = 0; i < pieces.size(); i++) {
            TimeMap.Piece piece = pieces.get(i);
            long shift = piece.newFrame() - piece.fromFrame();
            if (i > 0) {
                moved.put(piece.newFrame(), gainDbAt(piece.fromFrame()));
            }
            for (Point point : points) {
                if (point.frame >= piece.fromFrame() && point.frame < piece.toFrame()) {
                    moved.put(point.frame + shift, point.gainDb);
                }
            }
            if (i + 1 < pieces.size()) {
                moved.put(piece.toFrame() - 1 + shift, gainDbAt(piece.toFrame() - 1));
                long next = pieces.get(i + 1).newFrame();
                if (next > piece.toFrame() + shift) {
                    moved.put(next - 1, gainDbAt(piece.toFrame() - 1));
                }
            }
        }
        List<Point> needed = new ArrayList<>();
        moved.forEach((frame, gainDb) -> needed.add(new Point(frame, gainDb)));
        return new VolumeCurve(withoutNeedless(needed));
    }

    /** Points between two of the same gain say nothing. */
    private static List<Point> withoutNeedless(List<Point> points) {
        List<Point> needed = new ArrayList<>();
        for (int i = 0; i < points.size(); i++) {
            boolean flat = i > 0 && i + 1 < points.size() && points.get(i).gainDb == points.get(i - 1).gainDb && points.get(i).gainDb == points.get(i + 1).gainDb;
            if (!flat) {
                needed.add(points.get(i));
            }
        }
        return needed.stream().allMatch(point -> point.gainDb == 0) ? List.of() : needed;
    }
}
