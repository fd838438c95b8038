package org.mellowclass.app.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;

import org.mellowclass.app.jobs.Reporting;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Episode;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.sounds.Sound;
import org.mellowclass.app.sounds.TakeSounds;
import org.mellowclass.app.store.Scratch;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.app.web.Turnstile;
import org.mellowclass.core.publish.Slug;
import org.mellowclass.core.render.Mixer;
import org.mellowclass.core.sound.FirstChannel;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleFormat;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.sound.Start;
import org.mellowclass.core.sound.WavWriter;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.media.SoundEncoder;
import org.mellowclass.media.Tags;
import org.springframework.stereotype.Service;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;

/** Writes an episode, a part of it or some of its tracks, as a file: the same samples that the bench plays. */
@Service
class Exports {

    /** What is written. */
    enum Format {
        WAV("audio/wav"), FLAC("audio/flac"), MP3("audio/mpeg"), OPUS("audio/ogg");

        private final String mediaType;

        Format(String mediaType) {
            this.mediaType = mediaType;
        }

        String mediaType() {
            return mediaType;
        }
    }

    /** What 24-bit FLAC of speech comes to, by frame and channel, as measured on the demo school's: told as "about". */
    private static final double FLAC_BYTES_A_SAMPLE = 1.95;

    static final int FAILED = -1;

    private final Bench bench;
    private final TakeSounds sounds;
    private final Finishes finishes;
    private final Access access;
    private final SoundEncoder encoder;
    private final Scratch scratch;
    private final Clock clock;
    private final Turnstile turnstile = new Turnstile(2);
    /** How far files that are being made have come in percent, by who asked and the key they gave. */
    private final Cache<String, Integer> made = Caffeine.newBuilder().maximumSize(1000).expireAfterWrite(Duration.ofMinutes(10)).build();

    Exports(Bench bench, TakeSounds sounds, Finishes finishes, Access access, SoundEncoder encoder, Scratch scratch, Clock clock) {
        this.bench = bench;
        this.sounds = sounds;
        this.finishes = finishes;
        this.access = access;
        this.encoder = encoder;
        this.scratch = scratch;
        this.clock = clock;
    }

    /**
     * What somebody wants to have.
     *
     * @param endFrame 0 for the end of the episode
     * @param tracks   none for all
     */
    record Wanted(long revision, long startFrame, long endFrame, Set<Long> tracks) {
    }

    /**
     * How large it will be.
     *
     * @param exact whether it is exactly that
     */
    record Size(long bytes, boolean exact) {
    }

    /**
     * What is known of a file before it is made.
     *
     * @param mono   whether both sides are the same, so that one is enough
     * @param silent tracks that are left out of the episode, though they have sound
     */
    record Facts(long frames, boolean mono, List<String> silent, Map<Format, Size> sizes) {
    }

    Facts facts(Person viewer, long episodeId, Wanted wanted) {
        Timeline timeline = timeline(viewer, episodeId, wanted);
        Span span = span(timeline, wanted);
        boolean mono = mono(episodeId, timeline);
        List<String> silent = timeline.tracks().stream().filter(track -> track.muted() && !track.clips().isEmpty() && chosen(wanted, track)).map(Track::name).toList();
        return new Facts(span.frames(), mono, silent, Arrays.stream(Format.values()).collect(Collectors.toMap(Function.identity(), format -> size(format, span.frames(), mono ? 1 : 2))));
    }

    private static Size size(Format format, long frames, int channels) {
        double seconds = (double) frames / Frames.RATE;
        return switch (format) {
            case WAV -> new Size(WavWriter.HEADER_BYTES + frames * channels * Short.BYTES, true);
            case FLAC -> new Size(Math.round(frames * channels * FLAC_BYTES_A_SAMPLE), false);
            case MP3 -> new Size(Math.round(seconds * channels * SoundEncoder.MP3_KILOBITS * 1000 / 16), false);
            case OPUS -> new Size(Math.round(seconds * channels * SoundEncoder.OPUS_KILOBITS * 1000 / 16), false);
        };
    }

    /**
     * A file that has been written.
     *
     * @param file whoever asks for it deletes it
     */
    record Written(Path file, String name, Format format) {
    }

    /** How far a file has come, in percent; 0 if nothing is known of it, {@link #FAILED} if it could not be made. */
    int progress(Person viewer, long episodeId, String key) {
        access.episode(viewer, episodeId);
        return Optional.ofNullable(made.getIfPresent(viewer.id() + " " + key)).orElse(0);
    }

    /** @param key under which the page asks for the progress */
    Written write(Person viewer, long episodeId, Wanted wanted, Format format, String key) throws IOException {
        Episode episode = access.episode(viewer, episodeId);
        Timeline timeline = timeline(viewer, episodeId, wanted);
        Span span = span(timeline, wanted);
        boolean mono = mono(episodeId, timeline);
        Finish finish = finishes.newest(episodeId).finish();
        Path file = scratch.scratchFile(Scratch.Owner.episode(episodeId), "." + format.name().toLowerCase(Locale.ROOT));
        boolean done = false;
        try {
            turnstile.pass(() -> {
                try (Mixer mixer = new Mixer(audible(timeline, wanted), sounds)) {
                    SampleSource stereo = new Start(finish.from(mixer, span.startFrame()), span.frames());
                    SampleSource told = new Reporting(stereo, span.frames(), read -> made.put(viewer.id() + " " + key, (int) (99 * read / span.frames())));
                    write(mono ? new FirstChannel(told) : told, tags(episode), format, file);
                }
                return file;
            });
            done = true;
            made.put(viewer.id() + " " + key, 100);
        } finally {
            if (!done) {
                made.put(viewer.id() + " " + key, FAILED);
                Files.deleteIfExists(file);
            }
        }
        return new Written(file, Slug.of(episode.title()) + "." + format.name().toLowerCase(Locale.ROOT), format);
    }

    private void write(SampleSource sound, Tags tags, Format format, Path file) throws IOException {
        switch (format) {
            case WAV -> {
                try (sound; WavWriter writer = WavWriter.create(file, sound.channels(), Frames.RATE, SampleFormat.PCM_16)) {
                    SampleSink.drain(sound, writer);
                }
            }
            case FLAC -> encoder.flac(sound, tags, file);
            case MP3 -> encoder.mp3(sound, tags, file);
            case OPUS -> encoder.opus(sound, tags, file);
        }
    }

    private Tags tags(Episode episode) {
        return new Tags(episode.title(), episode.crewName(), "", LocalDate.ofInstant(clock.instant(), ZoneOffset.UTC), "");
    }

    private Timeline timeline(Person viewer, long episodeId, Wanted wanted) {
        Timeline timeline = bench.timeline(viewer, episodeId, wanted.revision);
        if (timeline.endFrame() == 0) {
            throw Refusal.unfit("hand-in.EMPTY");
        }
        return timeline;
    }

    private static Span span(Timeline timeline, Wanted wanted) {
        long end = wanted.endFrame == 0 ? timeline.endFrame() : Math.min(wanted.endFrame, timeline.endFrame());
        if (wanted.startFrame < 0 || end <= wanted.startFrame) {
            throw Refusal.unfit("bench.NOTHING_SELECTED");
        }
        return new Span(wanted.startFrame, end);
    }

    private static boolean chosen(Wanted wanted, Track track) {
        return wanted.tracks.isEmpty() || wanted.tracks.contains(track.id());
    }

    private static Timeline audible(Timeline timeline, Wanted wanted) {
        return timeline.mapTracks(track -> chosen(wanted, track) ? track : track.withMuted(true), timeline.nextId());
    }

    /** Both sides are the same where every sound has one channel and every track stands in the middle. */
    private boolean mono(long episodeId, Timeline timeline) {
        Map<Long, Integer> channels = sounds.ofEpisode(episodeId).stream().filter(Sound::made)
                .collect(Collectors.toMap(Sound::takeId, Sound::channels, Math::max));
        return timeline.tracks().stream().filter(track -> !track.muted()).allMatch(track -> track.pan() == 0
                && track.clips().stream().allMatch(clip -> channels.getOrDefault(clip.source().takeId(), 2) == 1));
    }
}
