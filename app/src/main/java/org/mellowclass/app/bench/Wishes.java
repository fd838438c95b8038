package org.mellowclass.app.bench;

import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.web.Fields;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.edit.AddFlag;
import org.mellowclass.core.timeline.edit.Blank;
import org.mellowclass.core.timeline.edit.Edit;
import org.mellowclass.core.timeline.edit.EditRefused;
import org.mellowclass.core.timeline.edit.Move;
import org.mellowclass.core.timeline.edit.NameFlag;
import org.mellowclass.core.timeline.edit.Remove;
import org.mellowclass.core.timeline.edit.RemoveFlag;
import org.mellowclass.core.timeline.edit.SetClipGain;
import org.mellowclass.core.timeline.edit.SetTrackGain;
import org.mellowclass.core.timeline.edit.Soften;
import org.mellowclass.core.timeline.edit.Split;
import org.mellowclass.core.timeline.edit.Trim;
import org.springframework.stereotype.Service;

/** Makes edits of what pages ask for, with what only the server knows, and hands them to the bench. */
@Service
class Wishes {

    private static final int LONGEST_FLAG = 60;

    private final Bench bench;
    private final Access access;

    Wishes(Bench bench, Access access) {
        this.bench = bench;
        this.access = access;
    }

    /** Applies a wish that was made on a revision; the newest revision afterwards. */
    Head grant(Person viewer, long episodeId, long base, String clientId, Wish wish) {
        access.ownEpisode(viewer, episodeId);
        wish.frames().forEach(Fields::frame);
        if (wish instanceof Wish.Laying laying) {
            return bench.layTake(viewer, episodeId, base, clientId, laying.takeId(), laying.trackName());
        }
        return bench.edit(viewer, episodeId, base, clientId, edit(viewer, episodeId, base, wish));
    }

    private Edit edit(Person viewer, long episodeId, long base, Wish wish) {
        if (wish instanceof Wish.Removing removing) {
            return new Remove(span(removing.startFrame(), removing.endFrame()), removing.trackIds());
        } else if (wish instanceof Wish.Blanking blanking) {
            return new Blank(span(blanking.startFrame(), blanking.endFrame()), blanking.trackIds());
        } else if (wish instanceof Wish.Softening softening) {
            return new Soften(span(softening.startFrame(), softening.endFrame()), softening.trackIds());
        } else if (wish instanceof Wish.Splitting splitting) {
            return new Split(Math.max(0, splitting.frame()), splitting.trackIds());
        } else if (wish instanceof Wish.Moving moving) {
            return new Move(moving.clipId(), moving.trackId(), moving.startFrame());
        } else if (wish instanceof Wish.Trimming trimming) {
            return new Trim(trimming.clipId(), trimming.edge(), trimming.frame());
        } else if (wish instanceof Wish.ClipGain gain) {
            return new SetClipGain(gain.clipId(), gain.gainDb());
        } else if (wish instanceof Wish.TrackGain gain) {
            return new SetTrackGain(gain.trackId(), gain.gainDb());
        } else if (wish instanceof Wish.Flagging flag) {
            if (flag.frame() > bench.timeline(viewer, episodeId, base).endFrame()) {
                throw new EditRefused(EditRefused.Reason.SPAN_BEYOND_THE_END);
            }
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
}
