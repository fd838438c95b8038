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
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.locks.LockSupport;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.zip.CRC32;

import com.fasterxml.jackson.databind.JsonNode;

/**
 * A lesson of thirty crews, over the real HTTP protocol: all record at once for some minutes and listen to previews
 * meanwhile; then all hand in episodes of five minutes at once. {@code FOLDER SOUNDS ADDRESS PID MINUTES}.
 */
public final class Classroom {

    private static final int CREWS = 30;
    private static final int RATE = 48_000;
    private static final int EPISODE_SECONDS = 300;
    private static final int PREVIEW_FRAMES = 2 * RATE;
    private static final double MOST_ACKNOWLEDGE_MS = 150;
    private static final double MOST_HEAP_MB = 512;
    private static final double MOST_NUMBERED_MS = 2000;
    private static final double MOST_FINISHED_S = 180;
    private static final double MOST_BOARD_MS = 100;
    private static final double MOST_DESK_MS = 100;
    private static final int LOOKS = 21;
    private static final Duration LOOK_AGAIN = Duration.ofMillis(200);
    private static final Duration PATIENCE = Duration.ofMinutes(20);

    private final Path folder;
    private final Path sounds;
    private final String address;
    private final String pid;
    private final int seconds;
    private final List<Crew> crews = new ArrayList<>();
    private final ExecutorService lesson = Executors.newFixedThreadPool(2 * CREWS);
    private Visitor teacher;
    private String classPath;

    private Classroom(Path folder, Path sounds, String address, String pid, int minutes) {
        this.folder = folder;
        this.sounds = sounds;
        this.address = address;
        this.pid = pid;
        this.seconds = 60 * minutes;
    }

    public static void main(String[] arguments) throws Exception {
        Classroom classroom = new Classroom(Path.of(arguments[0]), Path.of(arguments[1]), arguments[2], arguments[3], Integer.parseInt(arguments[4]));
        List<Row> rows = new ArrayList<>();
        try {
            rows.add(new HourOfMp3(classroom.folder, classroom.sounds, classroom.address).run());
            classroom.fill();
            rows.add(classroom.looked("the class board with thirty crews, median", classroom.classPath, MOST_BOARD_MS));
            rows.addAll(classroom.record());
            rows.addAll(classroom.handIn());
            rows.add(classroom.looked("the marking desk with thirty hand-ins, median", classroom.classPath + "/marking", MOST_DESK_MS));
        } finally {
            classroom.lesson.shutdownNow();
        }
        for (Row row : rows) {
            System.out.printf(Locale.ROOT, "%-75s %s (%s; at most %s): %s%n", row.work(), row.value(), row.ours(), row.bound(), row.holds() ? "holds" : "MISSED");
        }
        System.exit(rows.stream().allMatch(Row::holds) ? 0 : 1);
    }

    private record Crew(Visitor student, String episode) {
    }

    /** A class of thirty crews with an episode of five minutes each, as a teacher sets it up. */
    private void fill() throws Exception {
        teacher = new Visitor(address);
        teacher.signInAsTeacher("okoro@saltmarsh.example", "high tide at nine");
        String crewsPath = teacher.form("/classes", Map.of("name", "Thirty")).uri().getPath();
        classPath = crewsPath.replaceAll("/crews$", "");
        StringBuilder list = new StringBuilder("name,crew\n");
        for (int i = 1; i <= CREWS; i++) {
            list.append("Student ").append(i).append(",Crew ").append(i).append('\n');
        }
        teacher.form(classPath + "/roster/confirm", Map.of("list", list.toString()));
        Matcher card = Pattern.compile("(?s)<b class=\"text-lg font-heading\">([^<]+)</b>.*?<dd><b>([^<]+)</b></dd>.*?<dd><b>([^<]+)</b></dd>")
                .matcher(teacher.get(classPath + "/cards"));
        while (card.find()) {
            Visitor student = new Visitor(address);
            crews.add(new Crew(student, student.signInAsStudent(card.group(2), card.group(1), card.group(3))));
        }
        if (crews.size() != CREWS) {
            throw new IOException(crews.size() + " cards");
        }
        Path five = folder.resolve("five.flac");
        run("ffmpeg", "-nostdin", "-y", "-stream_loop", "-1", "-i", sounds.resolve("kingfisher-voices.flac").toString(), "-t",
                Integer.toString(EPISODE_SECONDS), five.toString());
        for (Crew crew : crews) {
            crew.student.bringIn(crew.episode, five, "Voice");
        }
        await(crew -> crew.student.timeline(crew.episode).get("takes").findValues("clipped").stream().anyMatch(clipped -> !clipped.isNull()));
        System.out.println("thirty crews are there");
    }

    private Row looked(String work, String path, double mostMs) throws IOException, InterruptedException {
        double[] ms = new double[LOOKS];
        teacher.get(path);
        for (int i = 0; i < LOOKS; i++) {
            long start = System.nanoTime();
            teacher.get(path);
            ms[i] = secondsSince(start) * 1000;
        }
        Arrays.sort(ms);
        return new Row(work, String.format(Locale.ROOT, "95 %% within %.0f ms", at(ms, 0.95)), "",
                String.format(Locale.ROOT, "%.0f ms", at(ms, 0.5)), at(ms, 0.5), mostMs);
    }

    private List<Row> record() throws Exception {
        List<Future<double[]>> recorders = new ArrayList<>();
        List<Future<double[]>> listeners = new ArrayList<>();
        for (Crew crew : crews) {
            recorders.add(lesson.submit((Callable<double[]>) () -> recorded(crew)));
            listeners.add(lesson.submit((Callable<double[]>) () -> listened(crew)));
        }
        double heap = 0;
        while (!recorders.stream().allMatch(Future::isDone)) {
            LockSupport.parkNanos(Duration.ofSeconds(2).toNanos());
            heap = Math.max(heap, heapMb());
        }
        double[] acknowledged = all(recorders);
        double[] heard = all(listeners);
        return List.of(new Row("thirty recorders for " + seconds / 60 + " min, no chunk lost, acknowledgement p95",
                        String.format(Locale.ROOT, "%d chunks, median %.0f ms, longest %.0f ms", acknowledged.length, at(acknowledged, 0.5), at(acknowledged, 1)), "",
                        String.format(Locale.ROOT, "%.0f ms", at(acknowledged, 0.95)), at(acknowledged, 0.95), MOST_ACKNOWLEDGE_MS),
                new Row("the application's heap meanwhile", String.format(Locale.ROOT, "%d previews of 2 s, p95 %.0f ms", heard.length, at(heard, 0.95)), "",
                        String.format(Locale.ROOT, "%.0f MB", heap), heap, MOST_HEAP_MB));
    }

    /** Records as the page does, a chunk a second; how long each acknowledgement took, in ms. */
    private double[] recorded(Crew crew) throws IOException, InterruptedException {
        JsonNode begun = crew.student.post("/episodes/" + crew.episode + "/recordings", "{\"trackName\":\"Live\",\"sampleRate\":" + RATE + "}");
        String uploads = "/uploads/" + begun.get("uploadKey").asText();
        byte[] pcm = new byte[2 * RATE];
        for (int i = 0; i < RATE; i++) {
            short sample = (short) (6000 * Math.sin(2 * Math.PI * 300 * i / RATE));
            pcm[2 * i] = (byte) sample;
            pcm[2 * i + 1] = (byte) (sample >> 8);
        }
        CRC32 crc = new CRC32();
        crc.update(pcm);
        double[] ms = new double[seconds];
        long begin = System.nanoTime();
        for (int i = 0; i < seconds; i++) {
            long due = begin + Duration.ofSeconds(i + 1).toNanos();
            LockSupport.parkNanos(Math.max(0, due - System.nanoTime()));
            long start = System.nanoTime();
            crew.student.put(uploads + "/chunks/" + i + "?firstFrame=" + (long) i * RATE + "&crc32=" + crc.getValue(), pcm);
            ms[i] = secondsSince(start) * 1000;
        }
        JsonNode end = crew.student.post(uploads + "/end", "{\"chunks\":" + seconds + ",\"frames\":" + (long) seconds * RATE + "}");
        if (!end.get("missing").isEmpty()) {
            throw new IOException("chunks are missing: " + end);
        }
        return ms;
    }

    /** Listens to the crew's own episode, two seconds after two seconds. */
    private double[] listened(Crew crew) throws IOException, InterruptedException {
        long revision = crew.student.timeline(crew.episode).get("revision").asLong();
        int previews = seconds / 2;
        double[] ms = new double[previews];
        long begin = System.nanoTime();
        for (int i = 0; i < previews; i++) {
            LockSupport.parkNanos(Math.max(0, begin + Duration.ofSeconds(2L * i).toNanos() - System.nanoTime()));
            long start = System.nanoTime();
            crew.student.hear(crew.episode, revision, (long) i * PREVIEW_FRAMES % ((EPISODE_SECONDS - 2L) * RATE), PREVIEW_FRAMES);
            ms[i] = secondsSince(start) * 1000;
        }
        return ms;
    }

    /** The recordings are undone first, so that each hands in five minutes. */
    private List<Row> handIn() throws Exception {
        await(crew -> crew.student.timeline(crew.episode).get("tracks").size() == 2);
        for (Crew crew : crews) {
            long base = crew.student.timeline(crew.episode).get("revision").asLong();
            crew.student.post("/episodes/" + crew.episode + "/undo", "{\"clientId\":\"classroom-undo-" + crew.episode + "\",\"base\":" + base + "}");
        }
        long start = System.nanoTime();
        List<Future<double[]>> numbered = new ArrayList<>();
        for (Crew crew : crews) {
            numbered.add(lesson.submit((Callable<double[]>) () -> {
                crew.student.form("/episodes/" + crew.episode + "/hand-ins", Map.of());
                return new double[] {secondsSince(start) * 1000};
            }));
        }
        double[] all = all(numbered);
        await(crew -> crew.student.get("/episodes/" + crew.episode + "/hand-ins").contains("id=\"check-heading\""));
        double finished = secondsSince(start);
        return List.of(new Row("thirty hand-ins of five minutes at once, all numbered", String.format(Locale.ROOT, "median %.0f ms", at(all, 0.5)), "",
                        String.format(Locale.ROOT, "%.0f ms", at(all, 1)), at(all, 1), MOST_NUMBERED_MS),
                new Row("all finished", CREWS + " mixdowns", "", String.format(Locale.ROOT, "%.0f s", finished), finished, MOST_FINISHED_S));
    }

    /** Something that can be asked of a crew. */
    private interface Question {
        boolean ask(Crew crew) throws IOException, InterruptedException;
    }

    private void await(Question question) throws IOException, InterruptedException {
        long end = System.nanoTime() + PATIENCE.toNanos();
        for (Crew crew : crews) {
            while (!question.ask(crew)) {
                if (System.nanoTime() > end) {
                    throw new IOException("episode " + crew.episode + " was not ready in " + PATIENCE);
                }
                LockSupport.parkNanos(LOOK_AGAIN.toNanos());
            }
        }
    }

    /** What is used of the application's heap. */
    private double heapMb() throws IOException, InterruptedException {
        Process jcmd = new ProcessBuilder("jcmd", pid, "GC.heap_info").redirectErrorStream(true).start();
        String words = new String(jcmd.getInputStream().readAllBytes());
        jcmd.waitFor();
        return Double.parseDouble(Visitor.found(words, "used (\\d+)K")) / 1024;
    }

    private void run(String... command) throws IOException, InterruptedException {
        Process process = new ProcessBuilder(command).redirectErrorStream(true).redirectOutput(folder.resolve("log.txt").toFile()).start();
        if (process.waitFor() != 0) {
            throw new IOException(String.join(" ", command) + ": " + Files.readString(folder.resolve("log.txt")));
        }
    }

    private static double[] all(List<Future<double[]>> parts) throws ExecutionException, InterruptedException {
        List<double[]> values = new ArrayList<>();
        for (Future<double[]> part : parts) {
            values.add(part.get());
        }
        return values.stream().flatMapToDouble(Arrays::stream).sorted().toArray();
    }

    private static double at(double[] sorted, double part) {
        return sorted[(int) Math.min(sorted.length - 1, Math.floor(part * sorted.length))];
    }

    private static double secondsSince(long nanos) {
        return (System.nanoTime() - nanos) / 1e9;
    }
}
