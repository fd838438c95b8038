package org.mellowclass.media;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleFormat;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.sound.WavWriter;

/** Writes FLAC, MP3 and Opus with ffmpeg, from sound at 48 kHz. */
public final class SoundEncoder {

    private static final long TIMEOUT_SECONDS = 15 * 60;
    private static final long MOST_BYTES = 4L << 30;
    /** Of stereo; one channel has half. */
    public static final int MP3_KILOBITS = 192;
    public static final int OPUS_KILOBITS = 96;

    private final Path folder;
    private final Confinement confinement = Confinement.allowed();

    /** @param folder where sound on its way is kept */
    public SoundEncoder(Path folder) {
        this.folder = folder;
    }

    /** Writes 24-bit FLAC; closes the source. */
    public void flac(SampleSource source, Path target) throws IOException {
        encode(source, List.of("-c:a", "flac", "-sample_fmt", "s32", "-bits_per_raw_sample", "24", "-f", "flac"), target);
    }

    /** As {@link #flac(SampleSource, Path)}, with tags. */
    public void flac(SampleSource source, Tags tags, Path target) throws IOException {
        encode(source, tagged(tags, List.of("-c:a", "flac", "-sample_fmt", "s32", "-bits_per_raw_sample", "24"), "flac"), target);
    }

    /** Writes MP3 with ID3 tags, at 192 kb/s joint stereo or 96 kb/s mono; closes the source. */
    public void mp3(SampleSource source, Tags tags, Path target) throws IOException {
        encode(source, tagged(tags, List.of("-c:a", "libmp3lame", "-b:a", kilobits(source, MP3_KILOBITS), "-joint_stereo", "1",
                "-id3v2_version", "3", "-write_id3v1", "0"), "mp3"), target);
    }

    /** Writes Opus in Ogg, at 96 kb/s or, of one channel, 48 kb/s on average; closes the source. */
    public void opus(SampleSource source, Tags tags, Path target) throws IOException {
        encode(source, tagged(tags, List.of("-c:a", "libopus", "-b:a", kilobits(source, OPUS_KILOBITS)), "ogg"), target);
    }

    private static String kilobits(SampleSource source, int stereo) {
        return (source.channels() == 1 ? stereo / 2 : stereo) + "k";
    }

    private static List<String> tagged(Tags tags, List<String> codec, String format) {
        List<String> options = new ArrayList<>(codec);
        options.addAll(List.of("-metadata", "title=" + tags.title(), "-metadata", "artist=" + tags.artist(),
                "-metadata", "album=" + tags.album(), "-metadata", "date=" + tags.date()));
        if (!tags.comment().isEmpty()) {
            options.addAll(List.of("-metadata", "comment=" + tags.comment()));
        }
        options.addAll(List.of("-f", format));
        return options;
    }

    private void encode(SampleSource source, List<String> options, Path target) throws IOException {
        Path wav = Files.createTempFile(folder, "encode", ".wav");
        try (source) {
            try (WavWriter writer = WavWriter.create(wav, source.channels(), Frames.RATE, SampleFormat.FLOAT_32)) {
                SampleSink.drain(source, writer);
            }
            List<String> command = new ArrayList<>(List.of("ffmpeg", "-nostdin", "-v", "error", "-y", "-threads", "1",
                    "-protocol_whitelist", "file", "-f", "wav", "-i", ChildProcess.INPUT, "-map_metadata", "-1", "-bitexact"));
            command.addAll(options);
            command.add(ChildProcess.OUTPUT);
            confinement.letWrite(target);
            try (ChildProcess encoder = ChildProcess.start(confinement, wav, TIMEOUT_SECONDS, MOST_BYTES,
                    ProcessBuilder.Redirect.to(target.toFile()), command)) {
                encoder.exitCode();
                MachineFault.check(encoder);
                if (encoder.exitCode() != 0) {
                    throw new IllegalStateException("ffmpeg could not encode: " + encoder.errors());
                }
            }
            confinement.keep(target);
        } finally {
            Files.deleteIfExists(wav);
        }
    }
}
