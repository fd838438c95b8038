package org.mellowclass.app.sounds;

import java.io.IOException;

import org.mellowclass.app.people.Person;
import org.springframework.core.io.Resource;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;

@Controller
class SoundController {

    private static final MediaType WAV = MediaType.valueOf("audio/wav");

    private final TakeSounds sounds;
    private final SoundDrawings drawings;

    SoundController(TakeSounds sounds, SoundDrawings drawings) {
        this.sounds = sounds;
        this.drawings = drawings;
    }

    /** A take as it is. */
    @GetMapping("/takes/{takeId}/sound")
    ResponseEntity<Resource> sound(@AuthenticationPrincipal Person viewer, @PathVariable long takeId) throws IOException {
        return ResponseEntity.ok().contentType(WAV).cacheControl(CacheControl.noStore())
                .body(sounds.sound(viewer, takeId));
    }

    @GetMapping("/sounds/{soundId}/skyline/{level}/{tile}")
    ResponseEntity<byte[]> skyline(@AuthenticationPrincipal Person viewer, @PathVariable long soundId, @PathVariable int level,
                                   @PathVariable int tile) throws IOException {
        try {
            return bytes(sounds.skyline(viewer, soundId, level, tile));
        } catch (SoundNotMade notYet) {
            return ResponseEntity.accepted().cacheControl(CacheControl.noStore()).build();
        }
    }

    @GetMapping("/sounds/{soundId}/samples/{from:\\d+}-{to:\\d+}")
    ResponseEntity<byte[]> samples(@AuthenticationPrincipal Person viewer, @PathVariable long soundId, @PathVariable long from, @PathVariable long to)
            throws IOException {
        try {
            return bytes(drawings.samples(viewer, soundId, from, to));
        } catch (SoundNotMade notYet) {
            return ResponseEntity.accepted().cacheControl(CacheControl.noStore()).build();
        }
    }

    @GetMapping("/sounds/{soundId}/spectrum/{from:\\d+}-{to:\\d+}/{columns}")
    ResponseEntity<byte[]> spectrum(@AuthenticationPrincipal Person viewer, @PathVariable long soundId, @PathVariable long from, @PathVariable long to,
                                    @PathVariable int columns) throws IOException {
        try {
            return bytes(drawings.spectrum(viewer, soundId, from, to, columns));
        } catch (SoundNotMade notYet) {
            return ResponseEntity.accepted().cacheControl(CacheControl.noStore()).build();
        }
    }

    private static ResponseEntity<byte[]> bytes(byte[] body) {
        return ResponseEntity.ok().contentType(MediaType.APPLICATION_OCTET_STREAM).cacheControl(CacheControl.noStore()).body(body);
    }
}
