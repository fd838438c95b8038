package org.mellowclass.core.testing;

import java.util.stream.IntStream;

/** How many seeds property tests try: fewer or many more by the system property {@code mellow.seeds}. */
public final class Seeds {

    private Seeds() {
    }

    public static IntStream first(int usual) {
        return IntStream.range(0, Integer.getInteger("mellow.seeds", usual));
    }
}
