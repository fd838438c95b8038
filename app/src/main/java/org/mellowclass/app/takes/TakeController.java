package org.mellowclass.app.takes;

import java.io.IOException;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Map;

import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Episode;
import org.mellowclass.app.people.Person;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.soundcheck.WorkingLevel;
import org.springframework.core.io.FileSystemResource;
import org.springframework.core.io.Resource;
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
import org.springframework.web.multipart.MultipartFile;

@Controller
class TakeController {

    private static final MediaType WAV = MediaType.valueOf("audio/wav");

    private final Access access;
    private final Recording recording;
    private final BringingIn bringingIn;
    private final TakeShelf takes;
    private final Clock clock;

    TakeController(Access access, Recording recording, BringingIn bringingIn, TakeShelf takes, Clock clock) {
        this.access = access;
        this.recording = recording;
        this.bringingIn = bringingIn;
        this.takes = takes;
        this.clock = clock;
    }

    /**
     * One line of the take list.
     *
     * @param percent    how far it has come on its way to being ready; null if it is not on its way
     * @param safeFrames how much of an unfinished recording is safe, at 48 kHz; 0 for others
     * @param missing    what never came, at 48 kHz
     */
    record TakeLine(Take take, Integer percent, boolean recording, boolean interrupted, long safeFrames, List<Span> missing) {
    }

    @GetMapping("/episodes/{episodeId}/record")
    String room(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, Model model) {
        Episode episode = access.openedEpisode(viewer, episodeId);
        model.addAttribute("episode", episode);
        model.addAttribute("own", !viewer.isTeacher());
        model.addAttribute("workingLevel", WorkingLevel.STANDARD);
        model.addAttribute("trackName", viewer.name());
        model.addAttribute("trackNames", takes.trackNames(viewer, episodeId));
        addTakes(viewer, episode, model);
        return "takes/room";
    }

    /** The take list alone, which the page asks for again while takes are on their way. */
    @GetMapping("/episodes/{episodeId}/takes")
    String list(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, Model model) {
        Episode episode = access.episode(viewer, episodeId);
        model.addAttribute("episode", episode);
        model.addAttribute("own", !viewer.isTeacher());
        addTakes(viewer, episode, model);
        return "takes/list :: list";
    }

    private void addTakes(Person viewer, Episode episode, Model model) {
        Instant now = clock.instant();
        List<TakeLine> lines = takes.ofEpisode(viewer, episode.id()).stream().map(take -> line(take, now)).toList();
        model.addAttribute("takes", lines);
        model.addAttribute("onTheWay", lines.stream().anyMatch(line -> line.percent() != null));
    }

    private TakeLine line(Take take, Instant now) {
        boolean unfinished = take.state() == Take.State.RECORDING;
        return new TakeLine(take, take.state() == Take.State.ARRIVED ? takes.percent(take).orElse(0) : null,
                take.recording(now), take.interrupted(now), unfinished ? takes.safeFrames(take) : 0, takes.missing(take));
    }

    record Begin(String trackName, int sampleRate) {
    }

    @PostMapping("/episodes/{episodeId}/recordings")
    @ResponseBody
    Recording.Begun begin(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, @RequestBody Begin begin) {
        return recording.begin(viewer, episodeId, begin.trackName(), begin.sampleRate());
    }

    /** Ends an interrupted recording with what has come of it. */
    @PostMapping("/takes/{takeId}/complete")
    String complete(@AuthenticationPrincipal Person viewer, @PathVariable long takeId) {
        return "redirect:/episodes/" + recording.complete(viewer, takeId) + "/record";
    }

    @PostMapping("/episodes/{episodeId}/takes")
    @ResponseBody
    Map<String, Long> bringIn(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId,
                              @RequestParam MultipartFile file, @RequestParam String trackName) throws IOException {
        return Map.of("takeId", bringingIn.bringIn(viewer, episodeId, file.getOriginalFilename(), trackName,
                target -> file.transferTo(target.toFile())));
    }

    @GetMapping("/takes/{takeId}/sound")
    ResponseEntity<Resource> sound(@AuthenticationPrincipal Person viewer, @PathVariable long takeId) throws IOException {
        return ResponseEntity.ok().contentType(WAV).cacheControl(CacheControl.noStore())
                .body(new FileSystemResource(takes.soundFile(viewer, takeId)));
    }

    @GetMapping("/takes/{takeId}/skyline/{level}/{tile}")
    ResponseEntity<byte[]> skyline(@AuthenticationPrincipal Person viewer, @PathVariable long takeId,
                                   @PathVariable int level, @PathVariable int tile) throws IOException {
        return ResponseEntity.ok().contentType(MediaType.APPLICATION_OCTET_STREAM).cacheControl(CacheControl.noStore())
                .body(takes.skyline(viewer, takeId, level, tile));
    }
}
