package org.mellowclass.app.room;

import org.mellowclass.app.people.Person;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Two laptops of a crew that start together. */
@RestController
@RequestMapping("/episodes/{episodeId}/together")
class JointStartController {

    private final JointStarts starts;

    JointStartController(JointStarts starts) {
        this.starts = starts;
    }

    @GetMapping
    JointStarts.State state(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId) {
        return starts.of(viewer, episodeId);
    }

    @PostMapping("/wait")
    JointStarts.State waits(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, @RequestParam String laptop,
                            @RequestParam(defaultValue = "") String heard) {
        return starts.waits(viewer, episodeId, laptop, heard);
    }

    @PostMapping("/start")
    JointStarts.State start(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId) {
        return starts.start(viewer, episodeId);
    }
}
