package org.mellowclass.app.room;

import java.io.IOException;

import org.mellowclass.app.bench.Mending;
import org.mellowclass.app.bench.PlacedTakes;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.Voices.Speaker;
import org.mellowclass.app.sounds.SoundMaking;
import org.mellowclass.app.sounds.TakeSounds;
import org.mellowclass.app.takes.Take;
import org.mellowclass.app.takes.TakeShelf;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.app.web.Refusal;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** What the take list offers for a take with one press: choose it among those of its line, mend what was noticed, or try it again. */
@Controller
class MendingController {

    private final Access access;
    private final Mending mending;
    private final TakeShelf takes;
    private final TakeSounds sounds;
    private final PlacedTakes placed;
    private final SoundMaking making;

    MendingController(Access access, Mending mending, TakeShelf takes, TakeSounds sounds, PlacedTakes placed, SoundMaking making) {
        this.access = access;
        this.mending = mending;
        this.takes = takes;
        this.sounds = sounds;
        this.placed = placed;
        this.making = making;
    }

    /** Chooses a take among those of its line. */
    @PostMapping("/episodes/{episodeId}/takes/{takeId}/choose")
    String choose(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, @PathVariable long takeId) {
        long later = placed.choose(viewer, episodeId, takeId);
        return "redirect:/episodes/" + episodeId + "/record" + (later == 0 ? "" : "?later=" + later);
    }

    /** Mends what was noticed about a take; of two speakers it may be said who is on which side. */
    @PostMapping("/episodes/{episodeId}/takes/{takeId}/fix")
    String fix(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, @PathVariable long takeId,
               @RequestParam(required = false) String left, @RequestParam(required = false) String right) {
        mending.mend(viewer, episodeId, takeId, Speaker.of(left), Speaker.of(right));
        return "redirect:/episodes/" + episodeId + "/record";
    }

    /** Tries once more to make a take ready that waits for room, or could not be made. */
    @PostMapping("/takes/{takeId}/again")
    String again(@AuthenticationPrincipal Person viewer, @PathVariable long takeId) {
        return "redirect:/episodes/" + making.again(viewer, takeId) + "/record";
    }

    /** Makes a much too quiet take as loud as a good one, on the page: it can be undone there. */
    @PostMapping("/episodes/{episodeId}/takes/{takeId}/louder")
    String louder(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, @PathVariable long takeId) throws IOException {
        access.ownEpisode(viewer, episodeId);
        Take take = takes.ofEpisode(viewer, episodeId).stream().filter(it -> it.id() == takeId && it.ready()).findFirst().orElseThrow(NotFound::new);
        double gain = sounds.gainForQuiet(take).orElseThrow(() -> Refusal.conflict("take.NOTHING_TO_FIX"));
        placed.setTakeGain(viewer, episodeId, takeId, gain);
        return "redirect:/episodes/" + episodeId + "/record";
    }
}
