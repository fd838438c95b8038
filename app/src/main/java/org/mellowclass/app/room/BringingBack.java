package org.mellowclass.app.room;

import java.io.IOException;
import java.util.Locale;

import org.mellowclass.app.bench.Bench;
import org.mellowclass.app.disk.DiskRoom;
import org.mellowclass.app.incoming.IncomingFiles;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Episode;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.sounds.ReturnedFiles;
import org.mellowclass.app.store.Scratch;
import org.mellowclass.app.store.SoundStore;
import org.mellowclass.app.takes.Take;
import org.mellowclass.app.takes.TakeShelf;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.timeline.edit.EditRefused;
import org.mellowclass.core.timeline.edit.Treat;
import org.mellowclass.core.treatment.PlayReturned;
import org.mellowclass.media.SoundFacts;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;

/** Brings a take back that went out as a file and was treated elsewhere: it is played in the take's place, as an edit that can be undone. */
@Service
public class BringingBack {

    /** Programs and formats add or lose so much at the ends. */
    private static final long MAY_DIFFER = Frames.ofMillis(250);

    private final IncomingFiles incoming;
    private final ReturnedFiles returned;
    private final TakeShelf takes;
    private final Bench bench;
    private final Access access;
    private final DiskRoom room;
    private final SoundStore store;
    private final TransactionTemplate transaction;

    BringingBack(IncomingFiles incoming, ReturnedFiles returned, TakeShelf takes, Bench bench, Access access, DiskRoom room, SoundStore store,
                 TransactionTemplate transaction) {
        this.incoming = incoming;
        this.returned = returned;
        this.takes = takes;
        this.bench = bench;
        this.access = access;
        this.room = room;
        this.store = store;
        this.transaction = transaction;
    }

    /** @throws Refusal if it holds no sound, is not as long as the take, or the take is not on the page; then nothing is kept */
    public void bringBack(Person viewer, long takeId, IncomingFiles.Upload upload) throws IOException {
        Take take = takes.readyTake(viewer, takeId);
        Episode episode = access.ownEpisode(viewer, take.episodeId());
        if (take.origin() == Take.Origin.SHELF) {
            throw Refusal.conflict("take.OF_THE_SHELF");
        }
        room.shareOfCrew(episode.id(), episode.classId(), 0);
        String key = incoming.keep(Scratch.Owner.episode(episode.id()), upload);
        try {
            requireLength(incoming.facts(Scratch.Owner.episode(episode.id()), key), take);
            transaction.executeWithoutResult(status -> {
                long id = returned.add(takeId, key);
                bench.edit(viewer, episode.id(), bench.lockedHead(viewer, episode.id()).seq(), "returned-" + id, new Treat(takeId, new PlayReturned(id)));
            });
        } catch (Refusal | EditRefused refused) {
            // after a fault of the machine the row may be there: then the sweeper says what becomes of the file
            store.delete(key);
            throw refused;
        }
    }

    private static void requireLength(SoundFacts facts, Take take) {
        long frames = Frames.converted(facts.expectedFrames(), facts.sampleRate());
        if (Math.abs(frames - take.frames()) > MAY_DIFFER) {
            throw Refusal.unfit("take.OTHER_LENGTH", seconds(take.frames()), seconds(frames));
        }
    }

    private static String seconds(long frames) {
        return String.format(Locale.ENGLISH, "%.2f", Frames.toSeconds(frames));
    }
}
