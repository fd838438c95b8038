package org.mellowclass.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mellowclass.cli.SpeechQuality.kurtosis;
import static org.mellowclass.cli.SpeechQuality.logSpectralDistance;
import static org.mellowclass.cli.SpeechQuality.powerDb;
import static org.mellowclass.cli.SpeechQuality.segmentalSnr;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfSystemProperty;
import org.junit.jupiter.api.io.TempDir;
import org.mellowclass.core.cleanup.Cleanup;
import org.mellowclass.core.cleanup.Harm;
import org.mellowclass.core.cleanup.Heard;
import org.mellowclass.core.cleanup.Recipe;
import org.mellowclass.core.cleanup.StepKind;
import org.mellowclass.core.dsp.Limiter;
import org.mellowclass.core.dsp.PlaceMender;
import org.mellowclass.core.measure.ClippingFinder.Search;
import org.mellowclass.core.measure.Measurement;
import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Opening;
import org.mellowclass.core.sound.SampleFormat;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.sound.WavWriter;
import org.mellowclass.core.soundcheck.HeardSound;
import org.mellowclass.core.testing.Signal;
import org.mellowclass.media.SoundDecoder;

/** Writes docs/sound-quality.md: how good measuring and cleaning are, on speech of three voices; {@code bin/sound-quality} runs it. */
@EnabledIfSystemProperty(named = "mellow.quality", matches = ".+")
class SoundQualityReport {

    private static final int SET_DB = 12;
    private static final double[] AMOUNTS_DB = {6, 9, 12, 15, 18, 24};
    private static final String[] SOX_AMOUNTS = {"0.05", "0.1", "0.2", "0.3", "0.4", "0.5"};
    private static final int LIMITED_SIGNALS = 1000;
    private static final int FINE = 16;
    private static final Pattern LOUDNESS = Pattern.compile("I:\\s+(-?[\\d.]+) LUFS");
    private static final Pattern PEAK = Pattern.compile("Peak:\\s+(-?[\\d.]+) dBFS");

    @TempDir
    private Path folder;
    private final StringBuilder page = new StringBuilder("# How good the sound is\n\nPrinted by `bin/sound-quality`, which writes this page. Speech is of three synthetic voices; "
            + "rooms lie so many LU under it. Figures are means of the three unless said.\n");

    @Test
    void write() throws Exception {
        SpokenVoices spoken = SpokenVoices.ofAllTests();
        noiseDown(spoken);
        measured(spoken);
        agreement();
        ceiling();
        clicks(spoken);
        Files.writeString(Path.of(System.getProperty("mellow.quality")), page.toString());
        assertThat(page).contains("Noise down", "Ceiling");
    }

    private void row(String format, Object... values) {
        page.append(String.format(Locale.ROOT, format, values)).append('\n');
    }

    private static Opening opening(float[] sound) {
        return Opening.of(Signal.of(Frames.RATE, sound));
    }

    private static float[] cleaned(float[] sound, double amountDb) throws IOException {
        try (SampleSource take = opening(sound).open()) {
            return Signal.read(Cleanup.prepare(Recipe.of(StepKind.NOISE_DOWN.with(amountDb)), opening(sound), Heard.of(opening(sound)), null).process(take)).samples()[0];
        }
    }

    private void noiseDown(SpokenVoices spoken) throws Exception {
        page.append("\n## Noise down\n\nSet to ").append(SET_DB).append(" dB. Distances to the clean speech (log-spectral, floored 50 dB under its maximum) are with the best of several amounts, ours and sox's "
                + "(`noiseprof` of the same pauses, `noisered`).\n\n"
                + "| room | under the voice | noise in pauses down | segmental SNR up | residue's log kurtosis up | onsets lost | distance before | ours | sox |\n|---|---|---|---|---|---|---|---|---|\n");
        for (SpokenVoices.Room kind : SpokenVoices.Room.values()) {
            for (int distance : new int[] {10, 15, 20}) {
                double[] sums = new double[7];
                for (int voice = 0; voice < SpokenVoices.COUNT; voice++) {
                    float[] clean = spoken.voice(voice);
                    float[] before = spoken.noisy(voice, kind, distance);
                    float[] after = cleaned(before, SET_DB);
                    Heard heard = Heard.of(opening(before));
                    double[] figures = {powerDb(before, heard.room()) - powerDb(after, heard.room()), segmentalSnr(clean, after) - segmentalSnr(clean, before),
                        Math.log10(kurtosis(after, heard.room()) / kurtosis(before, heard.room())), Harm.of(opening(before), opening(after), heard).onsetLossDb(),
                        logSpectralDistance(clean, before), best(clean, before), bestOfSox(clean, before, heard.room().get(0))};
                    for (int i = 0; i < figures.length; i++) {
                        sums[i] += figures[i] / SpokenVoices.COUNT;
                    }
                }
                row("| %s | %d LU | %.1f dB | %.1f dB | %.2f | %.2f dB | %.2f dB | %.2f dB | %.2f dB |", kind.name().toLowerCase(Locale.ROOT), distance, sums[0], sums[1], sums[2], sums[3], sums[4],
                        sums[5], sums[6]);
            }
        }
    }

    private static double best(float[] clean, float[] noisy) throws IOException {
        double best = Double.POSITIVE_INFINITY;
        for (double amount : AMOUNTS_DB) {
            best = Math.min(best, logSpectralDistance(clean, cleaned(noisy, amount)));
        }
        return best;
    }

    private double bestOfSox(float[] clean, float[] noisy, Span room) throws Exception {
        Path in = folder.resolve("noisy.wav");
        Path profile = folder.resolve("profile");
        Path out = folder.resolve("reduced.wav");
        try (WavWriter writer = WavWriter.create(in, 1, Frames.RATE, SampleFormat.FLOAT_32)) {
            writer.accept(new float[][] {noisy}, noisy.length);
        }
        run("sox", in.toString(), "-n", "trim", room.startFrame() + "s", room.frames() + "s", "noiseprof", profile.toString());
        double best = Double.POSITIVE_INFINITY;
        for (String amount : SOX_AMOUNTS) {
            run("sox", in.toString(), out.toString(), "noisered", profile.toString(), amount);
            best = Math.min(best, logSpectralDistance(clean, SpokenVoices.read(out)));
        }
        return best;
    }

    private static String run(String... command) throws IOException, InterruptedException {
        Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
        String said = new String(process.getInputStream().readAllBytes());
        if (process.waitFor() != 0) {
            throw new IOException(command[0] + ": " + said);
        }
        return said;
    }

    private void measured(SpokenVoices spoken) throws Exception {
        page.append("\n## What is measured in a room\n\nThe planted distance against the measured one; the furthest off of three voices.\n\n"
                + "| room | planted | 10 LU | 15 LU | 20 LU | 25 LU |\n|---|---|---|---|---|---|\n");
        for (SpokenVoices.Room kind : List.of(SpokenVoices.Room.WHITE, SpokenVoices.Room.PINK, SpokenVoices.Room.BABBLE)) {
            StringBuilder errors = new StringBuilder();
            for (int distance : new int[] {10, 15, 20, 25}) {
                double worst = 0;
                for (int voice = 0; voice < SpokenVoices.COUNT; voice++) {
                    HeardSound heard = HeardSound.of(Signal.of(Frames.RATE, spoken.noisy(voice, kind, distance)).stream(), Search.FULL_SCALE_ONLY);
                    double error = heard.voiceToRoomLu().orElse(0) - distance;
                    worst = Math.abs(error) > Math.abs(worst) ? error : worst;
                }
                errors.append(String.format(Locale.ROOT, " %+.1f LU |", worst));
            }
            row("| %s | voice to room |%s", kind.name().toLowerCase(Locale.ROOT), errors);
        }
    }

    private void agreement() throws Exception {
        page.append("\n## Agreement with ffmpeg's `ebur128`\n\n| file | channels | loudness | theirs | true peak | theirs |\n|---|---|---|---|---|---|\n");
        List<Path> files;
        try (Stream<Path> demo = Files.list(Path.of(System.getProperty("mellow.demo")))) {
            files = demo.filter(file -> file.toString().endsWith(".flac")).sorted().toList();
        }
        SoundDecoder decoder = SoundDecoder.forOwnFiles();
        double furthestLu = 0;
        double furthestDb = 0;
        for (Path file : files) {
            Measurement ours;
            int channels;
            try (SampleSource sound = decoder.open(file, decoder.probe(file))) {
                channels = sound.channels();
                ours = Measurement.of(sound, Search.FULL_SCALE_ONLY);
            }
            String said = run("ffmpeg", "-hide_banner", "-nostdin", "-i", file.toString(), "-filter_complex", "ebur128=peak=true", "-f", "null", "-");
            double theirLufs = last(LOUDNESS, said);
            double theirPeak = last(PEAK, said);
            double lufs = ours.loudness().integrated().orElseThrow();
            double peak = ours.truePeak().truePeakDbtp().orElseThrow();
            furthestLu = Math.max(furthestLu, Math.abs(lufs - theirLufs));
            furthestDb = Math.max(furthestDb, Math.abs(peak - theirPeak));
            row("| %s | %d | %.2f LUFS | %.1f LUFS | %.2f dBTP | %.1f dBTP |", file.getFileName(), channels, lufs, theirLufs, peak, theirPeak);
        }
        row("%nFurthest apart: %.2f LU and %.2f dB (theirs are rounded to tenths).", furthestLu, furthestDb);
    }

    private static double last(Pattern pattern, String said) {
        Matcher matcher = pattern.matcher(said);
        double last = Double.NaN;
        while (matcher.find()) {
            last = Double.parseDouble(matcher.group(1));
        }
        return last;
    }

    /** What passes a ceiling of −1 dBTP, found with 16 times as many samples. */
    private void ceiling() throws IOException {
        double most = -100;
        double mostOfNoise = -100;
        for (int seed = 0; seed < LIMITED_SIGNALS; seed++) {
            boolean noise = seed % 2 == 0;
            float[] sound = noise ? noise(seed, seed % 4 == 0 ? 0.9 : 0.5) : tones(seed);
            Signal limited = Signal.read(new Limiter(Signal.of(Frames.RATE, sound).stream(), 6 + seed % 7, -1));
            double over = finePeakDb(limited.samples()[0]) + 1;
            most = Math.max(most, over);
            mostOfNoise = noise ? Math.max(mostOfNoise, over) : mostOfNoise;
        }
        page.append("\n## Ceiling\n\n");
        row("Of %d generated signals (noise to half and to 0.9 of the Nyquist frequency, tones), limited to −1 dBTP with 6 to 12 dB of gain and measured with %d times as many samples, the highest lies %+.2f dB from the "
                + "ceiling; of noise %+.2f dB.", LIMITED_SIGNALS, FINE, most, mostOfNoise);
    }

    private static float[] noise(int seed, double part) {
        Random random = new Random(seed);
        int taps = 63;
        double[] filter = new double[taps];
        for (int i = 0; i < taps; i++) {
            int x = i - taps / 2;
            filter[i] = (x == 0 ? part : Math.sin(Math.PI * part * x) / (Math.PI * x)) * (0.42 - 0.5 * Math.cos(2 * Math.PI * i / (taps - 1)) + 0.08 * Math.cos(4 * Math.PI * i / (taps - 1)));
        }
        double[] white = random.doubles(6000 + taps, -1, 1).toArray();
        float[] sound = new float[6000];
        for (int i = 0; i < sound.length; i++) {
            double sum = 0;
            for (int k = 0; k < taps; k++) {
                sum += filter[k] * white[i + k];
            }
            sound[i] = (float) sum;
        }
        return sound;
    }

    private static float[] tones(int seed) {
        Random random = new Random(seed);
        float[] sound = new float[6000];
        for (int tone = 0; tone < 5; tone++) {
            double step = Math.PI * random.nextDouble() * 0.95;
            double phase = 6.28 * random.nextDouble();
            double amplitude = random.nextDouble();
            for (int i = 0; i < sound.length; i++) {
                sound[i] += (float) (amplitude * Math.sin(step * i + phase));
            }
        }
        return sound;
    }

    /** The highest of 16 times as many samples, by a windowed sinc over 64 on both sides. */
    private static double finePeakDb(float[] sound) {
        int reach = 64;
        double most = 0;
        for (int step = 0; step < FINE; step++) {
            double shift = (double) step / FINE;
            double[] kernel = new double[2 * reach];
            for (int k = 0; k < kernel.length; k++) {
                double x = k - reach + 1 - shift;
                double window = 0.5 + 0.5 * Math.cos(Math.PI * x / (reach + 1));
                kernel[k] = x == 0 ? 1 : Math.sin(Math.PI * x) / (Math.PI * x) * window;
            }
            for (int i = reach; i + reach < sound.length; i++) {
                double sum = 0;
                for (int k = 0; k < kernel.length; k++) {
                    sum += kernel[k] * sound[i + k - reach + 1];
                }
                most = Math.max(most, Math.abs(sum));
            }
        }
        return Decibels.ofAmplitude(most);
    }

    /** 100 places of 1 to 5 ms in speech, of which nothing is known. */
    private void clicks(SpokenVoices spoken) throws Exception {
        double mended = 0;
        double line = 0;
        double silence = 0;
        int count = 0;
        for (int voice = 0; voice < SpokenVoices.COUNT; voice++) {
            float[] clean = spoken.voice(voice);
            List<Span> places = new ArrayList<>();
            for (int at = 30_000; at + 30_000 < clean.length && count < 100; at += 12_345) {
                int frames = 48 + 48 * (count % 5);
                if (powerDb(clean, List.of(new Span(at, at + frames))) > -45) {
                    places.add(new Span(at, at + frames));
                    count++;
                }
            }
            float[] damaged = clean.clone();
            for (Span place : places) {
                for (int i = (int) place.startFrame(); i < place.endFrame(); i++) {
                    damaged[i] = 0.9f;
                }
            }
            float[] after = Signal.read(PlaceMender.of(Signal.of(Frames.RATE, damaged).stream(), places)).samples()[0];
            for (Span place : places) {
                int from = (int) place.startFrame();
                int to = (int) place.endFrame();
                for (int i = from; i < to; i++) {
                    double part = (double) (i - from + 1) / (to - from + 1);
                    mended += square(after[i] - clean[i]);
                    line += square(clean[from - 1] + part * (clean[to] - clean[from - 1]) - clean[i]);
                    silence += square(clean[i]);
                }
            }
        }
        page.append("\n## Mending clicks\n\n");
        row("%d places of 1 to 5 ms in speech: what stands there instead is %.1f dB under the speech that was lost; of a straight line it is %+.1f dB, of silence 0 dB.", count,
                Decibels.ofPower(silence / mended), Decibels.ofPower(line / silence));
    }

    private static double square(double value) {
        return value * value;
    }
}
