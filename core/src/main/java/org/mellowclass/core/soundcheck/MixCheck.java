package org.mellowclass.core.soundcheck;

import java.io.IOException;
import java.util.List;

import org.mellowclass.core.measure.PeaksBySecond;
import org.mellowclass.core.render.Mastering;
import org.mellowclass.core.render.Sounds;
import org.mellowclass.core.sound.SampleSink;

/** Hears the finished mix of a page once, in stereo at 48 kHz, and judges it with all that is known of its takes. */
public final class MixCheck implements SampleSink {

    private static final int CHANNELS = 2;

    private final HeardSound.Meters meters = new HeardSound.Meters(CHANNELS);
    private final PeaksBySecond peaks = new PeaksBySecond(CHANNELS);

    @Override
    public void accept(float[][] block, int frames) {
        meters.accept(block, frames);
        peaks.accept(block, frames);
    }

    /**
     * The check of the mix that has ended.
     *
     * @param sounds    with which music is heard alone under the voices
     * @param finishing what was done to the mix
     * @param parts     names of the parts that the brief asks for
     */
    public SoundCheck check(Known known, Sounds sounds, Mastering finishing, HouseSound house, List<String> parts) throws IOException {
        Voices voices = new Voices(known.timeline(), known.heard());
        MusicUnderVoice music = MusicUnderVoice.of(known.timeline(), known.talk(), sounds, 0, known.timeline().endFrame());
        return SoundCheck.of(new SoundCheck.Measured(meters.heard(peaks.truePeakDbtp(), List.of()), known.timeline(), ClippedPlaces.in(known.timeline(), known.clippedInTake()),
                voices, music, finishing, Pictures.of(meters, peaks, voices, music)), house, parts);
    }
}
