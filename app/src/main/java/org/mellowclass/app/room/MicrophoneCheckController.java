package org.mellowclass.app.room;

import java.io.IOException;
import java.io.InputStream;

import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.app.web.Turnstile;
import org.mellowclass.core.sound.Pcm16;
import org.mellowclass.core.soundcheck.MicrophoneCheck;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Says of a test sentence whether the microphone can be used as it is. */
@RestController
class MicrophoneCheckController {

    /** A test sentence with the room before it. */
    private static final int MOST_CHECK_SECONDS = 10;
    private static final int MOST_CHECK_BYTES = MOST_CHECK_SECONDS * 192_000 * 2 * 2;

    private final Access access;
    private final Turnstile turnstile = new Turnstile(4);

    MicrophoneCheckController(Access access) {
        this.access = access;
    }

    /** A level, or null where there is none; words are looked up by the page's own list. */
    record Checked(String advice, String verdict, Double levelDbfs, Double noiseDbfs, Double voiceToRoomLu, int humHz, int overs,
                   boolean oneSided) {

        static Checked of(MicrophoneCheck check) {
            return new Checked(check.advice().name(), check.verdict().name(),
                    check.levelDbfs().isPresent() ? check.levelDbfs().getAsDouble() : null,
                    check.noiseDbfs().isPresent() ? check.noiseDbfs().getAsDouble() : null,
                    check.voiceToRoomLu().isPresent() ? check.voiceToRoomLu().getAsDouble() : null,
                    check.humHz(), check.overs(), check.oneSided());
        }
    }

    /** Measures a test sentence, 16-bit little-endian; nothing of it is kept. */
    @PostMapping("/episodes/{episodeId}/microphone-check")
    Checked check(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, @RequestParam int rate,
                  @RequestParam int channels, InputStream body) throws IOException {
        access.ownEpisode(viewer, episodeId);
        return turnstile.pass(() -> check(rate, channels, body));
    }

    private static Checked check(int rate, int channels, InputStream body) throws IOException {
        byte[] pcm = body.readNBytes(MOST_CHECK_BYTES);
        if (rate < 8000 || rate > 192_000 || channels < 1 || channels > 2 || pcm.length < 2 * channels * rate) {
            throw Refusal.unfit("take.CHECK_TOO_SHORT");
        }
        return Checked.of(MicrophoneCheck.of(Pcm16.source(pcm, channels, rate)));
    }
}
