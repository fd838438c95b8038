package org.mellowclass.app.incoming;

import java.io.IOException;

import org.mellowclass.app.disk.DiskRoom;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Episode;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.sounds.SoundMaking;
import org.mellowclass.app.store.Scratch;
import org.mellowclass.app.takes.Take;
import org.mellowclass.app.takes.TakeRows;
import org.mellowclass.app.web.Fields;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;

/** Makes takes of files that people bring. */
@Service
public class BringingIn {

    private final TakeRows takes;
    private final Access access;
    private final IncomingFiles incoming;
    private final DiskRoom room;
    private final SoundMaking making;
    private final TransactionTemplate transaction;

    BringingIn(TakeRows takes, Access access, IncomingFiles incoming, DiskRoom room, SoundMaking making, TransactionTemplate transaction) {
        this.takes = takes;
        this.access = access;
        this.incoming = incoming;
        this.room = room;
        this.making = making;
        this.transaction = transaction;
    }

    /**
     * Brings a file in, and returns the id of the take that is being made from it.
     *
     * @param fileName  what its owner called it: names the take, and is never trusted otherwise
     * @param trackName the track it will land on
     */
    public long bringIn(Person viewer, long episodeId, String fileName, String trackName, IncomingFiles.Upload upload)
            throws IOException {
        return bringIn(viewer, episodeId, fileName, trackName, Take.Placing.BEHIND, upload);
    }

    /** As {@link #bringIn(Person, long, String, String, IncomingFiles.Upload)}, and where it will land. */
    public long bringIn(Person viewer, long episodeId, String fileName, String trackName, Take.Placing placing,
                        IncomingFiles.Upload upload) throws IOException {
        Episode episode = access.ownEpisode(viewer, episodeId);
        String track = Fields.required(trackName, Take.LONGEST_TRACK_NAME, "take.TRACK_NAME");
        room.shareOfCrew(episodeId, episode.classId(), 0);
        String key = incoming.keep(Scratch.Owner.episode(episodeId), upload);
        Long id = transaction.execute(status -> {
            long take = takes.add(new TakeRows.NewTake(episode.id(), viewer.id(), takes.freeName(episode.id(), IncomingFiles.nameOf(fileName)), track,
                    Take.Origin.BROUGHT_IN, Take.State.ARRIVED, placing, null, null));
            making.ask(take, key);
            return take;
        });
        return id == null ? 0 : id;
    }
}
