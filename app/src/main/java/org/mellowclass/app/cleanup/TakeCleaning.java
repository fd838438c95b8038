package org.mellowclass.app.cleanup;

import java.io.IOException;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.TreeSet;

import org.mellowclass.app.bench.Bench;
import org.mellowclass.app.bench.Head;
import org.mellowclass.app.bench.PlacedTakes;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.sounds.HeardSounds;
import org.mellowclass.app.sounds.TakeSounds;
import org.mellowclass.app.store.RandomKey;
import org.mellowclass.app.takes.Take;
import org.mellowclass.app.takes.TakeShelf;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.core.cleanup.Cleanup;
import org.mellowclass.core.cleanup.CleanupRefused;
import org.mellowclass.core.cleanup.Heard;
import org.mellowclass.core.sound.RandomAccessSound;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.soundcheck.Voices;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.timeline.edit.Edit;
import org.mellowclass.core.timeline.edit.Together;
import org.mellowclass.core.timeline.edit.Treat;
import org.mellowclass.core.treatment.CleanUp;
import org.mellowclass.core.treatment.Treatment;
import org.springframework.core.io.Resource;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Cleans takes by recipes: heard and measured before they are kept, and kept as an edit like any other. */
@Service
class TakeCleaning {

    private final TakeShelf takes;
    private final TakeSounds sounds;
    private final HeardSounds heard;
    private final TrialHearing trials;
    private final PlacedTakes placed;
    private final Bench bench;
    private final Access access;

    TakeCleaning(TakeShelf takes, TakeSounds sounds, HeardSounds heard, TrialHearing trials, PlacedTakes placed, Bench bench, Access access) {
        this.takes = takes;
        this.sounds = sounds;
        this.heard = heard;
        this.trials = trials;
        this.placed = placed;
        this.bench = bench;
        this.access = access;
    }

    /** @throws Refusal for a sound of the shelf */
    Take take(Person viewer, long takeId) {
        Take take = takes.readyTake(viewer, takeId);
        if (take.origin() == Take.Origin.SHELF) {
            throw Refusal.conflict("take.OF_THE_SHELF");
        }
        return take;
    }

    /** How a take plays on its page; as it is where it is not on it. */
    private Treatment treatment(Take take) {
        return Optional.ofNullable(placed.onPage(take.episodeId()).get(take.id())).flatMap(onPage -> onPage.treatments().stream().findFirst()).orElse(Treatment.NONE);
    }

    /** How a take is cleaned on its page; empty by nothing. */
    Optional<CleanUp> now(Take take) {
        return treatment(take).step(CleanUp.class);
    }

    boolean isOnPage(Take take) {
        return placed.onPage(take.episodeId()).containsKey(take.id());
    }

    private Treatment cleaned(Take take, CleanUp cleanUp) {
        return treatment(take).with(cleanUp);
    }

    /** What is known of a take without its cleanup; empty as long as a long take has not been read. */
    Optional<Heard> heard(Take take) throws IOException {
        return trials.heardSoon(take.id(), treatment(take), take.frames());
    }

    /** @throws Refusal where what was chosen as the room of a take is none */
    void checkRoom(Take take, Span room) throws IOException {
        if (room != null) {
            try {
                Cleanup.checkRoom(room, trials.heard(take.id(), treatment(take)));
            } catch (CleanupRefused refused) {
                throw Refusal.unfit("cleanup." + refused.reason());
            }
        }
    }

    /** Some seconds of it at once, see {@link TrialHearing}. */
    byte[] window(Take take, CleanUp cleanUp, long fromFrame, TrialHearing.Part part) throws IOException {
        checkRoom(take, cleanUp.room());
        return trials.window(take.id(), treatment(take), cleanUp.recipe(), cleanUp.room(), fromFrame, part);
    }

    /** Before and after; empty while it is made in the background, which is asked for. */
    Optional<HeardSounds.Compared> compared(Take take, CleanUp cleanUp) {
        return heard.compared(take.id(), cleaned(take, cleanUp));
    }

    /** Before and after, of what is made already. */
    Optional<HeardSounds.Compared> comparedIfMade(Take take, CleanUp cleanUp) {
        return heard.comparedIfMade(take.id(), cleaned(take, cleanUp));
    }

    boolean failed(Take take, CleanUp cleanUp) {
        return heard.failed(take.id(), cleaned(take, cleanUp));
    }

    OptionalInt percent(Take take, CleanUp cleanUp) {
        return heard.percent(take.id(), cleaned(take, cleanUp));
    }

    Resource before(Take take) throws IOException {
        return sounds.stream(take.id(), HeardSounds.uncleaned(treatment(take)));
    }

    Resource after(Take take, CleanUp cleanUp) throws IOException {
        return sounds.stream(take.id(), cleaned(take, cleanUp));
    }

    Resource removed(Take take, CleanUp cleanUp) throws IOException {
        Treatment after = cleaned(take, cleanUp);
        Treatment before = HeardSounds.uncleaned(after);
        try (RandomAccessSound made = sounds.open(take.id(), after)) {
            return new Difference(() -> sounds.open(take.id(), before), () -> sounds.open(take.id(), after), made.frames());
        }
    }

    /** Whose takes are cleaned. */
    enum Scope { TAKE, TRACK, VOICES }

    /** Keeps a recipe for a take, all voices on its tracks or all voices there are, in all clips that play them; an empty one takes them back to how they were. */
    @Transactional
    public void keep(Person viewer, long takeId, CleanUp cleanUp, Scope scope) throws IOException {
        Take take = take(viewer, takeId);
        access.ownEpisode(viewer, take.episodeId());
        checkRoom(take, cleanUp.room());
        Head head = bench.lockedHead(viewer, take.episodeId());
        List<Edit> edits = takesOf(scope, take, head.timeline()).stream()
                .map(other -> (Edit) new Treat(other, other == takeId ? cleanUp : new CleanUp(cleanUp.recipe(), null))).toList();
        bench.edit(viewer, take.episodeId(), head.seq(), "cleanup-" + RandomKey.next(), edits.size() == 1 ? edits.get(0) : new Together(edits));
    }

    private Set<Long> takesOf(Scope scope, Take take, Timeline timeline) {
        Voices.Facts facts = heard.of(take.episodeId());
        Set<Long> takeIds = new TreeSet<>(Set.of(take.id()));
        for (Track track : timeline.tracks()) {
            boolean meant = scope == Scope.VOICES || scope == Scope.TRACK && track.clips().stream().anyMatch(clip -> clip.source().takeId() == take.id());
            track.clips().stream().map(clip -> clip.source().takeId()).filter(other -> meant && facts.voice(other)).forEach(takeIds::add);
        }
        return takeIds;
    }

    /** The takes with a voice on the page of an episode, in their order. */
    List<Take> others(Person viewer, Take take) {
        return takes.ofEpisode(viewer, take.episodeId()).stream().filter(Take::ready).filter(other -> other.origin() != Take.Origin.SHELF).toList();
    }
}
