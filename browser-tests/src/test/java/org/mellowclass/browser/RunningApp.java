package org.mellowclass.browser;

import java.io.IOException;
import java.net.ServerSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.concurrent.TimeUnit;

/** The application as a process of its own, with the demo school in a schema of its own, on the database of bin/test. */
final class RunningApp implements AutoCloseable {

    private static final Duration PATIENCE = Duration.ofMinutes(4);

    private final Process process;
    private final int port;

    private RunningApp(Process process, int port) {
        this.process = process;
        this.port = port;
    }

    static RunningApp start() throws IOException, InterruptedException {
        Path folder = Files.createTempDirectory("mellow-browser");
        Path ready = folder.resolve("ready.txt");
        int port = freePort();
        ProcessBuilder builder = new ProcessBuilder("java", "-Xmx512m", "-jar", System.getProperty("mellow.jar"),
                "--server.port=" + port, "--mellow.folder=" + folder.resolve("app"), "--mellow.demo=true",
                "--mellow.ready-file=" + ready);
        builder.environment().put("MELLOW_DATABASE_URL",
                System.getenv("MELLOW_DATABASE_SERVER") + "/mellow_browser_tests?createDatabaseIfNotExist=true");
        Path log = Files.createDirectories(Path.of("target")).resolve("app.log");
        Process process = builder.redirectErrorStream(true).redirectOutput(log.toFile()).start();
        Runtime.getRuntime().addShutdownHook(new Thread(process::destroy));
        long end = System.nanoTime() + PATIENCE.toNanos();
        while (!Files.exists(ready)) {
            if (System.nanoTime() > end || process.waitFor(100, TimeUnit.MILLISECONDS)) {
                process.destroy();
                throw new IOException("the application did not start; " + log.toAbsolutePath() + " says why");
            }
        }
        return new RunningApp(process, port);
    }

    String address(String path) {
        return "http://127.0.0.1:" + port + path;
    }

    @Override
    public void close() {
        process.destroy();
        process.onExit().join();
    }

    private static int freePort() throws IOException {
        try (ServerSocket socket = new ServerSocket(0)) {
            return socket.getLocalPort();
        }
    }
}
