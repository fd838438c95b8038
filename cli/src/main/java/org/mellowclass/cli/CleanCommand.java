package org.mellowclass.cli;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.concurrent.Callable;

import com.fasterxml.jackson.databind.ObjectMapper;
import org.mellowclass.core.cleanup.Cleanup;
import org.mellowclass.core.cleanup.CleanupRefused;
import org.mellowclass.core.cleanup.Harm;
import org.mellowclass.core.cleanup.Heard;
import org.mellowclass.core.cleanup.Recipe;
import org.mellowclass.core.cleanup.RecipeText;
import org.mellowclass.core.cleanup.StarterRecipe;
import org.mellowclass.core.cleanup.StepKind;
import org.mellowclass.core.measure.HumFinder;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Opening;
import org.mellowclass.core.sound.SampleFormat;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.sound.WavReader;
import org.mellowclass.core.sound.WavWriter;
import picocli.CommandLine.ArgGroup;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** {@code bin/sound clean IN OUT}: writes a cleaned WAV that is as long as the file, and prints what it was, is, and what harm was done. */
@Command(name = "clean", mixinStandardHelpOptions = true, description = {
    "Cleans a sound by a recipe or by steps in their order, and prints {file, before, after, harm, warnings, notDone} as one JSON object.",
    "bin/sound recipes lists both. Exit code 1 with a sentence on stderr where it cannot be done."})
final class CleanCommand implements Callable<Integer> {

    private static final Map<CleanupRefused.Reason, String> WHY = Map.of(
            CleanupRefused.Reason.OUT_OF_RANGE, "A number is out of its range; bin/sound recipes lists them.",
            CleanupRefused.Reason.CEILING_NOT_LAST, "The ceiling must be the last step: what comes behind it could be louder again.",
            CleanupRefused.Reason.NO_SUCH_STEP, "There is no such step; bin/sound recipes lists them.",
            CleanupRefused.Reason.UNREADABLE, "A step is written NAME[:VALUE[/VALUE…]][@PERCENT].",
            CleanupRefused.Reason.TOO_MANY_STEPS, "These are too many steps.",
            CleanupRefused.Reason.ROOM_HAS_SPEECH, "Somebody speaks there: it cannot be the room.",
            CleanupRefused.Reason.ROOM_TOO_SHORT, "The room must be half a second long or longer, and in the sound.");

    /** One of both. */
    static final class Asked {
        @Option(names = "--recipe", paramLabel = "NAME", required = true)
        private String recipe;
        @Option(names = "--step", paramLabel = "NAME[:VALUE[/VALUE…]]", required = true, description = "for example noise-down:12; several are done in their order")
        private List<String> steps;
    }

    @ArgGroup(multiplicity = "1")
    private Asked asked;
    @Option(names = "--room", paramLabel = "START-END", description = "where nothing but the room is heard, in seconds; otherwise it is found")
    private String room;
    @Parameters(index = "0", paramLabel = "IN")
    private Path in;
    @Parameters(index = "1", paramLabel = "OUT")
    private Path out;
    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        Optional<DecodedFile> decoded;
        Recipe recipe;
        Span chosen;
        try {
            recipe = recipe();
            chosen = room == null ? null : room();
        } catch (CleanupRefused refused) {
            return refuse(WHY.get(refused.reason()));
        } catch (IllegalArgumentException unreadable) {
            return refuse(unreadable.getMessage());
        }
        decoded = DecodedFile.of(in, spec.commandLine().getErr());
        if (decoded.isEmpty()) {
            return 1;
        }
        try (DecodedFile file = decoded.get()) {
            return clean(recipe, chosen, file.sound());
        } catch (CleanupRefused refused) {
            return refuse(WHY.get(refused.reason()));
        }
    }

    private int clean(Recipe recipe, Span chosen, WavReader sound) throws IOException {
        Opening take = Opening.of(sound);
        Heard before = Heard.of(take);
        Cleanup cleanup = Cleanup.prepare(recipe, take, before, chosen);
        Path part = out.resolveSibling(out.getFileName() + ".part");
        try {
            try (SampleSource cleaned = cleanup.process(take.open());
                 WavWriter writer = WavWriter.create(part, cleaned.channels(), Frames.RATE, SampleFormat.FLOAT_32)) {
                SampleSink.drain(cleaned, writer);
            }
            Files.move(part, out, StandardCopyOption.REPLACE_EXISTING);
        } finally {
            Files.deleteIfExists(part);
        }
        try (WavReader written = WavReader.open(out)) {
            Opening result = Opening.of(written);
            Harm harm = Harm.of(take, result, before);
            Map<String, Object> values = new LinkedHashMap<>();
            values.put("file", in.toString());
            values.put("before", asPrinted(before));
            values.put("after", asPrinted(Heard.of(result)));
            values.put("harm", harm);
            values.put("warnings", harm.kinds());
            values.put("notDone", cleanup.notDone().stream().map(StepKind::slug).sorted().toList());
            spec.commandLine().getOut().println(new ObjectMapper().writeValueAsString(values));
        }
        return 0;
    }

    private static Map<String, Object> asPrinted(Heard heard) {
        Map<String, Object> values = new LinkedHashMap<>();
        values.put("seconds", Frames.toSeconds(heard.frames()));
        values.put("loudnessLufs", orNull(heard.loudnessLufs()));
        values.put("roomDbfs", orNull(heard.roomDbfs()));
        values.put("voiceToRoomLu", orNull(heard.voiceToRoomLu()));
        values.put("humHz", heard.hum().map(HumFinder.Hum::exactHz).orElse(null));
        values.put("humDbfs", heard.hum().map(HumFinder.Hum::levelDbfs).orElse(null));
        values.put("clicks", heard.clicks().size());
        values.put("pops", heard.pops().size());
        return values;
    }

    private static Double orNull(OptionalDouble value) {
        return value.isPresent() ? value.getAsDouble() : null;
    }

    private int refuse(String why) {
        spec.commandLine().getErr().println(why);
        return 1;
    }

    private Recipe recipe() {
        if (asked.recipe != null) {
            return StarterRecipe.named(asked.recipe).orElseThrow(() ->
                    new IllegalArgumentException("There is no recipe " + asked.recipe + ": " + String.join(", ", StarterRecipe.slugs()) + ".")).recipe();
        }
        return new Recipe(asked.steps.stream().map(RecipeText::step).toList());
    }

    private Span room() {
        double[] ends = numbers(room, "-");
        if (ends.length != 2 || !(ends[0] >= 0) || !(ends[1] > ends[0]) || !(ends[1] < Integer.MAX_VALUE)) {
            throw new IllegalArgumentException("The room is written as START-END in seconds, for example 0.5-1.5.");
        }
        return new Span(Math.round(ends[0] * Frames.RATE), Math.round(ends[1] * Frames.RATE));
    }

    private static double[] numbers(String written, String between) {
        try {
            return Arrays.stream(written.split(between)).mapToDouble(Double::parseDouble).toArray();
        } catch (NumberFormatException notNumbers) {
            throw new IllegalArgumentException(written + " is not a number.", notNumbers);
        }
    }
}
