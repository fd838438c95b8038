package org.mellowclass.app.people;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/** Random secrets as they are stored: so that who reads the database cannot use them. */
public final class Secrets {

    private Secrets() {
    }

    /** The SHA-256 of a random secret, in hexadecimal: it needs no salt, since nobody can try all there are. */
    public static String hash(String secret) {
        try {
            return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(secret.getBytes(StandardCharsets.US_ASCII)));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }
}
