package org.mellowclass.app.bench;

import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.takes.Take;
import org.mellowclass.app.takes.TakeShelf;
import org.mellowclass.app.web.Fields;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.AddFlag;
import org.mellowclass.core.timeline.Blank;
import org.mellowclass.core.timeline.Edit;
import org.mellowclass.core.timeline.Move;
import org.mellowclass.core.timeline.NameFlag;
import org.mellowclass.core.timeline.Remove;
import org.mellowclass.core.timeline.RemoveFlag;
import org.mellowclass.core.timeline.SetClipGain;
import org.mellowclass.core.timeline.SetTrackGain;
import org.mellowclass.core.timeline.Soften;
import org.mellowclass.core.timeline.Split;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Trim;
import org.springframework.stereotype.Service;

/** Makes edits of what pages ask for, with what only the server knows, and hands them to the bench. */
@Service
class Wishes {

    private static final int LONGEST_FLAG = 60;

    private final Bench bench;
    private final Access access;
    private final TakeShelf takes;

    Wishes(Bench bench, Access access, TakeShelf takes) {
        this.bench = bench;
        this.access = access;
        this.takes = takes;
    }

    /** Applies a wish that was made on a revision; the newest revision afterwards. */
    Head grant(Person viewer, long episodeId, long base, String clientId, Wish wish) {
        access.ownEpisode(viewer, episodeId);
        if (wish instanceof Wish.Laying laying) {
            return bench.layTake(viewer, episodeId, base, clientId, laying.takeId(), laying.trackName());
        }
        return bench.edit(viewer, episodeId, base, clientId, edit(viewer, episodeId, base, wish));
    }

    private Edit edit(Person viewer, long episodeId, long base, Wish wish) {
        if (wish instanceof Wish.Removing removing) {
            return new Remove(span(removing.startFrame(), removing.endFrame()), removing.trackIds());
        } else if (wish instanceof Wish.Blanking blanking) {
            return new Blank(span(blanking.startFrame(), blanking.endFrame()), blanking.trackIds(), takes.rooms(episodeId));
        } else if (wish instanceof Wish.Softening softening) {
            return new Soften(span(softening.startFrame(), softening.endFrame()), softening.trackIds());
        } else if (wish instanceof Wish.Splitting splitting) {
            return new Split(Math.max(0, splitting.frame()), splitting.trackIds());
        } else if (wish instanceof Wish.Moving moving) {
            return new Move(moving.clipId(), moving.trackId(), moving.startFrame());
        } else if (wish instanceof Wish.Trimming trimming) {
            return new Trim(trimming.clipId(), trimming.edge(), trimming.frame(),
                    takeFrames(viewer, episodeId, base, trimming.clipId()));
        } else if (wish instanceof Wish.ClipGain gain) {
            return new SetClipGain(gain.clipId(), gain.gainDb());
        } else if (wish instanceof Wish.TrackGain gain) {
            return new SetTrackGain(gain.trackId(), gain.gainDb());
        } else if (wish instanceof Wish.Flagging flag) {
            return new AddFlag(flag.trackId(), flag.frame(), flagName(flag.name()));
        } else if (wish instanceof Wish.NamingFlag flag) {
            return new NameFlag(flag.flagId(), flagName(flag.name()));
        } else if (wish instanceof Wish.Unflagging flag) {
            return new RemoveFlag(flag.flagId());
        }
        throw new IllegalArgumentException("not an edit: " + wish);
    }

    private static String flagName(String name) {
        return Fields.optional(name, LONGEST_FLAG, "bench.FLAG_TOO_LONG");
    }

    private static Span span(long startFrame, long endFrame) {
        if (startFrame < 0 || endFrame <= startFrame) {
            throw Refusal.unfit("bench.NOTHING_SELECTED");
        }
        return new Span(startFrame, endFrame);
    }

    /** How long the take of a clip is; 0 for a clip that is not there, which the edit refuses itself. */
    private long takeFrames(Person viewer, long episodeId, long base, long clipId) {
        Timeline timeline = bench.timeline(viewer, episodeId, base);
        return timeline.clip(clipId).map(clip -> takes.ready(episodeId).get(clip.source().takeId()))
                .map(Take::frames).orElse(0L);
    }
}
