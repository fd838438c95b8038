package org.mellowclass.browser;

import java.io.IOException;
import java.net.ServerSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.concurrent.TimeUnit;

/** The application as a process of its own, in a schema of its own, on the database of bin/test. */
final class RunningApp {

    private static final Duration PATIENCE = Duration.ofMinutes(4);

    private final Path folder = Files.createTempDirectory("mellow-browser");
    private final int port = freePort();
    private Process process;

    private final String server;
    private final String schema;
    private final boolean demo;

    private RunningApp(String schema, boolean demo) throws IOException {
        this(System.getenv("MELLOW_DATABASE_SERVER"), schema, demo);
    }

    private RunningApp(String server, String schema, boolean demo) throws IOException {
        this.server = server;
        this.schema = schema;
        this.demo = demo;
        Runtime.getRuntime().addShutdownHook(new Thread(() -> process.destroy()));
    }

    static RunningApp start() throws IOException, InterruptedException {
        RunningApp app = new RunningApp(System.getProperty("mellow.tests.schema"), true);
        app.startAgain();
        return app;
    }

    /** Without a school. */
    static RunningApp startEmpty() throws IOException, InterruptedException {
        RunningApp app = new RunningApp("mellow_empty", false);
        app.startAgain();
        return app;
    }

    /** With the demo school, and with a wire of its own to the database. */
    static RunningApp startBehind(Wire wire) throws IOException, InterruptedException {
        RunningApp app = new RunningApp("jdbc:mariadb://127.0.0.1:" + wire.port(), "mellow_behind_a_wire", true);
        app.startAgain();
        return app;
    }

    /** In a folder and a schema that are still empty. */
    static RunningApp notStarted(String schema) throws IOException {
        return new RunningApp(schema, false);
    }

    /** Where its sounds are. */
    Path folder() {
        return folder.resolve("app");
    }

    String database() {
        return server + "/" + schema + "?createDatabaseIfNotExist=true";
    }

    /** What the person who starts it is told. */
    String words() throws IOException {
        return Files.readString(folder.resolve("ready.txt"));
    }

    /** Starts it with the data that it had, and waits until it is ready. */
    void startAgain() throws IOException, InterruptedException {
        Path ready = folder.resolve("ready.txt");
        Files.deleteIfExists(ready);
        ProcessBuilder builder = new ProcessBuilder("java", "@" + Path.of(System.getProperty("mellow.jar")).resolveSibling("../../deploy/java.options").normalize(), "-jar", System.getProperty("mellow.jar"),
                "--server.port=" + port, "--mellow.folder=" + folder(), "--mellow.demo=" + demo,
                "--mellow.ready-file=" + ready, "--db-scheduler.polling-interval=100ms");
        builder.environment().put("MELLOW_DATABASE_URL", database());
        Path log = Files.createDirectories(Path.of("target")).resolve(schema + ".log");
        process = builder.redirectErrorStream(true).redirectOutput(ProcessBuilder.Redirect.appendTo(log.toFile())).start();
        long end = System.nanoTime() + PATIENCE.toNanos();
        while (!Files.exists(ready)) {
            if (System.nanoTime() > end || process.waitFor(100, TimeUnit.MILLISECONDS)) {
                process.destroy();
                throw new IOException("the application did not start; " + log.toAbsolutePath() + " says why");
            }
        }
    }

    /** Ends it as a power cut would. */
    void kill() {
        process.destroyForcibly().onExit().join();
    }

    int port() {
        return port;
    }

    String address(String path) {
        return "http://127.0.0.1:" + port + path;
    }

    private static int freePort() throws IOException {
        try (ServerSocket socket = new ServerSocket(0)) {
            return socket.getLocalPort();
        }
    }
}
