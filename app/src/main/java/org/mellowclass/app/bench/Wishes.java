package org.mellowclass.app.bench;

import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.web.Fields;
import org.springframework.stereotype.Service;

/** Makes edits of what pages ask for, with what only the server knows, and hands them to the bench. */
@Service
class Wishes {

    private final Bench bench;
    private final TalkOfEpisode talk;
    private final Fixing fixing;
    private final Access access;

    Wishes(Bench bench, TalkOfEpisode talk, Fixing fixing, Access access) {
        this.bench = bench;
        this.talk = talk;
        this.fixing = fixing;
        this.access = access;
    }

    /** Applies a wish that was made on a revision; the newest revision afterwards. */
    Head grant(Person viewer, long episodeId, long base, String clientId, Wish wish) {
        access.ownEpisode(viewer, episodeId);
        if (wish instanceof LayingWish.Laying laying) {
            Long startFrame = laying.startFrame() == null ? null : Long.valueOf(Fields.frame(laying.startFrame()));
            return bench.layTake(viewer, episodeId, base, clientId, laying.takeId(), laying.trackName(), startFrame);
        }
        return bench.edit(viewer, episodeId, base, clientId, wish.edit(new AskedOf(bench, talk, fixing, viewer, episodeId, base)));
    }
}
