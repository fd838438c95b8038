package org.mellowclass.app.bench;

import java.io.IOException;
import java.util.Set;

import org.mellowclass.app.bench.BenchViews.TimelineView;
import org.mellowclass.app.live.LiveEvents;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Episode;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.sounds.SoundNotMade;
import org.mellowclass.core.soundcheck.WorkingLevel;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
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

@Controller
class BenchController {

    private final Access access;
    private final Bench bench;
    private final PreviewSound preview;
    private final BenchViews views;
    private final Wishes wishes;
    private final LiveEvents live;
    private final Laws laws;

    BenchController(Access access, Bench bench, PreviewSound preview, BenchViews views, Wishes wishes, LiveEvents live, Laws laws) {
        this.access = access;
        this.bench = bench;
        this.preview = preview;
        this.views = views;
        this.wishes = wishes;
        this.live = live;
        this.laws = laws;
    }

    @GetMapping("/episodes/{episodeId}/bench")
    String page(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, Model model) {
        Episode episode = access.openedEpisode(viewer, episodeId);
        model.addAttribute("episode", episode);
        model.addAttribute("own", !viewer.isTeacher());
        model.addAttribute("viewerId", viewer.id());
        model.addAttribute("laws", laws.json());
        model.addAttribute("workingLevel", WorkingLevel.STANDARD);
        return "bench/page";
    }

    @GetMapping("/episodes/{episodeId}/timeline")
    @ResponseBody
    TimelineView timeline(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, @RequestParam(defaultValue = "0") long since) {
        return views.view(viewer, episodeId, bench.head(viewer, episodeId), since);
    }

    /**
     * An edit or an undo.
     *
     * @param base  the revision that the page showed when it was asked for
     * @param shown the one that it shows now
     */
    record EditRequest(String clientId, long base, long shown, Wish edit, boolean evenOfOthers) {
        EditRequest {
            BenchViews.clientId(clientId);
        }
    }

    @PostMapping("/episodes/{episodeId}/edits")
    @ResponseBody
    TimelineView edit(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, @RequestBody EditRequest request) {
        if (request.edit() == null) {
            throw new IllegalArgumentException("no edit");
        }
        return views.view(viewer, episodeId, wishes.grant(viewer, episodeId, request.base(), request.clientId(), request.edit()), request.shown());
    }

    @PostMapping("/episodes/{episodeId}/undo")
    @ResponseBody
    TimelineView undo(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, @RequestBody EditRequest request) {
        return views.view(viewer, episodeId, bench.undo(viewer, episodeId, request.base(), request.clientId(), request.evenOfOthers()), request.shown());
    }

    @PostMapping("/episodes/{episodeId}/redo")
    @ResponseBody
    TimelineView redo(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, @RequestBody EditRequest request) {
        return views.view(viewer, episodeId, bench.redo(viewer, episodeId, request.base(), request.clientId()), request.shown());
    }

    /** Tells the page that there is a newer revision, as long as it stays open. */
    @GetMapping(path = "/episodes/{episodeId}/live", produces = MediaType.TEXT_EVENT_STREAM_VALUE)
    SseEmitter live(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId) {
        return live.follow(viewer.id(), Bench.topic(access.episode(viewer, episodeId).id()));
    }

    /** @param revision its number, or the key of a trial */
    @GetMapping("/episodes/{episodeId}/sound/{revision}/{finish}/{from:\\d+}-{to:\\d+}")
    ResponseEntity<byte[]> sound(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, @PathVariable String revision, @PathVariable String finish,
                                 @PathVariable long from, @PathVariable long to, @RequestParam(defaultValue = "") Set<Long> without,
                                 @RequestParam(defaultValue = "100") int percent) throws IOException {
        try {
            return bytes(preview.finished(viewer, episodeId, revision, Finish.named(finish), from, to, new PreviewSound.ForTheEar(without, percent)));
        } catch (SoundNotMade notYet) {
            return ResponseEntity.accepted().cacheControl(CacheControl.noStore()).build();
        }
    }

    private static ResponseEntity<byte[]> bytes(byte[] body) {
        return ResponseEntity.ok().contentType(MediaType.APPLICATION_OCTET_STREAM).cacheControl(CacheControl.noStore())
                .body(body);
    }
}
