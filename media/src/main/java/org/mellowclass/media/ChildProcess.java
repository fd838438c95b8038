package org.mellowclass.media;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;

/**
 * A child process under limits of time, memory, processor seconds and file size, whose error output is drained and capped.
 * Arguments are fixed by this package: no word of a user ever becomes an option.
 */
final class ChildProcess implements AutoCloseable {

    private static final long MOST_MEMORY_BYTES = 2L << 30;
    private static final int MOST_ERROR_BYTES = 16 * 1024;
    /** A network of its own, in which nothing is; util-linux, unshare(1). */
    private static final List<String> WITHOUT_NETWORK = List.of("unshare", "--user", "--map-current-user", "--net", "--");
    private static final boolean NETWORK_CAN_GO = works(WITHOUT_NETWORK);

    private final Process process;
    private final CompletableFuture<String> errors;

    private ChildProcess(Process process) {
        this.process = process;
        this.errors = CompletableFuture.supplyAsync(() -> drain(process.getErrorStream()));
    }

    /**
     * Starts a command.
     *
     * @param folder         its working folder
     * @param timeoutSeconds when it is ended, if it has not ended by itself
     * @param mostFileBytes  how much it may write to any one file
     */
    static ChildProcess start(Path folder, long timeoutSeconds, long mostFileBytes, List<String> command)
            throws IOException {
        return start(folder, timeoutSeconds, mostFileBytes, ProcessBuilder.Redirect.PIPE, command);
    }

    /** As {@link #start(Path, long, long, List)}; its output goes where it is told to. */
    static ChildProcess start(Path folder, long timeoutSeconds, long mostFileBytes, ProcessBuilder.Redirect output, List<String> command)
            throws IOException {
        List<String> limited = new ArrayList<>(List.of(
                "timeout", "-k", "5", Long.toString(timeoutSeconds),
                "prlimit", "--as=" + MOST_MEMORY_BYTES, "--cpu=" + timeoutSeconds, "--fsize=" + mostFileBytes, "--core=0"));
        if (NETWORK_CAN_GO) {
            limited.addAll(WITHOUT_NETWORK);
        }
        limited.addAll(command);
        Process process = new ProcessBuilder(limited).directory(folder.toFile()).redirectOutput(output).start();
        process.getOutputStream().close();
        return new ChildProcess(process);
    }

    /** Whether this machine lets its children run without a network; where it does not, ffmpeg's own list of protocols stands alone. */
    static boolean withoutNetwork() {
        return NETWORK_CAN_GO;
    }

    private static boolean works(List<String> prefix) {
        List<String> trial = new ArrayList<>(prefix);
        trial.add("true");
        try {
            return new ProcessBuilder(trial).redirectErrorStream(true).redirectOutput(ProcessBuilder.Redirect.DISCARD).start().waitFor() == 0;
        } catch (IOException missing) {
            return false;
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return false;
        }
    }

    InputStream output() {
        return process.getInputStream();
    }

    /** Waits for the end, but not longer than so many milliseconds; whether it has come. */
    boolean ended(long milliseconds) throws IOException {
        try {
            return process.waitFor(milliseconds, TimeUnit.MILLISECONDS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException("interrupted while waiting for a child process", e);
        }
    }

    /** Waits for the end and returns the exit code; the output must have been read. */
    int exitCode() throws IOException {
        try {
            return process.waitFor();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException("interrupted while waiting for a child process", e);
        }
    }

    /** What it wrote to its error output, cut at the end. */
    String errors() {
        return errors.join();
    }

    /** Ends the process and those it started, if they still run. */
    @Override
    public void close() {
        process.descendants().forEach(ProcessHandle::destroyForcibly);
        process.destroyForcibly();
    }

    private static String drain(InputStream stream) {
        try (stream) {
            byte[] kept = stream.readNBytes(MOST_ERROR_BYTES);
            byte[] rest = new byte[8192];
            while (stream.read(rest) >= 0) {
                continue;
            }
            return new String(kept, StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
