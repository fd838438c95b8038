package org.mellowclass.benchmarks;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.UUID;
import java.util.concurrent.locks.LockSupport;

import com.fasterxml.jackson.databind.JsonNode;

/**
 * An episode of an hour and 500 clips in the running application, over HTTP as the bench's page does it: how long an edit
 * takes, and how long until the first sound after it is there. Measured at the client, so the network on loopback and the
 * reading of the answer are in it.
 */
final class LongEpisode {

    static final String NAME = "Wren";
    static final String PASSPHRASE = "two tickets";

    private static final long RATE = 48_000;
    private static final int CLIPS = 500;
    private static final int EDITS = 41;
    private static final int FIRST_EDITS = 10;
    private static final int FIRST_SOUND_FRAMES = (int) RATE / 2;
    /** What follows within 0.1 s seems to follow at once (Miller, Response time in man-computer conversational transactions, 1968); half is the network's and the page's. */
    private static final double MOST_MS_OF_EDIT = 40;
    private static final double MOST_MS_UNTIL_SOUND = 30;
    private static final double MOST_TIMES_BARE = 4;
    private static final Duration PATIENCE = Duration.ofMinutes(5);
    private static final Duration ASK_AGAIN = Duration.ofMillis(500);

    private final Visitor visitor;
    private String episode;
    private long revision;

    LongEpisode(String address) {
        this.visitor = new Visitor(address);
    }

    List<Row> run(Path hour) throws IOException, InterruptedException {
        episode = visitor.signInAsStudent("HERON8", NAME, PASSPHRASE);
        bringIn(hour);
        JsonNode timeline = timeline();
        long track = timeline.get("tracks").get(0).get("id").asLong();
        long frames = timeline.get("frames").asLong();
        long take = timeline.get("sources").get(0).get("takeId").asLong();
        for (int i = 1; i < CLIPS; i++) {
            edit("{\"type\":\"split\",\"frame\":" + frames / CLIPS * i + ",\"trackIds\":[" + track + "]}");
        }
        int clips = timeline().get("tracks").get(0).get("clips").size();
        System.out.println("an episode of " + frames / RATE / 60 + " min and " + clips + " clips");

        // what bringing in an hour has begun in the background is not what is asked here
        AtRest.await();
        double[] editing = new double[EDITS];
        double[] hearing = new double[EDITS];
        // the first ones are of a program that has never done this before: they are not counted
        for (int i = -FIRST_EDITS; i < EDITS; i++) {
            long at = frames / 2 + i * 31 * RATE;
            long start = System.nanoTime();
            edit("{\"type\":\"remove\",\"startFrame\":" + at + ",\"endFrame\":" + (at + RATE) + ",\"trackIds\":[" + track + "]}");
            long edited = System.nanoTime();
            visitor.hear(episode, revision, at, FIRST_SOUND_FRAMES);
            if (i >= 0) {
                editing[i] = (edited - start) / 1e6;
                hearing[i] = (System.nanoTime() - edited) / 1e6;
            }
        }
        double[] committing = new double[EDITS];
        double[] sending = new double[EDITS];
        for (int i = 0; i < EDITS; i++) {
            long start = System.nanoTime();
            visitor.post("/episodes/" + episode + "/here", "{\"frame\":" + i + "}");
            long committed = System.nanoTime();
            visitor.download("/takes/" + take + "/sound", visitor.bytesOf(FIRST_SOUND_FRAMES));
            committing[i] = (committed - start) / 1e6;
            sending[i] = (System.nanoTime() - committed) / 1e6;
        }
        return List.of(row("an edit, 60 min and " + clips + " clips", editing, MOST_MS_OF_EDIT),
                row("first preview sound after an edit, 60 min and " + clips + " clips", hearing, MOST_MS_UNTIL_SOUND),
                multiple("an edit, against a bare request that commits", editing, committing),
                multiple("first preview sound, against a bare request that sends as many bytes", hearing, sending));
    }

    /** Both are sorted already or here; their medians are compared. */
    private static Row multiple(String work, double[] ms, double[] bareMs) {
        Arrays.sort(ms);
        Arrays.sort(bareMs);
        double median = ms[ms.length / 2];
        double bare = bareMs[bareMs.length / 2];
        System.out.printf(Locale.ROOT, "%s: %.1f ms, %.1f ms, %.2f%n", work, median, bare, median / bare);
        return new Row(work, String.format(Locale.ROOT, "%.1f ms", median), String.format(Locale.ROOT, "bare request %.1f ms", bare),
                String.format(Locale.ROOT, "%.2f", median / bare), median / bare, MOST_TIMES_BARE);
    }

    private static Row row(String work, double[] ms, double mostMs) {
        Arrays.sort(ms);
        double median = ms[ms.length / 2];
        double late = ms[ms.length * 95 / 100];
        System.out.printf(Locale.ROOT, "%s: median %.1f ms, 95 %% within %.1f ms%n", work, median, late);
        return new Row(work, String.format(Locale.ROOT, "median %.1f ms, 95 %% within %.1f ms", median, late), "",
                String.format(Locale.ROOT, "%.1f ms", late), late, mostMs);
    }

    private void bringIn(Path file) throws IOException, InterruptedException {
        visitor.bringIn(episode, file, NAME);
        long end = System.nanoTime() + PATIENCE.toNanos();
        while (timeline().get("frames").asLong() == 0) {
            if (System.nanoTime() > end) {
                throw new IOException("the hour was not made ready in " + PATIENCE);
            }
            LockSupport.parkNanos(ASK_AGAIN.toNanos());
        }
    }

    private JsonNode timeline() throws IOException, InterruptedException {
        JsonNode timeline = visitor.timeline(episode);
        revision = timeline.get("revision").asLong();
        return timeline;
    }

    private void edit(String wish) throws IOException, InterruptedException {
        revision = visitor.post("/episodes/" + episode + "/edits",
                "{\"clientId\":\"" + UUID.randomUUID() + "\",\"base\":" + revision + ",\"edit\":" + wish + "}").get("revision").asLong();
    }
}
