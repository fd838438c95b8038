package org.mellowclass.media;

import java.io.Closeable;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.channels.ReadableByteChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.Stream;

import org.mellowclass.core.sound.SampleFormat;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.sound.WavWriter;

/**
 * Decodes files with ffmpeg, judged by their content and never by their name. An upload is hostile until it is decoded: only
 * the wanted demuxers may open it, no protocol but plain files, and time, memory and length are limited.
 */
public final class SoundDecoder {

    /** Two hours. */
    public static final int MOST_SECONDS = 2 * 60 * 60;

    private static final List<String> PLAIN_FILES = List.of("-protocol_whitelist", "file,pipe");
    private static final List<String> WANTED_DEMUXERS = List.of("-format_whitelist",
            "wav,w64,aiff,mp3,flac,ogg,mov,matroska");
    /** A Kaiser-windowed sinc that leaves images and aliases at least 100 dB down, and the pass band flat to 90 %. */
    private static final String RESAMPLING = ":filter_size=64:cutoff=0.92:kaiser_beta=10";
    private static final int LOWEST_RATE = 8_000;
    private static final int HIGHEST_RATE = 192_000;
    private static final long PROBE_TIMEOUT_SECONDS = 30;
    private static final int AAC_BLOCK = 1024;
    /** What coders put before and behind the sound, at most. */
    private static final long MOST_FILLING = 8 * AAC_BLOCK;

    private final boolean hostile;
    private final Confinement confinement;
    private final List<String> opening;
    private final int mostChannels;
    private final int mostSeconds;
    private final long timeoutSeconds;

    private SoundDecoder(boolean hostile, List<String> demuxers, int mostChannels, int mostSeconds, long timeoutSeconds) {
        this.hostile = hostile;
        this.confinement = hostile ? Confinement.allowed() : Confinement.NONE;
        this.opening = joined(PLAIN_FILES, demuxers);
        this.mostChannels = mostChannels;
        this.mostSeconds = mostSeconds;
        this.timeoutSeconds = timeoutSeconds;
    }

    /**
     * For what people bring in: WAV in all its dresses, AIFF, MP3, FLAC, Ogg, Opus, and the sound of MP4 and WebM, at most two
     * hours of it. More than two channels are mixed to two. The child processes have no network and a user of their own, where
     * the machine allows it.
     */
    public static SoundDecoder forUploads() {
        return new SoundDecoder(true, WANTED_DEMUXERS, 2, MOST_SECONDS, 15 * 60);
    }

    /** For somebody's own files on their own machine: whatever ffmpeg decodes, all channels, up to a day. */
    public static SoundDecoder forOwnFiles() {
        return new SoundDecoder(false, List.of(), 64, 24 * 60 * 60, 4 * 60 * 60);
    }

    /**
     * Looks at a file.
     *
     * @throws SoundRefused if it is empty, not sound, states a length over the limit, has no audio stream, or a rate below 8
     *                      or over 192 kHz
     */
    public SoundFacts probe(Path file) throws IOException, SoundRefused {
        if (Files.size(file) == 0) {
            throw new SoundRefused(SoundRefused.Reason.EMPTY, "no bytes");
        }
        Map<String, String> facts = asked(file, List.of());
        int rate = whole(facts.get("sample_rate"));
        int channels = whole(facts.get("channels"));
        if (rate <= 0 || channels <= 0) {
            throw new SoundRefused(SoundRefused.Reason.NO_AUDIO, facts.toString());
        }
        if (hostile && (rate < LOWEST_RATE || rate > HIGHEST_RATE)) {
            throw new SoundRefused(SoundRefused.Reason.ODD_RATE, rate + " Hz");
        }
        double seconds = decimal(facts.get("duration"));
        if (seconds > mostSeconds) {
            throw new SoundRefused(SoundRefused.Reason.TOO_LONG, seconds + " s");
        }
        String format = facts.getOrDefault("format_name", "");
        // of an MP3, the frame that says how many there are also says how many samples its coder has put in front
        boolean counted = seconds > 0 && (!format.equals("mp3") || whole(facts.get("skip_samples")) > 0);
        return new SoundFacts(format, facts.getOrDefault("codec_name", ""), rate, channels, seconds, encodedFrames(file, facts, rate, channels), counted);
    }

    private Map<String, String> asked(Path file, List<String> options) throws IOException, SoundRefused {
        List<String> command = joined(List.of("ffprobe", "-v", "error"), opening, options, List.of("-select_streams", "a:0", "-read_intervals", "%+#1",
                "-show_entries", "packet_side_data=skip_samples:stream=codec_name,sample_rate,channels,time_base,duration_ts,nb_frames"
                        + ":format=format_name,duration:format_tags=iTunSMPB",
                "-of", "default=noprint_wrappers=1", ChildProcess.INPUT));
        try (ChildProcess probe = ChildProcess.start(confinement, file, PROBE_TIMEOUT_SECONDS, 0, ProcessBuilder.Redirect.PIPE, command)) {
            Map<String, String> facts = new String(probe.output().readNBytes(64 * 1024), StandardCharsets.UTF_8).lines()
                    .map(line -> line.split("=", 2)).filter(pair -> pair.length == 2)
                    .collect(Collectors.toMap(pair -> pair[0], pair -> pair[1], (first, second) -> first));
            MachineFault.check(probe);
            if (probe.exitCode() != 0) {
                throw new SoundRefused(SoundRefused.Reason.NOT_SOUND, probe.errors());
            }
            return facts;
        }
    }

    /**
     * How many frames were encoded, where the decoder gives more: coders work in blocks and fill the last one. A count that would
     * take away more than filling is not believed.
     */
    private long encodedFrames(Path file, Map<String, String> facts, int rate, int channels) throws IOException, SoundRefused {
        String codec = facts.getOrDefault("codec_name", "");
        if (!("1/" + rate).equals(facts.get("time_base"))) {
            return 0;
        }
        if (codec.startsWith("adpcm_")) {
            // four bits a sample and a head for each block: of the fact chunk
            long counted = whole(facts.get("duration_ts"));
            long most = 2 * Files.size(file) / channels;
            return most - counted <= MOST_FILLING + most / 20 ? counted : 0;
        }
        if (codec.equals("aac") && facts.getOrDefault("format_name", "").startsWith("mov")) {
            long blocks = (long) whole(facts.get("nb_frames")) * AAC_BLOCK;
            String[] priming = facts.getOrDefault("TAG:iTunSMPB", "").strip().split(" ");
            // the edit list is in milliseconds; the lengths of the packets are in samples
            long counted = priming.length > 3 && priming[3].matches("[0-9A-F]{1,15}") ? Long.parseLong(priming[3], 16)
                    : whole(asked(file, List.of("-ignore_editlist", "1")).get("duration_ts")) - whole(facts.get("skip_samples"));
            return counted > 0 && counted <= blocks && blocks - counted <= MOST_FILLING ? counted : 0;
        }
        return 0;
    }

    /**
     * Opens the decoded sound at the file's own rate, as a stream; more channels than the limit are mixed together. Closing it ends
     * the child process. Reading it throws an {@link IOException} with a {@link SoundRefused} as its cause if the file turns
     * out to be longer than the limit, and a {@link MachineFault} if the child process was ended by the machine; what can be decoded
     * of a broken file is read, the rest is left out.
     */
    public SampleSource open(Path file, SoundFacts facts) throws IOException {
        int channels = Math.min(facts.channels(), mostChannels);
        ChildProcess process = ChildProcess.start(confinement, file, timeoutSeconds, 0, ProcessBuilder.Redirect.PIPE,
                decoding(channels, facts, facts.sampleRate()));
        return new Decoding(Channels.newChannel(process.output()), channels, facts.sampleRate(), process, process::close);
    }

    /**
     * Decodes a file into a WAV file of floats, converted to a rate. The child process writes without waiting for
     * anybody; what has been written can be read from the result meanwhile, which fails as {@link #open} does. Once it has
     * been read to its end, closing it finishes the WAV file.
     */
    public Decoded openInto(Path wav, Path file, SoundFacts facts, int rate) throws IOException {
        int channels = Math.min(facts.channels(), mostChannels);
        Files.write(wav, new byte[WavWriter.HEADER_BYTES]);
        int frameBytes = channels * Float.BYTES;
        long mostBytes = WavWriter.HEADER_BYTES + (mostSeconds + 2L) * rate * frameBytes;
        ChildProcess process = ChildProcess.start(confinement, file, timeoutSeconds, mostBytes,
                ProcessBuilder.Redirect.appendTo(wav.toFile()), decoding(channels, facts, rate));
        FileChannel written = FileChannel.open(wav, StandardOpenOption.READ, StandardOpenOption.WRITE);
        return new Decoding(new GrowingFile(written, WavWriter.HEADER_BYTES, process), channels, rate, process, () -> {
            process.close();
            try (written) {
                long whole = (written.size() - WavWriter.HEADER_BYTES) / frameBytes * frameBytes;
                WavWriter.writeHeader(written, channels, rate, SampleFormat.FLOAT_32, whole);
            }
        });
    }

    private List<String> decoding(int channels, SoundFacts facts, int rate) {
        String whole = facts.frames() > 0 ? "atrim=end_sample=" + facts.frames() + "," : "";
        return joined(List.of("ffmpeg", "-nostdin", "-v", "error", "-threads", "1"), opening,
                List.of("-i", ChildProcess.INPUT, "-map", "0:a:0", "-t", Integer.toString(mostSeconds + 1),
                        "-ac", Integer.toString(channels), "-af", whole + "aresample=" + rate + RESAMPLING,
                        "-threads", "1", "-flush_packets", "0", "-f", "f32le", "-c:a", "pcm_f32le", "pipe:1"));
    }

    @SafeVarargs
    private static List<String> joined(List<String>... parts) {
        return Stream.of(parts).flatMap(List::stream).toList();
    }

    private static int whole(String text) {
        try {
            return text == null ? 0 : Integer.parseInt(text);
        } catch (NumberFormatException notStated) {
            return 0;
        }
    }

    private static double decimal(String text) {
        try {
            return text == null ? 0 : Double.parseDouble(text);
        } catch (NumberFormatException notStated) {
            return 0;
        }
    }

    /** Sound that is decoded while it is read. */
    public interface Decoded extends SampleSource {

        /** Whether parts of the file could not be decoded and were left out; known once it has been read to its end. */
        boolean damaged();
    }

    private final class Decoding implements Decoded {

        private final ReadableByteChannel output;
        private final int channels;
        private final int sampleRate;
        private final ChildProcess process;
        private final Closeable end;
        private final ByteBuffer bytes = ByteBuffer.allocateDirect(1 << 16).order(ByteOrder.LITTLE_ENDIAN);
        private final float[] samples = new float[bytes.capacity() / Float.BYTES];
        private long frames;

        Decoding(ReadableByteChannel output, int channels, int sampleRate, ChildProcess process, Closeable end) {
            this.output = output;
            this.channels = channels;
            this.sampleRate = sampleRate;
            this.process = process;
            this.end = end;
        }

        @Override
        public int channels() {
            return channels;
        }

        @Override
        public int sampleRate() {
            return sampleRate;
        }

        @Override
        public int read(float[][] into, int offset, int wanted) throws IOException {
            int frameBytes = Float.BYTES * channels;
            bytes.clear().limit(Math.min(wanted, bytes.capacity() / frameBytes) * frameBytes);
            boolean ended = false;
            while (bytes.hasRemaining() && !ended) {
                ended = output.read(bytes) < 0;
            }
            if (ended) {
                MachineFault.check(process);
            }
            int count = bytes.flip().limit() / frameBytes;
            bytes.asFloatBuffer().get(samples, 0, count * channels);
            for (int c = 0; c < channels; c++) {
                float[] channel = into[c];
                for (int i = 0, from = c; i < count; i++, from += channels) {
                    float sample = samples[from];
                    channel[offset + i] = Float.isFinite(sample) ? sample : 0;
                }
            }
            frames += count;
            if (frames > (long) mostSeconds * sampleRate) {
                SoundRefused tooLong = new SoundRefused(SoundRefused.Reason.TOO_LONG, frames + " frames");
                throw new IOException(tooLong.getMessage(), tooLong);
            }
            return count;
        }

        @Override
        public boolean damaged() {
            return process.errors().contains("Error while decoding");
        }

        @Override
        public void close() throws IOException {
            end.close();
        }
    }
}
