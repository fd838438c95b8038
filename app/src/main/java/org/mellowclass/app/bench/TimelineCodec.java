package org.mellowclass.app.bench;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import java.util.zip.DeflaterOutputStream;
import java.util.zip.InflaterInputStream;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.MapperFeature;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.json.JsonMapper;
import org.mellowclass.core.timeline.Edit;
import org.mellowclass.core.timeline.LayTake;
import org.mellowclass.core.timeline.Remove;
import org.mellowclass.core.timeline.Timeline;
import org.springframework.stereotype.Component;

/**
 * Timelines and edits as JSON, the one place that knows how they are stored. Properties are in the order of their records,
 * so that equal timelines have equal bytes and one hash.
 */
@Component
class TimelineCodec {

    /** Raise it when the format changes, and keep reading the older ones. */
    static final int FORMAT_VERSION = 1;

    private final ObjectMapper json = JsonMapper.builder()
            .disable(MapperFeature.SORT_PROPERTIES_ALPHABETICALLY)
            .addMixIn(Edit.class, NamedEdit.class)
            .build();

    @JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "type")
    @JsonSubTypes({@JsonSubTypes.Type(value = LayTake.class, name = "lay-take"),
        @JsonSubTypes.Type(value = Remove.class, name = "remove")})
    private interface NamedEdit {
    }

    String toJson(Timeline timeline) {
        return write(timeline);
    }

    String toJson(Edit edit) {
        try {
            return json.writerFor(Edit.class).writeValueAsString(edit);
        } catch (JsonProcessingException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** The SHA-256 of a timeline's JSON: its name in the database, and never in an address. */
    String hash(Timeline timeline) {
        try {
            return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256")
                    .digest(write(timeline).getBytes(StandardCharsets.UTF_8)));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }

    byte[] deflated(Timeline timeline) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (DeflaterOutputStream deflater = new DeflaterOutputStream(bytes)) {
            deflater.write(write(timeline).getBytes(StandardCharsets.UTF_8));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return bytes.toByteArray();
    }

    Timeline inflated(int formatVersion, byte[] body) {
        if (formatVersion != FORMAT_VERSION) {
            throw new IllegalStateException("timeline format " + formatVersion + " is not known");
        }
        try (InflaterInputStream inflater = new InflaterInputStream(new ByteArrayInputStream(body))) {
            return json.readValue(inflater, Timeline.class);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private String write(Object value) {
        try {
            return json.writeValueAsString(value);
        } catch (JsonProcessingException e) {
            throw new UncheckedIOException(e);
        }
    }
}
