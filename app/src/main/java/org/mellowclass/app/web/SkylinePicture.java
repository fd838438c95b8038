package org.mellowclass.app.web;

import org.mellowclass.core.measure.Skyline;

/**
 * A skyline as an SVG path: a body of average levels from a baseline upward, on a scale of dB. The view box is
 * {@code 0 0 WIDTH HEIGHT}, with −48 dBFS on its baseline and 0 dBFS at its top.
 *
 * @param body  the path of the averages, closed along the baseline
 * @param peaks the line of the peaks above it
 */
public record SkylinePicture(String body, String peaks) {

    public static final int WIDTH = 1000;
    public static final int HEIGHT = 100;

    private static final double LOWEST_DBFS = -48;

    /** @param bins peak and RMS bytes by turns; drawn as at most {@code columns} columns */
    public static SkylinePicture of(byte[] bins, int columns) {
        int count = bins.length / 2;
        int drawn = Math.max(1, Math.min(columns, count));
        StringBuilder body = new StringBuilder("M0 ").append(HEIGHT);
        StringBuilder peaks = new StringBuilder();
        for (int column = 0; column < drawn; column++) {
            int from = (int) ((long) column * count / drawn);
            int to = (int) ((long) (column + 1) * count / drawn);
            int peak = 0;
            double power = 0;
            for (int bin = from; bin < to; bin++) {
                peak = Math.max(peak, Byte.toUnsignedInt(bins[2 * bin]));
                power += Math.pow(10, Skyline.dbfs(Byte.toUnsignedInt(bins[2 * bin + 1])) / 10);
            }
            double average = to > from ? 10 * Math.log10(power / (to - from)) : LOWEST_DBFS;
            double left = (double) WIDTH * column / drawn;
            double right = (double) WIDTH * (column + 1) / drawn;
            append(body, "L", left, height(average), right);
            append(peaks, column == 0 ? "M" : "L", left, height(Skyline.dbfs(peak)), right);
        }
        body.append('L').append(WIDTH).append(' ').append(HEIGHT).append('Z');
        return new SkylinePicture(body.toString(), peaks.toString());
    }

    private static void append(StringBuilder path, String command, double left, double y, double right) {
        path.append(command);
        number(path, left);
        path.append(' ');
        number(path, y);
        path.append('H');
        number(path, right);
    }

    /** With one decimal; by hand, since a class board has thousands of them. */
    private static void number(StringBuilder path, double value) {
        long tenths = Math.round(10 * value);
        path.append(tenths / 10).append('.').append(tenths % 10);
    }

    private static double height(double dbfs) {
        double part = 1 - Math.max(LOWEST_DBFS, Math.min(0, dbfs)) / LOWEST_DBFS;
        return HEIGHT * (1 - part);
    }
}
