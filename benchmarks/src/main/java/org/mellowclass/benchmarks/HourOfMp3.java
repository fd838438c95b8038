package org.mellowclass.benchmarks;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.locks.LockSupport;
import java.util.function.Predicate;

import com.fasterxml.jackson.databind.JsonNode;

/**
 * An hour of stereo MP3 at 44.1 kHz is brought in, over HTTP: from the first byte sent until it lies on the bench, its
 * skyline is there and its first sound can be heard. Against ffmpeg, which decodes and resamples the same file to the same
 * WAV: of floats, with images and aliases 100 dB down. By turns, since a machine's speed changes from minute to minute; the
 * median of the ratios counts. How long ffmpeg takes for what it makes by default (16 bits, half as fine a filter) is told
 * too.
 */
final class HourOfMp3 {

    private static final int ROUNDS = 5;
    private static final int FIRST_SOUND_FRAMES = 24_000;
    private static final double MOST = 1.3;
    private static final Duration LOOK_AGAIN = Duration.ofMillis(100);
    private static final Duration PATIENCE = Duration.ofMinutes(5);

    private final Path folder;
    private final Path sounds;
    private final Visitor visitor;
    private String episode;

    HourOfMp3(Path folder, Path sounds, String address) {
        this.folder = folder;
        this.sounds = sounds;
        this.visitor = new Visitor(address);
    }

    Row run() throws IOException, InterruptedException {
        Path mp3 = folder.resolve("hour.mp3");
        CpuTime.of(folder, List.of("ffmpeg", "-nostdin", "-y", "-stream_loop", "-1", "-i", sounds.resolve("kingfisher-voices.flac").toString(),
                "-t", "3600", "-ac", "2", "-ar", "44100", "-b:a", "128k", mp3.toString()));
        episode = visitor.signInAsStudent("HERON8", "Otis", "long shore");
        double[] ours = new double[ROUNDS];
        double[] theirs = new double[ROUNDS];
        double[] byDefault = new double[ROUNDS];
        double[] ratios = new double[ROUNDS];
        for (int round = 0; round < ROUNDS; round++) {
            AtRest.await();
            byDefault[round] = resampling(mp3, "-ar", "48000");
            theirs[round] = resampling(mp3, "-af", "aresample=48000:filter_size=64:cutoff=0.92:kaiser_beta=10", "-c:a", "pcm_f32le");
            CpuTime.of(folder, List.of("sync"));
            long start = System.nanoTime();
            Landed landed = bringIn(mp3, "Hour " + round);
            ours[round] = secondsSince(start);
            ratios[round] = ours[round] / theirs[round];
            // the page is as long again as it was: each round has the same to do, and the next one nothing beside it
            visitor.post("/episodes/" + episode + "/undo", "{\"clientId\":\"benchmark-undo-" + round + "\",\"base\":" + landed.revision + ",\"evenOfOthers\":true}");
        }
        String work = "an hour of MP3 on the bench, drawn and playable (medians)";
        String seconds = String.format(Locale.ROOT, "%.2f s", median(ours));
        String against = String.format(Locale.ROOT, "ffmpeg %.2f s (%.2f s by default)", median(theirs), median(byDefault));
        double ratio = median(ratios);
        System.out.println(work + ": " + seconds + ", " + against);
        return new Row(work, seconds, against, String.format(Locale.ROOT, "%.2f", ratio), ratio, MOST);
    }

    private static double median(double[] values) {
        return Arrays.stream(values).sorted().toArray()[values.length / 2];
    }

    /** How long ffmpeg takes, in seconds. */
    private double resampling(Path mp3, String... how) throws IOException, InterruptedException {
        Path wav = folder.resolve("theirs.wav");
        List<String> command = new ArrayList<>(List.of("ffmpeg", "-nostdin", "-y", "-i", mp3.toString()));
        command.addAll(List.of(how));
        command.add(wav.toString());
        CpuTime.of(folder, List.of("sync"));
        long start = System.nanoTime();
        CpuTime.of(folder, command);
        double seconds = secondsSince(start);
        Files.delete(wav);
        return seconds;
    }

    /** Until its take has landed, and was drawn and heard. */
    private Landed bringIn(Path file, String track) throws IOException, InterruptedException {
        visitor.bringIn(episode, file, track);
        Landed landed = await(take -> take.getValue().get("trackName").asText().equals(track));
        visitor.get("/sounds/" + landed.sound + "/skyline/3/0");
        visitor.hear(episode, landed.revision, 0, FIRST_SOUND_FRAMES);
        return landed;
    }

    private record Landed(String sound, long revision) {
    }

    /** Waits for a ready take like that. */
    private Landed await(Predicate<Map.Entry<String, JsonNode>> wanted) throws IOException, InterruptedException {
        long end = System.nanoTime() + PATIENCE.toNanos();
        while (System.nanoTime() < end) {
            JsonNode timeline = visitor.timeline(episode);
            Optional<Map.Entry<String, JsonNode>> take = timeline.get("takes").properties().stream().filter(wanted).findFirst();
            if (take.isPresent()) {
                return new Landed(soundOf(timeline, take.get().getKey()), timeline.get("revision").asLong());
            }
            LockSupport.parkNanos(LOOK_AGAIN.toNanos());
        }
        throw new IOException("the hour was not ready in " + PATIENCE);
    }

    /** What the clip of a take plays. */
    private static String soundOf(JsonNode timeline, String take) throws IOException {
        for (JsonNode source : timeline.get("sources")) {
            if (source.get("takeId").asText().equals(take)) {
                return source.get("soundId").asText();
            }
        }
        throw new IOException("take " + take + " is not on the page");
    }

    private static double secondsSince(long nanos) {
        return (System.nanoTime() - nanos) / 1e9;
    }
}
