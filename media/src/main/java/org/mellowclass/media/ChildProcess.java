package org.mellowclass.media;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;

/**
 * A child process under limits of time, memory, processor seconds and file size, whose error output is drained and capped.
 * Arguments are fixed by this package: no word of a user ever becomes an option.
 */
final class ChildProcess implements AutoCloseable {

    private static final long MOST_MEMORY_BYTES = 2L << 30;
    private static final int MOST_ERROR_BYTES = 16 * 1024;
    /** The file that is handed to it to read, as an argument. */
    static final String INPUT = "/dev/stdin";
    /** The file that is handed to it to fill, as an argument. */
    static final String OUTPUT = "/dev/stdout";

    private final Process process;
    private final CompletableFuture<String> errors;

    private ChildProcess(Process process) {
        this.process = process;
        this.errors = CompletableFuture.supplyAsync(() -> drain(process.getErrorStream()));
    }

    /**
     * Starts a command on a file, which it reads as {@link #INPUT}.
     *
     * @param confinement    what it may reach
     * @param input          the file that is handed to it
     * @param timeoutSeconds when it is ended, if it has not ended by itself
     * @param mostFileBytes  how much it may write to any one file
     * @param output         where its output goes
     */
    static ChildProcess start(Confinement confinement, Path input, long timeoutSeconds, long mostFileBytes, ProcessBuilder.Redirect output,
            List<String> command) throws IOException {
        confinement.letRead(input);
        List<String> limited = new ArrayList<>(List.of(
                "timeout", "-k", "5", Long.toString(timeoutSeconds),
                "prlimit", "--as=" + MOST_MEMORY_BYTES, "--cpu=" + timeoutSeconds, "--fsize=" + mostFileBytes, "--core=0"));
        limited.addAll(confinement.prefix());
        limited.addAll(command);
        ProcessBuilder builder = new ProcessBuilder(limited).directory(input.toAbsolutePath().getRoot().toFile())
                .redirectInput(input.toFile()).redirectOutput(output);
        // what the application knows (the database's password) is none of its business
        builder.environment().keySet().retainAll(Set.of("PATH"));
        return new ChildProcess(builder.start());
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
