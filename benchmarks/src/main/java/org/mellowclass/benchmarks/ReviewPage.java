package org.mellowclass.benchmarks;

import java.io.IOException;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/** A hand-in of the demo school with 200 notes in its margin, as its teacher opens it. */
final class ReviewPage {

    private static final String HAND_IN = "/hand-ins/4";
    private static final int NOTES = 200;
    private static final int LOOKS = 41;
    private static final double MOST_MS = 200;

    private final Visitor teacher;

    ReviewPage(String address) {
        this.teacher = new Visitor(address);
    }

    List<Row> run() throws IOException, InterruptedException {
        teacher.signInAsTeacher("okoro@saltmarsh.example", "high tide at nine");
        for (int i = 0; i < NOTES; i++) {
            teacher.form(HAND_IN + "/notes", Map.of("kind", "LOVELY", "words", "Note " + i, "from", seconds(0.2 * i), "to", seconds(0.2 * i + 1)));
        }
        AtRest.await();
        double[] ms = new double[LOOKS];
        for (int i = 0; i < LOOKS; i++) {
            long start = System.nanoTime();
            teacher.get(HAND_IN);
            ms[i] = (System.nanoTime() - start) / 1e6;
        }
        Arrays.sort(ms);
        double late = ms[(int) (LOOKS * 0.95)];
        String figures = String.format(Locale.ROOT, "median %.1f ms, 95 %% within %.1f ms", ms[LOOKS / 2], late);
        System.out.println("a review with " + NOTES + " notes: " + figures);
        return List.of(new Row("the review page with " + NOTES + " notes", figures, "", String.format(Locale.ROOT, "%.1f ms", late), late, MOST_MS));
    }

    private static String seconds(double seconds) {
        return String.format(Locale.ROOT, "%.1f", seconds);
    }
}
