package org.mellowclass.core.soundcheck;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.OptionalDouble;
import java.util.function.Predicate;

import org.mellowclass.core.measure.LoudnessMeter;
import org.mellowclass.core.render.Mixer;
import org.mellowclass.core.render.Sounds;
import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.talk.Talk;
import org.mellowclass.core.talk.TalkFacts;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Timeline;

/**
 * How far music lies under the voice: both are mixed alone, with their gains, curves, fades and pans, and K-weighted (ITU-R
 * BS.1770-5) in the same blocks of 400 ms, every 100 ms; only blocks count in which somebody speaks.
 */
public final class MusicUnderVoice {

    /** What is judged: so long a stretch, of which somebody speaks in half at least. */
    public static final long STRETCH_FRAMES = Frames.ofSeconds(3);
    private static final int STRETCH_BLOCKS = (int) ((STRETCH_FRAMES - LoudnessMeter.MOMENTARY_FRAMES) / LoudnessMeter.MOMENTARY_STEP_FRAMES) + 1;
    /** Music this quiet is none. */
    private static final double SILENT_LUFS = -70;
    private static final int READ = 4096;

    private final long fromFrame;
    /** Sums over the blocks before each: of the voice's power, the music's, and how many count. */
    private final double[] voice;
    private final double[] music;
    private final int[] speaking;

    private MusicUnderVoice(long fromFrame, double[] voice, double[] music, int[] speaking) {
        this.fromFrame = fromFrame;
        this.voice = voice;
        this.music = music;
        this.speaking = speaking;
    }

    /** Measures a stretch of a page. */
    public static MusicUnderVoice of(Timeline timeline, TalkFacts facts, Sounds sounds, long fromFrame, long toFrame) throws IOException {
        Predicate<Clip> spoken = clip -> facts.of(clip.source().takeId()).filter(TalkFacts.Measured::voice).isPresent();
        double[] voices = momentary(only(timeline, spoken), sounds, fromFrame, toFrame);
        double[] others = momentary(only(timeline, spoken.negate()), sounds, fromFrame, toFrame);
        List<Span> speech = Talk.of(timeline, facts).anybody();
        int blocks = Math.min(voices.length, others.length);
        double[] voice = new double[blocks + 1];
        double[] music = new double[blocks + 1];
        int[] speaking = new int[blocks + 1];
        for (int i = 0; i < blocks; i++) {
            long middle = fromFrame + (long) i * LoudnessMeter.MOMENTARY_STEP_FRAMES + LoudnessMeter.MOMENTARY_FRAMES / 2;
            boolean counts = speech.stream().anyMatch(span -> span.contains(middle)) && others[i] > SILENT_LUFS && Double.isFinite(voices[i]);
            voice[i + 1] = voice[i] + (counts ? Decibels.toPower(voices[i]) : 0);
            music[i + 1] = music[i] + (counts ? Decibels.toPower(others[i]) : 0);
            speaking[i + 1] = speaking[i] + (counts ? 1 : 0);
        }
        return new MusicUnderVoice(fromFrame, voice, music, speaking);
    }

    private static Timeline only(Timeline timeline, Predicate<Clip> wanted) {
        return timeline.mapTracks(track -> track.withClips(track.clips().stream().filter(wanted).toList()), timeline.nextId());
    }

    private static double[] momentary(Timeline timeline, Sounds sounds, long fromFrame, long toFrame) throws IOException {
        LoudnessMeter meter = new LoudnessMeter(2);
        float[][] block = new float[2][READ];
        try (Mixer mixer = new Mixer(timeline, sounds)) {
            for (long left = toFrame - fromFrame; left > 0; ) {
                int wanted = (int) Math.min(READ, left);
                mixer.render(toFrame - left, block, 0, wanted);
                meter.accept(block, wanted);
                left -= wanted;
            }
        }
        return meter.momentary();
    }

    /** Voice minus music in all that was measured, in LU; empty where nobody speaks over music. */
    public OptionalDouble over() {
        return over(0, speaking.length - 1);
    }

    private OptionalDouble over(int from, int to) {
        return speaking[to] > speaking[from] ? OptionalDouble.of(Decibels.ofPower((voice[to] - voice[from]) / (music[to] - music[from]))) : OptionalDouble.empty();
    }

    private boolean judged(int from) {
        return 2 * (speaking[from + STRETCH_BLOCKS] - speaking[from]) >= STRETCH_BLOCKS;
    }

    /** The least of all stretches of three seconds, in LU; empty if there is none in which somebody speaks over music for half of it. */
    public OptionalDouble least() {
        OptionalDouble least = OptionalDouble.empty();
        for (int from = 0; from + STRETCH_BLOCKS < speaking.length; from++) {
            if (judged(from)) {
                double over = over(from, from + STRETCH_BLOCKS).orElseThrow();
                least = OptionalDouble.of(least.isPresent() ? Math.min(least.getAsDouble(), over) : over);
            }
        }
        return least;
    }

    /** Voice minus music in so many stretches of equal length, in LU; null where too little is spoken over music. */
    List<Double> overTime(int stretches) {
        List<Double> over = new ArrayList<>();
        int blocks = speaking.length - 1;
        for (int i = 0; i < stretches; i++) {
            int from = (int) ((long) blocks * i / stretches);
            int to = (int) ((long) blocks * (i + 1) / stretches);
            over.add(2 * (speaking[to] - speaking[from]) >= Math.max(1, to - from) ? over(from, to).getAsDouble() : null);
        }
        return over;
    }

    /** Where the music lies nearer than is good. */
    public List<Span> places() {
        return nearer(Readings.MUSIC_GOOD_LU);
    }

    /** Where the music lies less than so many LU under the voice for three seconds or more, in frames of the page. */
    public List<Span> nearer(double lu) {
        List<Span> places = new ArrayList<>();
        for (int from = 0; from + STRETCH_BLOCKS < speaking.length; from++) {
            if (judged(from) && over(from, from + STRETCH_BLOCKS).orElseThrow() < lu) {
                long start = fromFrame + (long) from * LoudnessMeter.MOMENTARY_STEP_FRAMES;
                places.add(new Span(start, start + STRETCH_FRAMES));
            }
        }
        return Span.joined(places, 0);
    }
}
