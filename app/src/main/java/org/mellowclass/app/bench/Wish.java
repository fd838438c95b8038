package org.mellowclass.app.bench;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import org.mellowclass.app.web.Fields;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Fade;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.timeline.VolumeCurve;
import org.mellowclass.core.timeline.edit.AddFlag;
import org.mellowclass.core.timeline.edit.AddTrack;
import org.mellowclass.core.timeline.edit.Blank;
import org.mellowclass.core.timeline.edit.Clear;
import org.mellowclass.core.timeline.edit.DrawCurve;
import org.mellowclass.core.timeline.edit.DropTrack;
import org.mellowclass.core.timeline.edit.Edit;
import org.mellowclass.core.timeline.edit.EditRefused;
import org.mellowclass.core.timeline.edit.LayCopy;
import org.mellowclass.core.timeline.edit.Move;
import org.mellowclass.core.timeline.edit.MoveJoin;
import org.mellowclass.core.timeline.edit.MuteTrack;
import org.mellowclass.core.timeline.edit.NameFlag;
import org.mellowclass.core.timeline.edit.NameTrack;
import org.mellowclass.core.timeline.edit.OpenUp;
import org.mellowclass.core.timeline.edit.OrderTrack;
import org.mellowclass.core.timeline.edit.PanTrack;
import org.mellowclass.core.timeline.edit.Remove;
import org.mellowclass.core.timeline.edit.RemoveClip;
import org.mellowclass.core.timeline.edit.RemoveFlag;
import org.mellowclass.core.timeline.edit.SetClipGain;
import org.mellowclass.core.timeline.edit.SetClipGains;
import org.mellowclass.core.timeline.edit.SetFade;
import org.mellowclass.core.timeline.edit.SetTrackGain;
import org.mellowclass.core.timeline.edit.Soften;
import org.mellowclass.core.timeline.edit.SpanEdit;
import org.mellowclass.core.timeline.edit.Split;
import org.mellowclass.core.timeline.edit.TieTrack;
import org.mellowclass.core.timeline.edit.Together;
import org.mellowclass.core.timeline.edit.Trim;

/** An edit as a page asks for it. The server knows the rest: how long a take is, whose it is, where its room is heard. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "type")
@JsonSubTypes({@JsonSubTypes.Type(value = Wish.Removing.class, name = "remove"),
    @JsonSubTypes.Type(value = Wish.KeepingOnly.class, name = "keep-only"),
    @JsonSubTypes.Type(value = Wish.Blanking.class, name = "blank"),
    @JsonSubTypes.Type(value = Wish.Clearing.class, name = "clear"),
    @JsonSubTypes.Type(value = Wish.Softening.class, name = "soften"),
    @JsonSubTypes.Type(value = Wish.Splitting.class, name = "split"),
    @JsonSubTypes.Type(value = Wish.OpeningUp.class, name = "open-up"),
    @JsonSubTypes.Type(value = Wish.Laying.class, name = "lay-take"),
    @JsonSubTypes.Type(value = Wish.Copying.class, name = "lay-copy"),
    @JsonSubTypes.Type(value = Wish.Moving.class, name = "move"),
    @JsonSubTypes.Type(value = Wish.MovingJoin.class, name = "move-join"),
    @JsonSubTypes.Type(value = Wish.Trimming.class, name = "trim"),
    @JsonSubTypes.Type(value = Wish.RemovingClip.class, name = "remove-clip"),
    @JsonSubTypes.Type(value = Wish.Fading.class, name = "set-fade"),
    @JsonSubTypes.Type(value = Wish.ClipGain.class, name = "set-clip-gain"),
    @JsonSubTypes.Type(value = Wish.ClipGains.class, name = "set-clip-gains"),
    @JsonSubTypes.Type(value = Wish.TrackGain.class, name = "set-track-gain"),
    @JsonSubTypes.Type(value = Wish.Panning.class, name = "pan-track"),
    @JsonSubTypes.Type(value = Wish.Muting.class, name = "mute-track"),
    @JsonSubTypes.Type(value = Wish.NamingTrack.class, name = "name-track"),
    @JsonSubTypes.Type(value = Wish.Tying.class, name = "tie-track"),
    @JsonSubTypes.Type(value = Wish.Ordering.class, name = "order-track"),
    @JsonSubTypes.Type(value = Wish.AddingTrack.class, name = "add-track"),
    @JsonSubTypes.Type(value = Wish.DroppingTrack.class, name = "drop-track"),
    @JsonSubTypes.Type(value = Wish.Curving.class, name = "draw-curve"),
    @JsonSubTypes.Type(value = Wish.ShorteningPauses.class, name = "shorten-pauses"),
    @JsonSubTypes.Type(value = Wish.Flagging.class, name = "add-flag"),
    @JsonSubTypes.Type(value = Wish.NamingFlag.class, name = "name-flag"),
    @JsonSubTypes.Type(value = Wish.Unflagging.class, name = "remove-flag")})
sealed interface Wish {

    int LONGEST_NAME = 60;
    int MOST_AT_ONCE = 2000;

    /** What a wish may look at: the timeline that it was made on, and earlier ones. */
    interface Asked {
        Timeline base();

        Timeline at(long revision);
    }

    /** The edit that is wished for. */
    Edit edit(Asked asked);

    /** Of a selection: a span on some tracks. */
    sealed interface OnSelection extends Wish permits Removing, KeepingOnly, Blanking, Clearing, Softening {

        long startFrame();

        long endFrame();

        Set<Long> trackIds();

        default Span span() {
            return spanned(startFrame(), endFrame());
        }
    }

    record Removing(long startFrame, long endFrame, Set<Long> trackIds) implements OnSelection {
        @Override
        public Edit edit(Asked asked) {
            return new Remove(span(), trackIds);
        }
    }

    record KeepingOnly(long startFrame, long endFrame, Set<Long> trackIds) implements OnSelection {
        @Override
        public Edit edit(Asked asked) {
            List<SpanEdit> edits = new ArrayList<>();
            long end = asked.base().endFrame();
            if (span().endFrame() < end) {
                edits.add(new Remove(new Span(endFrame, end), trackIds));
            }
            if (startFrame > 0) {
                edits.add(new Remove(new Span(0, startFrame), trackIds));
            }
            if (edits.isEmpty()) {
                throw new EditRefused(EditRefused.Reason.CHANGES_NOTHING);
            }
            return new Together(edits);
        }
    }

    record Blanking(long startFrame, long endFrame, Set<Long> trackIds) implements OnSelection {
        @Override
        public Edit edit(Asked asked) {
            return new Blank(span(), trackIds);
        }
    }

    record Clearing(long startFrame, long endFrame, Set<Long> trackIds) implements OnSelection {
        @Override
        public Edit edit(Asked asked) {
            return new Clear(span(), trackIds);
        }
    }

    record Softening(long startFrame, long endFrame, Set<Long> trackIds) implements OnSelection {
        @Override
        public Edit edit(Asked asked) {
            return new Soften(span(), trackIds);
        }
    }

    record Splitting(long frame, Set<Long> trackIds) implements Wish {
        @Override
        public Edit edit(Asked asked) {
            return new Split(Math.max(0, Fields.frame(frame)), trackIds);
        }
    }

    record OpeningUp(long frame, long frames, Set<Long> trackIds) implements Wish {
        @Override
        public Edit edit(Asked asked) {
            return new OpenUp(Math.max(0, Fields.frame(frame)), Fields.frame(frames), trackIds);
        }
    }

    /**
     * Lays a take of the episode.
     *
     * @param startFrame where; null for behind everything on the track
     */
    record Laying(long takeId, String trackName, Long startFrame) implements Wish {
        @Override
        public Edit edit(Asked asked) {
            throw new IllegalArgumentException("only the bench knows its takes");
        }
    }

    /**
     * Lays a copy of a selection that was made on a revision.
     *
     * @param over whether it is laid over what is there; otherwise what is there moves along, on all tied tracks
     */
    record Copying(long revision, long startFrame, long endFrame, Set<Long> trackIds, long toFrame, boolean over) implements Wish {
        @Override
        public Edit edit(Asked asked) {
            List<LayCopy.Copy> copies = LayCopy.copies(asked.at(revision), spanned(startFrame, endFrame), trackIds).stream()
                    .filter(copy -> asked.base().track(copy.trackId()).isPresent()).toList();
            Set<Long> tied = asked.base().tiedTo(copies.stream().map(LayCopy.Copy::trackId).collect(Collectors.toSet()));
            return new LayCopy(copies, endFrame - startFrame, Math.max(0, Fields.frame(toFrame)), over ? Set.of() : tied);
        }
    }

    /** @param along whether what follows on the tied tracks moves as far */
    record Moving(long clipId, long trackId, long startFrame, boolean along) implements Wish {
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

    record MovingJoin(long clipId, long byFrames) implements Wish {
        @Override
        public Edit edit(Asked asked) {
            return new MoveJoin(clipId, Fields.frame(byFrames));
        }
    }

    /** @param tied whether the sound beyond the new edge goes from all tied tracks, and the gap stays */
    record Trimming(long clipId, Trim.Edge edge, long frame, boolean tied) implements Wish {
        @Override
        public Edit edit(Asked asked) {
            Fields.frame(frame);
            Track track = asked.base().trackOf(clipId).orElseThrow(() -> new EditRefused(EditRefused.Reason.NO_SUCH_CLIP));
            Span clip = track.clip(clipId).orElseThrow().span();
            if (tied && clip.contains(frame)) {
                Span beyond = edge == Trim.Edge.START ? new Span(clip.startFrame(), frame) : new Span(frame, clip.endFrame());
                return new Clear(beyond, asked.base().tiedTo(Set.of(track.id())));
            }
            return new Trim(clipId, edge, frame);
        }
    }

    record RemovingClip(long clipId) implements Wish {
        @Override
        public Edit edit(Asked asked) {
            return new RemoveClip(clipId);
        }
    }

    record Fading(long clipId, Trim.Edge edge, long frames, Fade.Shape shape) implements Wish {
        @Override
        public Edit edit(Asked asked) {
            return new SetFade(clipId, edge, Fields.frame(frames), shape);
        }
    }

    record ClipGain(long clipId, double gainDb) implements Wish {
        @Override
        public Edit edit(Asked asked) {
            return new SetClipGain(clipId, gainDb);
        }
    }

    record ClipGains(Map<Long, Double> gainsDb) implements Wish {
        @Override
        public Edit edit(Asked asked) {
            return new SetClipGains(gainsDb);
        }
    }

    record TrackGain(long trackId, double gainDb) implements Wish {
        @Override
        public Edit edit(Asked asked) {
            return new SetTrackGain(trackId, gainDb);
        }
    }

    record Panning(long trackId, double pan) implements Wish {
        @Override
        public Edit edit(Asked asked) {
            return new PanTrack(trackId, pan);
        }
    }

    record Muting(long trackId, boolean muted) implements Wish {
        @Override
        public Edit edit(Asked asked) {
            return new MuteTrack(trackId, muted);
        }
    }

    record NamingTrack(long trackId, String name) implements Wish {
        @Override
        public Edit edit(Asked asked) {
            return new NameTrack(trackId, trackName(name));
        }
    }

    /** @param withTrackId a track to which it is tied; 0 for none */
    record Tying(long trackId, long withTrackId) implements Wish {
        @Override
        public Edit edit(Asked asked) {
            return new TieTrack(trackId, asked.base().track(withTrackId).map(Track::group).orElse(0));
        }
    }

    record Ordering(long trackId, int place) implements Wish {
        @Override
        public Edit edit(Asked asked) {
            return new OrderTrack(trackId, place);
        }
    }

    record AddingTrack(String name) implements Wish {
        @Override
        public Edit edit(Asked asked) {
            return new AddTrack(trackName(name));
        }
    }

    record DroppingTrack(long trackId) implements Wish {
        @Override
        public Edit edit(Asked asked) {
            return new DropTrack(trackId);
        }
    }

    record Curving(long trackId, List<VolumeCurve.Point> points) implements Wish {
        @Override
        public Edit edit(Asked asked) {
            if (points.size() > VolumeCurve.MOST_POINTS) {
                throw new EditRefused(EditRefused.Reason.CURVE_TOO_LONG);
            }
            points.forEach(point -> Fields.frame(point.frame()));
            return new DrawCurve(trackId, new VolumeCurve(points));
        }
    }

    /** Takes spans, of which each is the too long middle of a pause, out of the tracks. */
    record ShorteningPauses(List<Span> spans, Set<Long> trackIds) implements Wish {
        @Override
        public Edit edit(Asked asked) {
            if (spans.isEmpty() || spans.size() > MOST_AT_ONCE) {
                throw Refusal.unfit("bench.NOTHING_SELECTED");
            }
            // from the last to the first, so that none moves another
            return new Together(spans.stream().map(span -> spanned(span.startFrame(), span.endFrame()))
                    .sorted(Comparator.comparingLong(Span::startFrame).reversed()).map(span -> (SpanEdit) new Remove(span, trackIds)).toList());
        }
    }

    record Flagging(long trackId, long frame, String name) implements Wish {
        @Override
        public Edit edit(Asked asked) {
            if (Fields.frame(frame) > asked.base().endFrame()) {
                throw new EditRefused(EditRefused.Reason.SPAN_BEYOND_THE_END);
            }
            return new AddFlag(trackId, frame, flagName(name));
        }
    }

    record NamingFlag(long flagId, String name) implements Wish {
        @Override
        public Edit edit(Asked asked) {
            return new NameFlag(flagId, flagName(name));
        }
    }

    record Unflagging(long flagId) implements Wish {
        @Override
        public Edit edit(Asked asked) {
            return new RemoveFlag(flagId);
        }
    }

    private static String flagName(String name) {
        return Fields.optional(name, LONGEST_NAME, "bench.FLAG_TOO_LONG");
    }

    private static String trackName(String name) {
        return Fields.optional(name, LONGEST_NAME, "bench.TRACK_NAME_TOO_LONG");
    }

    private static Span spanned(long startFrame, long endFrame) {
        Fields.frame(startFrame);
        Fields.frame(endFrame);
        if (startFrame < 0 || endFrame <= startFrame) {
            throw Refusal.unfit("bench.NOTHING_SELECTED");
        }
        return new Span(startFrame, endFrame);
    }
}
