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

    static final Path PROJECT = Path.of(System.getProperty("mellow.jar")).resolveSibling("../..").normalize();

    private final Path folder = Files.createTempDirectory("mellow-browser");
    private final int port = freePort();
    private final String server;
    private final String schema;
    private Process process;

    private RunningApp(String server, String schema) throws IOException {
        this.server = server;
        this.schema = schema;
        Runtime.getRuntime().addShutdownHook(new Thread(() -> process.destroy()));
    }

    /** With the demo school. */
    static RunningApp start() throws IOException, InterruptedException {
        return startWithDemo(notStarted(System.getProperty("mellow.tests.schema")));
    }

    /** With the demo school, and with a wire of its own to the database. */
    static RunningApp startBehind(Wire wire) throws IOException, InterruptedException {
        return startWithDemo(new RunningApp("jdbc:mariadb://127.0.0.1:" + wire.port(), "mellow_behind_a_wire"));
    }

    private static RunningApp startWithDemo(RunningApp app) throws IOException, InterruptedException {
        DemoCopy.restore(app);
        app.startAgain();
        return app;
    }

    /** In a folder and a schema that are still empty. */
    static RunningApp notStarted(String schema) throws IOException {
        return new RunningApp(System.getenv("MELLOW_DATABASE_SERVER"), schema);
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
        startAgain(false);
    }

    /**
     * As {@link #startAgain()}.
     *
     * @param demo whether it makes the demo school if it has no school
     */
    void startAgain(boolean demo) throws IOException, InterruptedException {
        Path ready = folder.resolve("ready.txt");
        Files.deleteIfExists(ready);
        // with the quick compiler alone: none of the journeys is long enough for the other to pay
        ProcessBuilder builder = new ProcessBuilder("java", "@" + PROJECT.resolve("deploy/java.options"), "-XX:TieredStopAtLevel=1", "-jar", System.getProperty("mellow.jar"),
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
