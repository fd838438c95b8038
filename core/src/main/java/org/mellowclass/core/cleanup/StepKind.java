package org.mellowclass.core.cleanup;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.stream.Stream;

import org.mellowclass.core.dsp.Biquad;
import org.mellowclass.core.dsp.Compressor;
import org.mellowclass.core.dsp.Expander;
import org.mellowclass.core.dsp.Filters;
import org.mellowclass.core.dsp.Gain;
import org.mellowclass.core.dsp.HumCanceller;
import org.mellowclass.core.dsp.NoiseReducer;
import org.mellowclass.core.dsp.PlaceMender;
import org.mellowclass.core.dsp.PopSoftener;
import org.mellowclass.core.dsp.SoftS;
import org.mellowclass.core.dsp.Streamed;
import org.mellowclass.core.measure.HumFinder;
import org.mellowclass.core.measure.LoudnessMeter;
import org.mellowclass.core.measure.SampleStatistics;
import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.sound.SampleSource;

/**
 * The steps that a recipe can have, with the numbers that can be set. What each does is in the class that does it.
 */
public enum StepKind {

    LOW_CUT(new Parameter("from", "Hz", 20, 300, 80)) {
        @Override
        Prepared prepare(List<Double> values, Stage stage) {
            return Prepared.by(channels -> new Filters(channels, () -> List.of(Biquad.highPass(values.get(0), Biquad.FLAT))));
        }
    },
    HIGH_CUT(new Parameter("from", "Hz", 2000, 20_000, 16_000)) {
        @Override
        Prepared prepare(List<Double> values, Stage stage) {
            return Prepared.by(channels -> new Filters(channels, () -> List.of(Biquad.lowPass(values.get(0), Biquad.FLAT))));
        }
    },
    HUM_OUT() {
        @Override
        Prepared prepare(List<Double> values, Stage stage) {
            return stage.heard().hum().map(hum -> {
                int[] multiples = hum.harmonics().stream().mapToInt(HumFinder.Harmonic::multiple).toArray();
                double[] amplitudes = hum.harmonics().stream().mapToDouble(HumFinder.Harmonic::amplitude).toArray();
                return Prepared.by(channels -> new HumCanceller(channels, hum.exactHz(), multiples, amplitudes));
            }).orElse(Prepared.NOTHING);
        }
    },
    /** 0 is as little as is needed. */
    NOISE_DOWN(new Parameter("by", "dB", 0, 24, 0)) {
        @Override
        Prepared prepare(List<Double> values, Stage stage) throws IOException {
            double amountDb = noiseDownDb(values, stage.heard());
            float[][] noise = stage.once(this, () -> noise(stage));
            if (noise.length == 0) {
                return Prepared.NOTHING;
            }
            int settle = new NoiseReducer(noise, amountDb).settleFrames();
            return new Prepared() {
                @Override
                public SampleSource process(SampleSource sound, long fromFrame) {
                    return new Streamed(sound, new NoiseReducer(noise, amountDb));
                }

                @Override
                public int settleFrames() {
                    return settle;
                }
            };
        }
    },
    ROOM_DOWN(new Parameter("by", "dB", 0, 24, 10), new Parameter("ratio", ":", 1, 6, 2)) {
        @Override
        Prepared prepare(List<Double> values, Stage stage) throws IOException {
            OptionalDouble room = stage.once(this, () -> roomDbfs(stage));
            if (room.isEmpty()) {
                return Prepared.NOTHING;
            }
            double threshold = room.getAsDouble() + Math.max(LEAST_OVER_ROOM_DB, Math.min(MOST_OVER_ROOM_DB, stage.heard().voiceToRoomLu().orElse(0) / 2));
            return Prepared.by(channels -> new Expander(channels, threshold, values.get(0), values.get(1)));
        }
    },
    CLICKS() {
        @Override
        Prepared prepare(List<Double> values, Stage stage) {
            return Prepared.mending(stage.heard().clicks().stream().filter(click -> click.frames() <= PlaceMender.LONGEST).toList());
        }
    },
    POPS() {
        @Override
        Prepared prepare(List<Double> values, Stage stage) {
            return Prepared.at(stage.heard().pops(), new PopSoftener(1, List.of()).settleFrames(),
                    (sound, places) -> new Streamed(sound, new PopSoftener(sound.channels(), places)));
        }
    },
    SOFT_S(new Parameter("by", "dB", 0, 8, 6)) {
        @Override
        Prepared prepare(List<Double> values, Stage stage) {
            OptionalDouble voiced = stage.heard().voicedDbfs();
            return voiced.isEmpty() ? Prepared.NOTHING
                    : Prepared.by(channels -> new SoftS(channels, voiced.getAsDouble() - SOFT_S_UNDER_VOICE_DB, values.get(0)));
        }
    },
    TONE(new Parameter("low", "dB", -12, 12, 0), new Parameter("middle", "dB", -12, 12, 0), new Parameter("high", "dB", -12, 12, 0)) {
        @Override
        Prepared prepare(List<Double> values, Stage stage) {
            return Prepared.by(channels -> new Filters(channels, () -> List.of(Biquad.lowShelf(TONE_LOW_HZ, values.get(0)),
                    Biquad.peak(TONE_MIDDLE_HZ, TONE_MIDDLE_QUALITY, values.get(1)), Biquad.highShelf(TONE_HIGH_HZ, values.get(2)))));
        }
    },
    /** Takes loud phrases down towards the quieter ones, slowly; the room is never raised. */
    LEVEL(new Parameter("by", "dB", 0, 12, 6)) {
        @Override
        Prepared prepare(List<Double> values, Stage stage) {
            return Phrases.prepare(stage, values.get(0));
        }
    },
    COMPRESS(new Parameter("threshold", "dBFS", -60, 0, -18), new Parameter("ratio", ":", 1, 20, 3), new Parameter("knee", "dB", 0, 24, 6),
            new Parameter("attack", "ms", 0.5, 200, 10), new Parameter("release", "ms", 10, 2000, 120), new Parameter("lift", "dB", 0, 18, 0)) {
        @Override
        Prepared prepare(List<Double> values, Stage stage) throws IOException {
            double room = stage.once(this, () -> roomDbfs(stage)).orElse(LOWEST_ROOM_DBFS);
            Compressor.Curve curve = new Compressor.Curve(values.get(0), values.get(1), values.get(2), values.get(5), room);
            return Prepared.by(channels -> new Compressor(channels, curve, values.get(3), values.get(4)));
        }
    },
    LOUDNESS(new Parameter("to", "LUFS", -36, -10, -19)) {
        @Override
        Prepared prepare(List<Double> values, Stage stage) throws IOException {
            return gain(stage.once(this, () -> {
                try (SampleSource sound = stage.whole()) {
                    LoudnessMeter meter = new LoudnessMeter(sound.channels());
                    SampleSink.drain(sound, meter);
                    return meter.integrated();
                }
            }), values.get(0));
        }
    },
    PEAK(new Parameter("to", "dBFS", -24, 0, -1.5)) {
        @Override
        Prepared prepare(List<Double> values, Stage stage) throws IOException {
            return gain(stage.once(this, () -> {
                try (SampleSource sound = stage.whole()) {
                    SampleStatistics samples = new SampleStatistics(sound.channels());
                    SampleSink.drain(sound, samples);
                    return samples.peakDbfs();
                }
            }), values.get(0));
        }
    },
    CEILING(new Parameter("at", "dBTP", -12, 0, -1)) {
        @Override
        Prepared prepare(List<Double> values, Stage stage) {
            return Prepared.limiting(values.get(0));
        }
    };

    private static final double QUIET_ROOM_LU = 30;
    private static final double LEAST_NOISE_DOWN_DB = 6;
    private static final double MOST_NOISE_DOWN_DB = 18;
    private static final double LEAST_OVER_ROOM_DB = 5;
    private static final double MOST_OVER_ROOM_DB = 10;
    private static final double LOWEST_ROOM_DBFS = -110;
    private static final double SOFT_S_UNDER_VOICE_DB = 9;
    private static final double TONE_LOW_HZ = 200;
    private static final double TONE_MIDDLE_HZ = 1500;
    private static final double TONE_MIDDLE_QUALITY = 0.7;
    private static final double TONE_HIGH_HZ = 5000;
    private static final double MOST_GAIN_DB = 30;
    private static final int PERCENTILE = 10;
    private static final int ROOM_STEP = 19_200;
    private static final long ROOM_TO_LEARN = Frames.ofSeconds(10);
    /** Its level is known from less than its spectrum is. */
    private static final long ROOM_TO_MEASURE = Frames.ofSeconds(2);

    private final List<Parameter> parameters;

    StepKind(Parameter... parameters) {
        this.parameters = List.of(parameters);
    }

    /** Looks at the take, and keeps what it finds in plain numbers. */
    abstract Prepared prepare(List<Double> values, Stage stage) throws IOException;

    public List<Parameter> parameters() {
        return parameters;
    }

    /** As it is written on a command line: {@code noise-down}. */
    public String slug() {
        return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    public static Optional<StepKind> named(String slug) {
        return Stream.of(values()).filter(kind -> kind.slug().equals(slug)).findFirst();
    }

    /** This step with its usual numbers. */
    public Recipe.Step usual() {
        return with();
    }

    /** This step with some numbers, the usual ones for the rest. */
    public Recipe.Step with(double... values) {
        List<Double> all = new ArrayList<>();
        for (int i = 0; i < parameters.size(); i++) {
            all.add(i < values.length ? values[i] : parameters.get(i).usual());
        }
        if (values.length > parameters.size()) {
            throw new CleanupRefused(CleanupRefused.Reason.OUT_OF_RANGE);
        }
        return new Recipe.Step(this, all, true, Recipe.WHOLE_PERCENT);
    }

    /** How far noise is taken down: as far as is set, or as little as brings the voice well over the room. */
    static double noiseDownDb(List<Double> values, Heard heard) {
        double enough = QUIET_ROOM_LU - heard.voiceToRoomLu().orElse(QUIET_ROOM_LU);
        return values.get(0) > 0 ? values.get(0) : Math.max(LEAST_NOISE_DOWN_DB, Math.min(MOST_NOISE_DOWN_DB, enough));
    }

    private static Prepared gain(OptionalDouble is, double wanted) {
        return is.isEmpty() ? Prepared.NOTHING : Prepared.by(channels -> new Gain(Math.min(MOST_GAIN_DB, wanted - is.getAsDouble())));
    }

    /** The noise of the room by channel, see {@link NoiseReducer#learn}; none where nobody pauses long enough. */
    private static float[][] noise(Stage stage) throws IOException {
        List<float[][]> rooms = stage.room(ROOM_TO_LEARN);
        float[][] noise = new float[rooms.isEmpty() ? 0 : stage.heard().channels()][];
        for (int c = 0; c < noise.length; c++) {
            int channel = c;
            noise[c] = NoiseReducer.learn(rooms.stream().map(room -> room[channel]).toList());
        }
        return noise;
    }

    /** The room as a step finds it: the 10th percentile of its stretches of 400 ms, as the peak of a sine. Empty for digital silence. */
    private static OptionalDouble roomDbfs(Stage stage) throws IOException {
        List<Double> powers = new ArrayList<>();
        for (float[][] room : stage.room(ROOM_TO_MEASURE)) {
            int length = Math.min(ROOM_STEP, room[0].length);
            for (int start = 0; length > 0 && start + length <= room[0].length; start += Math.max(1, length / 4)) {
                double most = 0;
                for (float[] channel : room) {
                    double sum = 0;
                    for (int i = start; i < start + length; i++) {
                        sum += (double) channel[i] * channel[i];
                    }
                    most = Math.max(most, sum / length);
                }
                powers.add(most);
            }
        }
        double[] sorted = powers.stream().mapToDouble(Double::doubleValue).sorted().toArray();
        double power = sorted.length == 0 ? 0 : sorted[(sorted.length - 1) * PERCENTILE / 100];
        return power > 0 ? OptionalDouble.of(Decibels.ofPower(2 * power)) : OptionalDouble.empty();
    }
}
