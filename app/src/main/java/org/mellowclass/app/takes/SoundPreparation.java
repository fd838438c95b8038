package org.mellowclass.app.takes;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;

import org.mellowclass.app.jobs.Reporting;
import org.mellowclass.app.store.SkylineFile;
import org.mellowclass.core.dsp.Resampler;
import org.mellowclass.core.measure.ClippedSpot;
import org.mellowclass.core.measure.ClippingFinder;
import org.mellowclass.core.measure.ClippingFinder.Search;
import org.mellowclass.core.measure.LoudnessMeter;
import org.mellowclass.core.measure.Skyline;
import org.mellowclass.core.measure.SpeechLevels;
import org.mellowclass.core.measure.StereoFinder;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleFormat;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.sound.Tap;
import org.mellowclass.core.sound.WavWriter;
import org.springframework.stereotype.Component;

/** Makes what came in ready for use: its sound at 48 kHz, its skyline and its clipped spots, in one pass. */
@Component
public class SoundPreparation {

    /**
     * What was found on the way.
     *
     * @param rate      the rate it came at
     * @param frames    its length at 48 kHz, as the clipped spots and the room's frame are
     * @param noticed   what is odd about its two sides
     * @param roomFrame where its quietest second starts; null if it has none
     */
    public record Prepared(int rate, int channels, long frames, List<ClippedSpot> clipped, StereoFinder.Noticed noticed, Long roomFrame) {
    }

    /**
     * @param expectedFrames how many frames are thought to come, for the progress
     * @param wav            gets the sound at 48 kHz
     * @param skylineFile    gets the skyline
     */
    public Prepared prepare(SampleSource incoming, Search search, long expectedFrames, Reporting.Listener progress, Path wav,
                            Path skylineFile) throws IOException {
        int rate = incoming.sampleRate();
        ClippingFinder clipping = new ClippingFinder(incoming.channels(), rate, search);
        Skyline skyline = new Skyline(incoming.channels());
        LoudnessMeter loudness = new LoudnessMeter(incoming.channels());
        StereoFinder stereo = new StereoFinder(incoming.channels());
        SpeechLevels levels = new SpeechLevels(incoming.channels());
        long frames;
        SampleSource reported = new Reporting(new Tap(incoming, clipping), expectedFrames, progress);
        try (SampleSource converted = Resampler.to(Frames.RATE, reported);
             WavWriter writer = WavWriter.create(wav, incoming.channels(), Frames.RATE, SampleFormat.FLOAT_32)) {
            frames = SampleSink.drain(converted, writer, skyline, loudness, levels, stereo);
        }
        skyline.finish();
        SkylineFile.write(skyline, skylineFile);
        return new Prepared(rate, incoming.channels(), frames, clipping.spots().stream().map(spot -> atHouseRate(spot, rate)).toList(), stereo.noticed(),
                levels.room(loudness.integrated()).map(Span::startFrame).orElse(null));
    }

    private static ClippedSpot atHouseRate(ClippedSpot spot, int rate) {
        Span span = atHouseRate(new Span(spot.startFrame(), spot.endFrame()), rate);
        return new ClippedSpot(span.startFrame(), span.endFrame(), spot.runs());
    }

    static Span atHouseRate(Span span, int rate) {
        return new Span(span.startFrame() * Frames.RATE / rate, Frames.converted(span.endFrame(), rate));
    }
}
