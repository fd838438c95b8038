package org.mellowclass.app.room;

import java.time.Clock;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.TimeUnit;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import org.mellowclass.app.bench.Bench;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.store.RandomKey;
import org.mellowclass.app.web.Refusal;
import org.springframework.stereotype.Service;

/**
 * Laptops of a crew that wait to begin a take together, each with its own voice, and the word on which they do. Over a quick network
 * they hear of it within half a second of each other, over a slow one later; how their takes really lie to each other is measured
 * afterwards. All of it is of this moment only, so that nothing of it is kept.
 */
@Service
class JointStarts {

    /** A laptop asks each half second; over a slow network its question may be ten seconds on its way. */
    private static final Duration STILL_THERE = Duration.ofSeconds(12);
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

    /**
     * Who waits, by name.
     *
     * @param word for the laptop that asks, or of the press that asks; null before it is given
     */
    record State(List<String> waiting, Word word) {
    }

    private final Cache<Laptop, String> waiting;
    /** Words that were given to laptops which have not said yet that they have heard them. */
    private final Cache<Laptop, Word> unheard;
    private final Access access;
    private final Bench bench;

    JointStarts(Access access, Bench bench, Clock clock) {
        this.access = access;
        this.bench = bench;
        Caffeine<Object, Object> ofThisMoment = Caffeine.newBuilder().expireAfterWrite(STILL_THERE).maximumSize(MOST_WAITING)
                .ticker(() -> TimeUnit.MILLISECONDS.toNanos(clock.millis()));
        this.waiting = ofThisMoment.build();
        this.unheard = ofThisMoment.build();
    }

    /**
     * Says that a laptop of the crew waits. It is told the word until it says that it has heard it, or until it is old.
     *
     * @param heard the key of the word that the laptop heard last; empty if it has heard none
     */
    State waits(Person viewer, long episodeId, String laptop, String heard) {
        access.ownEpisode(viewer, episodeId);
        if (!laptop.matches("[0-9a-f-]{36}")) {
            throw Refusal.unfit("room.LAPTOP");
        }
        Laptop who = new Laptop(episodeId, laptop);
        unheard.asMap().computeIfPresent(who, (key, word) -> word.key.equals(heard) ? null : word);
        waiting.put(who, viewer.name());
        return new State(names(episodeId), unheard.getIfPresent(who));
    }

    State of(Person viewer, long episodeId) {
        access.episode(viewer, episodeId);
        return new State(names(episodeId), word(episodeId).orElse(null));
    }

    /** Gives the word to all that wait, for the crew and for their teacher; a second press gives the same word. */
    synchronized State start(Person viewer, long episodeId) {
        long end = bench.head(viewer, episodeId).timeline().endFrame();
        List<Laptop> without = waiting.asMap().keySet().stream().filter(laptop -> laptop.episodeId == episodeId && unheard.getIfPresent(laptop) == null).toList();
        if (without.size() < 2) {
            return new State(names(episodeId), word(episodeId).orElseThrow(() -> Refusal.conflict("room.ALONE")));
        }
        Word word = new Word(RandomKey.next(), end);
        without.forEach(laptop -> unheard.put(laptop, word));
        return new State(names(episodeId), word);
    }

    private List<String> names(long episodeId) {
        return waiting.asMap().entrySet().stream().filter(laptop -> laptop.getKey().episodeId == episodeId).map(Map.Entry::getValue).sorted().toList();
    }

    private Optional<Word> word(long episodeId) {
        return unheard.asMap().entrySet().stream().filter(given -> given.getKey().episodeId == episodeId).map(Map.Entry::getValue).findAny();
    }
}
