package org.mellowclass.app.takes;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;

import org.mellowclass.app.jobs.Jobs;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Episode;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.store.SoundStore;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.media.SoundDecoder;
import org.mellowclass.media.SoundRefused;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;

/** Takes files of people. They are looked at first, and refused at once if they hold no sound. */
@Service
public class BringingIn {

    private static final int LONGEST_NAME = 120;

    private final TakeMapper takes;
    private final Access access;
    private final SoundStore store;
    private final SoundDecoder decoder;
    private final Jobs jobs;
    private final Clock clock;
    private final TransactionTemplate transaction;

    BringingIn(TakeMapper takes, Access access, SoundStore store, SoundDecoder decoder, Jobs jobs, Clock clock,
               TransactionTemplate transaction) {
        this.takes = takes;
        this.access = access;
        this.store = store;
        this.decoder = decoder;
        this.jobs = jobs;
        this.clock = clock;
        this.transaction = transaction;
    }

    /** Moves a file to a path; what an upload knows to do with itself. */
    @FunctionalInterface
    public interface Upload {
        void moveTo(Path target) throws IOException;
    }

    /**
     * Brings a file in, and returns the id of the take that is being made from it.
     *
     * @param fileName  what its owner called it: names the take, and is never trusted otherwise
     * @param trackName the track it will land on
     */
    public long bringIn(Person viewer, long episodeId, String fileName, String trackName, Upload upload)
            throws IOException {
        Episode episode = access.ownEpisode(viewer, episodeId);
        String track = TrackNames.checked(trackName);
        Path arriving = store.temporaryFile(".upload");
        try {
            upload.moveTo(arriving);
            decoder.probe(arriving);
            String key = store.put(arriving);
            Long id = transaction.execute(status -> {
                TakeMapper.NewTake take = new TakeMapper.NewTake(episode.id(), viewer.id(), takeName(fileName), track,
                        Take.Origin.BROUGHT_IN, Take.State.ARRIVED, 0, 0, key, null, clock.instant());
                takes.add(take);
                jobs.ask(TakeConversion.KIND, take.id);
                return take.id;
            });
            return id == null ? 0 : id;
        } catch (SoundRefused refused) {
            throw Refusal.unfit("take." + refused.reason());
        } finally {
            Files.deleteIfExists(arriving);
        }
    }

    private static String takeName(String fileName) {
        String last = fileName == null ? "" : fileName.replaceAll(".*[/\\\\]", "").replaceAll("\\.[^.]{1,5}$", "");
        String plain = last.replaceAll("[\\p{Cntrl}]", "").strip();
        return plain.isEmpty() ? "Recording" : plain.substring(0, Math.min(LONGEST_NAME, plain.length()));
    }
}
