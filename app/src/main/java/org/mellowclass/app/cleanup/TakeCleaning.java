package org.mellowclass.app.cleanup;

import java.io.IOException;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;

import org.mellowclass.app.bench.Bench;
import org.mellowclass.app.bench.PlacedTakes;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.sounds.HeardSounds;
import org.mellowclass.app.sounds.TakeSounds;
import org.mellowclass.app.store.RandomKey;
import org.mellowclass.app.takes.Take;
import org.mellowclass.app.takes.TakeShelf;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.core.cleanup.Recipe;
import org.mellowclass.core.sound.RandomAccessSound;
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
    private final PlacedTakes placed;
    private final Bench bench;
    private final Access access;

    TakeCleaning(TakeShelf takes, TakeSounds sounds, HeardSounds heard, PlacedTakes placed, Bench bench, Access access) {
        this.takes = takes;
        this.sounds = sounds;
        this.heard = heard;
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

    /** By which recipe a take is cleaned on its page; empty by none. */
    Optional<Recipe> now(Take take) {
        return treatment(take).step(CleanUp.class).map(CleanUp::recipe);
    }

    boolean isOnPage(Take take) {
        return placed.onPage(take.episodeId()).containsKey(take.id());
    }

    private Treatment cleaned(Take take, Recipe recipe) {
        return treatment(take).with(new CleanUp(recipe, null));
    }

    /** Before and after; empty while it is made in the background. */
    Optional<HeardSounds.Compared> compared(Take take, Recipe recipe) {
        return heard.compared(take.id(), cleaned(take, recipe));
    }

    OptionalInt percent(Take take, Recipe recipe) {
        return heard.percent(take.id(), cleaned(take, recipe));
    }

    Resource before(Take take) throws IOException {
        return sounds.stream(take.id(), HeardSounds.uncleaned(treatment(take)));
    }

    Resource after(Take take, Recipe recipe) throws IOException {
        return sounds.stream(take.id(), cleaned(take, recipe));
    }

    Resource removed(Take take, Recipe recipe) throws IOException {
        Treatment after = cleaned(take, recipe);
        Treatment before = HeardSounds.uncleaned(after);
        try (RandomAccessSound made = sounds.open(take.id(), after)) {
            return new Difference(() -> sounds.open(take.id(), before), () -> sounds.open(take.id(), after), made.frames());
        }
    }

    /** Keeps a recipe for a take, in all clips that play it; an empty one takes it back to how it was. */
    @Transactional
    public void keep(Person viewer, long takeId, Recipe recipe) {
        Take take = take(viewer, takeId);
        access.ownEpisode(viewer, take.episodeId());
        bench.edit(viewer, take.episodeId(), bench.lockedHead(viewer, take.episodeId()).seq(), "cleanup-" + RandomKey.next(), new Treat(takeId, new CleanUp(recipe, null)));
    }

    /** The takes with a voice on the page of an episode, in their order. */
    List<Take> others(Person viewer, Take take) {
        return takes.ofEpisode(viewer, take.episodeId()).stream().filter(Take::ready).filter(other -> other.origin() != Take.Origin.SHELF).toList();
    }
}
