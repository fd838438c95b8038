package org.mellowclass.app.feed;

import java.io.IOException;
import java.util.Optional;

import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Episode;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.review.HandIn;
import org.mellowclass.app.review.HandIns;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

@Controller
class AirController {

    private final Access access;
    private final AirDesk desk;
    private final HandIns handIns;

    AirController(Access access, AirDesk desk, HandIns handIns) {
        this.access = access;
        this.desk = desk;
        this.handIns = handIns;
    }

    @GetMapping("/episodes/{episodeId}/air")
    String page(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, Model model) {
        add(viewer, episodeId, model);
        return "feed/air-desk";
    }

    /** The state alone, which the page asks for again while the MP3 is made. */
    @GetMapping("/episodes/{episodeId}/air/state")
    String state(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, Model model) {
        add(viewer, episodeId, model);
        return "feed/air-state :: state";
    }

    @PostMapping("/episodes/{episodeId}/air")
    String publish(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, @RequestParam String title,
                   @RequestParam String description, @RequestParam(defaultValue = "false") boolean consent) {
        desk.publish(viewer, episodeId, title, description, consent);
        return "redirect:/episodes/" + episodeId + "/air";
    }

    @PostMapping("/episodes/{episodeId}/air/off")
    String takeOff(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId) throws IOException {
        desk.takeOff(viewer, episodeId);
        return "redirect:/episodes/" + episodeId + "/air";
    }

    private void add(Person viewer, long episodeId, Model model) {
        Episode episode = access.taughtEpisode(viewer, episodeId);
        Optional<HandIn> handIn = handIns.newest(episode);
        Optional<Publication> publication = desk.newest(episode);
        model.addAttribute("episode", episode);
        model.addAttribute("own", false);
        model.addAttribute("handIn", handIn.orElse(null));
        model.addAttribute("cleared", handIn.filter(HandIn::cleared).isPresent());
        model.addAttribute("publication", publication.orElse(null));
        model.addAttribute("percent", publication.map(it -> desk.percent(it).orElse(0)).orElse(0));
        model.addAttribute("feedKey", desk.feedKey(viewer, episode.classId()));
    }
}
