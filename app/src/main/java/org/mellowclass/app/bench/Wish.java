package org.mellowclass.app.bench;

import java.util.Set;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import org.mellowclass.core.timeline.edit.Trim;

/** An edit as a page asks for it. The server knows the rest: how long a take is, whose it is, where its room is heard. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "type")
@JsonSubTypes({@JsonSubTypes.Type(value = Wish.Removing.class, name = "remove"),
    @JsonSubTypes.Type(value = Wish.Blanking.class, name = "blank"),
    @JsonSubTypes.Type(value = Wish.Softening.class, name = "soften"),
    @JsonSubTypes.Type(value = Wish.Splitting.class, name = "split"),
    @JsonSubTypes.Type(value = Wish.Laying.class, name = "lay-take"),
    @JsonSubTypes.Type(value = Wish.Moving.class, name = "move"),
    @JsonSubTypes.Type(value = Wish.Trimming.class, name = "trim"),
    @JsonSubTypes.Type(value = Wish.ClipGain.class, name = "set-clip-gain"),
    @JsonSubTypes.Type(value = Wish.TrackGain.class, name = "set-track-gain"),
    @JsonSubTypes.Type(value = Wish.Flagging.class, name = "add-flag"),
    @JsonSubTypes.Type(value = Wish.NamingFlag.class, name = "name-flag"),
    @JsonSubTypes.Type(value = Wish.Unflagging.class, name = "remove-flag")})
sealed interface Wish {

    record Removing(long startFrame, long endFrame, Set<Long> trackIds) implements Wish {
    }

    record Blanking(long startFrame, long endFrame, Set<Long> trackIds) implements Wish {
    }

    record Softening(long startFrame, long endFrame, Set<Long> trackIds) implements Wish {
    }

    record Splitting(long frame, Set<Long> trackIds) implements Wish {
    }

    record Laying(long takeId, String trackName) implements Wish {
    }

    record Moving(long clipId, long trackId, long startFrame) implements Wish {
    }

    record Trimming(long clipId, Trim.Edge edge, long frame) implements Wish {
    }

    record ClipGain(long clipId, double gainDb) implements Wish {
    }

    record TrackGain(long trackId, double gainDb) implements Wish {
    }

    record Flagging(long trackId, long frame, String name) implements Wish {
    }

    record NamingFlag(long flagId, String name) implements Wish {
    }

    record Unflagging(long flagId) implements Wish {
    }
}
