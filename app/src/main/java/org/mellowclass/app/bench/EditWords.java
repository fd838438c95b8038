package org.mellowclass.app.bench;

import java.io.UncheckedIOException;
import java.util.Locale;

import org.mellowclass.core.sound.Frames;
import org.springframework.context.MessageSource;
import org.springframework.stereotype.Component;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;

/** Stored edits in words, for the log. */
@Component
class EditWords {

    private final ObjectMapper json;
    private final MessageSource messages;

    EditWords(ObjectMapper json, MessageSource messages) {
        this.json = json;
        this.messages = messages;
    }

    /** How going back to a revision is stored. */
    static String goneBack(long seq) {
        return "{\"type\":\"go-back\",\"seq\":" + seq + "}";
    }

    /** @param edit as it is stored, see {@link TimelineCodec} */
    String of(String edit) {
        try {
            JsonNode tree = json.readTree(edit);
            String type = tree.get("type").asText();
            if (type.equals("together")) {
                int edits = tree.get("edits").size();
                JsonNode first = tree.get("edits").path(0);
                String kind = first.path("type").asText();
                return text(edits > 1 && kind.equals("remove") ? "together" : kind, seconds(tree), "", edits);
            }
            return text(type, seconds(tree), name(tree), tree.path("seq").asLong());
        } catch (JsonProcessingException e) {
            throw new UncheckedIOException(e);
        }
    }

    String of(String code, Object... arguments) {
        return messages.getMessage("log." + code, arguments, Locale.ENGLISH);
    }

    private String text(String type, String seconds, String name, long number) {
        return of(type, seconds, name, String.valueOf(number));
    }

    /** What a span, or the sum of several, lasts. */
    private static String seconds(JsonNode edit) {
        long frames = edit.path("frames").asLong();
        for (JsonNode span : edit.findValues("span")) {
            frames += span.path("endFrame").asLong() - span.path("startFrame").asLong();
        }
        return String.format(Locale.ENGLISH, "%.2f", (double) frames / Frames.RATE);
    }

    private static String name(JsonNode edit) {
        JsonNode name = edit.hasNonNull("name") ? edit.get("name") : edit.path("trackName");
        return name.asText("");
    }
}
