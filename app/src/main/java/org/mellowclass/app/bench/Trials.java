package org.mellowclass.app.bench;

import java.time.Duration;
import java.util.Optional;

import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.sounds.TakeSounds;
import org.mellowclass.app.store.RandomKey;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.edit.Edited;
import org.springframework.stereotype.Service;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;

/** Edits that are heard before they are kept: timelines that no revision has, under keys that are forgotten after a while. */
@Service
class Trials {

    private static final int MOST = 500;
    private static final Duration KEPT = Duration.ofMinutes(30);

    private final Bench bench;
    private final TalkOfEpisode talk;
    private final Fixing fixing;
    private final Access access;
    private final TakeSounds sounds;
    private final Cache<String, Trial> trials = Caffeine.newBuilder().maximumSize(MOST).expireAfterAccess(KEPT).build();

    Trials(Bench bench, TalkOfEpisode talk, Fixing fixing, Access access, TakeSounds sounds) {
        this.bench = bench;
        this.talk = talk;
        this.fixing = fixing;
        this.access = access;
        this.sounds = sounds;
    }

    private record Trial(long episodeId, Timeline timeline) {
    }

    /** What a wish would make of a revision. */
    record Tried(String key, long frames) {
    }

    Tried of(Person viewer, long episodeId, long revision, Wish wish) {
        access.episode(viewer, episodeId);
        Timeline base = bench.timeline(viewer, episodeId, revision);
        Edited edited = wish.edit(new AskedOf(bench, talk, fixing, viewer, episodeId, revision)).applyTo(base, sounds.facts(episodeId));
        String key = RandomKey.next();
        trials.put(key, new Trial(episodeId, edited.timeline()));
        return new Tried(key, edited.timeline().endFrame());
    }

    /** The timeline of a trial of an episode, for those who have been let through to it; empty once it is forgotten. */
    Optional<Timeline> timeline(long episodeId, String key) {
        return Optional.ofNullable(trials.getIfPresent(key)).filter(trial -> trial.episodeId == episodeId).map(Trial::timeline);
    }
}
