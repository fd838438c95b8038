package org.mellowclass.app.store;

import java.security.SecureRandom;
import java.util.HexFormat;

/** Random 128-bit keys that cannot be guessed, as 32 hexadecimal digits. */
public final class RandomKey {

    private static final SecureRandom RANDOM = new SecureRandom();

    private RandomKey() {
    }

    public static String next() {
        byte[] bytes = new byte[16];
        RANDOM.nextBytes(bytes);
        return HexFormat.of().formatHex(bytes);
    }

    /** Whether a text could be such a key. */
    public static boolean is(String text) {
        return text != null && text.matches("[0-9a-f]{32}");
    }
}
