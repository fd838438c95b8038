package org.mellowclass.app.takes;

import java.util.function.LongConsumer;

import org.mellowclass.app.people.Person;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** Makes takes of sounds from the shelf: ready at once, one for each sound and episode. */
@Service
@Transactional(propagation = Propagation.MANDATORY)
public class ShelfTakes {

    private final TakeMapper takes;
    private final TakeRows rows;

    ShelfTakes(TakeMapper takes, TakeRows rows) {
        this.takes = takes;
        this.rows = rows;
    }

    /**
     * The take of a shelf sound in an episode, which is made if it is not there; whoever asks has been let through.
     *
     * @param frames how long the sound is, at 48 kHz
     * @param made   told of a new take, to give it its sound
     */
    public long ofShelf(long episodeId, Person author, long shelfSoundId, String trackName, String name, long frames, LongConsumer made) {
        return takes.ofShelf(episodeId, shelfSoundId).orElseGet(() -> {
            long id = rows.add(new TakeRows.NewTake(episodeId, author.id(), name, trackName, Take.Origin.SHELF, Take.State.ARRIVED,
                    Take.Placing.LIST, null, null));
            takes.readyFromShelf(id, shelfSoundId, frames);
            made.accept(id);
            return id;
        });
    }
}
