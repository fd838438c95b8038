package org.mellowclass.app.takes;

import java.io.IOException;
import java.util.List;
import java.util.Map;

import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Episode;
import org.mellowclass.app.people.Person;
import org.mellowclass.core.soundcheck.WorkingLevel;
import org.springframework.core.io.FileSystemResource;
import org.springframework.core.io.Resource;
import org.springframework.http.CacheControl;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.multipart.MultipartFile;

@Controller
class TakeController {

    private static final MediaType WAV = MediaType.valueOf("audio/wav");

    private final Access access;
    private final Recording recording;
    private final BringingIn bringingIn;
    private final TakeShelf takes;

    TakeController(Access access, Recording recording, BringingIn bringingIn, TakeShelf takes) {
        this.access = access;
        this.recording = recording;
        this.bringingIn = bringingIn;
        this.takes = takes;
    }

    /** One line of the take list. */
    record TakeLine(Take take, Integer percent) {
    }

    @GetMapping("/episodes/{episodeId}/record")
    String room(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, Model model) {
        Episode episode = access.episode(viewer, episodeId);
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
        List<TakeLine> lines = takes.ofEpisode(viewer, episode.id()).stream()
                .filter(take -> take.state() != Take.State.RECORDING)
                .map(take -> new TakeLine(take, take.state() == Take.State.ARRIVED ? takes.percent(take).orElse(0) : null))
                .toList();
        model.addAttribute("takes", lines);
        model.addAttribute("onTheWay", lines.stream().anyMatch(line -> line.percent() != null));
    }

    record Begin(String trackName, int sampleRate) {
    }

    @PostMapping("/episodes/{episodeId}/recordings")
    @ResponseBody
    Map<String, Long> begin(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, @RequestBody Begin begin) {
        return Map.of("takeId", recording.begin(viewer, episodeId, begin.trackName(), begin.sampleRate()));
    }

    @PutMapping(path = "/takes/{takeId}/chunks/{number}", consumes = MediaType.APPLICATION_OCTET_STREAM_VALUE)
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void chunk(@AuthenticationPrincipal Person viewer, @PathVariable long takeId, @PathVariable int number,
               @RequestParam long firstFrame, @RequestBody byte[] pcm) {
        recording.chunk(viewer, takeId, number, firstFrame, pcm);
    }

    record End(int chunks) {
    }

    @PostMapping("/takes/{takeId}/end")
    @ResponseBody
    Map<String, List<Integer>> end(@AuthenticationPrincipal Person viewer, @PathVariable long takeId, @RequestBody End end) {
        return Map.of("missing", recording.end(viewer, takeId, end.chunks()));
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
