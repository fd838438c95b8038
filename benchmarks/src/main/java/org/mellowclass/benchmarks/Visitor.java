package org.mellowclass.benchmarks;

import java.io.IOException;
import java.io.InputStream;
import java.net.CookieManager;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Base64;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;

/** Somebody at a browser of their own: keeps cookies and the CSRF token, and speaks as the pages do. */
final class Visitor {

    private static final String HTML = "text/html";
    /** As in file-sending.js. */
    private static final int PART_BYTES = 8 << 20;
    /** Two channels of 32 bits. */
    private static final int BYTES_A_FRAME = 8;

    private final String address;
    private final HttpClient client = HttpClient.newBuilder().cookieHandler(new CookieManager())
            .followRedirects(HttpClient.Redirect.NORMAL).build();
    private final HttpClient withoutCookies = HttpClient.newHttpClient();
    private final ObjectMapper json = new ObjectMapper();
    private String csrfHeader;
    private String csrf;

    Visitor(String address) {
        this.address = address;
    }

    /** Signs a student in; returns the number of their episode. */
    String signInAsStudent(String code, String name, String passphrase) throws IOException, InterruptedException {
        return found(signIn("/sign-in/student", Map.of("code", code, "name", name, "passphrase", passphrase)).uri().getPath(), "/episodes/(\\d+)/");
    }

    void signInAsTeacher(String email, String password) throws IOException, InterruptedException {
        signIn("/sign-in/teacher", Map.of("email", email, "password", password));
    }

    private HttpResponse<String> signIn(String path, Map<String, String> fields) throws IOException, InterruptedException {
        csrf = found(get("/sign-in"), "name=\"_csrf\" value=\"([^\"]+)\"");
        HttpResponse<String> home = form(path, fields);
        csrfHeader = found(home.body(), "name=\"csrf-header\" content=\"([^\"]+)\"");
        csrf = found(home.body(), "name=\"csrf-token\" content=\"([^\"]+)\"");
        return home;
    }

    /** Sends a form, and follows where it leads. */
    HttpResponse<String> form(String path, Map<String, String> fields) throws IOException, InterruptedException {
        String body = fields.entrySet().stream().map(field -> field.getKey() + "=" + encoded(field.getValue())).collect(Collectors.joining("&"));
        return send(request(path).header("Content-Type", "application/x-www-form-urlencoded").header("Accept", HTML)
                .POST(HttpRequest.BodyPublishers.ofString(body + "&_csrf=" + encoded(csrf))));
    }

    /** Brings a file in onto a track, in parts as the page does; it is on its way to the take list then. */
    void bringIn(String episode, Path file, String track) throws IOException, InterruptedException {
        String named = "filename " + base64("sound.wav") + ",trackName " + base64(track);
        String address = send(inParts("/episodes/" + episode + "/files").header("Upload-Length", Long.toString(Files.size(file)))
                .header("Upload-Metadata", named).POST(HttpRequest.BodyPublishers.noBody())).headers().firstValue("Location").orElseThrow();
        try (InputStream in = Files.newInputStream(file)) {
            long offset = 0;
            for (byte[] part; (part = in.readNBytes(PART_BYTES)).length > 0; offset += part.length) {
                send(inParts(address).header("Content-Type", "application/offset+octet-stream").header("Upload-Offset", Long.toString(offset))
                        .method("PATCH", HttpRequest.BodyPublishers.ofByteArray(part)));
            }
        }
    }

    JsonNode timeline(String episode) throws IOException, InterruptedException {
        return json.readTree(get("/episodes/" + episode + "/timeline"));
    }

    JsonNode post(String path, String body) throws IOException, InterruptedException {
        return json.readTree(send(asScript(path).header("Content-Type", "application/json").header("Accept", "application/json")
                .POST(HttpRequest.BodyPublishers.ofString(body))).body());
    }

    /** Sends a chunk as a recording does, outside of the session. */
    void put(String path, byte[] body) throws IOException, InterruptedException {
        HttpResponse<String> answer = withoutCookies.send(request(path).header("Content-Type", "application/octet-stream")
                .PUT(HttpRequest.BodyPublishers.ofByteArray(body)).build(), HttpResponse.BodyHandlers.ofString());
        if (answer.statusCode() >= 300) {
            throw new IOException(path + " answered " + answer.statusCode() + ": " + answer.body());
        }
    }

    /** The mix of a span, as the bench asks for it. */
    void hear(String episode, long revision, long from, int frames) throws IOException, InterruptedException {
        HttpResponse<byte[]> sound = client.send(asScript("/episodes/" + episode + "/sound/" + revision + "/0_-1000/" + from + "-" + (from + frames))
                .header("Accept", "application/octet-stream").GET().build(), HttpResponse.BodyHandlers.ofByteArray());
        if (sound.statusCode() != 200 || sound.body().length != bytesOf(frames)) {
            throw new IOException("no sound: " + sound.statusCode());
        }
    }

    /** How many bytes so many frames of the mix are sent in. */
    int bytesOf(int frames) {
        return BYTES_A_FRAME * frames;
    }

    /** The first bytes of a file. */
    void download(String path, int bytes) throws IOException, InterruptedException {
        HttpResponse<byte[]> answer = client.send(asScript(path).header("Range", "bytes=0-" + (bytes - 1)).GET().build(), HttpResponse.BodyHandlers.ofByteArray());
        if (answer.statusCode() != 206 || answer.body().length != bytes) {
            throw new IOException(path + " answered " + answer.statusCode() + " with " + answer.body().length + " bytes");
        }
    }

    String get(String path) throws IOException, InterruptedException {
        return send(request(path).header("Accept", "text/html,application/json").GET()).body();
    }

    private HttpRequest.Builder inParts(String path) {
        return asScript(path).header("Tus-Resumable", "1.0.0");
    }

    private HttpRequest.Builder asScript(String path) {
        return request(path).header(csrfHeader, csrf).header("X-Requested-With", "fetch");
    }

    private HttpRequest.Builder request(String path) {
        return HttpRequest.newBuilder(URI.create(address + path));
    }

    private HttpResponse<String> send(HttpRequest.Builder request) throws IOException, InterruptedException {
        HttpResponse<String> answer = client.send(request.build(), HttpResponse.BodyHandlers.ofString());
        if (answer.statusCode() >= 300) {
            throw new IOException(answer.uri() + " answered " + answer.statusCode() + ": " + answer.body());
        }
        return answer;
    }

    private static String base64(String text) {
        return Base64.getEncoder().encodeToString(text.getBytes(StandardCharsets.UTF_8));
    }

    private static String encoded(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8);
    }

    static String found(String text, String pattern) throws IOException {
        Matcher matcher = Pattern.compile(pattern).matcher(text);
        if (!matcher.find()) {
            throw new IOException("not found: " + pattern);
        }
        return matcher.group(1);
    }
}
