package org.mellowclass.app.sounds;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;

import org.mellowclass.app.jobs.Reporting;
import org.mellowclass.app.takes.Take;
import org.mellowclass.core.sound.Span;
import org.mellowclass.media.SoundRefused;

/** How takes come to their sound. */
public interface Arrival {

    /** Of which takes. */
    Set<Take.Origin> origins();

    /**
     * What was made of a take that has arrived.
     *
     * @param originalKey the file it came as
     * @param frames      how long it is, at 48 kHz
     * @param leadFrames  how much of it is room before the first word, at 48 kHz
     * @param missing     what never came, at 48 kHz
     * @param came        what is worth saying of the rest
     */
    record Made(String originalKey, int channels, long frames, long leadFrames, List<Span> missing, AsItCame came) {
    }

    /**
     * Writes the sound of a take at 48 kHz, and its skyline.
     *
     * @param originalKey the file it came as; null if it came in pieces
     * @throws SoundRefused if it can never be heard
     */
    Made make(Take take, String originalKey, Reporting.Listener permille, Path wav, Path skyline) throws IOException, SoundRefused;

    /** Told in the transaction in which a take becomes ready. */
    default void kept(Take take) {
    }

    /** Told when a take was refused: nothing of it has to be kept. */
    default void refused(Take take) {
    }

    /** Moments that were flagged while speaking, in frames of the take at 48 kHz. */
    default List<Long> flags(Take take) {
        return List.of();
    }

    /** Whether the sound can be made again of what is kept. */
    boolean canBeMadeAgain();
}
