package org.mellowclass.benchmarks;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;

/**
 * The same work on the same file, by us and by a general-purpose tool, by turns; the least processor time of each counts.
 * Our processes have a heap of 64 MB, whatever the length.
 */
final class SideBySide {

    static final double[] MIX_GAINS_DB = {-3, -6, -9, -12};
    static final String HEAP = "64m";

    /** So many and so long: what else the machine's host has to do changes from one minute to the next. */
    private static final int LEAST_ROUNDS = 3;
    private static final Duration LEAST_TIME = Duration.ofMinutes(1);
    private static final double MOST_MS_OF_RECIPE = 20_000;
    private static final double MOST_MS_OF_CHECK = 3000;

    private final Path folder;
    private final Path sounds;

    /**
     * @param folder for the files it makes; an hour of stereo is 690 MB
     * @param sounds where the demo school's sounds are
     */
    SideBySide(Path folder, Path sounds) {
        this.folder = folder;
        this.sounds = sounds;
    }

    List<Row> run() throws IOException, InterruptedException {
        Path hour = speech("hour.wav", 60, 2);
        List<Path> tracks = new ArrayList<>();
        for (int i = 0; i < MIX_GAINS_DB.length; i++) {
            tracks.add(speech("track-" + i + ".wav", 30, 1));
        }
        List<Row> rows = new ArrayList<>();
        rows.add(compare("loudness and true peak, 60 min stereo WAV", core("loudness", hour),
                List.of("ffmpeg", "-nostdin", "-threads", "1", "-i", hour.toString(), "-filter_threads", "1",
                        "-af", "ebur128=peak=true:framelog=verbose", "-f", "null", "-"), "ffmpeg", 0.2));
        rows.add(compare("mix of 4 tracks of 30 min with gains to WAV (ours stereo with fades, theirs mono)", core("mix", tracks, folder.resolve("ours.wav")),
                soxMix(tracks), "sox", 0.5));
        rows.add(compare("skyline of a 60 min take", core("skyline", hour),
                List.of("ffmpeg", "-nostdin", "-threads", "1", "-i", hour.toString(), "-f", "null", "-"), "ffmpeg", 2));
        Path take = speech("take.wav", 10, 1, "anull");
        Path cleaned = folder.resolve("cleaned.wav");
        rows.add(compare("room tone learned and noise down, 10 min mono", core("noise-down", List.of(take), cleaned),
                List.of("bash", "-c", "sox \"$1\" -n trim 0 1 noiseprof profile && sox \"$1\" reduced.wav noisered profile 0.2", "bash", take.toString()), "sox", 1));
        rows.add(alone("a recipe of six steps, 10 min mono", core("recipe", List.of(take), cleaned), MOST_MS_OF_RECIPE, CpuTime::of));
        rows.add(alone("a sound check of a mixdown of 10 min, by the clock", core("check", speech("mixdown.wav", 10, 2, "anull")), MOST_MS_OF_CHECK, SideBySide::byTheClock));
        return rows;
    }

    @FunctionalInterface
    private interface Timed {

        double seconds(Path folder, List<String> command) throws IOException, InterruptedException;
    }

    private static double byTheClock(Path folder, List<String> command) throws IOException, InterruptedException {
        long start = System.nanoTime();
        CpuTime.of(folder, command);
        return (System.nanoTime() - start) / 1e9;
    }

    private Row alone(String work, List<String> ours, double mostMs, Timed timed) throws IOException, InterruptedException {
        double us = Double.POSITIVE_INFINITY;
        long start = System.nanoTime();
        for (int round = 0; goesOn(round, start); round++) {
            us = Math.min(us, timed.seconds(folder, ours));
        }
        System.out.printf(Locale.ROOT, "%s: %.2f s%n", work, us);
        return new Row(work, String.format(Locale.ROOT, "%.2f s", us), "", String.format(Locale.ROOT, "%.0f ms", 1000 * us), 1000 * us, mostMs);
    }

    private Row compare(String work, List<String> ours, List<String> theirs, String tool, double bound)
            throws IOException, InterruptedException {
        double us = Double.POSITIVE_INFINITY;
        double them = Double.POSITIVE_INFINITY;
        long start = System.nanoTime();
        for (int round = 0; goesOn(round, start); round++) {
            us = Math.min(us, CpuTime.of(folder, ours));
            them = Math.min(them, CpuTime.of(folder, theirs));
        }
        System.out.printf(Locale.ROOT, "%s: %.2f s, %s %.2f s%n", work, us, tool, them);
        return new Row(work, String.format(Locale.ROOT, "%.2f s", us), String.format(Locale.ROOT, "%s %.2f s", tool, them),
                String.format(Locale.ROOT, "%.2f", us / them), us / them, bound);
    }

    private static boolean goesOn(int rounds, long start) {
        return rounds < LEAST_ROUNDS || System.nanoTime() - start < LEAST_TIME.toNanos();
    }

    private static List<String> core(String work, Path... files) {
        return core(work, Arrays.asList(files), null);
    }

    private static List<String> core(String work, List<Path> files, Path out) {
        List<String> command = new ArrayList<>(List.of("java", "-Xmx" + HEAP, "-XX:+UseSerialGC", "-cp",
                System.getProperty("java.class.path"), CoreWork.class.getName(), work));
        files.forEach(file -> command.add(file.toString()));
        if (out != null) {
            command.add(out.toString());
        }
        return command;
    }

    private List<String> soxMix(List<Path> tracks) {
        List<String> command = new ArrayList<>(List.of("sox", "-m"));
        for (int i = 0; i < MIX_GAINS_DB.length; i++) {
            command.addAll(List.of("-v", String.format(Locale.ROOT, "%.6f", Math.pow(10, MIX_GAINS_DB[i] / 20)),
                    tracks.get(i).toString()));
        }
        command.add(folder.resolve("theirs.wav").toString());
        return command;
    }

    /** Speech of the demo school over and over, as 16-bit WAV at 48 kHz; the middle sixth of it is digital silence, as where a track waits. */
    private Path speech(String name, int minutes, int channels) throws IOException, InterruptedException {
        return speech(name, minutes, channels, String.format(Locale.ROOT, "volume=enable='between(t,%d,%d)':volume=0", 25 * minutes, 35 * minutes));
    }

    private Path speech(String name, int minutes, int channels, String filter) throws IOException, InterruptedException {
        Path file = folder.resolve(name);
        CpuTime.of(folder, List.of("ffmpeg", "-nostdin", "-y", "-stream_loop", "-1", "-i",
                sounds.resolve("kingfisher-voices.flac").toString(), "-t", Integer.toString(60 * minutes),
                "-af", filter, "-ac", Integer.toString(channels), "-ar", "48000", "-bitexact", "-c:a", "pcm_s16le", file.toString()));
        if (Files.size(file) < 60L * minutes * channels * 96_000 - 1000) {
            throw new IOException(file + " is too short");
        }
        return file;
    }
}
