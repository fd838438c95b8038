package org.mellowclass.core.sound;

import java.io.IOException;

/** How one sample is stored in a WAV file. */
public enum SampleFormat {

    PCM_16(1, 16), FLOAT_32(3, 32);

    private final int tag;
    private final int bits;

    SampleFormat(int tag, int bits) {
        this.tag = tag;
        this.bits = bits;
    }

    /** The format tag in the WAV header. */
    int tag() {
        return tag;
    }

    int bits() {
        return bits;
    }

    int bytes() {
        return bits / 8;
    }

    static SampleFormat of(int tag, int bits) throws IOException {
        for (SampleFormat format : values()) {
            if (format.tag == tag && format.bits == bits) {
                return format;
            }
        }
        throw new IOException("WAV format " + tag + " with " + bits + " bits is not one of ours");
    }
}
