package org.mellowclass.benchmarks;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/** Runs a command to its end, and says how many processor seconds it took, of all its threads, as the shell counts them. */
final class CpuTime {

    private CpuTime() {
    }

    static double of(Path folder, List<String> command) throws IOException, InterruptedException {
        String script = "TIMEFORMAT='cpu %U %S'; time \"$@\" >/dev/null 2>log.txt </dev/null";
        List<String> timed = new ArrayList<>(List.of("bash", "-c", "set -e; " + script, "bash"));
        timed.addAll(command);
        Process process = new ProcessBuilder(timed).directory(folder.toFile()).redirectErrorStream(true).start();
        String words = new String(process.getInputStream().readAllBytes());
        if (process.waitFor() != 0) {
            throw new IOException(String.join(" ", command) + ": see " + folder.resolve("log.txt"));
        }
        String[] parts = words.lines().filter(line -> line.startsWith("cpu ")).findFirst().orElseThrow().split(" ");
        return Double.parseDouble(parts[1]) + Double.parseDouble(parts[2]);
    }
}
