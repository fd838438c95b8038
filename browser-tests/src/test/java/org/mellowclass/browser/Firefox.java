package org.mellowclass.browser;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.WebSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionStage;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

import com.google.gson.Gson;
import com.google.gson.JsonArray;
import com.google.gson.JsonObject;
import com.google.gson.JsonParser;

/**
 * Debian's Firefox, headless, driven through WebDriver BiDi (W3C), which it speaks by itself: Debian has no driver for the
 * classic protocol. It has a microphone that hums, whose use is granted.
 */
final class Firefox implements AutoCloseable {

    private static final Duration PATIENCE = Duration.ofSeconds(60);
    private static final Duration ASK_AGAIN = Duration.ofMillis(100);
    private static final Pattern LISTENING = Pattern.compile("WebDriver BiDi listening on (ws://\\S+)");
    private static final String PREFERENCES = """
            user_pref("media.navigator.streams.fake", true);
            user_pref("media.navigator.permission.disabled", true);
            user_pref("browser.shell.checkDefaultBrowser", false);
            user_pref("datareporting.policy.dataSubmissionEnabled", false);
            user_pref("app.update.enabled", false);
            """;
    private static final Gson JSON = new Gson();

    private final Process soundServer;
    private final Process process;
    private final WebSocket socket;
    private final Map<Integer, CompletableFuture<JsonObject>> answers = new ConcurrentHashMap<>();
    private final String context;
    private int commands;

    Firefox() throws IOException {
        Path profile = Files.createTempDirectory("mellow-firefox");
        Files.writeString(profile.resolve("user.js"), PREFERENCES);
        // its audio graph stands still where no sound comes out: a sound server whose one device is silent
        Path socketOfSound = profile.resolve("sound");
        soundServer = quietly(new ProcessBuilder("pulseaudio", "-n", "--daemonize=no", "--exit-idle-time=-1", "--disallow-exit", "-L", "module-null-sink",
                "-L", "module-native-protocol-unix auth-anonymous=1 socket=" + socketOfSound), profile).start();
        ProcessBuilder builder = quietly(new ProcessBuilder("firefox-esr", "--headless", "--no-remote", "--profile", profile.toString(), "--remote-debugging-port", "0"), profile);
        builder.environment().put("PULSE_SERVER", "unix:" + socketOfSound);
        process = builder.redirectOutput(ProcessBuilder.Redirect.PIPE).start();
        socket = HttpClient.newHttpClient().newWebSocketBuilder().buildAsync(URI.create(listening() + "/session"), new Answers()).join();
        command("session.new", Map.of("capabilities", Map.of()));
        context = command("browsingContext.getTree", Map.of()).getAsJsonArray("contexts").get(0).getAsJsonObject().get("context").getAsString();
    }

    private static ProcessBuilder quietly(ProcessBuilder builder, Path home) {
        builder.environment().put("HOME", home.toString());
        builder.environment().put("XDG_RUNTIME_DIR", home.toString());
        return builder.redirectErrorStream(true).redirectOutput(ProcessBuilder.Redirect.DISCARD);
    }

    private String listening() throws IOException {
        BufferedReader words = new BufferedReader(new InputStreamReader(process.getInputStream()));
        for (String line; (line = words.readLine()) != null; ) {
            Matcher matcher = LISTENING.matcher(line);
            if (matcher.find()) {
                // what it says from now on is of no interest, but must not fill the pipe
                CompletableFuture.runAsync(() -> words.lines().forEach(ignored -> { }));
                return matcher.group(1);
            }
        }
        throw new IOException("Firefox did not start");
    }

    private final class Answers implements WebSocket.Listener {

        private final StringBuilder message = new StringBuilder();

        @Override
        public CompletionStage<?> onText(WebSocket from, CharSequence part, boolean last) {
            message.append(part);
            if (last) {
                JsonObject answer = JsonParser.parseString(message.toString()).getAsJsonObject();
                message.setLength(0);
                if (answer.has("id") && !answer.get("id").isJsonNull()) {
                    answers.remove(answer.get("id").getAsInt()).complete(answer);
                }
            }
            from.request(1);
            return null;
        }
    }

    private JsonObject command(String method, Map<String, ?> parameters) {
        int id = ++commands;
        CompletableFuture<JsonObject> answer = new CompletableFuture<>();
        answers.put(id, answer);
        socket.sendText(JSON.toJson(Map.of("id", id, "method", method, "params", parameters)), true).join();
        JsonObject said = answer.orTimeout(PATIENCE.toSeconds(), TimeUnit.SECONDS).join();
        if (!said.get("type").getAsString().equals("success")) {
            throw new IllegalStateException(method + ": " + said.get("message").getAsString());
        }
        return said.getAsJsonObject("result");
    }

    void navigate(String address) {
        command("browsingContext.navigate", Map.of("context", context, "url", address, "wait", "complete"));
    }

    /** The value of an expression, as JSON would have it; waited for if it is a promise. */
    String evaluate(String expression) {
        JsonObject result = command("script.evaluate", Map.of("expression", "Promise.resolve(" + expression + ").then(JSON.stringify)", "awaitPromise", true,
                "target", Map.of("context", context)));
        if (!result.get("type").getAsString().equals("success")) {
            throw new IllegalStateException(expression + ": " + result.getAsJsonObject("exceptionDetails").get("text").getAsString());
        }
        JsonObject value = result.getAsJsonObject("result");
        return value.has("value") ? value.get("value").getAsString() : "null";
    }

    void await(String expression) {
        long end = System.nanoTime() + PATIENCE.toNanos();
        while (!evaluate("Boolean(" + expression + ")").equals("true")) {
            if (System.nanoTime() > end) {
                throw new AssertionError("still waiting for " + expression);
            }
            CompletableFuture.runAsync(() -> { }, CompletableFuture.delayedExecutor(ASK_AGAIN.toMillis(), TimeUnit.MILLISECONDS)).join();
        }
    }

    /** Presses the mouse on an element, as a person does. */
    void click(String selector) {
        await("document.querySelector('" + selector + "')");
        JsonObject node = command("browsingContext.locateNodes", Map.of("context", context, "locator", Map.of("type", "css", "value", selector)))
                .getAsJsonArray("nodes").get(0).getAsJsonObject();
        evaluate("document.querySelector('" + selector + "').scrollIntoView({ block: 'center' })");
        perform(Map.of("type", "pointer", "id", "mouse", "actions", new Object[] {
            Map.of("type", "pointerMove", "x", 0, "y", 0, "origin", Map.of("type", "element", "element", Map.of("sharedId", node.get("sharedId").getAsString()))),
            Map.of("type", "pointerDown", "button", 0), Map.of("type", "pointerUp", "button", 0)}));
    }

    /** Types into an element. */
    void type(String selector, String text) {
        click(selector);
        JsonArray keys = new JsonArray();
        text.chars().forEach(letter -> {
            for (String what : new String[] {"keyDown", "keyUp"}) {
                JsonObject key = new JsonObject();
                key.addProperty("type", what);
                key.addProperty("value", Character.toString(letter));
                keys.add(key);
            }
        });
        perform(Map.of("type", "key", "id", "keyboard", "actions", keys));
    }

    private void perform(Map<String, ?> source) {
        command("input.performActions", Map.of("context", context, "actions", new Object[] {source}));
    }

    @Override
    public void close() {
        socket.abort();
        process.descendants().forEach(ProcessHandle::destroyForcibly);
        process.destroyForcibly().onExit().join();
        soundServer.destroyForcibly().onExit().join();
    }
}
