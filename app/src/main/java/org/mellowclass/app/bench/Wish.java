package org.mellowclass.app.bench;

import java.util.Collection;
import java.util.Map;
import java.util.Objects;

import org.mellowclass.app.takes.Take;
import org.mellowclass.app.web.Fields;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.soundcheck.Reading;
import org.mellowclass.core.talk.TalkFacts;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.edit.Edit;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;

/** An edit as a page asks for it. The server knows the rest: how long a take is, whose it is, where its room is heard. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "type")
@JsonSubTypes({@JsonSubTypes.Type(value = SelectionWish.Removing.class, name = "remove"),
    @JsonSubTypes.Type(value = SelectionWish.KeepingOnly.class, name = "keep-only"),
    @JsonSubTypes.Type(value = SelectionWish.Blanking.class, name = "blank"),
    @JsonSubTypes.Type(value = SelectionWish.Clearing.class, name = "clear"),
    @JsonSubTypes.Type(value = SelectionWish.Filling.class, name = "fill"),
    @JsonSubTypes.Type(value = SelectionWish.Mending.class, name = "mend"),
    @JsonSubTypes.Type(value = SelectionWish.Softening.class, name = "soften"),
    @JsonSubTypes.Type(value = SelectionWish.Tricking.class, name = "play-trick"),
    @JsonSubTypes.Type(value = SelectionWish.Splitting.class, name = "split"),
    @JsonSubTypes.Type(value = SelectionWish.OpeningUp.class, name = "open-up"),
    @JsonSubTypes.Type(value = LayingWish.Laying.class, name = "lay-take"),
    @JsonSubTypes.Type(value = LayingWish.Swapping.class, name = "swap-passage"),
    @JsonSubTypes.Type(value = LayingWish.Copying.class, name = "lay-copy"),
    @JsonSubTypes.Type(value = ClipWish.Moving.class, name = "move"),
    @JsonSubTypes.Type(value = ClipWish.MovingJoin.class, name = "move-join"),
    @JsonSubTypes.Type(value = ClipWish.Trimming.class, name = "trim"),
    @JsonSubTypes.Type(value = ClipWish.RemovingClip.class, name = "remove-clip"),
    @JsonSubTypes.Type(value = ClipWish.Fading.class, name = "set-fade"),
    @JsonSubTypes.Type(value = ClipWish.ClearingStrayFades.class, name = "clear-stray-fades"),
    @JsonSubTypes.Type(value = ClipWish.ClipGain.class, name = "set-clip-gain"),
    @JsonSubTypes.Type(value = ClipWish.ClipGains.class, name = "set-clip-gains"),
    @JsonSubTypes.Type(value = TrackWish.TrackGain.class, name = "set-track-gain"),
    @JsonSubTypes.Type(value = TrackWish.Panning.class, name = "pan-track"),
    @JsonSubTypes.Type(value = TrackWish.Muting.class, name = "mute-track"),
    @JsonSubTypes.Type(value = TrackWish.NamingTrack.class, name = "name-track"),
    @JsonSubTypes.Type(value = TrackWish.Tying.class, name = "tie-track"),
    @JsonSubTypes.Type(value = TrackWish.Ordering.class, name = "order-track"),
    @JsonSubTypes.Type(value = TrackWish.AddingTrack.class, name = "add-track"),
    @JsonSubTypes.Type(value = TrackWish.DroppingTrack.class, name = "drop-track"),
    @JsonSubTypes.Type(value = TrackWish.Curving.class, name = "draw-curve"),
    @JsonSubTypes.Type(value = SelectionWish.ShorteningPauses.class, name = "shorten-pauses"),
    @JsonSubTypes.Type(value = FlagWish.Flagging.class, name = "add-flag"),
    @JsonSubTypes.Type(value = FlagWish.NamingFlag.class, name = "name-flag"),
    @JsonSubTypes.Type(value = FlagWish.Unflagging.class, name = "remove-flag"),
    @JsonSubTypes.Type(value = FixWish.class, name = "fix")})
sealed interface Wish permits SelectionWish, LayingWish, ClipWish, TrackWish, FlagWish, FixWish {

    int LONGEST_NAME = 60;
    int MOST_AT_ONCE = 2000;

    /** What a wish may look at: the timeline that it was made on, and earlier ones. */
    interface Asked {
        Timeline base();

        Timeline at(long revision);

        /** @throws NotFound if it is no ready take of the episode */
        Take take(long takeId);

        TalkFacts facts();

        /** What mends a reading of the timeline that it was made on. */
        Edit fix(Reading.Kind kind);
    }

    /** The edit that is wished for. */
    Edit edit(Asked asked);

    /** What an edit cannot do without. */
    static <T> T given(T sent) {
        boolean lacking = sent instanceof Collection<?> several && several.stream().anyMatch(Objects::isNull)
                || sent instanceof Map<?, ?> map && map.values().stream().anyMatch(Objects::isNull);
        if (sent == null || lacking) {
            throw new IllegalArgumentException("an edit lacks something");
        }
        return sent;
    }

    /** @param code of the refusal of one that is too long */
    static String name(String name, String code) {
        return Fields.optional(name, LONGEST_NAME, code);
    }

    static Span spanned(long startFrame, long endFrame) {
        Fields.frame(startFrame);
        Fields.frame(endFrame);
        if (startFrame < 0 || endFrame <= startFrame) {
            throw Refusal.unfit("bench.NOTHING_SELECTED");
        }
        return new Span(startFrame, endFrame);
    }
}
