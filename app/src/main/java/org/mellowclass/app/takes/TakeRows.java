package org.mellowclass.app.takes;

import java.time.Clock;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

import org.springframework.stereotype.Component;

/** The rows of takes, for the features that make and change them and have let the viewer through. */
@Component
public class TakeRows {

    private static final int LONGEST_NAME = 120;
    private static final int ROOM_FOR_NUMBER = 6;

    private final TakeMapper takes;
    private final Clock clock;

    TakeRows(TakeMapper takes, Clock clock) {
        this.takes = takes;
        this.clock = clock;
    }

    /**
     * A take that begins.
     *
     * @param placing    where it will land, if it has no place of its own
     * @param placeFrame where its clip will start; null for as {@code placing} says
     * @param lineId     the line of the script that it speaks, or null
     */
    public record NewTake(long episodeId, long authorId, String name, String trackName, Take.Origin origin, Take.State state,
                          Take.Placing placing, Long placeFrame, Long lineId) {
    }

    public long add(NewTake take) {
        TakeMapper.NewRow row = new TakeMapper.NewRow(take, clock.instant());
        takes.add(row);
        return row.id;
    }

    /** A name that no other take of an episode has: with a number behind it, if need be. */
    public String freeName(long episodeId, String name) {
        Set<String> taken = takes.ofEpisode(episodeId).stream().map(Take::name).collect(Collectors.toSet());
        String stem = name.substring(0, Math.min(name.length(), LONGEST_NAME - ROOM_FOR_NUMBER));
        String free = name;
        for (int number = 2; taken.contains(free); number++) {
            free = stem + " " + number;
        }
        return free;
    }

    /** A take of the crew's: never what was spoken in a note, which nobody lays in. */
    public Optional<Take> find(long id) {
        return takes.find(id).filter(Take::ofCrew);
    }

    /** As {@link #find}, held until the transaction ends. */
    public Optional<Take> lock(long id) {
        return takes.lock(id).filter(Take::ofCrew);
    }

    /** As {@link #find}, of whatever was recorded: for what is done to sound, whoever spoke it. */
    public Optional<Take> findWithNotes(long id) {
        return takes.find(id);
    }

    public Optional<Take> lockWithNotes(long id) {
        return takes.lock(id);
    }

    public List<Take> ofEpisode(long episodeId) {
        return takes.ofEpisode(episodeId);
    }

    public int count(long episodeId, Take.Origin origin) {
        return takes.count(episodeId, origin);
    }

    /** Whether a line belongs to the script of an episode's class. */
    public boolean isLineOf(long lineId, long episodeId) {
        return takes.linesOfEpisode(lineId, episodeId) == 1;
    }

    /** All of a recording is there; false if it had ended before. */
    public boolean arrived(long id) {
        return takes.arrived(id) == 1;
    }

    /** A take can be heard now; false if nobody waits for it any more. */
    public boolean ready(long id, long frames, long leadFrames) {
        return takes.ready(id, frames, leadFrames) == 1;
    }

    public void failed(long id, String problem) {
        takes.failed(id, problem);
    }

    /** What could not be made ready is tried again. */
    public void arrivedAgain(long id) {
        takes.arrivedAgain(id);
    }

    public void erased(long id) {
        takes.erased(id);
    }

    /** The takes of an episode that are ready and have not landed, but those that would overtake another one. */
    public List<Take> toLand(long episodeId) {
        return takes.toLand(episodeId).stream().filter(take -> take.origin() != Take.Origin.BROUGHT_IN
                || place(take).placing() != Take.Placing.BEHIND || takes.onTheWayBefore(take) == 0).toList();
    }

    public TakeLanding.Place place(Take take) {
        return takes.place(take.id());
    }

    public void landed(long id, String trackName) {
        takes.landed(id, trackName);
    }
}
