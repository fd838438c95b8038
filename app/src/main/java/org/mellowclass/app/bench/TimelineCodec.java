package org.mellowclass.app.bench;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import java.util.zip.Deflater;
import java.util.zip.DeflaterOutputStream;
import java.util.zip.InflaterInputStream;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.MapperFeature;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import org.mellowclass.app.sounds.FormerTakes;
import org.mellowclass.app.sounds.NamedStep;
import org.mellowclass.core.timeline.Fade;
import org.mellowclass.core.timeline.Source;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.edit.AddFlag;
import org.mellowclass.core.timeline.edit.AddTrack;
import org.mellowclass.core.timeline.edit.Blank;
import org.mellowclass.core.timeline.edit.Clear;
import org.mellowclass.core.timeline.edit.DrawCurve;
import org.mellowclass.core.timeline.edit.DropTrack;
import org.mellowclass.core.timeline.edit.Edit;
import org.mellowclass.core.timeline.edit.EraseTake;
import org.mellowclass.core.timeline.edit.Fill;
import org.mellowclass.core.timeline.edit.LayCopy;
import org.mellowclass.core.timeline.edit.LayInStep;
import org.mellowclass.core.timeline.edit.LaySpan;
import org.mellowclass.core.timeline.edit.LayTake;
import org.mellowclass.core.timeline.edit.Mend;
import org.mellowclass.core.timeline.edit.Move;
import org.mellowclass.core.timeline.edit.MoveJoin;
import org.mellowclass.core.timeline.edit.MuteTrack;
import org.mellowclass.core.timeline.edit.NameFlag;
import org.mellowclass.core.timeline.edit.NameTrack;
import org.mellowclass.core.timeline.edit.OpenUp;
import org.mellowclass.core.timeline.edit.OrderTrack;
import org.mellowclass.core.timeline.edit.PanTrack;
import org.mellowclass.core.timeline.edit.PartSides;
import org.mellowclass.core.timeline.edit.PlayTrick;
import org.mellowclass.core.timeline.edit.Remove;
import org.mellowclass.core.timeline.edit.RemoveClip;
import org.mellowclass.core.timeline.edit.RemoveFlag;
import org.mellowclass.core.timeline.edit.SetClipGain;
import org.mellowclass.core.timeline.edit.SetClipGains;
import org.mellowclass.core.timeline.edit.SetFade;
import org.mellowclass.core.timeline.edit.SetFades;
import org.mellowclass.core.timeline.edit.SetTakeGain;
import org.mellowclass.core.timeline.edit.SetTrackGain;
import org.mellowclass.core.timeline.edit.Soften;
import org.mellowclass.core.timeline.edit.Split;
import org.mellowclass.core.timeline.edit.SwapPassage;
import org.mellowclass.core.timeline.edit.SwapTake;
import org.mellowclass.core.timeline.edit.TieTrack;
import org.mellowclass.core.timeline.edit.Together;
import org.mellowclass.core.timeline.edit.Treat;
import org.mellowclass.core.timeline.edit.Trim;
import org.mellowclass.core.treatment.Step;
import org.mellowclass.core.treatment.Treatment;
import org.springframework.stereotype.Component;

/**
 * Timelines and edits as JSON, the one place that knows how they are stored. Properties are in the order of their records,
 * so that equal timelines have equal bytes and one hash.
 */
@Component
class TimelineCodec {

    /** Raise it when the format changes, and keep reading the older ones. */
    static final int FORMAT_VERSION = 5;
    /** The fields of edits that hold names of tracks and flags. */
    private static final List<String> NAMES = List.of("name", "trackName");

    private final ObjectMapper json = JsonMapper.builder()
            .disable(MapperFeature.SORT_PROPERTIES_ALPHABETICALLY)
            .addMixIn(Edit.class, NamedEdit.class)
            .addMixIn(Source.class, NamedSource.class)
            .addMixIn(Step.class, NamedStep.class)
            .build();

    @JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "type")
    @JsonSubTypes({@JsonSubTypes.Type(value = LayTake.class, name = "lay-take"),
        @JsonSubTypes.Type(value = LaySpan.class, name = "lay-span"),
        @JsonSubTypes.Type(value = Remove.class, name = "remove"),
        @JsonSubTypes.Type(value = Blank.class, name = "blank"),
        @JsonSubTypes.Type(value = Soften.class, name = "soften"),
        @JsonSubTypes.Type(value = Split.class, name = "split"),
        @JsonSubTypes.Type(value = Move.class, name = "move"),
        @JsonSubTypes.Type(value = Trim.class, name = "trim"),
        @JsonSubTypes.Type(value = SetClipGain.class, name = "set-clip-gain"),
        @JsonSubTypes.Type(value = SetTrackGain.class, name = "set-track-gain"),
        @JsonSubTypes.Type(value = AddFlag.class, name = "add-flag"),
        @JsonSubTypes.Type(value = NameFlag.class, name = "name-flag"),
        @JsonSubTypes.Type(value = SwapTake.class, name = "swap-take"),
        @JsonSubTypes.Type(value = SwapPassage.class, name = "swap-passage"),
        @JsonSubTypes.Type(value = PlayTrick.class, name = "play-trick"),
        @JsonSubTypes.Type(value = EraseTake.class, name = "erase-take"),
        @JsonSubTypes.Type(value = Treat.class, name = "treat"),
        @JsonSubTypes.Type(value = Mend.class, name = "mend"),
        @JsonSubTypes.Type(value = PartSides.class, name = "part-sides"),
        @JsonSubTypes.Type(value = LayInStep.class, name = "lay-in-step"),
        @JsonSubTypes.Type(value = SetTakeGain.class, name = "set-take-gain"),
        @JsonSubTypes.Type(value = RemoveFlag.class, name = "remove-flag"),
        @JsonSubTypes.Type(value = Clear.class, name = "clear"),
        @JsonSubTypes.Type(value = OpenUp.class, name = "open-up"),
        @JsonSubTypes.Type(value = LayCopy.class, name = "lay-copy"),
        @JsonSubTypes.Type(value = MoveJoin.class, name = "move-join"),
        @JsonSubTypes.Type(value = RemoveClip.class, name = "remove-clip"),
        @JsonSubTypes.Type(value = SetFade.class, name = "set-fade"),
        @JsonSubTypes.Type(value = SetFades.class, name = "set-fades"),
        @JsonSubTypes.Type(value = SetClipGains.class, name = "set-clip-gains"),
        @JsonSubTypes.Type(value = PanTrack.class, name = "pan-track"),
        @JsonSubTypes.Type(value = MuteTrack.class, name = "mute-track"),
        @JsonSubTypes.Type(value = NameTrack.class, name = "name-track"),
        @JsonSubTypes.Type(value = TieTrack.class, name = "tie-track"),
        @JsonSubTypes.Type(value = OrderTrack.class, name = "order-track"),
        @JsonSubTypes.Type(value = AddTrack.class, name = "add-track"),
        @JsonSubTypes.Type(value = DropTrack.class, name = "drop-track"),
        @JsonSubTypes.Type(value = DrawCurve.class, name = "draw-curve"),
        @JsonSubTypes.Type(value = Fill.class, name = "fill"),
        @JsonSubTypes.Type(value = Together.class, name = "together")})
    private interface NamedEdit {
    }

    String toJson(Edit edit) {
        try {
            return json.writerFor(Edit.class).writeValueAsString(edit);
        } catch (JsonProcessingException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** An edit as JSON, with what becomes of each name in it. */
    String renamed(String edit, UnaryOperator<String> told) {
        try {
            JsonNode tree = json.readTree(edit);
            for (String field : NAMES) {
                for (JsonNode parent : tree.findParents(field)) {
                    if (parent.get(field).isTextual()) {
                        ((ObjectNode) parent).put(field, told.apply(parent.get(field).asText()));
                    }
                }
            }
            return tree.toString();
        } catch (JsonProcessingException e) {
            throw new UncheckedIOException(e);
        }
    }

    /**
     * A timeline as it is stored.
     *
     * @param hash     the SHA-256 of its JSON: its name in the database, and never in an address
     * @param deflated its JSON, deflated
     */
    record Written(String hash, byte[] deflated) {
    }

    Written written(Timeline timeline) {
        byte[] bytes = bytes(timeline);
        ByteArrayOutputStream deflated = new ByteArrayOutputStream();
        // somebody waits for each edit: fast, not smallest
        Deflater fast = new Deflater(Deflater.BEST_SPEED);
        try (DeflaterOutputStream deflater = new DeflaterOutputStream(deflated, fast)) {
            deflater.write(bytes);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } finally {
            fast.end();
        }
        return new Written(sha256(bytes), deflated.toByteArray());
    }

    String hash(Timeline timeline) {
        return sha256(bytes(timeline));
    }

    private static String sha256(byte[] bytes) {
        try {
            return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(bytes));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }

    /** What a take of an earlier version has become; empty for one that is still a take. */
    @FunctionalInterface
    interface Formers {
        Optional<FormerTakes.Former> of(long takeId);
    }

    Timeline inflated(int formatVersion, byte[] body, Formers formers) {
        try (InflaterInputStream inflater = new InflaterInputStream(new ByteArrayInputStream(body))) {
            JsonNode tree = json.readTree(inflater);
            return switch (formatVersion) {
                case 1 -> fromVersion4(fromVersion3(fromVersion2(fromVersion1((ObjectNode) tree), formers)));
                case 2 -> fromVersion4(fromVersion3(fromVersion2(tree, formers)));
                case 3 -> fromVersion4(fromVersion3(tree));
                case 4 -> fromVersion4(tree);
                case FORMAT_VERSION -> json.treeToValue(tree, StoredTimeline.class).timeline();
                default -> throw new IllegalStateException("timeline format " + formatVersion + " is not known");
            };
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Version 2 brought flags, sources other than takes, and fades with a shape; the fades of version 1 are gentle. */
    private static JsonNode fromVersion1(ObjectNode timeline) {
        timeline.putArray("flags");
        for (JsonNode track : timeline.get("tracks")) {
            for (JsonNode each : track.get("clips")) {
                ObjectNode clip = (ObjectNode) each;
                clip.putObject("source").put("type", "take").set("takeId", clip.remove("takeId"));
                clip.set("sourceFrame", clip.remove("takeFrame"));
                clip.set("fadeIn", gentle(clip.putObject("fadeIn"), clip.remove("fadeInFrames")));
                clip.set("fadeOut", gentle(clip.putObject("fadeOut"), clip.remove("fadeOutFrames")));
            }
        }
        return timeline;
    }

    /** Version 3 brought treatments: takes that were made of others are treatments of these. */
    private JsonNode fromVersion2(JsonNode timeline, Formers formers) {
        for (JsonNode track : timeline.get("tracks")) {
            for (JsonNode clip : track.get("clips")) {
                ObjectNode source = (ObjectNode) clip.get("source");
                Optional<FormerTakes.Former> former = formers.of(source.get("takeId").asLong());
                former.ifPresent(of -> source.put("takeId", of.takeId()));
                source.set("treatment", json.valueToTree(former.map(FormerTakes.Former::treatment).orElse(Treatment.NONE)));
            }
        }
        return timeline;
    }

    /** Version 4 brought pan, volume curves and edges that meet their neighbours. */
    private static JsonNode fromVersion3(JsonNode timeline) {
        for (JsonNode track : timeline.get("tracks")) {
            ((ObjectNode) track).put("pan", 0).putObject("curve").putArray("points");
            for (JsonNode clip : track.get("clips")) {
                ((ObjectNode) clip.get("fadeIn")).put("seam", Fade.Seam.INSIDE.name());
                ((ObjectNode) clip.get("fadeOut")).put("seam", Fade.Seam.INSIDE.name());
            }
        }
        return timeline;
    }

    /** Version 5 brought what clips share to one place; before, each wrote its own. */
    private Timeline fromVersion4(JsonNode timeline) throws JsonProcessingException {
        return json.treeToValue(timeline, Timeline.class);
    }

    private static ObjectNode gentle(ObjectNode fade, JsonNode frames) {
        fade.set("frames", frames);
        return fade.put("shape", "GENTLE").put("skippedFrames", 0).put("edgeFrames", 0);
    }

    private byte[] bytes(Timeline timeline) {
        try {
            return json.writeValueAsBytes(StoredTimeline.of(timeline));
        } catch (JsonProcessingException e) {
            throw new UncheckedIOException(e);
        }
    }
}
