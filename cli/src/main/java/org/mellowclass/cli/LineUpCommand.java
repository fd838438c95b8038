package org.mellowclass.cli;

import java.io.IOException;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Callable;

import com.fasterxml.jackson.databind.ObjectMapper;
import org.mellowclass.core.measure.LineUp;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** {@code bin/sound lineup A B}: how much later B starts than A, as one JSON object. */
@Command(name = "lineup", mixinStandardHelpOptions = true, description = {
    "Prints {offsetSeconds, driftPpm, confidence}: how much later B starts, and how far its clock runs apart.",
    "The drift is null where less than a minute is common to both. Exit code 1 if they do not match, with a sentence on stderr."})
final class LineUpCommand implements Callable<Integer> {

    @Parameters(index = "0", paramLabel = "A")
    private Path a;
    @Parameters(index = "1", paramLabel = "B")
    private Path b;
    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        Optional<DecodedFile> first = DecodedFile.of(a, spec.commandLine().getErr());
        try {
            Optional<DecodedFile> second = first.isEmpty() ? Optional.empty() : DecodedFile.of(b, spec.commandLine().getErr());
            if (second.isEmpty()) {
                return 1;
            }
            try (DecodedFile other = second.get()) {
                return print(LineUp.of(first.get().sound(), other.sound()));
            }
        } finally {
            if (first.isPresent()) {
                first.get().close();
            }
        }
    }

    private int print(LineUp.Result result) throws IOException {
        if (!result.matched()) {
            spec.commandLine().getErr().println(result.reason() == LineUp.Reason.TOO_SHORT
                    ? "One of them is too short to be lined up." : "Nothing common to both was found.");
            return 1;
        }
        Map<String, Object> values = new LinkedHashMap<>();
        values.put("offsetSeconds", result.offsetSeconds());
        values.put("driftPpm", result.driftPpm().isPresent() ? result.driftPpm().getAsDouble() : null);
        values.put("confidence", result.confidence());
        spec.commandLine().getOut().println(new ObjectMapper().writeValueAsString(values));
        return 0;
    }
}
