package org.mellowclass.app.shelf;

import java.util.List;

import org.mellowclass.app.bench.Bench;
import org.mellowclass.app.bench.Head;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Episode;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.sounds.BorrowedSounds;
import org.mellowclass.app.sounds.TakeSounds;
import org.mellowclass.app.takes.ShelfTakes;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.edit.LaySpan;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Lays sounds from the shelf into episodes, whole or an excerpt. In the episode they are takes, which remember where they are from. */
@Service
@Transactional
public class LayingIn {

    private final Shelf shelf;
    private final Access access;
    private final ShelfTakes takes;
    private final BorrowedSounds borrowed;
    private final TakeSounds takeSounds;
    private final Bench bench;

    LayingIn(Shelf shelf, Access access, ShelfTakes takes, BorrowedSounds borrowed, TakeSounds takeSounds, Bench bench) {
        this.shelf = shelf;
        this.access = access;
        this.takes = takes;
        this.borrowed = borrowed;
        this.takeSounds = takeSounds;
        this.bench = bench;
    }

    /** Lays a sound, or an excerpt of it if {@code excerptId} is not 0, onto the track of that name, from a frame on. */
    public Head layIn(Person viewer, long episodeId, long base, String clientId, long soundId, long excerptId,
                      String trackName, long startFrame) {
        Episode episode = access.ownEpisode(viewer, episodeId);
        ShelfSound sound = shelf.sound(viewer, soundId);
        if (!sound.ready() || sound.classId() != episode.classId()) {
            throw new NotFound();
        }
        long takeId = take(episodeId, viewer, sound, trackName);
        return bench.edit(viewer, episodeId, base, clientId,
                new LaySpan(takeId, span(sound, excerptId), trackName, startFrame, 0));
    }

    /** A sound on its place in the beginning of an episode. */
    public record Placed(ShelfSound sound, long excerptId, String trackName, long startFrame, double gainDb) {
    }

    /** Begins an episode with sounds that are there already, as its first value: there is nothing before it to go back to. */
    public void begin(Person teacher, long episodeId, List<Placed> placed) {
        Episode episode = access.taughtEpisode(teacher, episodeId);
        Timeline timeline = Timeline.empty();
        for (Placed each : placed) {
            long takeId = take(episode.id(), teacher, each.sound, each.trackName);
            timeline = new LaySpan(takeId, span(each.sound, each.excerptId), each.trackName, each.startFrame, each.gainDb)
                    .applyTo(timeline, takeSounds.facts(episodeId)).timeline();
        }
        bench.begin(episode.id(), timeline);
    }

    private Span span(ShelfSound sound, long excerptId) {
        return excerptId == 0 ? new Span(0, sound.frames()) : shelf.excerpt(sound, excerptId).span();
    }

    private long take(long episodeId, Person author, ShelfSound sound, String trackName) {
        return takes.ofShelf(episodeId, author, sound.id(), trackName, sound.name(), sound.frames(), take -> borrowed.lend(take,
                new BorrowedSounds.Files(sound.soundKey(), sound.skylineKey(), sound.channels(), sound.clipped())));
    }
}
