package org.mellowclass.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.Callable;

import com.fasterxml.jackson.databind.ObjectMapper;
import org.mellowclass.core.measure.ClippingFinder.Search;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.soundcheck.HeardSound;
import org.mellowclass.core.soundcheck.HouseSound;
import org.mellowclass.core.soundcheck.Reading;
import org.mellowclass.core.soundcheck.Readings;
import org.mellowclass.core.soundcheck.Verdict;
import org.mellowclass.media.SoundDecoder;
import org.mellowclass.media.SoundFacts;
import org.mellowclass.media.SoundRefused;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** {@code bin/sound check FILE}: the readings of one file, as one JSON object. */
@Command(name = "check", mixinStandardHelpOptions = true, description = {
    "Prints {file, seconds, readings: [{kind, value, unit, verdict, places: [{startSeconds, endSeconds}]}]}.",
    "A verdict is good, check, fix or none. What has no value is null. Exit code 1 with a sentence on stderr for a file that cannot be read."})
final class CheckCommand implements Callable<Integer> {

    private static final int SECONDS_OF_ANY_LENGTH = 0;

    @Parameters(paramLabel = "FILE", description = "Anything that ffmpeg decodes.")
    private Path file;
    @Option(names = "--house", paramLabel = "NAME", description = "speech-feed (as long as none is given), broadcast or school-hall", defaultValue = "speech-feed")
    private String house;
    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        PrintWriter err = spec.commandLine().getErr();
        HouseSound.Preset preset = preset();
        if (preset == null) {
            err.println("There is no house sound " + house + ": speech-feed, broadcast or school-hall.");
            return 2;
        }
        try {
            if (!Files.isRegularFile(file) || !Files.isReadable(file)) {
                throw new IOException("not a readable file");
            }
            HeardSound heard = heard();
            if (heard.frames() == 0) {
                throw new SoundRefused(SoundRefused.Reason.BROKEN, "no frame was decoded");
            }
            HouseSound asked = new HouseSound(preset.loudnessLufs(), preset.ceilingDbtp(), SECONDS_OF_ANY_LENGTH, Long.MAX_VALUE);
            Map<String, Object> values = new LinkedHashMap<>();
            values.put("file", file.toString());
            values.put("seconds", Frames.toSeconds(heard.frames()));
            values.put("readings", Readings.ofSound(heard, asked).stream().map(CheckCommand::asPrinted).toList());
            spec.commandLine().getOut().println(new ObjectMapper().writeValueAsString(values));
            return 0;
        } catch (SoundRefused refused) {
            err.println(file + " " + MeasureCommand.WHY.get(refused.reason()) + ".");
        } catch (IOException failed) {
            err.println(file + " could not be read. Is it there, and may you read it?");
        }
        return 1;
    }

    private HouseSound.Preset preset() {
        for (HouseSound.Preset preset : HouseSound.Preset.values()) {
            if (preset.name().toLowerCase(Locale.ROOT).replace('_', '-').equals(house)) {
                return preset;
            }
        }
        return null;
    }

    private HeardSound heard() throws IOException, SoundRefused {
        SoundDecoder decoder = SoundDecoder.forOwnFiles();
        SoundFacts facts = decoder.probe(file);
        try (SampleSource sound = decoder.open(file, facts)) {
            return HeardSound.of(sound, facts.lossless() ? Search.FULL_SCALE_AND_FLAT_TOPS : Search.FULL_SCALE_ONLY);
        }
    }

    static Map<String, Object> asPrinted(Reading reading) {
        Map<String, Object> values = new LinkedHashMap<>();
        values.put("kind", reading.kind().name());
        values.put("value", reading.value());
        values.put("unit", reading.kind().unit());
        values.put("verdict", reading.verdict() == Verdict.DOES_NOT_APPLY ? "none" : reading.verdict().name().toLowerCase(Locale.ROOT));
        values.put("places", reading.places().stream().map(place ->
                Map.of("startSeconds", Frames.toSeconds(place.startFrame()), "endSeconds", Frames.toSeconds(place.endFrame()))).toList());
        return values;
    }
}
