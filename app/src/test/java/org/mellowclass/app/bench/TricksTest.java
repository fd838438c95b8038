package org.mellowclass.app.bench;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.util.Set;

import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mellowclass.app.sounds.TakeSounds;
import org.mellowclass.app.sounds.Treating;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.RandomAccessSound;
import org.mellowclass.core.testing.Signal;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.treatment.Treatment;
import org.mellowclass.core.treatment.Trick;
import org.springframework.beans.factory.annotation.Autowired;

@AppTest
class TricksTest {

    private static final Signal NOISE = Signal.noise(1, -12, 4, 1);

    @Autowired
    private Bench bench;
    @Autowired
    private Wishes wishes;
    @Autowired
    private PlacedTakes placed;
    @Autowired
    private TakeSounds sounds;
    @Autowired
    private Treating treating;
    @Autowired
    private Schools schools;
    private Schools.School school;
    private long take;
    private long noorId;

    @BeforeEach
    void landATake() throws IOException {
        school = schools.build();
        take = schools.readyTake(school, NOISE, "Noor");
        noorId = head().timeline().tracks().get(0).id();
        Schools.await(() -> sounds.findings(take).isPresent());
    }

    private Head head() {
        return bench.head(school.student(), school.episodeId());
    }

    private Timeline trick(double from, double to, Trick.Kind kind, double amount) {
        Head head = head();
        return wishes.grant(school.student(), school.episodeId(), head.seq(), "client-" + head.seq(),
                new SelectionWish.Tricking((long) (from * Frames.RATE), (long) (to * Frames.RATE), Set.of(noorId), kind, amount)).timeline();
    }

    @Test
    void a_trick_is_heard_on_its_stretch_alone_and_taken_back() throws IOException {
        Timeline turned = trick(1, 2, Trick.Kind.BACKWARDS, 0);
        Clip second = turned.tracks().get(0).clips().get(1);
        treating.ensure(take, second.source().treatment());
        try (RandomAccessSound made = sounds.open(take, second.source().treatment()); RandomAccessSound said = sounds.open(take, Treatment.NONE)) {
            assertThat(made.frames()).isEqualTo(Frames.RATE);
            float[][] first = new float[1][100];
            float[][] last = new float[1][100];
            made.readAt(0, first, 0, 100);
            said.readAt(2 * Frames.RATE - 100, last, 0, 100);
            for (int i = 0; i < 100; i++) {
                assertThat(first[0][i]).isEqualTo(last[0][99 - i]);
            }
        }
        // what is done to the take as a whole knows nothing of it
        assertThat(placed.onPage(school.episodeId()).get(take).treatments()).containsExactly(Treatment.NONE);
        assertThat(trick(0, 4, null, 0).tracks().get(0).clips()).extracting(Clip::source).containsOnly(turned.tracks().get(0).clips().get(0).source());
    }

    @Test
    void a_slower_stretch_is_longer_and_its_picture_as_long_as_its_sound() throws IOException {
        Timeline slow = trick(1, 2, Trick.Kind.PACE, 50);
        assertThat(slow.endFrame()).isEqualTo(5 * Frames.RATE);
        Treatment treatment = slow.tracks().get(0).clips().get(1).source().treatment();
        treating.ensure(take, treatment);
        try (RandomAccessSound made = sounds.open(take, treatment)) {
            assertThat(made.frames()).isEqualTo(2 * Frames.RATE);
        }
    }

    @Test
    void a_trick_is_for_one_track_and_within_its_bounds() {
        long before = head().seq();
        assertThatThrownBy(() -> new SelectionWish.Tricking(0, 48_000, Set.of(noorId, noorId + 1), Trick.Kind.ECHO, 300).edit(null)).hasMessageContaining("ONE_TRACK");
        assertThatThrownBy(() -> trick(0, 1, Trick.Kind.ECHO, 1e9)).hasMessage("AMOUNT_OUT_OF_RANGE");
        assertThat(head().seq()).isEqualTo(before);
    }
}
