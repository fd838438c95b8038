package org.mellowclass.app.bench;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** Values in the order in which they were first met: what many clips share is written once and named by its place. */
final class Places<T> {

    private final Map<T, Integer> places = new LinkedHashMap<>();

    int of(T value) {
        return places.computeIfAbsent(value, met -> places.size());
    }

    List<T> values() {
        return List.copyOf(places.keySet());
    }
}
