package org.mellowclass.app.bench;

import org.mellowclass.app.people.Person;
import org.mellowclass.app.takes.Take;
import org.mellowclass.core.soundcheck.Reading;
import org.mellowclass.core.talk.TalkFacts;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.edit.Edit;

/** What a wish of somebody may look at, of an episode that they have been let through to. */
record AskedOf(Bench bench, TalkOfEpisode talk, Fixing fixing, Person viewer, long episodeId, long revision) implements Wish.Asked {

    @Override
    public Timeline base() {
        return at(revision);
    }

    @Override
    public Timeline at(long other) {
        return bench.timeline(viewer, episodeId, other);
    }

    @Override
    public Take take(long takeId) {
        return talk.take(episodeId, takeId);
    }

    @Override
    public TalkFacts facts() {
        return talk.facts(episodeId);
    }

    @Override
    public Edit fix(Reading.Kind kind) {
        return fixing.fix(episodeId, revision, base(), kind);
    }
}
