package org.mellowclass.app.erasing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;

import org.junit.jupiter.api.Test;
import org.mellowclass.app.bench.Bench;
import org.mellowclass.app.bench.PreviewSound;
import org.mellowclass.app.feed.AirDesk;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.review.HandIn;
import org.mellowclass.app.review.HandIns;
import org.mellowclass.app.takes.Erasing;
import org.mellowclass.app.takes.Fixing;
import org.mellowclass.app.takes.TakeShelf;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.testing.Signal;
import org.springframework.beans.factory.annotation.Autowired;

@AppTest
class ErasuresTest {

    @Autowired
    private Erasures erasures;
    @Autowired
    private Erasing erasing;
    @Autowired
    private Fixing fixing;
    @Autowired
    private Bench bench;
    @Autowired
    private PreviewSound preview;
    @Autowired
    private HandIns handIns;
    @Autowired
    private AirDesk airDesk;
    @Autowired
    private TakeShelf takes;
    @Autowired
    private Access access;
    @Autowired
    private Schools schools;

    @Test
    void an_erased_take_is_gone_everywhere() throws IOException {
        Schools.School school = schools.build();
        long kept = schools.readyTake(school, Schools.speech(), "Tess");
        long take = schools.readyTake(school, Schools.speech(), "Noor");
        HandIn handIn = schools.readyHandIn(school);
        handIns.decide(school.teacher(), handIn.id(), HandIn.Decision.CLEARED, "");
        airDesk.publish(school.teacher(), school.episodeId(), "Eels", "A story.", true);
        Schools.await(() -> airDesk.onAir(school.episodeId()).isPresent());
        Path sound = takes.soundFile(school.student(), take);
        Path mixdown = handIns.soundFile(school.student(), handIn.id());
        long before = bench.head(school.student(), school.episodeId()).seq();

        erasing.ask(school.student(), take);
        assertThat(erasing.requests(access.taughtClass(school.teacher(), school.classId()))).singleElement()
                .satisfies(request -> assertThat(request.askedBy()).isEqualTo("Noor"));
        assertThatThrownBy(() -> erasures.erase(school.student(), take)).isInstanceOf(NotFound.class);
        assertThat(erasures.erase(school.teacher(), take)).isEqualTo(school.classId());

        assertThat(sound).doesNotExist();
        assertThat(mixdown).doesNotExist();
        assertThat(airDesk.onAir(school.episodeId())).isEmpty();
        assertThat(Bench.takesIn(bench.head(school.student(), school.episodeId()).timeline())).containsExactly(kept);
        assertThatThrownBy(() -> takes.soundFile(school.student(), take)).isInstanceOf(NotFound.class);
        Schools.await(() -> handIns.find(school.student(), handIn.id()).ready());
        assertThat(handIns.find(school.student(), handIn.id()).decision()).as("what was cleared is not this any more").isNull();
        assertThat(Files.size(handIns.soundFile(school.student(), handIn.id()))).isPositive();
        assertThat(preview.raw(school.student(), school.episodeId(), before, 0, Frames.RATE))
                .as("in an earlier revision there is silence in its place").hasSize(4 * Frames.RATE);
        assertThat(erasing.requests(access.taughtClass(school.teacher(), school.classId()))).isEmpty();
    }

    @Test
    void what_was_made_of_a_takes_sides_holds_the_same_voice_and_goes_with_it() throws IOException {
        Schools.School school = schools.build();
        long take = schools.readyTake(school, Signal.of(Frames.RATE, Signal.sine(1, 400, -12, 2).samples()[0], new float[2 * Frames.RATE]), "Noor");
        fixing.fix(school.student(), take, 0L);
        Schools.await(() -> takes.ready(school.episodeId()).size() == 2);
        erasures.erase(school.teacher(), take);
        assertThat(takes.ready(school.episodeId())).isEmpty();
        assertThat(bench.head(school.student(), school.episodeId()).timeline().endFrame()).isZero();
    }
}
