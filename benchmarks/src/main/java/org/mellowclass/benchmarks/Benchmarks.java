package org.mellowclass.benchmarks;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/** Runs all benchmarks, prints their figures and writes them to a page: {@code FOLDER SOUNDS ADDRESS REPORT}. */
public final class Benchmarks {

    private Benchmarks() {
    }

    public static void main(String[] arguments) throws IOException, InterruptedException {
        Path folder = Path.of(arguments[0]);
        List<Row> rows = new ArrayList<>(new SideBySide(folder, Path.of(arguments[1])).run());
        rows.addAll(new LateReview().run());
        rows.addAll(new ReviewPage(arguments[2]).run());
        rows.addAll(new LongEpisode(arguments[2]).run(folder.resolve("hour.wav")));
        rows.addAll(new InTheBrowser(arguments[2], LongEpisode.NAME, LongEpisode.PASSPHRASE).run());
        rows.addAll(new ThirtyRecipes(folder, Path.of(arguments[1]), arguments[2]).run());
        rows.add(new HourOfMp3(folder, Path.of(arguments[1]), arguments[2]).run());
        Files.writeString(Path.of(arguments[3]), report(rows));
        List<Row> missed = rows.stream().filter(row -> !row.holds()).toList();
        missed.forEach(row -> System.err.println("Over its bound: " + row.work() + ", " + row.value() + " of " + row.bound()));
        System.exit(missed.isEmpty() ? 0 : 1);
    }

    private static String report(List<Row> rows) throws IOException {
        StringBuilder page = new StringBuilder("# Speed\n\nPrinted by `bin/bench`, which writes this page. Ratios are of "
                + "processor seconds, of all threads, in the same run on the\nsame file; the least of all that fit into a minute counts, three at the least. Our "
                + "processes start cold and have a heap of " + SideBySide.HEAP + ", whatever the length. Times in\nthe application "
                + "are seen by a client on loopback; 95 of 100 have to keep the bound. A bare request asks the same application, signed in, for the least that commits a row, or for "
                + "as many\nbytes of a file. The browser is headless Chromium on the same machine. The hour of MP3 is timed by the clock, with\nall that the application does "
                + "about it.\n\n");
        page.append("| work | ours | against | ratio or time | at most | |\n|---|---|---|---|---|---|\n");
        for (Row row : rows) {
            page.append(String.format(Locale.ROOT, "| %s | %s | %s | %s | %s | %s |%n", row.work(), row.ours(), row.against(),
                    row.value(), row.against().isEmpty() ? row.bound() + " ms" : row.bound(), row.holds() ? "holds" : "missed"));
        }
        return page.append("\nMachine: ").append(processor()).append(", ").append(Runtime.getRuntime().availableProcessors())
                .append(" cores, Java ").append(System.getProperty("java.version")).append(", ")
                .append(System.getProperty("os.name")).append(".\n").toString();
    }

    private static String processor() throws IOException {
        try (var lines = Files.lines(Path.of("/proc/cpuinfo"))) {
            return lines.filter(line -> line.startsWith("model name")).map(line -> line.replaceAll(".*:\\s*", ""))
                    .findFirst().orElse("unknown processor");
        }
    }
}
