package org.mellowclass.app.bench;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.ArrayList;
import java.util.List;
import java.util.OptionalLong;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.mellowclass.app.recording.Recording;
import org.mellowclass.app.sounds.TakeSounds;
import org.mellowclass.app.takes.TakeShelf;
import org.mellowclass.app.testing.AppTest;
import org.mellowclass.app.testing.Schools;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.core.render.Mixer;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.testing.Signal;
import org.mellowclass.core.timeline.RoomSource;
import org.mellowclass.core.timeline.Fade;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.TimelineTooLong;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.timeline.edit.Edit;
import org.mellowclass.core.timeline.edit.EditRefused;
import org.mellowclass.core.timeline.edit.Remove;
import org.mellowclass.core.timeline.edit.SetTrackGain;
import org.mellowclass.core.timeline.edit.Soften;
import org.mellowclass.core.timeline.edit.Trim;
import org.mellowclass.core.treatment.Treatment;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;

@AppTest
class BenchTest {

    @Autowired
    private Bench bench;
    @Autowired
    private PreviewSound preview;
    @Autowired
    private TakeShelf takes;
    @Autowired
    private TakeSounds sounds;
    @Autowired
    private Wishes wishes;
    @Autowired
    private Schools schools;
    @Autowired
    private JdbcClient jdbc;
    private Schools.School school;
    private Head landed;

    @BeforeEach
    void landATake() throws IOException {
        school = schools.build();
        schools.readyTake(school, Schools.speech(), "Noor");
        landed = bench.head(school.student(), school.episodeId());
    }

    @Test
    void undo_and_redo_bring_back_equal_timelines_through_several_edits() {
        List<Timeline> values = new ArrayList<>(List.of(Timeline.empty(), landed.timeline()));
        for (int i = 0; i < 3; i++) {
            values.add(remove(1000 * i, 500).timeline());
        }
        for (int i = values.size() - 2; i >= 0; i--) {
            assertThat(undo().timeline()).isEqualTo(values.get(i));
        }
        assertThatThrownBy(this::undo).hasMessage("bench.NOTHING_TO_UNDO");
        for (Timeline value : values.subList(1, values.size())) {
            assertThat(redo().timeline()).isEqualTo(value);
        }
        assertThatThrownBy(this::redo).hasMessage("bench.NOTHING_TO_REDO");
    }

    @Test
    void what_is_stored_is_what_was_computed_and_every_revision_can_be_heard_again() {
        Head removed = remove(100, 4800);
        assertThat(removed.timeline().endFrame()).isEqualTo(landed.timeline().endFrame() - 4800);
        assertThat(bench.timeline(school.teacher(), school.episodeId(), landed.seq())).isEqualTo(landed.timeline());
        assertThat(bench.timeline(school.teacher(), school.episodeId(), removed.seq())).isEqualTo(removed.timeline());
        assertThatThrownBy(() -> bench.timeline(school.teacher(), school.episodeId(), 99)).isInstanceOf(NotFound.class);
    }

    @ParameterizedTest
    @ValueSource(longs = {Timeline.MOST_FRAMES + 1, 1_000_000_000_000_000L, Long.MAX_VALUE, Long.MIN_VALUE})
    void no_frame_that_a_page_sends_reaches_behind_the_greatest_length(long frame) {
        Track track = landed.timeline().tracks().get(0);
        long clip = track.clips().get(0).id();
        for (Wish wish : List.of(new ClipWish.Moving(clip, track.id(), frame, false), new SelectionWish.OpeningUp(frame, 9, Set.of(track.id())), new SelectionWish.OpeningUp(9, frame, Set.of(track.id())),
                new SelectionWish.Clearing(0, frame, Set.of(track.id())), new SelectionWish.KeepingOnly(0, frame, Set.of(track.id())), new LayingWish.Copying(landed.seq(), 0, 9, Set.of(track.id()), frame, true),
                new ClipWish.MovingJoin(clip, frame), new ClipWish.Fading(clip, Trim.Edge.END, frame, Fade.Shape.GENTLE), new LayingWish.Laying(7, "Noor", frame),
                new ClipWish.Trimming(clip, Trim.Edge.END, frame, false), new SelectionWish.Splitting(frame, Set.of(track.id())),
                new SelectionWish.Removing(0, frame, Set.of(track.id())), new SelectionWish.Blanking(frame, 9, Set.of(track.id())), new SelectionWish.Softening(0, frame, Set.of(track.id())),
                new FlagWish.Flagging(track.id(), frame, "far"))) {
            assertThatThrownBy(() -> wishes.grant(school.student(), school.episodeId(), landed.seq(), "client-far", wish)).as("%s", wish).hasMessage("frame.BEYOND");
        }
        assertThat(bench.head(school.student(), school.episodeId())).isEqualTo(landed);
    }

    @Test
    void a_clip_that_would_end_behind_the_greatest_length_stays_where_it_is() {
        Track track = landed.timeline().tracks().get(0);
        Wish far = new ClipWish.Moving(track.clips().get(0).id(), track.id(), Timeline.MOST_FRAMES - 10, false);
        assertThatThrownBy(() -> wishes.grant(school.student(), school.episodeId(), landed.seq(), "client-end", far)).isInstanceOf(TimelineTooLong.class);
        assertThat(bench.head(school.student(), school.episodeId())).isEqualTo(landed);
    }

    @Test
    void a_take_that_the_page_has_no_room_for_waits_in_the_take_list_and_holds_up_nothing() throws IOException {
        Recording.Start atTheEnd = new Recording.Start("Noor", Frames.RATE, 0, Timeline.MOST_FRAMES - 10, null, Set.of(), Set.of(), null, null, null);
        long take = schools.recorded(school, atTheEnd, Signal.sine(1, 400, -12, 1));
        Schools.await(() -> takes.ready(school.episodeId()).containsKey(take));
        assertThat(bench.head(school.student(), school.episodeId())).isEqualTo(landed);
    }

    @Test
    void an_edit_that_is_sent_twice_is_applied_once() {
        Remove edit = new Remove(new Span(0, 4800), landed.timeline().trackIds());
        Head once = bench.edit(school.student(), school.episodeId(), landed.seq(), "client-0001", edit);
        Head twice = bench.edit(school.student(), school.episodeId(), landed.seq(), "client-0001", edit);
        assertThat(twice).isEqualTo(once);
    }

    @Test
    void an_edit_of_what_somebody_changed_meanwhile_is_refused_and_changes_nothing() {
        Head softened = edit(landed.seq(), "client-soft", new Soften(new Span(0, 4800), landed.timeline().trackIds()));
        assertThatThrownBy(() -> bench.edit(school.student(), school.episodeId(), landed.seq(), "client-late",
                new Remove(new Span(0, 1000), landed.timeline().trackIds())))
                .isInstanceOfSatisfying(EditRefused.class, refused -> {
                    assertThat(refused.reason()).isEqualTo(EditRefused.Reason.CHANGED_MEANWHILE);
                    assertThat(refused.clipIds()).isNotEmpty();
                });
        assertThat(bench.head(school.student(), school.episodeId())).isEqualTo(softened);
    }

    private Head edit(long base, String clientId, Edit edit) {
        return bench.edit(school.student(), school.episodeId(), base, clientId, edit);
    }

    private OptionalLong gone(long from, long to, long frame) {
        return bench.maps(school.student(), school.episodeId(), from, to).of(landed.timeline().tracks().get(0).id()).map(frame);
    }

    @Test
    void an_edit_whose_sound_is_gone_already_changes_nothing_and_is_no_error() {
        Head removed = remove(4800, 9600);
        assertThat(edit(landed.seq(), "client-needless", new Remove(new Span(5000, 9000), landed.timeline().trackIds()))).isEqualTo(removed);
    }

    @Test
    void a_page_that_was_behind_is_told_where_times_have_gone_over_edits_undo_and_redo() {
        Head first = remove(4800, 9600);
        Head second = remove(48_000, 4800);
        assertThat(gone(landed.seq(), second.seq(), 4000)).hasValue(4000);
        assertThat(gone(landed.seq(), second.seq(), 5000)).as("its sound is gone").isEmpty();
        assertThat(gone(landed.seq(), second.seq(), 100_000)).hasValue(100_000 - 9600 - 4800);
        Head undone = undo();
        assertThat(gone(second.seq(), undone.seq(), 85_600)).as("what was taken out is in again").hasValue(90_400);
        assertThat(gone(landed.seq(), undone.seq(), 100_000)).as("only the first is gone").hasValue(90_400);
        assertThat(gone(first.seq(), undone.seq(), 50_000)).as("what was done and undone has moved nothing").hasValue(50_000);
        undo();
        Head begun = bench.head(school.student(), school.episodeId());
        assertThat(gone(landed.seq(), begun.seq(), 5000)).hasValue(5000);
        assertThat(gone(landed.seq(), redo().seq(), 100_000)).hasValue(90_400);
    }

    @Test
    void an_edit_on_an_older_revision_applies_where_it_touches_nothing_that_was_changed() throws IOException {
        schools.readyTake(school, Schools.speech(), "Ravi");
        Head base = bench.head(school.student(), school.episodeId());
        long noor = base.timeline().tracks().get(0).id();
        long ravi = base.timeline().tracks().get(1).id();
        bench.edit(school.student(), school.episodeId(), base.seq(), "client-first", new SetTrackGain(noor, -6));
        Head both = bench.edit(school.student(), school.episodeId(), base.seq(), "client-second",
                new Soften(new Span(4800, 9600), Set.of(ravi)));
        assertThat(both.timeline().track(noor).orElseThrow().gainDb()).isEqualTo(-6);
        assertThat(both.timeline().track(ravi).orElseThrow().clips()).hasSize(3);
    }

    @Test
    void undoing_what_somebody_else_did_names_them_and_asks() {
        Head removed = remove(0, 4800);
        assertThatThrownBy(() -> bench.undo(school.partner(), school.episodeId(), removed.seq(), "client-partner", false))
                .isInstanceOfSatisfying(Refusal.class, refusal -> assertThat(refusal.code()).isEqualTo("bench.UNDO_OF_OTHERS"));
        assertThat(bench.head(school.partner(), school.episodeId())).isEqualTo(removed);
        assertThat(bench.undo(school.partner(), school.episodeId(), removed.seq(), "client-partner", true).timeline())
                .isEqualTo(landed.timeline());
    }

    @Test
    void what_is_blanked_sounds_like_the_room_of_its_take() throws IOException {
        Signal room = Signal.noise(1, -50, 1.5, 11);
        long take = schools.readyTake(school, Signal.concat(Signal.sine(1, 300, -12, 2), room), "Isla");
        assertThat(sounds.facts(school.episodeId()).room(take).orElseThrow().startFrame()).isBetween(96_000L, 120_000L);
        Head head = bench.head(school.student(), school.episodeId());
        Track track = head.timeline().tracks().get(1);
        Head blanked = wishes.grant(school.student(), school.episodeId(), head.seq(), "client-blank",
                new SelectionWish.Blanking(20_000, 60_000, Set.of(track.id())));
        assertThat(blanked.timeline().track(track.id()).orElseThrow().clips().get(1).source())
                .isEqualTo(new RoomSource(take, Treatment.NONE, sounds.facts(school.episodeId()).room(take).orElseThrow().startFrame(), 48_000));
    }

    @Test
    void of_many_equal_edits_at_once_one_is_done_and_the_others_are_needless() throws Exception {
        ExecutorService crew = Executors.newFixedThreadPool(8);
        List<Callable<Head>> edits = new ArrayList<>();
        for (int i = 0; i < 8; i++) {
            String client = "racing-client-" + i;
            edits.add(() -> bench.edit(school.student(), school.episodeId(), landed.seq(), client,
                    new Remove(new Span(0, 4800), landed.timeline().trackIds())));
        }
        for (Future<Head> result : crew.invokeAll(edits)) {
            assertThat(result.get().seq()).isEqualTo(landed.seq() + 1);
        }
        crew.shutdown();
        assertThat(bench.head(school.student(), school.episodeId()).timeline().endFrame()).isEqualTo(landed.timeline().endFrame() - 4800);
        assertThat(jdbc.sql("SELECT count(*) FROM revision WHERE episode_id = ?").param(school.episodeId())
                .query(Long.class).single()).isEqualTo(landed.seq() + 1);
    }

    @Test
    void a_take_whose_landing_was_undone_can_be_laid_on_again_and_one_of_others_cannot() {
        long take = landed.timeline().tracks().get(0).clips().get(0).source().takeId();
        Head empty = undo();
        assertThat(empty.timeline().endFrame()).isZero();
        Head again = bench.layTake(school.student(), school.episodeId(), empty.seq(), "client-again", take, "Ravi", null);
        assertThat(again.timeline().tracks().get(0).name()).isEqualTo("Ravi");
        assertThat(again.timeline().endFrame()).isEqualTo(landed.timeline().endFrame());
        assertThatThrownBy(() -> bench.layTake(school.stranger(), school.otherEpisodeId(), 1, "client-thief", take, "Mine", null))
                .isInstanceOf(NotFound.class);
    }

    @Test
    void what_is_heard_on_the_bench_is_the_finished_mix_to_the_bit_wherever_it_begins() throws IOException {
        Head removed = remove(48_000, 24_000);
        // 30 dB up, so that the limiter has work everywhere
        Finish finish = new Finish(30_123, -1500);
        int end = (int) removed.timeline().endFrame();
        float[][] whole = new float[2][end];
        try (Mixer mixer = new Mixer(removed.timeline(), sounds); SampleSource finished = finish.mastering().apply(mixer.whole())) {
            for (int read = 0, more; (more = finished.read(whole, read, Math.min(5000, end - read))) > 0; ) {
                read += more;
            }
        }
        for (int from : new int[] {0, 1, 3_000, 30_000, 47_500, end - 20_000}) {
            int frames = Math.min(20_000, end - from);
            ByteBuffer heard = ByteBuffer.wrap(preview.finished(school.student(), school.episodeId(), removed.seq(), finish, from, from + frames)).order(ByteOrder.LITTLE_ENDIAN);
            for (int i = 0; i < frames; i++) {
                assertThat(heard.getFloat()).as("left, frame %d", from + i).isEqualTo(whole[0][from + i]);
                assertThat(heard.getFloat()).isEqualTo(whole[1][from + i]);
            }
        }
        assertThatThrownBy(() -> preview.finished(school.student(), school.episodeId(), removed.seq(), finish, 0, Frames.ofSeconds(11)))
                .hasMessage("bench.SPAN_TOO_LONG");
        assertThatThrownBy(() -> Finish.named("999999_0")).isInstanceOf(NotFound.class);
        assertThatThrownBy(() -> Finish.named("0_1")).isInstanceOf(NotFound.class);
        assertThat(Finish.named("-3210_-1000").name()).isEqualTo("-3210_-1000");
    }

    private Head remove(long start, long frames) {
        Head head = bench.head(school.student(), school.episodeId());
        Set<Long> tracks = head.timeline().trackIds();
        return bench.edit(school.student(), school.episodeId(), head.seq(), "client-" + head.seq() + "-" + start,
                new Remove(new Span(start, start + frames), tracks));
    }

    private Head undo() {
        long seq = bench.head(school.student(), school.episodeId()).seq();
        return bench.undo(school.student(), school.episodeId(), seq, "undo-" + seq, false);
    }

    private Head redo() {
        long seq = bench.head(school.student(), school.episodeId()).seq();
        return bench.redo(school.student(), school.episodeId(), seq, "redo-" + seq);
    }
}
