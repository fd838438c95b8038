package org.mellowclass.app.erasing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.locks.LockSupport;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.mellowclass.app.bench.Bench;
import org.mellowclass.app.bench.Finishes;
import org.mellowclass.app.bench.Mending;
import org.mellowclass.app.bench.PreviewSound;
import org.mellowclass.app.feed.AirDesk;
import org.mellowclass.app.feed.Publication;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Episode;
import org.mellowclass.app.recording.Recording;
import org.mellowclass.app.review.HandIn;
import org.mellowclass.app.review.HandIns;
import org.mellowclass.app.review.MarginNote;
import org.mellowclass.app.review.MarginNotes;
import org.mellowclass.app.review.SpokenNotes;
import org.mellowclass.app.sounds.Sound;
import org.mellowclass.app.sounds.TakeSounds;
import org.mellowclass.app.store.DerivedStore;
import org.mellowclass.app.store.KeptBytes;
import org.mellowclass.app.store.Scratch;
import org.mellowclass.app.store.SoundStore;
import org.mellowclass.app.takes.TakeShelf;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.testing.Signal;
import org.mellowclass.core.treatment.Treatment;
import org.mellowclass.media.SoundDecoder;
import org.springframework.beans.factory.annotation.Autowired;

@AppTest
class ErasuresTest {

    @Autowired
    private Erasures erasures;
    @Autowired
    private Erasing erasing;
    @Autowired
    private Mending mending;
    @Autowired
    private SoundStore store;
    @Autowired
    private DerivedStore derived;
    @Autowired
    private Bench bench;
    @Autowired
    private PreviewSound preview;
    @Autowired
    private Finishes finishes;
    @Autowired
    private SoundDecoder decoder;
    @Autowired
    private Recording recording;
    @Autowired
    private SpokenNotes spokenNotes;
    @Autowired
    private MarginNotes notes;
    @Autowired
    private ErasedAgain again;
    @Autowired
    private ErasedJournal journal;
    @Autowired
    private Scratch scratch;
    @Autowired
    private HandIns handIns;
    @Autowired
    private AirDesk airDesk;
    @Autowired
    private TakeShelf takes;
    @Autowired
    private TakeSounds sounds;
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
        schools.clear(school.teacher(), handIn.id());
        airDesk.publish(school.teacher(), school.episodeId(), "Eels", "A story.");
        Schools.await(() -> airDesk.onAir(school.episodeId()).isPresent());
        Path sound = sounds.sound(school.student(), take).getFile().toPath();
        Path mixdown = handIns.sound(school.student(), handIn.id()).getFile().toPath();
        long before = bench.head(school.student(), school.episodeId()).seq();

        erasing.ask(school.student(), take);
        assertThat(erasing.requests(access.taughtClass(school.teacher(), school.classId()))).singleElement()
                .satisfies(request -> assertThat(request.askedBy()).isEqualTo("Noor"));
        assertThat(erasures.heard(school.teacher(), take)).satisfies(heard -> {
            assertThat(heard.voices()).containsExactly("Noor");
            assertThat(heard.onPage()).isTrue();
            assertThat(heard.handIns()).containsExactly(1);
            assertThat(heard.onAir()).isEqualTo("Eels");
        });
        assertThatThrownBy(() -> erasures.erase(school.student(), take)).isInstanceOf(NotFound.class);
        assertThat(erasures.erase(school.teacher(), take)).isEqualTo(school.classId());

        assertThat(sound).doesNotExist();
        assertThat(mixdown).doesNotExist();
        assertThat(airDesk.onAir(school.episodeId())).isEmpty();
        assertThat(Bench.takesIn(bench.head(school.student(), school.episodeId()).timeline())).containsExactly(kept);
        assertThatThrownBy(() -> sounds.sound(school.student(), take)).isInstanceOf(NotFound.class);
        Schools.await(() -> handIns.find(school.student(), handIn.id()).ready());
        assertThat(handIns.find(school.student(), handIn.id()).decision()).as("what was cleared is not this any more").isNull();
        assertThat(handIns.sound(school.student(), handIn.id()).contentLength()).isPositive();
        assertThat(preview.finished(school.student(), school.episodeId(), before, finishes.newest(school.episodeId()).finish(), 0, Frames.RATE))
                .as("in an earlier revision there is silence in its place").hasSize(8 * Frames.RATE);
        assertThat(erasing.requests(access.taughtClass(school.teacher(), school.classId()))).isEmpty();
    }

    @Test
    void whatever_was_made_of_a_take_goes_with_it() throws IOException {
        Schools.School school = schools.build();
        long take = schools.readyTake(school, Signal.of(Frames.RATE, Signal.sine(1, 400, -12, 2).samples()[0], new float[2 * Frames.RATE]), "Noor");
        mending.mend(school.student(), school.episodeId(), take, Optional.empty(), Optional.empty());
        Schools.await(() -> sounds.ofEpisode(school.episodeId()).size() == 2 && sounds.ofEpisode(school.episodeId()).stream().allMatch(Sound::made));
        List<Path> files = new ArrayList<>();
        for (Sound sound : sounds.ofEpisode(school.episodeId())) {
            KeptBytes kept = sound.treatment().equals(Treatment.NONE) ? store : derived;
            files.add(kept.hold(sound.soundKey()).file());
            files.add(kept.hold(sound.skylineKey()).file());
        }
        erasures.erase(school.teacher(), take);
        assertThat(files).hasSize(4).allSatisfy(file -> assertThat(file).doesNotExist());
        assertThat(sounds.ofEpisode(school.episodeId())).isEmpty();
        assertThat(takes.ready(school.episodeId())).isEmpty();
        assertThat(bench.head(school.student(), school.episodeId()).timeline().endFrame()).isZero();
    }

    @ParameterizedTest
    @ValueSource(longs = {0, 5, 15, 40, 100})
    void publishing_and_erasing_at_once_never_leave_the_voice_on_air(long milliseconds) throws Exception {
        Schools.School school = schools.build();
        long take = schools.readyTake(school, Schools.speech(), "Noor");
        HandIn handIn = schools.readyHandIn(school);
        schools.clear(school.teacher(), handIn.id());
        Episode episode = access.episode(school.teacher(), school.episodeId());
        CompletableFuture<Void> publishing = CompletableFuture.runAsync(() -> airDesk.publish(school.teacher(), school.episodeId(), "Eels", "A story."));
        LockSupport.parkNanos(Duration.ofMillis(milliseconds).toNanos());
        erasures.erase(school.teacher(), take);
        publishing.exceptionally(refused -> null).join();
        Schools.await(() -> airDesk.newest(episode).filter(publication -> publication.state() == Publication.State.PREPARING).isEmpty());
        assertThat(airDesk.onAir(school.episodeId())).isEmpty();
    }

    @Test
    void an_erasing_that_a_restored_backup_knows_nothing_of_is_done_again_and_a_killed_one_to_its_end() throws IOException {
        Schools.School school = schools.build();
        long kept = schools.readyTake(school, Schools.speech(), "Tess");
        long take = schools.readyTake(school, Schools.speech(), "Noor");
        long other = schools.readyTake(school, Schools.speech(), "Noor");
        erasures.erase(school.teacher(), other);
        // as after a restored backup: everything of it is there again, and the journal is newer
        journal.write(ErasedJournal.Kind.TAKE, take, List.of());
        Path killed = scratch.scratchFile(Scratch.Owner.episode(school.episodeId()), ".wav");
        Files.writeString(killed, "spoken");
        String file = store.put(killed);
        journal.write(ErasedJournal.Kind.TAKE, other, List.of(file));
        again.again();
        again.again();
        assertThat(takes.ready(school.episodeId())).containsOnlyKeys(kept);
        assertThat(Bench.takesIn(bench.head(school.student(), school.episodeId()).timeline())).containsExactly(kept);
        assertThatThrownBy(() -> store.hold(file)).isInstanceOf(NoSuchFileException.class);
    }

    @Test
    void a_spoken_note_that_a_restored_backup_brings_back_goes_again() throws IOException {
        Schools.School school = schools.build();
        schools.readyTake(school, Schools.speech(), "Tess");
        HandIn handIn = schools.readyHandIn(school);
        SpokenNotes.Begun note = spokenNotes.begin(school.teacher(), handIn.id(), MarginNotes.Wish.of(MarginNote.Kind.LOVELY, "", 0, 48_000), 48_000, null);
        schools.send(note.recording(), Schools.speech());
        Schools.await(() -> notes.find(school.teacher(), note.noteId()).shown());
        journal.write(ErasedJournal.Kind.TAKE, note.recording().takeId(), List.of());
        again.again();
        again.again();
        assertThat(notes.in(school.teacher(), handIn, handIn)).isEmpty();
        assertThatThrownBy(() -> spokenNotes.sound(school.teacher(), note.noteId())).isInstanceOf(NotFound.class);
        assertThat(handIns.find(school.student(), handIn.id()).ready()).as("the hand-in is as it was").isTrue();
    }

    @Test
    void what_a_laptop_still_has_of_an_erased_take_never_becomes_another_take() throws IOException {
        Schools.School school = schools.build();
        Recording.Begun begun = recording.begin(school.student(), school.episodeId(), Recording.Start.on("Noor", 48_000));
        erasures.erase(school.teacher(), begun.takeId());
        assertThatThrownBy(() -> recording.chunk(begun.uploadKey(), 0, 0, 0, new byte[2], false)).isInstanceOf(NotFound.class);
        Recording.Start rest = new Recording.Start("Noor", 48_000, 0, null, null, Set.of(), Set.of(), null, null, begun.takeId());
        assertThatThrownBy(() -> recording.begin(school.student(), school.episodeId(), rest)).hasMessage("take.ERASED");
    }

    @ParameterizedTest
    @ValueSource(longs = {0, 60, 120, 200, 300, 450})
    void a_hand_in_that_is_being_made_when_a_take_is_erased_does_not_hold_it_whenever_that_is(long milliseconds) throws Exception {
        Schools.School school = schools.build();
        schools.readyTake(school, Signal.sine(1, 300, -20, 2), "Tess");
        long take = schools.readyTake(school, Signal.concat(Signal.silence(1, 2), Signal.sine(1, 700, -20, 2)), "Noor");
        HandIn handIn = handIns.handIn(school.student(), school.episodeId());
        LockSupport.parkNanos(Duration.ofMillis(milliseconds).toNanos());
        erasures.erase(school.teacher(), take);
        Schools.await(() -> handIns.find(school.student(), handIn.id()).ready());
        Path sound = handIns.sound(school.student(), handIn.id()).getFile().toPath();
        try (SampleSource decoded = decoder.open(sound, decoder.probe(sound))) {
            float[] heard = Signal.read(decoded).samples()[0];
            for (int i = 5 * Frames.RATE / 2; i < heard.length; i++) {
                assertThat(heard[i]).isZero();
            }
        }
    }
}
