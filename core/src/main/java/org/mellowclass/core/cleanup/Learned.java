package org.mellowclass.core.cleanup;

import java.io.IOException;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * What steps have learned of one take and one room in it, each behind the steps in front of it: whoever tries a recipe again with another number
 * waits for nothing to be learned twice. For several threads.
 */
public final class Learned {

    private static final int MOST = 200;

    private final Map<Key, Object> known = new HashMap<>();

    private record Key(List<Recipe.Step> before, StepKind by) {
    }

    /** What a step learns of a take. */
    @FunctionalInterface
    interface Learning<T> {
        T learn() throws IOException;
    }

    /** @param before the steps in front of it that are done */
    @SuppressWarnings("unchecked")
    <T> T once(List<Recipe.Step> before, StepKind by, Learning<T> learning) throws IOException {
        Key key = new Key(List.copyOf(before), by);
        synchronized (known) {
            if (known.containsKey(key)) {
                return (T) known.get(key);
            }
        }
        T learned = learning.learn();
        synchronized (known) {
            if (known.size() >= MOST) {
                known.clear();
            }
            known.put(key, learned);
        }
        return learned;
    }
}
