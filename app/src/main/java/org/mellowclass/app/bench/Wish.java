package org.mellowclass.app.bench;

import java.util.Set;
import java.util.stream.LongStream;

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

    /** Every frame that a page has sent with it. */
    default LongStream frames() {
        return LongStream.empty();
    }

    record Removing(long startFrame, long endFrame, Set<Long> trackIds) implements Wish {
        @Override
        public LongStream frames() {
            return LongStream.of(startFrame, endFrame);
        }
    }

    record Blanking(long startFrame, long endFrame, Set<Long> trackIds) implements Wish {
        @Override
        public LongStream frames() {
            return LongStream.of(startFrame, endFrame);
        }
    }

    record Softening(long startFrame, long endFrame, Set<Long> trackIds) implements Wish {
        @Override
        public LongStream frames() {
            return LongStream.of(startFrame, endFrame);
        }
    }

    record Splitting(long frame, Set<Long> trackIds) implements Wish {
        @Override
        public LongStream frames() {
            return LongStream.of(frame);
        }
    }

    record Laying(long takeId, String trackName) implements Wish {
    }

    record Moving(long clipId, long trackId, long startFrame) implements Wish {
        @Override
        public LongStream frames() {
            return LongStream.of(startFrame);
        }
    }

    record Trimming(long clipId, Trim.Edge edge, long frame) implements Wish {
        @Override
        public LongStream frames() {
            return LongStream.of(frame);
        }
    }

    record ClipGain(long clipId, double gainDb) implements Wish {
    }

    record TrackGain(long trackId, double gainDb) implements Wish {
    }

    record Flagging(long trackId, long frame, String name) implements Wish {
        @Override
        public LongStream frames() {
            return LongStream.of(frame);
        }
    }

    record NamingFlag(long flagId, String name) implements Wish {
    }

    record Unflagging(long flagId) implements Wish {
    }
}
