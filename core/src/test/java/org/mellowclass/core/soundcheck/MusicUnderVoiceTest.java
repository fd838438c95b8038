package org.mellowclass.core.soundcheck;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.util.List;
import java.util.Map;
import java.util.Optional;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.talk.TalkFacts;
import org.mellowclass.core.testing.Signal;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Fade;
import org.mellowclass.core.timeline.TakeSource;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;

/** A voice (take 1) that speaks from 2 to 6 s and from 10 to 14 s, music (take 2) all along: tones of 1 kHz, so that K-weighting is the same for both. */
class MusicUnderVoiceTest {

    private static final long SECOND = Frames.RATE;
    private static final Signal VOICE = Signal.concat(Signal.silence(1, 2), Signal.sine(1, 1000, -20, 4), Signal.silence(1, 4), Signal.sine(1, 1000, -20, 4), Signal.silence(1, 2));
    private static final Signal MUSIC = Signal.sine(1, 1000, -20, 16);
    private static final TalkFacts FACTS = take -> Optional.of(take == 1
            ? new TalkFacts.Measured(true, List.of(new Span(0, 2 * SECOND), new Span(6 * SECOND, 10 * SECOND), new Span(14 * SECOND, 16 * SECOND)), -23.0)
            : new TalkFacts.Measured(false, List.of(), -23.0));

    private static MusicUnderVoice measured(double musicDb, boolean muted) throws IOException {
        Timeline timeline = new Timeline(List.of(track(1, 1, 0, false), track(2, 2, musicDb, muted)), List.of(), 20);
        Map<Long, Signal> sounds = Map.of(1L, VOICE, 2L, MUSIC);
        return MusicUnderVoice.of(timeline, FACTS, (take, treatment) -> sounds.get(take), 0, 16 * SECOND);
    }

    private static Track track(long id, long take, double gainDb, boolean muted) {
        return new Track(id, "Track " + id, 1, gainDb, muted, List.of(new Clip(id + 10, new TakeSource(take), 0, 0, 16 * SECOND, 0, Fade.NONE, Fade.NONE)));
    }

    @ParameterizedTest
    @ValueSource(doubles = {-3, -9.5, -14, -20})
    void what_was_planted_is_read(double musicDb) throws IOException {
        MusicUnderVoice under = measured(musicDb, false);
        assertThat(under.over().orElseThrow()).isCloseTo(-musicDb, within(0.5));
        assertThat(under.least().orElseThrow()).isCloseTo(-musicDb, within(0.5));
    }

    @Test
    void the_places_are_those_where_somebody_speaks() throws IOException {
        List<Span> places = measured(-6, false).nearer(12);
        assertThat(places).hasSize(2);
        assertThat(places.get(0).startFrame()).isBetween(0L, 2 * SECOND);
        assertThat(places.get(0).endFrame()).isBetween(6 * SECOND, 8 * SECOND);
        assertThat(measured(-14, false).nearer(12)).isEmpty();
    }

    @Test
    void where_no_music_is_heard_there_is_nothing_to_judge() throws IOException {
        assertThat(measured(0, true).over()).isEmpty();
        assertThat(measured(0, true).least()).isEmpty();
        assertThat(measured(0, true).nearer(12)).isEmpty();
    }
}
