package org.mellowclass.app.bench;

import java.util.List;

import org.mellowclass.app.people.Person;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
class PresenceController {

    private final Presence presence;

    PresenceController(Presence presence) {
        this.presence = presence;
    }

    /** @param frame where the ribbon is */
    record HereRequest(long frame) {
    }

    @PostMapping("/episodes/{episodeId}/here")
    List<Presence.Somebody> here(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, @RequestBody HereRequest request) {
        return presence.here(viewer, episodeId, request.frame());
    }

    @PostMapping("/episodes/{episodeId}/gone")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void gone(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId) {
        presence.gone(viewer, episodeId);
    }
}
