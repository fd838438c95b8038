package org.mellowclass.browser;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/** A command that has ended, with its code and all that it said. */
record Command(int code, String words) {

    static Command run(String... command) throws IOException, InterruptedException {
        return run(Map.of(), List.of(command));
    }

    /** One of the product's own, for the school of an application. */
    static Command run(RunningApp of, String name, String... arguments) throws IOException, InterruptedException {
        List<String> command = new ArrayList<>(List.of(RunningApp.PROJECT.resolve("bin").resolve(name).toString()));
        command.addAll(List.of(arguments));
        return run(Map.of("MELLOW_FOLDER", of.folder().toString(), "MELLOW_DATABASE_URL", of.database()), command);
    }

    private static Command run(Map<String, String> environment, List<String> command) throws IOException, InterruptedException {
        ProcessBuilder builder = new ProcessBuilder(command).redirectErrorStream(true);
        builder.environment().putAll(environment);
        Process process = builder.start();
        String words = new String(process.getInputStream().readAllBytes());
        return new Command(process.waitFor(), words);
    }

    Command orFail() throws IOException {
        if (code != 0) {
            throw new IOException(words);
        }
        return this;
    }

}
