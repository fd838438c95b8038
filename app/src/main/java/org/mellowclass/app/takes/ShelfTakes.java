package org.mellowclass.app.takes;

import java.time.Clock;

import org.mellowclass.app.people.Person;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** Makes takes of sounds from the shelf: the same files, ready at once, one for each sound and episode. */
@Service
@Transactional(propagation = Propagation.MANDATORY)
public class ShelfTakes {

    private final TakeMapper takes;
    private final Clock clock;

    ShelfTakes(TakeMapper takes, Clock clock) {
        this.takes = takes;
        this.clock = clock;
    }

    /** The take of a shelf sound in an episode, which is made if it is not there; whoever asks has been let through. */
    public long ofShelf(long episodeId, Person author, long shelfSoundId, String trackName, String name, Take.Files files) {
        return takes.ofShelf(episodeId, shelfSoundId).orElseGet(() -> {
            TakeMapper.NewTake take = new TakeMapper.NewTake(episodeId, author.id(), name, trackName, Take.Origin.SHELF,
                    Take.State.ARRIVED, files.sourceRate(), files.channels(), files.originalKey(), null, clock.instant());
            takes.add(take);
            takes.readyFromShelf(take.id, shelfSoundId, files);
            return take.id;
        });
    }
}
