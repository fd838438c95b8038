package org.mellowclass.app.recording;

import java.security.GeneralSecurityException;
import java.security.SecureRandom;
import java.util.Arrays;
import java.util.Optional;

import javax.crypto.AEADBadTagException;
import javax.crypto.Cipher;
import javax.crypto.spec.GCMParameterSpec;
import javax.crypto.spec.SecretKeySpec;

/**
 * Seals what a laptop keeps of a take until it is sent: AES-256-GCM (NIST SP 800-38D), a random nonce of 12 bytes in front. The page has the
 * key only for as long as it records; what it leaves behind, only the server can read.
 */
final class Seal {

    static final int NONCE_BYTES = 12;
    private static final int TAG_BYTES = 16;
    /** How much longer a sealed chunk is. */
    static final int MORE_BYTES = NONCE_BYTES + TAG_BYTES;
    private static final int KEY_BYTES = 32;
    private static final SecureRandom RANDOM = new SecureRandom();

    private Seal() {
    }

    static byte[] newKey() {
        byte[] key = new byte[KEY_BYTES];
        RANDOM.nextBytes(key);
        return key;
    }

    /** What was sealed; empty if it was not sealed with this key, or has been changed. */
    static Optional<byte[]> open(byte[] key, byte[] sealed) {
        if (sealed.length < MORE_BYTES) {
            return Optional.empty();
        }
        try {
            Cipher cipher = Cipher.getInstance("AES/GCM/NoPadding");
            cipher.init(Cipher.DECRYPT_MODE, new SecretKeySpec(key, "AES"), new GCMParameterSpec(8 * TAG_BYTES, Arrays.copyOf(sealed, NONCE_BYTES)));
            return Optional.of(cipher.doFinal(sealed, NONCE_BYTES, sealed.length - NONCE_BYTES));
        } catch (AEADBadTagException other) {
            return Optional.empty();
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException(e);
        }
    }
}
