package org.mellowclass.app.takes;

import java.time.Clock;
import java.util.List;

import org.mellowclass.app.jobs.Jobs;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.core.measure.StereoFinder.Noticed;
import org.mellowclass.core.sound.Sides;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Mends what was noticed about a take's two sides, with one press: takes never change, so a new one takes its place. */
@Service
@Transactional
public class Fixing {

    private final TakeMapper takes;
    private final Access access;
    private final Jobs jobs;
    private final Clock clock;

    Fixing(TakeMapper takes, Access access, Jobs jobs, Clock clock) {
        this.takes = takes;
        this.access = access;
        this.jobs = jobs;
        this.clock = clock;
    }

    /**
     * Does what suits what was noticed; a second press changes nothing. Returns the take's episode.
     *
     * @param placeFrame where the take starts on the page, or null: there the second of two speakers lands
     */
    public long fix(Person viewer, long takeId, Long placeFrame) {
        Take take = takes.lock(takeId).filter(Take::ready).orElseThrow(NotFound::new);
        access.ownEpisode(viewer, take.episodeId());
        List<Sides> wanted = switch (take.noticed() == null ? Noticed.NOTHING : take.noticed()) {
            case NOTHING -> throw Refusal.conflict("take.NOTHING_TO_FIX");
            case LEFT_SILENT -> List.of(Sides.RIGHT);
            case RIGHT_SILENT -> List.of(Sides.LEFT);
            case SAME_ON_BOTH -> List.of(Sides.MEAN);
            case ONE_REVERSED -> List.of(Sides.RIGHT_REVERSED);
            case TWO_SPEAKERS -> List.of(Sides.LEFT, Sides.RIGHT);
        };
        if (takes.madeFrom(takeId).isEmpty()) {
            for (Sides sides : wanted) {
                TakeMapper.NewTake made = new TakeMapper.NewTake(take.episodeId(), viewer.id(), take.name(), take.trackName(),
                        Take.Origin.BROUGHT_IN, Take.State.ARRIVED, 0, 0, null, null, clock.instant());
                made.madeFrom = takeId;
                made.sides = sides;
                boolean second = sides != wanted.get(0);
                made.placing = second ? Take.Placing.BEHIND : Take.Placing.SWAP;
                made.placeFrame = second ? placeFrame : null;
                takes.add(made);
                jobs.ask(TakeConversion.KIND, made.id);
            }
        }
        return take.episodeId();
    }
}
