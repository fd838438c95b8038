package org.mellowclass.benchmarks;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;

/** A trace in the browser's Trace Event Format: how long scripts ran on the page's thread between the starts of two frames. */
final class TraceOfFrames {

    private static final Set<String> SCRIPTS = Set.of("FunctionCall", "EvaluateScript", "v8.callFunction", "FireAnimationFrame", "RunMicrotasks", "TimerFire", "EventDispatch");
    private static final String FRAME = "BeginMainThreadFrame";
    private static final double MICROS = 1000;

    private record Interval(double from, double to) {
    }

    private final List<Interval> scripts = new ArrayList<>();
    private final TreeMap<Double, Double> frames = new TreeMap<>();

    TraceOfFrames(byte[] trace) throws IOException {
        JsonNode events = new ObjectMapper().readTree(trace).get("traceEvents");
        String thread = busiest(events);
        for (JsonNode event : events) {
            if (!thread.equals(threadOf(event))) {
                continue;
            }
            double at = event.path("ts").asDouble();
            if (FRAME.equals(event.path("name").asText())) {
                frames.put(at, 0.0);
            } else if (SCRIPTS.contains(event.path("name").asText()) && event.has("dur")) {
                scripts.add(new Interval(at, at + event.get("dur").asDouble()));
            }
        }
        scripts.sort((a, b) -> Double.compare(a.from, b.from));
    }

    /** One number a frame: what runs before the next frame starts is what that one waits for. */
    double[] scriptMsByFrame() throws IOException {
        double until = 0;
        for (Interval script : scripts) {
            // calls lie in each other: their time counts once
            double from = Math.max(until, script.from);
            Double frame = frames.floorKey(script.from);
            if (script.to > from && frame != null) {
                frames.merge(frame, (script.to - from) / MICROS, Double::sum);
            }
            until = Math.max(until, script.to);
        }
        if (frames.isEmpty()) {
            throw new IOException("the trace has no frames");
        }
        return frames.values().stream().mapToDouble(Double::doubleValue).toArray();
    }

    private static String busiest(JsonNode events) {
        Map<String, Integer> calls = new HashMap<>();
        for (JsonNode event : events) {
            if (FRAME.equals(event.path("name").asText())) {
                calls.merge(threadOf(event), 1, Integer::sum);
            }
        }
        return calls.entrySet().stream().max(Map.Entry.comparingByValue()).map(Map.Entry::getKey).orElse("");
    }

    private static String threadOf(JsonNode event) {
        return event.path("pid").asText() + " " + event.path("tid").asText();
    }
}
