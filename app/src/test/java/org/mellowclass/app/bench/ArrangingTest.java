package org.mellowclass.app.bench;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Files;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import java.util.Set;

import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mellowclass.app.sounds.SoundDrawings;
import org.mellowclass.app.sounds.TakeMeasuring;
import org.mellowclass.app.sounds.TakeSounds;
import org.mellowclass.app.sounds.Treating;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.core.measure.Spectrogram;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.talk.Talk;
import org.mellowclass.core.testing.Signal;
import org.mellowclass.core.testing.Timelines;
import org.mellowclass.core.talk.EvenVoices;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.timeline.edit.Mend;
import org.mellowclass.core.timeline.edit.Trim;
import org.mellowclass.core.treatment.MendPlaces;
import org.mellowclass.core.treatment.Treatment;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;

/** What the bench arranges, offers and remembers: copies, trials, what is only for the ear, pauses, the log. */
@AppTest
class ArrangingTest {

    @Autowired
    private Bench bench;
    @Autowired
    private Wishes wishes;
    @Autowired
    private Trials trials;
    @Autowired
    private TalkOfEpisode talk;
    @Autowired
    private History history;
    @Autowired
    private EditWords words;
    @Autowired
    private TimelineCodec codec;
    @Autowired
    private PreviewSound preview;
    @Autowired
    private TakeSounds sounds;
    @Autowired
    private SoundDrawings drawings;
    @Autowired
    private Exports exports;
    @Autowired
    private Treating treating;
    @Autowired
    private TakeMeasuring measuring;
    @Autowired
    private Schools schools;
    @Autowired
    private JdbcClient jdbc;
    private Schools.School school;
    private Track noor;
    private long take;

    /** Two seconds of a voice, three of hardly anything, two of the voice. */
    @BeforeEach
    void landATake() throws IOException {
        school = schools.build();
        take = schools.readyTake(school, Signal.concat(Signal.noise(1, -12, 2, 1), Signal.noise(1, -70, 3, 2), Signal.noise(1, -12, 2, 3)), "Noor");
        noor = head().timeline().tracks().get(0);
        Schools.await(() -> sounds.findings(take).isPresent());
    }

    private Head head() {
        return bench.head(school.student(), school.episodeId());
    }

    private Timeline grant(Wish wish) {
        Head head = head();
        return wishes.grant(school.student(), school.episodeId(), head.seq(), "client-" + head.seq(), wish).timeline();
    }

    private static long seconds(double seconds) {
        return Math.round(seconds * Frames.RATE);
    }

    // ---- wishes that the server completes

    @Test
    void keeping_only_a_selection_takes_out_what_is_before_and_behind_it() {
        Timeline kept = grant(new SelectionWish.KeepingOnly(seconds(1), seconds(6), Set.of(noor.id())));
        assertThat(kept.endFrame()).isEqualTo(seconds(5));
        assertThat(kept.tracks().get(0).clips()).extracting(Clip::sourceFrame).containsExactly(noor.clips().get(0).sourceFrame() + seconds(1));
    }

    @Test
    void a_copy_means_the_words_it_was_made_of_whatever_was_cut_since() {
        long revision = head().seq();
        grant(new SelectionWish.Removing(0, seconds(1), Set.of(noor.id())));
        Timeline laid = grant(new LayingWish.Copying(revision, seconds(1.5), seconds(2), Set.of(noor.id()), 0, false));
        assertThat(laid.endFrame()).isEqualTo(seconds(6.5));
        assertThat(laid.tracks().get(0).clips().get(0).sourceFrame()).isEqualTo(noor.clips().get(0).sourceFrame() + seconds(1.5));
    }

    @Test
    void moving_along_takes_what_follows_with_it_and_back() {
        Timeline split = grant(new SelectionWish.Splitting(seconds(3), Set.of(noor.id())));
        long second = split.tracks().get(0).clips().get(1).id();
        assertThat(grant(new ClipWish.Moving(second, noor.id(), seconds(4), true)).endFrame()).isEqualTo(seconds(8));
        assertThat(grant(new ClipWish.Moving(second, noor.id(), seconds(3), true)).endFrame()).isEqualTo(seconds(7));
        assertThatThrownBy(() -> grant(new ClipWish.Moving(second, noor.id(), seconds(2), true))).hasMessage("SOUND_IS_THERE");
    }

    @Test
    void a_take_is_laid_where_the_ribbon_is() {
        Timeline laid = grant(new LayingWish.Laying(take, "Noor", seconds(10)));
        assertThat(laid.tracks().get(0).clips().get(1).startFrame()).isEqualTo(seconds(10));
    }

    @Test
    void a_click_is_mended_in_the_take_and_what_is_longer_becomes_room() {
        Timeline mended = grant(new SelectionWish.Mending(seconds(1), seconds(1.01), Set.of(noor.id())));
        Clip clip = mended.tracks().get(0).clips().get(0);
        long inTake = noor.clips().get(0).sourceFrame() + seconds(1);
        assertThat(clip.source().treatment()).isEqualTo(Treatment.of(new MendPlaces(List.of(new Span(inTake, inTake + seconds(0.01))))));
        assertThat(clip.span()).isEqualTo(noor.clips().get(0).span());
        assertThat(grant(new SelectionWish.Mending(seconds(1), seconds(1.2), Set.of(noor.id()))).tracks().get(0).clips()).hasSizeGreaterThan(1);
    }

    @Test
    void a_hundred_clicks_of_a_take_are_mended_and_heard_and_no_more() throws IOException {
        for (int click = 0; click < Mend.MOST_PLACES; click++) {
            long at = seconds(0.5) + click * 2000L;
            grant(new SelectionWish.Mending(at, at + 100, Set.of(noor.id())));
        }
        Treatment treatment = head().timeline().tracks().get(0).clips().get(0).source().treatment();
        assertThat(treatment.step(MendPlaces.class).orElseThrow().places()).hasSize(Mend.MOST_PLACES);
        treating.ensure(take, treatment);
        assertThat(heard(String.valueOf(head().seq()), seconds(1), seconds(1.1), PreviewSound.ForTheEar.AS_IT_IS)).isNotEmpty();
        assertThatThrownBy(() -> grant(new SelectionWish.Mending(seconds(0.1), seconds(0.11), Set.of(noor.id())))).hasMessage("TOO_MUCH_TO_MEND");
    }

    @Test
    void a_trim_of_all_tied_tracks_leaves_none_of_them_there() {
        grant(new LayingWish.Laying(take, "Ravi", null));
        Timeline trimmed = grant(new ClipWish.Trimming(noor.clips().get(0).id(), Trim.Edge.END, seconds(6), true));
        assertThat(trimmed.tracks()).extracting(Track::endFrame).containsExactly(seconds(6), seconds(6));
    }

    @Test
    void a_trim_of_all_tied_tracks_that_goes_nowhere_is_refused_as_any_other() {
        long clip = noor.clips().get(0).id();
        assertThatThrownBy(() -> grant(new ClipWish.Trimming(clip, Trim.Edge.START, 0, true))).hasMessage("CHANGES_NOTHING");
    }

    @Test
    void a_wish_that_lacks_something_is_not_understood_and_nothing_happens() {
        long before = head().seq();
        for (Wish lacking : List.of(new SelectionWish.Removing(0, 9, null), new SelectionWish.Filling(0, 9, Collections.singleton(null)), new SelectionWish.Splitting(9, null),
                new SelectionWish.ShorteningPauses(null, Set.of(noor.id())), new LayingWish.Copying(before, 0, 9, null, 0, true), new TrackWish.Curving(noor.id(), null),
                new ClipWish.ClipGains(Collections.singletonMap(noor.clips().get(0).id(), null)), new ClipWish.Trimming(noor.clips().get(0).id(), null, 9, false))) {
            assertThatThrownBy(() -> grant(lacking)).as("%s", lacking).isInstanceOf(IllegalArgumentException.class);
        }
        assertThat(head().seq()).isEqualTo(before);
    }

    // ---- heard, not kept

    private float[] heard(String sound, long from, long to, PreviewSound.ForTheEar ear) throws IOException {
        ByteBuffer bytes = ByteBuffer.wrap(preview.finished(school.student(), school.episodeId(), sound, Finish.FIRST, from, to, ear)).order(ByteOrder.LITTLE_ENDIAN);
        float[] left = new float[bytes.remaining() / 8];
        for (int i = 0; i < left.length; i++) {
            left[i] = bytes.getFloat(8 * i);
        }
        return left;
    }

    @Test
    void a_trial_sounds_as_the_edit_would_and_changes_nothing() throws IOException {
        Wish wish = new SelectionWish.Removing(seconds(2), seconds(5), Set.of(noor.id()));
        long before = head().seq();
        Trials.Tried tried = trials.of(school.student(), school.episodeId(), before, wish);
        assertThat(tried.frames()).isEqualTo(seconds(4));
        assertThat(head().seq()).isEqualTo(before);
        float[] trial = heard(tried.key(), seconds(1.5), seconds(2.5), PreviewSound.ForTheEar.AS_IT_IS);
        grant(wish);
        assertThat(trial).isEqualTo(heard(String.valueOf(head().seq()), seconds(1.5), seconds(2.5), PreviewSound.ForTheEar.AS_IT_IS));
        assertThatThrownBy(() -> preview.finished(school.student(), school.episodeId(), "0".repeat(32), Finish.FIRST, 0, 9, PreviewSound.ForTheEar.AS_IT_IS))
                .isInstanceOf(NotFound.class);
        assertThatThrownBy(() -> preview.finished(school.stranger(), school.otherEpisodeId(), tried.key(), Finish.FIRST, 0, 9, PreviewSound.ForTheEar.AS_IT_IS))
                .isInstanceOf(NotFound.class);
    }

    @Test
    void what_is_for_the_ear_leaves_tracks_out_and_plays_slower_and_the_episode_is_as_it_was() throws IOException {
        String revision = String.valueOf(head().seq());
        assertThat(heard(revision, 0, 4800, new PreviewSound.ForTheEar(Set.of(noor.id()), 100))).containsOnly(0f);
        assertThat(heard(revision, 0, 48_000, new PreviewSound.ForTheEar(Set.of(), 50))).hasSize(96_000);
        assertThat(heard(revision, 0, 48_000, new PreviewSound.ForTheEar(Set.of(), 200))).hasSize(24_000);
        assertThatThrownBy(() -> new PreviewSound.ForTheEar(Set.of(), 1)).isInstanceOf(NotFound.class);
        assertThat(head().timeline().tracks().get(0).muted()).isFalse();
    }

    @Test
    void the_samples_of_a_sound_are_those_of_its_file_and_bounded() throws IOException {
        long sound = schools.sound(school, take).id();
        ByteBuffer samples = ByteBuffer.wrap(drawings.samples(school.student(), sound, 0, 1000)).order(ByteOrder.LITTLE_ENDIAN);
        Signal expected = Signal.noise(1, -12, 2, 1);
        for (int i = 0; i < 1000; i++) {
            assertThat(samples.getShort() / 32768.0).isCloseTo(expected.samples()[0][i], within(2 / 32768.0));
        }
        assertThatThrownBy(() -> drawings.samples(school.student(), sound, 0, seconds(4) + 1)).hasMessage("bench.SPAN_TOO_LONG");
        assertThatThrownBy(() -> drawings.samples(school.stranger(), sound, 0, 10)).isInstanceOf(NotFound.class);
        assertThat(drawings.spectrum(school.student(), sound, 0, seconds(1), 20)).hasSize(20 * Spectrogram.BANDS);
        assertThatThrownBy(() -> drawings.spectrum(school.student(), sound, 0, seconds(1), 100_000)).isInstanceOf(NotFound.class);
        assertThatThrownBy(() -> drawings.spectrum(school.stranger(), sound, 0, seconds(1), 20)).isInstanceOf(NotFound.class);
    }

    // ---- pauses and voices

    @Test
    void the_pause_is_found_and_shortened_in_one_edit() {
        TalkOfEpisode.Pauses pauses = talk.pauses(school.student(), school.episodeId(), head().seq());
        assertThat(pauses.measured()).isTrue();
        assertThat(pauses.pauses()).hasSize(1);
        Talk.Pause pause = pauses.pauses().get(0);
        assertThat(pause.allQuiet()).isTrue();
        assertThat(pause.span().startFrame()).isCloseTo(seconds(2), within(seconds(0.04)));
        assertThat(pause.span().endFrame()).isCloseTo(seconds(5), within(seconds(0.04)));
        Timeline shorter = grant(new SelectionWish.ShorteningPauses(List.of(pause.cut()), Set.of(noor.id())));
        assertThat(shorter.endFrame()).isEqualTo(seconds(7) - pause.cut().frames());
        assertThat(pause.span().frames() - pause.cut().frames()).isEqualTo(seconds(0.6));
    }

    @Test
    void a_take_that_an_earlier_version_measured_is_measured_again() throws IOException {
        jdbc.sql("UPDATE take_findings SET pauses = NULL, loudness_lufs = NULL WHERE take_id = ?").param(take).update();
        assertThat(talk.pauses(school.student(), school.episodeId(), head().seq()).measured()).isFalse();
        assertThatThrownBy(() -> talk.ducked(school.student(), school.episodeId(), head().seq(), noor.id())).hasMessage("bench.NOT_MEASURED_YET");
        measuring.ensure(take);
        assertThat(talk.pauses(school.student(), school.episodeId(), head().seq()).pauses()).hasSize(1);
    }

    @Test
    void what_nobody_speaks_over_is_not_taken_down() {
        assertThatThrownBy(() -> talk.ducked(school.student(), school.episodeId(), head().seq(), noor.id())).hasMessageStartingWith("bench.NOTHING_TO_DUCK");
        assertThatThrownBy(() -> talk.ducked(school.student(), school.episodeId(), head().seq(), 99)).hasMessage("bench.CHANGED_MEANWHILE");
        assertThatThrownBy(() -> talk.even(school.stranger(), school.episodeId(), head().seq())).isInstanceOf(NotFound.class);
    }

    @Test
    void a_quiet_voice_is_brought_to_the_others() throws IOException {
        long quiet = schools.readyTake(school, Signal.noise(1, -24, 7, 9), "Ravi");
        Schools.await(() -> sounds.findings(quiet).isPresent());
        EvenVoices even = talk.even(school.student(), school.episodeId(), head().seq()).orElseThrow();
        assertThat(even.voices()).hasSize(2).allSatisfy(voice -> assertThat(voice.evenLufs()).isCloseTo(even.targetLufs(), within(0.26)));
        grant(new ClipWish.ClipGains(even.gainsDb()));
        double loud = talk.loudness(school.student(), school.episodeId(), head().seq(), noor.clips().get(0).id()).orElseThrow();
        long ravis = head().timeline().clipsOf(quiet).get(0).id();
        assertThat(talk.loudness(school.student(), school.episodeId(), head().seq(), ravis).orElseThrow()).isCloseTo(loud, within(0.51));
        assertThat(talk.ducked(school.student(), school.episodeId(), head().seq(), noor.id())).as("Noor under Ravi").isNotEmpty();
    }

    // ---- files to take along

    @Test
    void a_file_tells_how_far_it_has_come_to_who_asked_for_it_alone() throws IOException {
        String key = "b".repeat(32);
        assertThat(exports.progress(school.student(), school.episodeId(), key)).isZero();
        Exports.Written written = exports.write(school.student(), school.episodeId(), new Exports.Wanted(head().seq(), 0, 0, Set.of()), Exports.Format.FLAC, key);
        Files.delete(written.file());
        assertThat(exports.progress(school.student(), school.episodeId(), key)).isEqualTo(100);
        assertThat(exports.progress(school.teacher(), school.episodeId(), key)).isZero();
        assertThatThrownBy(() -> exports.progress(school.stranger(), school.episodeId(), key)).isInstanceOf(NotFound.class);
    }

    // ---- the log

    @Test
    void the_log_says_who_did_what_and_going_back_is_an_edit_that_can_be_undone() {
        long first = head().seq();
        grant(new SelectionWish.Removing(0, seconds(1), Set.of(noor.id())));
        grant(new SelectionWish.Splitting(seconds(3), Set.of(noor.id())));
        bench.undo(school.student(), school.episodeId(), head().seq(), "client-undo", false);
        history.name(school.student(), school.episodeId(), first, "before the cut");
        Head back = bench.goBack(school.student(), school.episodeId(), head().seq(), "client-back", first);
        assertThat(back.timeline().tracks()).containsExactly(noor);
        List<History.Entry> log = history.log(school.teacher(), school.episodeId(), Long.MAX_VALUE);
        assertThat(log).extracting(History.Entry::what).startsWith("Went back to version " + first + ".", "Undid a step.", "Split.", "Removed 1.00 s.");
        assertThat(log).filteredOn(entry -> entry.seq() == first).extracting(History.Entry::name).containsExactly("before the cut");
        assertThat(log.get(0).who()).isEqualTo(school.student().name());
        bench.undo(school.student(), school.episodeId(), back.seq(), "client-forward", false);
        assertThat(head().timeline().endFrame()).isEqualTo(seconds(6));
        history.name(school.student(), school.episodeId(), first, " ");
        assertThat(history.log(school.teacher(), school.episodeId(), first + 1).get(0).name()).isNull();
        assertThatThrownBy(() -> history.name(school.student(), school.episodeId(), 9999, "far")).isInstanceOf(NotFound.class);
        assertThatThrownBy(() -> history.log(school.stranger(), school.episodeId(), 9)).isInstanceOf(NotFound.class);
    }

    @Test
    void every_edit_has_words() {
        for (int seed = 0; seed < 400; seed++) {
            Random random = new Random(seed);
            Timeline timeline = Timelines.generate(random);
            assertThat(words.of(codec.toJson(Timelines.edit(timeline, random)))).isNotBlank().doesNotContain("{");
        }
        assertThat(words.of(EditWords.goneBack(7))).isEqualTo("Went back to version 7.");
    }
}
