package org.mellowclass.benchmarks;

import java.io.IOException;
import java.net.CookieManager;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.UUID;
import java.util.concurrent.locks.LockSupport;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;

/**
 * An episode of an hour and 500 clips in the running application, over HTTP as the bench's page does it: how long an edit
 * takes, and how long until the first sound after it is there. Measured at the client, so the network on loopback and the
 * reading of the answer are in it.
 */
final class LongEpisode {

    private static final long RATE = 48_000;
    private static final int CLIPS = 500;
    private static final int EDITS = 41;
    private static final int FIRST_SOUND_FRAMES = (int) RATE / 2;
    private static final double MOST_MS = 30;
    private static final Duration PATIENCE = Duration.ofMinutes(5);
    private static final Duration ASK_AGAIN = Duration.ofMillis(500);

    private final String address;
    private final HttpClient client = HttpClient.newBuilder().cookieHandler(new CookieManager())
            .followRedirects(HttpClient.Redirect.NORMAL).build();
    private final ObjectMapper json = new ObjectMapper();
    private String csrf;
    private String episode;
    private long revision;

    LongEpisode(String address) {
        this.address = address;
    }

    List<Row> run(Path hour) throws IOException, InterruptedException {
        signIn();
        bringIn(hour);
        JsonNode timeline = timeline();
        long track = timeline.get("tracks").get(0).get("id").asLong();
        long frames = timeline.get("frames").asLong();
        for (int i = 1; i < CLIPS; i++) {
            edit("{\"type\":\"split\",\"frame\":" + frames / CLIPS * i + ",\"trackIds\":[" + track + "]}");
        }
        int clips = timeline().get("tracks").get(0).get("clips").size();
        System.out.println("an episode of " + frames / RATE / 60 + " min and " + clips + " clips");

        double[] editing = new double[EDITS];
        double[] hearing = new double[EDITS];
        for (int i = 0; i < EDITS; i++) {
            long at = frames / 2 + i * 31 * RATE;
            long start = System.nanoTime();
            edit("{\"type\":\"remove\",\"startFrame\":" + at + ",\"endFrame\":" + (at + RATE) + ",\"trackIds\":[" + track + "]}");
            long edited = System.nanoTime();
            firstSound(at);
            editing[i] = (edited - start) / 1e6;
            hearing[i] = (System.nanoTime() - edited) / 1e6;
        }
        return List.of(row("an edit, 60 min and " + clips + " clips", editing),
                row("first preview sound after an edit, 60 min and " + clips + " clips", hearing));
    }

    private static Row row(String work, double[] ms) {
        Arrays.sort(ms);
        double median = ms[ms.length / 2];
        double late = ms[ms.length * 95 / 100];
        System.out.printf(Locale.ROOT, "%s: median %.1f ms, 95 %% within %.1f ms%n", work, median, late);
        return new Row(work, String.format(Locale.ROOT, "median %.1f ms, 95 %% within %.1f ms", median, late), "",
                String.format(Locale.ROOT, "%.1f ms", median), median, MOST_MS);
    }

    private void signIn() throws IOException, InterruptedException {
        String page = get("/sign-in");
        String form = "code=HERON8&name=Wren&passphrase=" + URLEncoder.encode("two tickets", StandardCharsets.UTF_8)
                + "&_csrf=" + URLEncoder.encode(found(page, "name=\"_csrf\" value=\"([^\"]+)\""), StandardCharsets.UTF_8);
        HttpResponse<String> bench = send(HttpRequest.newBuilder(URI.create(address + "/sign-in/student"))
                .header("Content-Type", "application/x-www-form-urlencoded").header("Accept", "text/html")
                .POST(HttpRequest.BodyPublishers.ofString(form)));
        csrf = found(bench.body(), "name=\"csrf-token\" content=\"([^\"]+)\"");
        episode = found(bench.uri().getPath(), "/episodes/(\\d+)/");
    }

    private void bringIn(Path file) throws IOException, InterruptedException {
        String edge = "edge-" + UUID.randomUUID();
        String head = "--" + edge + "\r\nContent-Disposition: form-data; name=\"trackName\"\r\n\r\nWren\r\n--" + edge
                + "\r\nContent-Disposition: form-data; name=\"file\"; filename=\"hour.wav\"\r\nContent-Type: audio/wav\r\n\r\n";
        String foot = "\r\n--" + edge + "--\r\n";
        send(asScript("/episodes/" + episode + "/takes").header("Content-Type", "multipart/form-data; boundary=" + edge)
                .POST(HttpRequest.BodyPublishers.concat(HttpRequest.BodyPublishers.ofString(head),
                        HttpRequest.BodyPublishers.ofFile(file), HttpRequest.BodyPublishers.ofString(foot))));
        long end = System.nanoTime() + PATIENCE.toNanos();
        while (timeline().get("frames").asLong() == 0) {
            if (System.nanoTime() > end) {
                throw new IOException("the hour was not made ready in " + PATIENCE);
            }
            LockSupport.parkNanos(ASK_AGAIN.toNanos());
        }
    }

    private JsonNode timeline() throws IOException, InterruptedException {
        JsonNode timeline = json.readTree(get("/episodes/" + episode + "/timeline"));
        revision = timeline.get("revision").asLong();
        return timeline;
    }

    private void edit(String wish) throws IOException, InterruptedException {
        String body = "{\"clientId\":\"" + UUID.randomUUID() + "\",\"base\":" + revision + ",\"edit\":" + wish + "}";
        HttpResponse<String> answer = send(asScript("/episodes/" + episode + "/edits").header("Content-Type", "application/json")
                .POST(HttpRequest.BodyPublishers.ofString(body)));
        revision = Long.parseLong(found(answer.body(), "\"revision\":(\\d+)"));
    }

    private void firstSound(long from) throws IOException, InterruptedException {
        HttpResponse<byte[]> sound = client.send(asScript("/episodes/" + episode + "/sound/" + revision + "/raw/" + from + "-"
                + (from + FIRST_SOUND_FRAMES)).header("Accept", "application/octet-stream").GET().build(),
                HttpResponse.BodyHandlers.ofByteArray());
        if (sound.statusCode() != 200 || sound.body().length != 4 * FIRST_SOUND_FRAMES) {
            throw new IOException("no sound: " + sound.statusCode());
        }
    }

    private HttpRequest.Builder asScript(String path) {
        return HttpRequest.newBuilder(URI.create(address + path)).header("X-CSRF-TOKEN", csrf)
                .header("X-Requested-With", "fetch");
    }

    private String get(String path) throws IOException, InterruptedException {
        return send(HttpRequest.newBuilder(URI.create(address + path)).header("Accept", "text/html,application/json").GET()).body();
    }

    private HttpResponse<String> send(HttpRequest.Builder request) throws IOException, InterruptedException {
        HttpResponse<String> answer = client.send(request.build(), HttpResponse.BodyHandlers.ofString());
        if (answer.statusCode() >= 300) {
            throw new IOException(answer.uri() + " answered " + answer.statusCode() + ": " + answer.body());
        }
        return answer;
    }

    private static String found(String text, String pattern) throws IOException {
        Matcher matcher = Pattern.compile(pattern).matcher(text);
        if (!matcher.find()) {
            throw new IOException("not found: " + pattern);
        }
        return matcher.group(1);
    }
}
