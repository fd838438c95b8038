package org.mellowclass.app.sounds;

import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.MapperFeature;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.json.JsonMapper;
import org.mellowclass.core.treatment.Step;
import org.mellowclass.core.treatment.Treatment;

/** Treatments as they are stored, and the names of the sounds they make. Its version is part of the names: {@link Treatment#ENGINE_VERSION}. */
public final class TreatmentCodec {

    static final String AS_IT_IS = "as-it-is";

    private static final ObjectMapper JSON = JsonMapper.builder().disable(MapperFeature.SORT_PROPERTIES_ALPHABETICALLY)
            .addMixIn(Step.class, NamedStep.class).build();

    private TreatmentCodec() {
    }

    public static String write(Treatment treatment) {
        try {
            return JSON.writeValueAsString(treatment);
        } catch (JsonProcessingException e) {
            throw new UncheckedIOException(e);
        }
    }

    public static Treatment read(String stored) {
        try {
            return JSON.readValue(stored, Treatment.class);
        } catch (JsonProcessingException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** What tells the sounds of one take apart: the same for equal treatments by the same engine. */
    static String key(Treatment treatment) {
        if (treatment.equals(Treatment.NONE)) {
            return AS_IT_IS;
        }
        try {
            byte[] named = (Treatment.ENGINE_VERSION + ":" + write(treatment)).getBytes(StandardCharsets.UTF_8);
            return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(named));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }
}
