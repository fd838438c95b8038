package org.mellowclass.app.bench;

import java.util.Arrays;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.IntStream;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import org.mellowclass.core.timeline.Fade;
import org.mellowclass.core.timeline.VolumeCurve;
import org.mellowclass.core.timeline.edit.Gains;
import org.springframework.stereotype.Component;

/** What the core decides and pages must know to draw and to offer it, as data: scripts hold no rule of their own. */
@Component
public class Laws {

    private static final int STEPS = 64;

    private final String json;

    Laws(ObjectMapper mapper) throws JsonProcessingException {
        Map<String, double[]> fades = new TreeMap<>();
        Arrays.stream(Fade.Shape.values()).forEach(shape -> fades.put(shape.name(), sampled(shape)));
        json = mapper.writeValueAsString(new View(Gains.LOWEST_DB, Gains.HIGHEST_DB, VolumeCurve.SILENT_DB, VolumeCurve.HIGHEST_DB, fades));
    }

    /**
     * @param fades by shape, the gain at equal steps from the silent end to the loud one
     */
    public record View(double lowestGainDb, double highestGainDb, double lowestCurveDb, double highestCurveDb, Map<String, double[]> fades) {
    }

    /** The middle of each step, as the mixer plays a fade of so many frames. */
    private static double[] sampled(Fade.Shape shape) {
        Fade fade = Fade.of(STEPS, shape);
        return IntStream.range(0, STEPS).mapToDouble(fade::gainAt).toArray();
    }

    public String json() {
        return json;
    }
}
