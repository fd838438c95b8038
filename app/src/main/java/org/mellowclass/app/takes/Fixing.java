package org.mellowclass.app.takes;

import java.util.List;

import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.core.measure.StereoFinder.Noticed;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Mends what was noticed about a take, with one press: takes never change, so a new one takes its place. */
@Service
@Transactional
public class Fixing {

    private final TakeMapper takes;
    private final TakeShelf shelf;
    private final DerivedTakes derived;
    private final Access access;

    Fixing(TakeMapper takes, TakeShelf shelf, DerivedTakes derived, Access access) {
        this.takes = takes;
        this.shelf = shelf;
        this.derived = derived;
        this.access = access;
    }

    /**
     * Does what suits what was noticed: its two sides first, then what is clipped. A second press changes nothing. Returns
     * the take's episode.
     *
     * @param placeFrame where the take starts on the page, or null: there the second of two speakers lands
     */
    public long fix(Person viewer, long takeId, Long placeFrame) {
        Take take = takes.lock(takeId).filter(Take::ready).orElseThrow(NotFound::new);
        access.ownEpisode(viewer, take.episodeId());
        List<Derivation> wanted = wanted(take);
        if (wanted.isEmpty()) {
            throw Refusal.conflict("take.NOTHING_TO_FIX");
        }
        if (takes.madeFrom(takeId).isEmpty()) {
            for (Derivation derivation : wanted) {
                boolean second = derivation != wanted.get(0);
                derived.make(viewer.id(), take, derivation, null, placing(second, placeFrame), second ? placeFrame : null);
            }
        }
        return take.episodeId();
    }

    /** What is not on the page does not come onto it by being mended. */
    private static Take.Placing placing(boolean second, Long placeFrame) {
        return !second ? Take.Placing.SWAP : placeFrame == null ? Take.Placing.LIST : Take.Placing.BEHIND;
    }

    private List<Derivation> wanted(Take take) {
        return switch (take.noticed() == null ? Noticed.NOTHING : take.noticed()) {
            case NOTHING -> take.measured() && take.derivation() != Derivation.UNCLIPPED && !shelf.clipped(take).isEmpty()
                    ? List.of(Derivation.UNCLIPPED) : List.of();
            case LEFT_SILENT -> List.of(Derivation.RIGHT);
            case RIGHT_SILENT -> List.of(Derivation.LEFT);
            case SAME_ON_BOTH -> List.of(Derivation.MEAN);
            case ONE_REVERSED -> List.of(Derivation.RIGHT_REVERSED);
            case TWO_SPEAKERS -> List.of(Derivation.LEFT, Derivation.RIGHT);
        };
    }
}
