package org.mellowclass.app.soundcheck;

import java.util.Optional;

import org.mellowclass.app.bench.Bench;
import org.mellowclass.app.bench.Head;
import org.mellowclass.app.brief.Briefs;
import org.mellowclass.app.people.Person;
import org.mellowclass.core.timeline.Timeline;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;

/** The sound check beside the bench. */
@Controller
class SoundCheckController {

    private final SoundChecks checks;
    private final Bench bench;
    private final Briefs briefs;

    SoundCheckController(SoundChecks checks, Bench bench, Briefs briefs) {
        this.checks = checks;
        this.bench = bench;
        this.briefs = briefs;
    }

    @GetMapping("/episodes/{episodeId}/sound-check")
    String panel(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, Model model) {
        Head head = bench.head(viewer, episodeId);
        Optional<SoundChecks.OfPage> newest = checks.newest(viewer, episodeId);
        model.addAttribute("current", newest.isPresent() && newest.get().revision() == head.seq());
        model.addAttribute("revision", head.seq());
        model.addAttribute("own", !viewer.isTeacher());
        newest.ifPresent(read -> {
            Timeline timeline = bench.timeline(viewer, episodeId, read.revision());
            model.addAttribute("report", read.check());
            model.addAttribute("mendable", checks.mendable(viewer, episodeId, read));
            model.addAttribute("trackNames", timeline.trackNames());
            model.addAttribute("frames", timeline.endFrame());
            model.addAttribute("brief", briefs.ofEpisode(episodeId));
        });
        return "soundcheck/panel";
    }
}
