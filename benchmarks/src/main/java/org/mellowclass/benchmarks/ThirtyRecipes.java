package org.mellowclass.benchmarks;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.locks.LockSupport;

import com.fasterxml.jackson.databind.JsonNode;

/** Thirty takes of two minutes that all get a recipe by one press, and somebody of another crew who edits meanwhile. */
final class ThirtyRecipes {

    private static final int TAKES = 30;
    private static final long RATE = 48_000;
    private static final String STEPS = "low-cut:100;hum-out;noise-down:12;room-down:6;clicks;level:6";
    private static final double MOST_MS = 5 * 60_000;
    private static final double MOST_MS_OF_EDIT = 40;
    private static final int TRIALS = 21;
    private static final double MOST_MS_OF_TRIAL = 200;
    private static final Duration PATIENCE = Duration.ofMinutes(15);
    private static final Duration LOOK_AGAIN = Duration.ofMillis(500);
    private static final Duration BETWEEN_EDITS = Duration.ofSeconds(1);

    private final Visitor crew;
    private final Visitor other;
    private final Path folder;
    private final Path sounds;

    ThirtyRecipes(Path folder, Path sounds, String address) {
        this.folder = folder;
        this.sounds = sounds;
        this.crew = new Visitor(address);
        this.other = new Visitor(address);
    }

    List<Row> run() throws IOException, InterruptedException {
        Path file = folder.resolve("two-minutes.wav");
        CpuTime.of(folder, List.of("ffmpeg", "-nostdin", "-y", "-stream_loop", "-1", "-i", sounds.resolve("kingfisher-voices.flac").toString(),
                "-t", "120", "-ac", "1", "-ar", "48000", "-c:a", "pcm_s16le", file.toString()));
        String episode = crew.signInAsStudent("HERON8", "Otis", "long shore");
        Set<Long> before = takes(episode);
        for (int i = 0; i < TAKES; i++) {
            crew.bringIn(episode, file, "Voices");
        }
        long end = System.nanoTime() + PATIENCE.toNanos();
        Set<Long> brought = new HashSet<>();
        while (brought.size() < TAKES) {
            pause(LOOK_AGAIN, end, "the takes were not made ready");
            brought.addAll(takes(episode));
            brought.removeAll(before);
        }
        AtRest.await();
        double[] trials = trials(brought.iterator().next());

        String theirs = other.signInAsStudent("HERON8", LongEpisode.NAME, LongEpisode.PASSPHRASE);
        List<Double> edits = new ArrayList<>();
        long start = System.nanoTime();
        crew.form("/takes/" + brought.iterator().next() + "/cleanup", Map.of("steps", STEPS, "scope", "VOICES", "roomFrom", "", "roomTo", ""));
        List<Long> waiting = new ArrayList<>(brought);
        while (!waiting.isEmpty()) {
            edits.add(edit(theirs));
            waiting.removeIf(this::made);
            pause(BETWEEN_EDITS, end, "the recipes were not done");
        }
        double ms = (System.nanoTime() - start) / 1e6;
        double[] sorted = edits.stream().mapToDouble(Double::doubleValue).sorted().toArray();
        double late = sorted[(int) (sorted.length * 0.95)];
        String editing = String.format(Locale.ROOT, "median %.1f ms, 95 %% within %.1f ms", sorted[sorted.length / 2], late);
        System.out.printf(Locale.ROOT, "thirty recipes: %.1f s; meanwhile an edit: %s%n", ms / 1000, editing);
        double lateTrial = trials[(int) (trials.length * 0.95)];
        return List.of(new Row("the first sound of a trial of six steps, take of two minutes that is analysed",
                        String.format(Locale.ROOT, "median %.1f ms, 95 %% within %.1f ms", trials[trials.length / 2], lateTrial), "", String.format(Locale.ROOT, "%.1f ms", lateTrial), lateTrial, MOST_MS_OF_TRIAL),
                new Row("a recipe of six steps for thirty takes of two minutes at once", String.format(Locale.ROOT, "%.1f s", ms / 1000), "",
                        String.format(Locale.ROOT, "%.0f ms", ms), ms, MOST_MS),
                new Row("an edit of another crew meanwhile, 60 min and 500 clips", editing, "", String.format(Locale.ROOT, "%.1f ms", late), late, MOST_MS_OF_EDIT));
    }

    /** Each with another amount, so that none was made before; sorted, in milliseconds. */
    private double[] trials(long take) throws IOException, InterruptedException {
        String window = "/takes/" + take + "/cleanup/window/AFTER?roomFrom=&roomTo=&from=480000&steps=";
        double[] ms = new double[TRIALS];
        // the first looks at the take
        crew.get(window + STEPS);
        for (int i = 0; i < TRIALS; i++) {
            long start = System.nanoTime();
            crew.get(window + STEPS.replace("noise-down:12", "noise-down:" + (6 + 0.5 * i)));
            ms[i] = (System.nanoTime() - start) / 1e6;
        }
        Arrays.sort(ms);
        System.out.printf(Locale.ROOT, "trials: median %.1f ms, longest %.1f ms%n", ms[TRIALS / 2], ms[TRIALS - 1]);
        return ms;
    }

    private static void pause(Duration how, long end, String otherwise) throws IOException {
        if (System.nanoTime() > end) {
            throw new IOException(otherwise + " in " + PATIENCE);
        }
        LockSupport.parkNanos(how.toNanos());
    }

    /** Those that lie on the page. */
    private Set<Long> takes(String episode) throws IOException, InterruptedException {
        Set<Long> takes = new HashSet<>();
        crew.timeline(episode).get("sources").forEach(source -> takes.add(source.get("takeId").asLong()));
        return takes;
    }

    private boolean made(long take) {
        try {
            return crew.get("/takes/" + take + "/cleanup/figures?steps=" + STEPS + "&roomFrom=&roomTo=").contains("data-made=\"true\"");
        } catch (IOException | InterruptedException e) {
            throw new IllegalStateException("take " + take, e);
        }
    }

    private double edit(String episode) throws IOException, InterruptedException {
        JsonNode timeline = other.timeline(episode);
        long at = timeline.get("frames").asLong() / 3;
        long track = timeline.get("tracks").get(0).get("id").asLong();
        String wish = "{\"clientId\":\"" + UUID.randomUUID() + "\",\"base\":" + timeline.get("revision").asLong() + ",\"edit\":{\"type\":\"remove\",\"startFrame\":" + at
                + ",\"endFrame\":" + (at + RATE) + ",\"trackIds\":[" + track + "]}}";
        long start = System.nanoTime();
        other.post("/episodes/" + episode + "/edits", wish);
        return (System.nanoTime() - start) / 1e6;
    }
}
