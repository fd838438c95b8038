package org.mellowclass.app.sounds;

import java.io.IOException;
import java.nio.file.Path;
import org.mellowclass.app.disk.DiskRoom;
import org.mellowclass.app.jobs.Jobs;
import org.mellowclass.app.jobs.Reporting;
import org.mellowclass.app.store.SkylineFile;
import org.mellowclass.core.dsp.Resampler;
import org.mellowclass.core.measure.ClippedSpot;
import org.mellowclass.core.measure.ClippingFinder.Search;
import org.mellowclass.core.measure.ClippingFinder;
import org.mellowclass.core.measure.Skyline;
import org.mellowclass.core.measure.SpeechLevels;
import org.mellowclass.core.measure.StereoFinder;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleFormat;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.sound.WavWriter;
import org.mellowclass.media.SoundDecoder;
import org.mellowclass.media.SoundFacts;
import org.springframework.stereotype.Component;

/** Makes what came in ready for use, in two passes: first it can be heard and drawn, then it is measured. */
@Component
public class SoundPreparation {

    /** Under the last bit of 16: nothing is heard, however loud it is played. */
    private static final double SILENT_DBFS = -90;

    private final SoundDecoder decoder;
    private final Jobs jobs;
    private final DiskRoom room;

    SoundPreparation(SoundDecoder decoder, Jobs jobs, DiskRoom room) {
        this.decoder = decoder;
        this.jobs = jobs;
        this.room = room;
    }

    /**
     * Writes a sound at 48 kHz, and its skyline; closes it. Returns its length at 48 kHz.
     *
     * @param incoming       at any rate
     * @param expectedFrames how many frames are thought to come, at its own rate, for the progress
     * @param wav            gets the sound
     * @param skylineFile    gets the skyline
     */
    public long convert(SampleSource incoming, long expectedFrames, Reporting.Listener progress, Path wav, Path skylineFile) throws IOException {
        try (SampleSource converted = Resampler.to(Frames.RATE, new Reporting(jobs.courteousSource(incoming), expectedFrames, progress));
             WavWriter writer = WavWriter.create(wav, incoming.channels(), Frames.RATE, SampleFormat.FLOAT_32)) {
            Skyline skyline = new Skyline(converted.channels());
            long frames = SampleSink.drain(converted, room.whileWriting(), writer, skyline);
            write(skyline, skylineFile);
            return frames;
        }
    }

    /** As {@link #convert(SampleSource, long, Reporting.Listener, Path, Path)}, of a file; progress is told in thousandths. */
    public Converted convert(Path file, SoundFacts facts, Reporting.Listener progress, Path wav, Path skylineFile) throws IOException {
        long expected = Frames.converted(facts.expectedFrames(), facts.sampleRate());
        try (SoundDecoder.Decoded written = decoder.openInto(wav, file, facts, Frames.RATE)) {
            Skyline skyline = new Skyline(written.channels());
            long frames = SampleSink.drain(new Reporting(jobs.courteousSource(written), expected, read -> progress.read(expected == 0 ? 0 : 1000 * read / expected)), room.whileWriting(), skyline);
            write(skyline, skylineFile);
            boolean silent = skyline.peakDbfs().orElse(SILENT_DBFS) <= SILENT_DBFS;
            return new Converted(written.channels(), frames, expected,
                    new AsItCame(written.damaged(), silent, facts.channels() > written.channels() ? facts.channels() : null));
        }
    }

    /** @param expected how many frames the file has stated, at 48 kHz; 0 for none */
    public record Converted(int channels, long frames, long expected, AsItCame came) {
    }

    private static void write(Skyline skyline, Path file) throws IOException {
        skyline.finish();
        SkylineFile.write(skyline, file);
    }

    /**
     * Measures a sound that has been converted; closes both.
     *
     * @param asItCame    at its own rate, since converting hides what is clipped
     * @param atHouseRate at 48 kHz
     */
    public TakeFindings measure(SampleSource asItCame, Search search, SampleSource atHouseRate) throws IOException {
        try (asItCame; atHouseRate) {
            int rate = asItCame.sampleRate();
            ClippingFinder clipping = ClippingFinder.ofSpots(asItCame.channels(), rate, search);
            SampleSink.drain(jobs.courteousSource(asItCame), clipping);
            StereoFinder stereo = new StereoFinder(atHouseRate.channels());
            SpeechLevels levels = new SpeechLevels(atHouseRate.channels());
            SampleSink.drain(jobs.courteousSource(atHouseRate), levels, stereo);
            return new TakeFindings(clipping.spots().stream().map(spot -> atHouseRate(spot, rate)).toList(), stereo.noticed(),
                    levels.room().map(Span::startFrame).orElse(null), TakeFindings.Speech.of(levels));
        }
    }

    /** Who speaks when in a sound at 48 kHz; closes it. */
    public TakeFindings.Speech measureSpeech(SampleSource sound) throws IOException {
        try (sound) {
            SpeechLevels levels = new SpeechLevels(sound.channels());
            SampleSink.drain(jobs.courteousSource(sound), levels);
            return TakeFindings.Speech.of(levels);
        }
    }

    private static ClippedSpot atHouseRate(ClippedSpot spot, int rate) {
        Span span = atHouseRate(new Span(spot.startFrame(), spot.endFrame()), rate);
        return new ClippedSpot(span.startFrame(), span.endFrame(), spot.runs());
    }

    public static Span atHouseRate(Span span, int rate) {
        return new Span(span.startFrame() * Frames.RATE / rate, Frames.converted(span.endFrame(), rate));
    }
}
