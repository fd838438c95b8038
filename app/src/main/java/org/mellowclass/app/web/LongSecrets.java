package org.mellowclass.app.web;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Base64;

import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import org.springframework.security.crypto.password.PasswordEncoder;

/** Bcrypt of a secret of any length: it looks at 72 bytes only, so it is given the SHA-256 of the secret, in letters. */
class LongSecrets implements PasswordEncoder {

    static final String ID = "sha256-bcrypt";

    private final PasswordEncoder bcrypt = new BCryptPasswordEncoder();

    @Override
    public String encode(CharSequence secret) {
        return bcrypt.encode(digest(secret));
    }

    @Override
    public boolean matches(CharSequence secret, String hash) {
        return bcrypt.matches(digest(secret), hash);
    }

    private static String digest(CharSequence secret) {
        try {
            byte[] digest = MessageDigest.getInstance("SHA-256").digest(secret.toString().getBytes(StandardCharsets.UTF_8));
            return Base64.getEncoder().encodeToString(digest);
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }
}
