package org.mellowclass.core.treatment;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

import org.mellowclass.core.dsp.Biquad;
import org.mellowclass.core.dsp.Echo;
import org.mellowclass.core.dsp.Hall;
import org.mellowclass.core.dsp.Resampler;
import org.mellowclass.core.dsp.TimeStretch;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.HeldSound;
import org.mellowclass.core.sound.Opening;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.sound.Stretch;

/**
 * A voice trick on a stretch of a take. The sound after it is that stretch alone, from its first frame to the end of what rings on; how long it
 * becomes is known before it is made.
 *
 * @param amount in the unit of its kind
 * @param of     in frames of the take
 */
public record Trick(Kind kind, double amount, Span of) implements Step {

    /** It is played with in memory. */
    public static final long MOST_FRAMES = Frames.ofSeconds(30);

    private static final double WHOLE_PERCENT = 100;
    private static final double SEMITONES_AN_OCTAVE = 12;
    /** The band of a telephone (ITU-T G.712). */
    private static final double TELEPHONE_LOW_HZ = 300;
    private static final double TELEPHONE_HIGH_HZ = 3400;
    /** Of a filter of fourth order that is maximally flat. */
    private static final double[] FLAT_PAIR = {0.5412, 1.3066};

    /** What can be done; the amounts that it takes, with the usual one, and their unit. */
    public enum Kind {
        /** Faster or slower, the voice as high as before. */
        PACE("%", 50, 200, 140),
        /** Faster and higher, or slower and lower, as a tape that runs at another speed. */
        TAPE("%", 50, 200, 140),
        /** Higher or lower, as long as before. */
        PITCH("semitones", -12, 12, 5),
        BACKWARDS("", 0, 0, 0),
        ECHO("ms", 80, 800, 300),
        TELEPHONE("", 0, 0, 0),
        HALL("s", 0.5, 4, 2);

        private final String unit;
        private final double least;
        private final double most;
        private final double usual;

        Kind(String unit, double least, double most, double usual) {
            this.unit = unit;
            this.least = least;
            this.most = most;
            this.usual = usual;
        }

        public String unit() {
            return unit;
        }

        public double least() {
            return least;
        }

        public double most() {
            return most;
        }

        public double usual() {
            return usual;
        }

        public boolean takes(double amount) {
            return amount >= least && amount <= most;
        }
    }

    /** @throws IllegalArgumentException if the kind does not take the amount */
    public Trick {
        if (!kind.takes(amount)) {
            throw new IllegalArgumentException(kind + " by " + amount);
        }
    }

    @Override
    public SampleSource process(Opening sound, Findings findings) throws IOException {
        float[][] words = said(sound);
        float[][] made = switch (kind) {
            case PACE -> TimeStretch.stretched(words, (int) spoken());
            case TAPE -> played(words, ticks());
            case PITCH -> TimeStretch.stretched(played(words, Math.round(Resampler.CLOCK_TICKS * Math.pow(2, -amount / SEMITONES_AN_OCTAVE))), (int) spoken());
            case BACKWARDS -> backwards(words);
            case ECHO -> Echo.of(words, (int) (rings() / Echo.TIMES));
            case TELEPHONE -> telephoned(words);
            case HALL -> Hall.of(words, (int) rings());
        };
        for (int c = 0; c < made.length; c++) {
            made[c] = Arrays.copyOf(made[c], (int) frames(0));
        }
        return new HeldSound(Frames.RATE, made);
    }

    private float[][] said(Opening sound) throws IOException {
        try (SampleSource rest = sound.openAt(of.startFrame())) {
            float[][] words = Stretch.read(rest, new Span(0, of.frames()));
            for (int c = 0; c < words.length; c++) {
                words[c] = Arrays.copyOf(words[c], (int) of.frames());
            }
            return words;
        }
    }

    private static float[][] played(float[][] words, long ticks) throws IOException {
        try (SampleSource played = Resampler.byTicks(ticks, new HeldSound(Frames.RATE, words))) {
            return Stretch.read(played, new Span(0, dividedUp(words[0].length * ticks, Resampler.CLOCK_TICKS)));
        }
    }

    private static float[][] backwards(float[][] words) {
        float[][] turned = new float[words.length][words[0].length];
        for (int c = 0; c < words.length; c++) {
            for (int i = 0; i < words[c].length; i++) {
                turned[c][i] = words[c][words[c].length - 1 - i];
            }
        }
        return turned;
    }

    private static float[][] telephoned(float[][] words) {
        for (float[] channel : words) {
            List<Biquad> band = new ArrayList<>();
            for (double quality : FLAT_PAIR) {
                band.add(Biquad.highPass(TELEPHONE_LOW_HZ, quality));
                band.add(Biquad.lowPass(TELEPHONE_HIGH_HZ, quality));
            }
            Biquad.inTurn(band.toArray(Biquad[]::new), channel, 0, channel.length);
        }
        return words;
    }

    /** How long the words become. */
    private long spoken() {
        return kind == Kind.PACE || kind == Kind.TAPE ? dividedUp(of.frames() * ticks(), Resampler.CLOCK_TICKS) : of.frames();
    }

    /** How long they ring on. */
    private long rings() {
        return switch (kind) {
            case ECHO -> Echo.TIMES * Math.round(amount * Frames.RATE / 1000);
            case HALL -> Math.round(amount * Frames.RATE);
            default -> 0;
        };
    }

    private long ticks() {
        return Math.round(Resampler.CLOCK_TICKS * WHOLE_PERCENT / amount);
    }

    private static long dividedUp(long frames, long by) {
        return -Math.floorDiv(-frames, by);
    }

    @Override
    public long frames(long frames) {
        return spoken() + rings();
    }

    /** Told as if they were said forwards; what is outside of the stretch is at its edges. */
    @Override
    public long after(long frame) {
        long within = Math.max(0, Math.min(of.frames(), frame - of.startFrame()));
        return Math.floorDiv(within * spoken(), of.frames());
    }

    @Override
    public long before(long frame) {
        return of.startFrame() + Math.min(of.frames(), dividedUp(frame * of.frames(), spoken()));
    }

    @Override
    public boolean changesTime() {
        return true;
    }

    @Override
    public int order() {
        return 5;
    }
}
