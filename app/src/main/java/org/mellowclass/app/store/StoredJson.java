package org.mellowclass.app.store;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.List;
import java.util.function.UnaryOperator;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.type.TypeReference;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;

/**
 * A kind of value that is stored as JSON with its version: {@code {"version":2,"value":…}}. What was stored before there were
 * versions is version 1, and bare.
 */
public final class StoredJson<T> {

    private static final String VERSION = "version";
    private static final String VALUE = "value";

    private final ObjectMapper json;
    private final TypeReference<T> type;
    private final List<UnaryOperator<JsonNode>> upgraders;

    /** @param upgraders from version 1 to 2, from 2 to 3 …: the newest version is one more than there are */
    public StoredJson(ObjectMapper json, TypeReference<T> type, List<UnaryOperator<JsonNode>> upgraders) {
        this.json = json;
        this.type = type;
        this.upgraders = List.copyOf(upgraders);
    }

    /** Of version 2, which differs from version 1 only by saying so. */
    public static <T> StoredJson<T> of(ObjectMapper json, TypeReference<T> type) {
        return new StoredJson<>(json, type, List.of(bare -> bare));
    }

    public String write(T value) {
        ObjectNode stored = json.createObjectNode().put(VERSION, upgraders.size() + 1);
        try {
            stored.set(VALUE, json.readTree(json.writerFor(type).writeValueAsString(value)));
            return json.writeValueAsString(stored);
        } catch (JsonProcessingException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** @throws IllegalStateException for a version that is newer than this application */
    public T read(String stored) {
        try {
            JsonNode tree = json.readTree(stored);
            boolean versioned = tree.isObject() && tree.has(VERSION) && tree.has(VALUE);
            int version = versioned ? tree.get(VERSION).asInt() : 1;
            if (version < 1 || version > upgraders.size() + 1) {
                throw new IllegalStateException("stored in version " + version + ", which is not known");
            }
            JsonNode value = versioned ? tree.get(VALUE) : tree;
            for (UnaryOperator<JsonNode> upgrader : upgraders.subList(version - 1, upgraders.size())) {
                value = upgrader.apply(value);
            }
            return json.readerFor(type).readValue(value);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
