package org.mellowclass.app.room;

import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;

import org.mellowclass.app.bench.PlacedTakes;
import org.mellowclass.app.brief.Briefs;
import org.mellowclass.app.brief.ScriptLine;
import org.mellowclass.app.brief.WholeBrief;
import org.mellowclass.app.live.LiveEvents;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Consent;
import org.mellowclass.app.people.Episode;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.Voices;
import org.mellowclass.app.recording.Recording;
import org.mellowclass.app.takes.Take;
import org.mellowclass.app.takes.TakeShelf;
import org.mellowclass.app.turns.RecordingTurns;
import org.mellowclass.core.soundcheck.WorkingLevel;
import org.mellowclass.core.timeline.Timeline;
import org.springframework.http.MediaType;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/** The recording room: microphone, script, voices, and where a take will land. */
@Controller
class RoomController {

    private final Access access;
    private final Recording recording;
    private final Voices voices;
    private final TakeShelf takes;
    private final TakeLists lists;
    private final PlacedTakes placed;
    private final Briefs briefs;
    private final RecordingTurns turns;
    private final LiveEvents live;

    RoomController(Access access, Recording recording, Voices voices, TakeShelf takes, TakeLists lists, PlacedTakes placed, Briefs briefs,
                   RecordingTurns turns, LiveEvents live) {
        this.access = access;
        this.recording = recording;
        this.voices = voices;
        this.takes = takes;
        this.lists = lists;
        this.placed = placed;
        this.briefs = briefs;
        this.turns = turns;
        this.live = live;
    }

    @GetMapping("/episodes/{episodeId}/record")
    String room(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, @RequestParam(defaultValue = "0") long later, Model model) {
        Episode episode = access.openedEpisode(viewer, episodeId);
        WholeBrief brief = briefs.whole(episode.classId());
        Map<Long, Long> owners = briefs.owners(episode.classId(), episodeId);
        Set<Long> mine = owners.entrySet().stream().filter(owner -> owner.getValue() == viewer.id()).map(Map.Entry::getKey)
                .collect(Collectors.toSet());
        model.addAttribute("episode", episode);
        model.addAttribute("own", !viewer.isTeacher());
        model.addAttribute("later", Math.abs(later) > Timeline.MOST_FRAMES ? 0 : later);
        model.addAttribute("workingLevel", WorkingLevel.STANDARD);
        model.addAttribute("trackName", viewer.name());
        model.addAttribute("trackNames", takes.trackNames(viewer, episodeId));
        model.addAttribute("crew", access.crewOf(episode));
        model.addAttribute("viewerId", viewer.id());
        model.addAttribute("guests", voices.guests(viewer, episodeId));
        model.addAttribute("brief", brief);
        model.addAttribute("mine", mine);
        model.addAttribute("round", turns.ofClass(episode.classId()).orElse(null));
        lists.fill(viewer, episode, model);
        return "room/room";
    }

    /** The words of the script that takes read, by take: the captions of the bench. */
    @GetMapping("/episodes/{episodeId}/read-lines")
    @ResponseBody
    Map<Long, String> readLines(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId) {
        Episode episode = access.episode(viewer, episodeId);
        Map<Long, String> words = briefs.whole(episode.classId()).lines().stream().collect(Collectors.toMap(ScriptLine::id, ScriptLine::words));
        return takes.ready(episodeId).values().stream().filter(take -> take.lineId() != null && words.containsKey(take.lineId()))
                .collect(Collectors.toMap(Take::id, take -> words.get(take.lineId())));
    }

    /** Tells the page that the turn has gone on. */
    @GetMapping(path = "/episodes/{episodeId}/room/live", produces = MediaType.TEXT_EVENT_STREAM_VALUE)
    SseEmitter live(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId) {
        return live.follow(viewer.id(), RecordingTurns.topic(access.episode(viewer, episodeId).classId()));
    }

    @GetMapping("/episodes/{episodeId}/room/turn")
    String turn(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, Model model) {
        Episode episode = access.episode(viewer, episodeId);
        model.addAttribute("episode", episode);
        model.addAttribute("own", !viewer.isTeacher());
        model.addAttribute("round", turns.ofClass(episode.classId()).orElse(null));
        return "room/turn :: turn";
    }

    /** The take list alone, which the page asks for again while takes are on their way. */
    @GetMapping("/episodes/{episodeId}/takes")
    String list(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, Model model) {
        Episode episode = access.episode(viewer, episodeId);
        model.addAttribute("episode", episode);
        model.addAttribute("own", !viewer.isTeacher());
        lists.fill(viewer, episode, model);
        return "takes/list :: list";
    }

    /** Ends an interrupted recording with what has come of it. */
    @PostMapping("/takes/{takeId}/complete")
    String complete(@AuthenticationPrincipal Person viewer, @PathVariable long takeId) {
        return "redirect:/episodes/" + recording.complete(viewer, takeId) + "/record";
    }

    /** Begins a recording. */
    @PostMapping("/episodes/{episodeId}/recordings")
    @ResponseBody
    Recording.Begun begin(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, @RequestBody Recording.Start start) {
        return recording.begin(viewer, episodeId, start);
    }

    /** Where a take would land. */
    @GetMapping("/episodes/{episodeId}/landing")
    @ResponseBody
    PlacedTakes.Landing landing(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, @RequestParam String track,
                          @RequestParam(defaultValue = "-1") long place) {
        return placed.landing(viewer, episodeId, track.isBlank() ? viewer.name() : track.strip(), place);
    }

    record Guest(String name, Consent extent) {
    }

    @PostMapping("/episodes/{episodeId}/guests")
    @ResponseBody
    List<Voices.Guest> addGuest(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, @RequestBody Guest guest) {
        return voices.addGuest(viewer, episodeId, guest.name(), guest.extent());
    }
}
