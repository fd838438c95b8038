package org.mellowclass.app.feed;

import java.io.IOException;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.mellowclass.app.brief.Briefs;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Episode;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.ProvenLately;
import org.mellowclass.app.people.Voices.Speaker;
import org.mellowclass.app.people.Voices;
import org.mellowclass.app.review.HandIn;
import org.mellowclass.app.review.HandIns;
import org.mellowclass.core.soundcheck.Reading;
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
    private final Voices voices;
    private final Briefs briefs;
    private final VoicesOnAir onAir;

    AirController(Access access, AirDesk desk, HandIns handIns, Voices voices, Briefs briefs, VoicesOnAir onAir) {
        this.access = access;
        this.desk = desk;
        this.handIns = handIns;
        this.voices = voices;
        this.briefs = briefs;
        this.onAir = onAir;
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

    @ProvenLately
    @PostMapping("/episodes/{episodeId}/air")
    String publish(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, @RequestParam String title,
                   @RequestParam String description) {
        desk.publish(viewer, episodeId, title, description);
        return "redirect:/episodes/" + episodeId + "/air";
    }

    /** Puts a newer hand-in in the place of what is on air. */
    @ProvenLately
    @PostMapping("/episodes/{episodeId}/air/correction")
    String correct(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId) {
        desk.correct(viewer, episodeId);
        return "redirect:/episodes/" + episodeId + "/air";
    }

    /** Lets a reading through that is not good. */
    @PostMapping("/episodes/{episodeId}/air/let-through")
    String letThrough(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, @RequestParam Reading.Kind kind, @RequestParam String reason) {
        desk.letThrough(viewer, episodeId, kind, reason);
        return "redirect:/episodes/" + episodeId + "/air";
    }

    @PostMapping("/episodes/{episodeId}/air/off")
    String takeOff(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId) throws IOException {
        desk.takeOff(viewer, episodeId);
        return "redirect:/episodes/" + episodeId + "/air";
    }

    /** Says whose voices are in a take that is heard. */
    @PostMapping("/episodes/{episodeId}/takes/{takeId}/voices")
    String name(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, @PathVariable long takeId,
                @RequestParam(required = false) List<String> speaker, @RequestParam(defaultValue = "false") boolean nobody) {
        Set<Speaker> speakers = (speaker == null ? List.<String>of() : speaker).stream().map(Speaker::of).flatMap(Optional::stream).collect(Collectors.toSet());
        voices.name(viewer, episodeId, takeId, speakers, nobody);
        return "redirect:/episodes/" + episodeId + (viewer.isTeacher() ? "/air" : "/record");
    }

    private void add(Person viewer, long episodeId, Model model) {
        Episode episode = access.taughtEpisode(viewer, episodeId);
        Optional<HandIn> handIn = handIns.newest(episode);
        Optional<Publication> publication = desk.newest(episode);
        model.addAttribute("episode", episode);
        model.addAttribute("own", false);
        model.addAttribute("handIn", handIn.orElse(null));
        model.addAttribute("cleared", handIn.filter(HandIn::cleared).isPresent());
        model.addAttribute("mayLetThrough", desk.mayLetThrough(viewer, episode));
        model.addAttribute("gate", handIn.map(desk::gate).orElse(null));
        model.addAttribute("said", handIn.map(desk::said).orElse(List.of()));
        model.addAttribute("takenBack", onAir.unreadOfEpisode(episodeId));
        model.addAttribute("speakers", voices.speakers(episode));
        model.addAttribute("publication", publication.orElse(null));
        model.addAttribute("correction", desk.correction(episode).orElse(null));
        model.addAttribute("percent", publication.map(it -> desk.percent(it).orElse(0)).orElse(0));
        model.addAttribute("story", briefs.ofEpisode(episodeId).story());
        model.addAttribute("feedKey", desk.feedKey(viewer, episode.classId()));
    }
}
