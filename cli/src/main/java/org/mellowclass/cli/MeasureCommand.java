package org.mellowclass.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;

import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.databind.ObjectMapper;
import org.mellowclass.core.measure.ClippingFinder.Search;
import org.mellowclass.core.measure.Measurement;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.media.SoundDecoder;
import org.mellowclass.media.SoundFacts;
import org.mellowclass.media.SoundRefused;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** {@code bin/sound measure FILE...}: one JSON object a file, each on a line of its own. */
@Command(name = "measure", mixinStandardHelpOptions = true, description = {
    "Prints one JSON object a file: loudness (LUFS, LU), peaks (dBTP, dBFS), DC offset, clipped runs, noise floor, pauses.",
    "What has no value is null. A file that cannot be read gets a sentence on stderr and exit code 1; the others are measured."})
final class MeasureCommand implements Callable<Integer> {

    static final Map<SoundRefused.Reason, String> WHY = Map.of(
            SoundRefused.Reason.EMPTY, "is empty",
            SoundRefused.Reason.NOT_SOUND, "is not a sound file",
            SoundRefused.Reason.NO_AUDIO, "has no sound in it",
            SoundRefused.Reason.ODD_RATE, "has a sample rate that makes no sense",
            SoundRefused.Reason.TOO_LONG, "is longer than a day",
            SoundRefused.Reason.BROKEN, "is broken and could not be decoded");

    @Parameters(paramLabel = "FILE", arity = "1..*", description = "Anything that ffmpeg decodes.")
    private List<Path> files;

    @Spec
    private CommandSpec spec;

    private final ObjectMapper json = new ObjectMapper().disable(JsonGenerator.Feature.AUTO_CLOSE_TARGET);

    @Override
    public Integer call() throws IOException {
        PrintWriter out = spec.commandLine().getOut();
        PrintWriter err = spec.commandLine().getErr();
        int exitCode = 0;
        for (Path file : files) {
            try {
                out.println(json.writeValueAsString(MeasuredFile.of(file.toString(), measured(file))));
            } catch (SoundRefused refused) {
                err.println(file + " " + WHY.get(refused.reason()) + ".");
                exitCode = 1;
            } catch (IOException failed) {
                err.println(file + " could not be read. Is it there, and may you read it?");
                exitCode = 1;
            }
            out.flush();
            err.flush();
        }
        return exitCode;
    }

    private static Measurement measured(Path file) throws IOException, SoundRefused {
        if (!Files.isRegularFile(file) || !Files.isReadable(file)) {
            throw new IOException("not a readable file");
        }
        SoundDecoder decoder = SoundDecoder.forOwnFiles();
        SoundFacts facts = decoder.probe(file);
        Search search = facts.lossless() ? Search.FULL_SCALE_AND_FLAT_TOPS : Search.FULL_SCALE_ONLY;
        try (SampleSource sound = decoder.open(file, facts)) {
            Measurement measurement = Measurement.of(sound, search);
            if (measurement.frames() == 0 && facts.seconds() > 0) {
                throw new SoundRefused(SoundRefused.Reason.BROKEN, "no frame was decoded");
            }
            return measurement;
        }
    }
}
