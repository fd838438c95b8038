package org.mellowclass.app.takes;

import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;

import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Episode;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.SchoolClass;
import org.mellowclass.app.web.NotFound;
import org.springframework.stereotype.Service;

/** Finds takes. */
@Service
public class TakeShelf {

    private final TakeMapper takes;
    private final Access access;

    TakeShelf(TakeMapper takes, Access access) {
        this.takes = takes;
        this.access = access;
    }

    /** All takes of an episode, the newest first. */
    public List<Take> ofEpisode(Person viewer, long episodeId) {
        return takes.ofEpisode(access.episode(viewer, episodeId).id());
    }

    /** A take that is ready, of an episode that the viewer may hear. */
    public Take readyTake(Person viewer, long takeId) {
        Take take = takes.find(takeId).filter(Take::ofCrew).filter(Take::ready).orElseThrow(NotFound::new);
        access.episode(viewer, take.episodeId());
        return take;
    }

    /** The tracks that takes of an episode were made for: the crew's names, and where they have recorded so far. */
    public List<String> trackNames(Person viewer, long episodeId) {
        Episode episode = access.episode(viewer, episodeId);
        return Stream.concat(access.crewOf(episode).stream().map(Person::name),
                takes.ofEpisode(episodeId).stream().map(Take::trackName)).distinct().toList();
    }

    /** The ready takes of an episode whose owner has been let through already, by id. */
    public Map<Long, Take> ready(long episodeId) {
        return takes.ofEpisode(episodeId).stream().filter(Take::ready).collect(Collectors.toMap(Take::id, Function.identity()));
    }

    /** The ready takes of a line of the script, the oldest first; as {@link #ready}. */
    public List<Take> ofLine(long episodeId, long lineId) {
        return takes.ofLine(episodeId, lineId);
    }

    /** The newest ready take of each episode of a class that {@link Access#taughtClass} has let through. */
    public Map<Long, Take> newestOfClass(SchoolClass schoolClass) {
        return takes.newestOfClass(schoolClass.id()).stream().collect(Collectors.toMap(Take::episodeId, Function.identity()));
    }
}
