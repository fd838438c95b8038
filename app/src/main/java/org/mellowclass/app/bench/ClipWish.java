package org.mellowclass.app.bench;

import java.util.HashSet;
import java.util.Map;
import java.util.Set;

import org.mellowclass.app.web.Fields;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Fade;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.timeline.edit.Clear;
import org.mellowclass.core.timeline.edit.Edit;
import org.mellowclass.core.timeline.edit.EditRefused;
import org.mellowclass.core.timeline.edit.Fades;
import org.mellowclass.core.timeline.edit.Move;
import org.mellowclass.core.timeline.edit.MoveJoin;
import org.mellowclass.core.timeline.edit.OpenUp;
import org.mellowclass.core.timeline.edit.Remove;
import org.mellowclass.core.timeline.edit.RemoveClip;
import org.mellowclass.core.timeline.edit.SetClipGain;
import org.mellowclass.core.timeline.edit.SetClipGains;
import org.mellowclass.core.timeline.edit.SetFade;
import org.mellowclass.core.timeline.edit.Trim;

/** Wishes that are about one clip, or some. */
sealed interface ClipWish extends Wish {

    /** @param along whether what follows on the tied tracks moves as far */
    record Moving(long clipId, long trackId, long startFrame, boolean along) implements ClipWish {
        @Override
        public Edit edit(Asked asked) {
            Fields.frame(startFrame);
            return along ? alongEdit(asked.base()) : new Move(clipId, trackId, startFrame);
        }

        private Edit alongEdit(Timeline base) {
            Track track = base.trackOf(clipId).orElseThrow(() -> new EditRefused(EditRefused.Reason.NO_SUCH_CLIP));
            long start = track.clip(clipId).orElseThrow().startFrame();
            long to = Math.max(0, startFrame);
            Set<Long> others = new HashSet<>(base.tiedTo(Set.of(track.id())));
            others.remove(track.id());
            if (to >= start) {
                return new OpenUp(start, to - start, Set.of(track.id()), others);
            }
            Span closed = new Span(to, start);
            track.clips().stream().filter(clip -> clip.id() != clipId && clip.overlaps(closed)).findFirst().ifPresent(clip -> {
                throw new EditRefused(EditRefused.Reason.SOUND_IS_THERE, Set.of(clip.id()));
            });
            return new Remove(closed, Set.of(track.id()), others);
        }
    }

    record MovingJoin(long clipId, long byFrames) implements ClipWish {
        @Override
        public Edit edit(Asked asked) {
            return new MoveJoin(clipId, Fields.frame(byFrames));
        }
    }

    /** @param tied whether the sound beyond the new edge goes from all tied tracks, and the gap stays */
    record Trimming(long clipId, Trim.Edge edge, long frame, boolean tied) implements ClipWish {
        @Override
        public Edit edit(Asked asked) {
            Fields.frame(frame);
            Track track = asked.base().trackOf(clipId).orElseThrow(() -> new EditRefused(EditRefused.Reason.NO_SUCH_CLIP));
            Span clip = track.clip(clipId).orElseThrow().span();
            if (tied && frame > clip.startFrame() && frame < clip.endFrame()) {
                Span beyond = edge == Trim.Edge.START ? new Span(clip.startFrame(), frame) : new Span(frame, clip.endFrame());
                return new Clear(beyond, asked.base().tiedTo(Set.of(track.id())));
            }
            return new Trim(clipId, Wish.given(edge), frame);
        }
    }

    record RemovingClip(long clipId) implements ClipWish {
        @Override
        public Edit edit(Asked asked) {
            return new RemoveClip(clipId);
        }
    }

    record Fading(long clipId, Trim.Edge edge, long frames, Fade.Shape shape) implements ClipWish {
        @Override
        public Edit edit(Asked asked) {
            return new SetFade(clipId, Wish.given(edge), Fields.frame(frames), shape);
        }
    }

    record ClearingStrayFades() implements ClipWish {
        @Override
        public Edit edit(Asked asked) {
            return Fades.clearStrays(asked.base());
        }
    }

    record ClipGain(long clipId, double gainDb) implements ClipWish {
        @Override
        public Edit edit(Asked asked) {
            return new SetClipGain(clipId, gainDb);
        }
    }

    record ClipGains(Map<Long, Double> gainsDb) implements ClipWish {
        @Override
        public Edit edit(Asked asked) {
            return new SetClipGains(Wish.given(gainsDb));
        }
    }
}
