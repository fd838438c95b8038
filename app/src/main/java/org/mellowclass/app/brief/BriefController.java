package org.mellowclass.app.brief;

import java.util.List;
import java.util.Locale;
import java.util.Map;

import org.mellowclass.app.brief.BriefChanges.Change;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.SchoolClass;
import org.mellowclass.app.shelf.Shelf;
import org.mellowclass.core.soundcheck.HouseSound;
import org.springframework.context.MessageSource;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseBody;

@Controller
class BriefController {

    private final Access access;
    private final Briefs briefs;
    private final Shelf shelf;
    private final MessageSource messages;

    BriefController(Access access, Briefs briefs, Shelf shelf, MessageSource messages) {
        this.access = access;
        this.briefs = briefs;
        this.shelf = shelf;
        this.messages = messages;
    }

    @GetMapping("/classes/{classId}/brief")
    String page(@AuthenticationPrincipal Person viewer, @PathVariable long classId, Model model) {
        SchoolClass schoolClass = access.taughtClass(viewer, classId);
        model.addAttribute("schoolClass", schoolClass);
        model.addAttribute("whole", briefs.whole(classId));
        model.addAttribute("presets", HouseSound.Preset.values());
        model.addAttribute("formats", Brief.OutputFormat.values());
        model.addAttribute("recipes", Brief.Recipe.values());
        model.addAttribute("actions", Brief.Actions.values());
        model.addAttribute("sounds", shelf.find(viewer, classId, ""));
        model.addAttribute("excerpts", shelf.excerpts(viewer, classId));
        model.addAttribute("otherClasses", access.classesOf(viewer).stream().filter(other -> other.id() != classId).toList());
        return "brief/brief";
    }

    /** @param changes what will change for whom, which the teacher has to read first; empty if it has been written */
    record Answer(List<String> changes) {
    }

    @PostMapping("/classes/{classId}/brief")
    @ResponseBody
    Answer change(@AuthenticationPrincipal Person viewer, @PathVariable long classId, @RequestBody BriefDraft draft) {
        return answer(briefs.change(viewer, classId, draft));
    }

    record Copy(long toClassId, boolean evenSo) {
    }

    @PostMapping("/classes/{classId}/brief/copy")
    @ResponseBody
    Answer copy(@AuthenticationPrincipal Person viewer, @PathVariable long classId, @RequestBody Copy copy) {
        return answer(briefs.copy(viewer, classId, copy.toClassId(), copy.evenSo()));
    }

    private Answer answer(List<Change> changes) {
        return new Answer(changes.stream().map(change ->
                messages.getMessage("brief.change." + change.code(), change.arguments().toArray(), Locale.UK)).toList());
    }

    record Giving(long personId) {
    }

    /** Gives a part to a student of the crew, or to nobody. */
    @PostMapping("/episodes/{episodeId}/parts/{partId}")
    @ResponseBody
    Map<String, Long> give(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, @PathVariable long partId,
                           @RequestBody Giving giving) {
        return Map.of("episodeId", briefs.give(viewer, episodeId, partId, giving.personId()).id());
    }
}
