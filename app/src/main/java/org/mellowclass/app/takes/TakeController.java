package org.mellowclass.app.takes;

import java.io.IOException;
import java.util.Map;

import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Episode;
import org.mellowclass.app.people.Person;
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
    private final TakeLists lists;

    TakeController(Access access, Recording recording, BringingIn bringingIn, TakeShelf takes, TakeLists lists) {
        this.access = access;
        this.recording = recording;
        this.bringingIn = bringingIn;
        this.takes = takes;
        this.lists = lists;
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

    @PostMapping("/episodes/{episodeId}/takes")
    @ResponseBody
    Map<String, Long> bringIn(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId,
                              @RequestParam MultipartFile file, @RequestParam String trackName,
                              @RequestParam(defaultValue = "BEHIND") Take.Placing placing) throws IOException {
        return Map.of("takeId", bringingIn.bringIn(viewer, episodeId, file.getOriginalFilename(), trackName, placing,
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
