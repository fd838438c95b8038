package org.mellowclass.app.room;

import java.time.Duration;
import java.util.List;
import java.util.Map;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import org.mellowclass.app.bench.Bench;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.store.RandomKey;
import org.mellowclass.app.web.Refusal;
import org.springframework.stereotype.Service;

/**
 * Laptops of a crew that wait to begin a take together, each with its own voice, and the word on which they do. They hear of
 * it within half a second of each other; how their takes really lie to each other is measured afterwards. All of it is of
 * this moment only, so that nothing of it is kept.
 */
@Service
class JointStarts {

    private static final Duration STILL_THERE = Duration.ofSeconds(4);
    private static final Duration WORD_IS_FRESH = Duration.ofSeconds(4);
    private static final int MOST_WAITING = 2000;

    private record Laptop(long episodeId, String id) {
    }

    /**
     * The word to begin.
     *
     * @param key        the same for all takes that begin on it
     * @param placeFrame where they land: behind everything that is there
     */
    record Word(String key, long placeFrame) {
    }

    /** Who waits, by name, and the word if it has just been given. */
    record State(List<String> waiting, Word word) {
    }

    private final Cache<Laptop, String> waiting = Caffeine.newBuilder().expireAfterWrite(STILL_THERE).maximumSize(MOST_WAITING).build();
    private final Cache<Long, Word> words = Caffeine.newBuilder().expireAfterWrite(WORD_IS_FRESH).maximumSize(MOST_WAITING).build();
    private final Access access;
    private final Bench bench;

    JointStarts(Access access, Bench bench) {
        this.access = access;
        this.bench = bench;
    }

    /** Says that a laptop of the crew waits. */
    State waits(Person viewer, long episodeId, String laptop) {
        access.ownEpisode(viewer, episodeId);
        if (!laptop.matches("[0-9a-f-]{36}")) {
            throw Refusal.unfit("room.LAPTOP");
        }
        waiting.put(new Laptop(episodeId, laptop), viewer.name());
        return of(episodeId);
    }

    State of(Person viewer, long episodeId) {
        access.episode(viewer, episodeId);
        return of(episodeId);
    }

    /** Gives the word, for the crew and for their teacher; a second press gives the same word. */
    State start(Person viewer, long episodeId) {
        long end = bench.head(viewer, episodeId).timeline().endFrame();
        if (words.getIfPresent(episodeId) == null && of(episodeId).waiting.size() < 2) {
            throw Refusal.conflict("room.ALONE");
        }
        words.get(episodeId, id -> new Word(RandomKey.next(), end));
        return of(episodeId);
    }

    private State of(long episodeId) {
        return new State(waiting.asMap().entrySet().stream().filter(laptop -> laptop.getKey().episodeId == episodeId).map(Map.Entry::getValue).sorted().toList(),
                words.getIfPresent(episodeId));
    }
}
