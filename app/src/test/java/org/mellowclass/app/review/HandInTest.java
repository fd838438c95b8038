package org.mellowclass.app.review;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.util.Collections;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;

import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mellowclass.app.bench.Bench;
import org.mellowclass.app.bench.Head;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.core.measure.LoudnessMeter;
import org.mellowclass.core.measure.TruePeakMeter;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.soundcheck.Reading;
import org.mellowclass.core.soundcheck.SoundCheck;
import org.mellowclass.core.soundcheck.Verdict;
import org.mellowclass.core.testing.Signal;
import org.mellowclass.core.timeline.edit.Remove;
import org.mellowclass.media.SoundDecoder;
import org.springframework.beans.factory.annotation.Autowired;

@AppTest
class HandInTest {

    @Autowired
    private HandIns handIns;
    @Autowired
    private Bench bench;
    @Autowired
    private Schools schools;
    @Autowired
    private SoundDecoder decoder;
    private Schools.School school;

    @BeforeEach
    void build() {
        school = schools.build();
    }

    @Test
    void the_kept_mixdown_measures_as_the_house_sound_wants_it_and_as_its_report_says() throws Exception {
        schools.readyTake(school, Schools.speech(), "Noor");
        HandIn handIn = schools.readyHandIn(school);
        LoudnessMeter loudness = new LoudnessMeter(2);
        TruePeakMeter peak = new TruePeakMeter(2);
        var file = handIns.sound(school.teacher(), handIn.id()).getFile().toPath();
        try (SampleSource sound = decoder.open(file, decoder.probe(file))) {
            assertThat(SampleSink.drain(sound, loudness, peak)).isEqualTo(Schools.speech().frames());
        }
        assertThat(loudness.integrated().orElseThrow()).isCloseTo(-16, within(0.1));
        assertThat(peak.truePeakDbtp().orElseThrow()).isLessThanOrEqualTo(-1);
        assertThat(reading(handIn, Reading.Kind.LOUDNESS).value()).isCloseTo(loudness.integrated().getAsDouble(), within(0.01));
        assertThat(reading(handIn, Reading.Kind.TRUE_PEAK).value()).isCloseTo(peak.truePeakDbtp().getAsDouble(), within(0.01));
        assertThat(reading(handIn, Reading.Kind.LENGTH).value()).isCloseTo(5, within(0.001));
    }

    @Test
    void the_sound_check_points_to_clipped_spots_and_dead_air() throws IOException {
        Signal signal = Signal.concat(Signal.sine(1, 300, -14, 3), Signal.silence(1, 5), Signal.sine(1, 300, -14, 2));
        for (int i = 48_000; i < 48_020; i++) {
            signal.samples()[0][i] = 1f;
        }
        schools.readyTake(school, signal, "Noor");
        HandIn handIn = schools.readyHandIn(school);
        Reading clipping = reading(handIn, Reading.Kind.CLIPPING);
        assertThat(clipping.verdict()).isEqualTo(Verdict.CHECK);
        assertThat(clipping.places()).containsExactly(new Span(48_000, 48_020));
        Reading deadAir = reading(handIn, Reading.Kind.DEAD_AIR);
        assertThat(deadAir.verdict()).isEqualTo(Verdict.FIX);
        assertThat(Frames.toSeconds(deadAir.places().get(0).startFrame())).isCloseTo(3, within(0.2));
    }

    @Test
    void silence_is_handed_in_without_any_number_that_it_has_not_got() throws IOException {
        schools.readyTake(school, Signal.silence(1, 3), "Noor");
        HandIn handIn = schools.readyHandIn(school);
        assertThat(reading(handIn, Reading.Kind.LOUDNESS).value()).isNull();
        assertThat(handIn.report()).contains("\"value\":null").doesNotContain("Infinity").doesNotContain("NaN");
    }

    @Test
    void pressing_many_times_at_once_makes_one_hand_in() throws Exception {
        schools.readyTake(school, Schools.speech(), "Noor");
        ExecutorService fingers = Executors.newFixedThreadPool(6);
        Callable<Long> press = () -> handIns.handIn(school.student(), school.episodeId()).id();
        Set<Long> ids = new HashSet<>();
        for (Future<Long> made : fingers.invokeAll(Collections.nCopies(6, press))) {
            ids.add(made.get());
        }
        fingers.shutdown();
        assertThat(ids).hasSize(1);
        assertThat(handIns.ofEpisode(school.student(), school.episodeId())).extracting(HandIn::number).containsExactly(1);
    }

    @Test
    void a_hand_in_stays_what_it_was_while_the_crew_goes_on_editing() throws IOException {
        schools.readyTake(school, Schools.speech(), "Noor");
        HandIn first = schools.readyHandIn(school);
        Head head = bench.head(school.student(), school.episodeId());
        bench.edit(school.student(), school.episodeId(), head.seq(), "client-after",
                new Remove(new Span(0, 24_000), head.timeline().trackIds()));
        HandIn second = schools.readyHandIn(school);
        assertThat(second.number()).isEqualTo(2);
        assertThat(handIns.find(school.student(), first.id())).isEqualTo(first);
        assertThat(bench.timeline(first.timelineHash()).endFrame()).isEqualTo(first.frames());
        assertThat(second.frames()).isEqualTo(first.frames() - 24_000);
    }

    @Test
    void a_decision_is_about_the_newest_hand_in_and_another_pass_needs_a_sentence() throws IOException {
        schools.readyTake(school, Schools.speech(), "Noor");
        HandIn first = schools.readyHandIn(school);
        assertThatThrownBy(() -> handIns.decide(school.teacher(), first.id(), HandIn.Decision.ANOTHER_PASS, " "))
                .hasMessage("hand-in.SENTENCE_MISSING");
        HandIn decided = handIns.decide(school.teacher(), first.id(), HandIn.Decision.ANOTHER_PASS, "Shorten the pause.");
        assertThat(decided.sentence()).isEqualTo("Shorten the pause.");
        Head head = bench.head(school.student(), school.episodeId());
        bench.edit(school.student(), school.episodeId(), head.seq(), "client-mend",
                new Remove(new Span(96_000, 110_000), head.timeline().trackIds()));
        HandIn second = schools.readyHandIn(school);
        assertThatThrownBy(() -> handIns.decide(school.teacher(), first.id(), HandIn.Decision.CLEARED, ""))
                .hasMessage("hand-in.NOT_THE_NEWEST");
        assertThat(handIns.decide(school.teacher(), second.id(), HandIn.Decision.CLEARED, "").cleared()).isTrue();
    }

    @Test
    void an_empty_page_cannot_be_handed_in() {
        assertThatThrownBy(() -> handIns.handIn(school.student(), school.episodeId())).hasMessage("hand-in.EMPTY");
        assertThat(handIns.ofEpisode(school.student(), school.episodeId())).isEqualTo(List.of());
    }

    private Reading reading(HandIn handIn, Reading.Kind kind) {
        SoundCheck check = handIns.report(handIn);
        return check.readings().stream().filter(reading -> reading.kind() == kind).findFirst().orElseThrow();
    }
}
