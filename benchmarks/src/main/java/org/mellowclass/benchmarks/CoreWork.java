package org.mellowclass.benchmarks;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

import org.mellowclass.core.cleanup.Cleanup;
import org.mellowclass.core.cleanup.Heard;
import org.mellowclass.core.cleanup.Recipe;
import org.mellowclass.core.cleanup.RecipeText;
import org.mellowclass.core.measure.ClippingFinder;
import org.mellowclass.core.measure.LoudnessMeter;
import org.mellowclass.core.measure.Skyline;
import org.mellowclass.core.measure.TruePeakMeter;
import org.mellowclass.core.render.Mixer;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Opening;
import org.mellowclass.core.sound.SampleFormat;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.sound.WavReader;
import org.mellowclass.core.sound.WavWriter;
import org.mellowclass.core.soundcheck.HeardSound;
import org.mellowclass.core.soundcheck.HouseSound;
import org.mellowclass.core.soundcheck.Readings;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Fade;
import org.mellowclass.core.timeline.TakeSource;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;

/** One work of the core on WAV files, as a process of its own, so that all of it is counted: {@code WORK FILE... [OUT]}. */
public final class CoreWork {

    private CoreWork() {
    }

    public static void main(String[] arguments) throws IOException {
        List<Path> files = new ArrayList<>();
        for (int i = 1; i < arguments.length; i++) {
            files.add(Path.of(arguments[i]));
        }
        switch (arguments[0]) {
            case "loudness" -> loudness(files.get(0));
            case "skyline" -> skyline(files.get(0));
            case "noise-down" -> clean(RecipeText.recipe("noise-down:12"), files.get(0), files.get(1));
            case "recipe" -> clean(RecipeText.recipe("low-cut:100;hum-out;noise-down:12;room-down:6;clicks;level:6"), files.get(0), files.get(1));
            case "check" -> check(files.get(0));
            case "mix" -> mix(files.subList(0, files.size() - 1), files.get(files.size() - 1));
            default -> throw new IllegalArgumentException(arguments[0]);
        }
    }

    private static void loudness(Path file) throws IOException {
        try (WavReader wav = WavReader.open(file)) {
            LoudnessMeter loudness = new LoudnessMeter(wav.channels());
            TruePeakMeter peak = new TruePeakMeter(wav.channels());
            SampleSink.drain(wav, loudness, peak);
            System.out.printf("%.2f LUFS, %.2f dBTP%n", loudness.integrated().orElseThrow(), peak.truePeakDbtp().orElseThrow());
        }
    }

    private static void clean(Recipe recipe, Path in, Path out) throws IOException {
        try (WavReader take = WavReader.open(in); WavWriter writer = WavWriter.create(out, take.channels(), Frames.RATE, SampleFormat.PCM_16)) {
            Opening opening = Opening.of(take);
            SampleSink.drain(Cleanup.prepare(recipe, opening, Heard.of(opening, recipe), null).process(opening.open()), writer);
        }
    }

    private static void check(Path file) throws IOException {
        try (WavReader wav = WavReader.open(file)) {
            Readings.ofSound(HeardSound.of(wav, ClippingFinder.Search.FULL_SCALE_ONLY), new HouseSound(-16, -1, 0, Long.MAX_VALUE))
                    .forEach(reading -> System.out.println(reading.kind() + " " + reading.verdict()));
        }
    }

    private static void skyline(Path file) throws IOException {
        try (WavReader wav = WavReader.open(file)) {
            Skyline skyline = new Skyline(wav.channels());
            SampleSink.drain(wav, skyline);
            skyline.finish();
            System.out.println(skyline.bins(0).length + " bytes");
        }
    }

    /** One clip a track, with the gains of {@link SideBySide#MIX_GAINS_DB} and fades of a second. */
    private static void mix(List<Path> files, Path out) throws IOException {
        List<Track> tracks = new ArrayList<>();
        Fade second = new Fade(Frames.RATE, Fade.Shape.GENTLE, 0, 0);
        for (int i = 0; i < files.size(); i++) {
            try (WavReader wav = WavReader.open(files.get(i))) {
                Clip clip = new Clip(10 + i, new TakeSource(i), 0, 0, wav.frames(), SideBySide.MIX_GAINS_DB[i], second, second);
                tracks.add(new Track(1 + i, "Track " + i, 1, 0, false, List.of(clip)));
            }
        }
        Timeline timeline = new Timeline(tracks, List.of(), 100);
        try (Mixer mixer = new Mixer(timeline, (id, treatment) -> WavReader.open(files.get((int) id)));
             WavWriter writer = WavWriter.create(out, 2, Frames.RATE, SampleFormat.PCM_16)) {
            SampleSink.drain(mixer.whole(), writer);
        }
    }
}
