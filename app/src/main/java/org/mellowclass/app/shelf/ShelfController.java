package org.mellowclass.app.shelf;

import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

import org.mellowclass.app.bench.BenchViews;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Episode;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.SchoolClass;
import org.mellowclass.app.web.SkylinePicture;
import org.mellowclass.app.web.Words;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Span;
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
class ShelfController {

    private static final MediaType WAV = MediaType.valueOf("audio/wav");
    private static final int PICTURE_COLUMNS = 120;

    private final Access access;
    private final Shelf shelf;
    private final LayingIn layingIn;
    private final BenchViews benchViews;
    private final Words words;

    ShelfController(Access access, Shelf shelf, LayingIn layingIn, BenchViews benchViews, Words words) {
        this.access = access;
        this.shelf = shelf;
        this.layingIn = layingIn;
        this.benchViews = benchViews;
        this.words = words;
    }

    /**
     * One sound as the shelf's page shows it.
     *
     * @param percent how far it has come on its way to being ready; null if it is not on its way
     */
    record Line(ShelfSound sound, SkylinePicture picture, Integer percent, List<Excerpt> excerpts) {
    }

    @GetMapping("/classes/{classId}/shelf")
    String page(@AuthenticationPrincipal Person viewer, @PathVariable long classId, @RequestParam(defaultValue = "") String words,
                Model model) throws IOException {
        return fill(viewer, access.taughtClass(viewer, classId), words, model, "shelf/shelf");
    }

    /** The list alone, for a search and while sounds are being made ready. */
    @GetMapping("/classes/{classId}/shelf/list")
    String list(@AuthenticationPrincipal Person viewer, @PathVariable long classId, @RequestParam(defaultValue = "") String words,
                Model model) throws IOException {
        return fill(viewer, access.taughtClass(viewer, classId), words, model, "shelf/list :: list");
    }

    private String fill(Person viewer, SchoolClass schoolClass, String words, Model model, String view) throws IOException {
        Map<Long, List<Excerpt>> excerpts = shelf.excerpts(viewer, schoolClass.id());
        Map<Long, Line> lines = new LinkedHashMap<>();
        for (ShelfSound sound : shelf.find(viewer, schoolClass.id(), words)) {
            SkylinePicture picture = sound.ready() ? SkylinePicture.of(shelf.smallSkyline(sound, PICTURE_COLUMNS), PICTURE_COLUMNS) : null;
            Integer percent = sound.state() == ShelfSound.State.ARRIVED ? shelf.percent(sound).orElse(0) : null;
            lines.put(sound.id(), new Line(sound, picture, percent, excerpts.getOrDefault(sound.id(), List.of())));
        }
        model.addAttribute("schoolClass", schoolClass);
        model.addAttribute("lines", lines.values());
        model.addAttribute("words", words);
        model.addAttribute("onTheWay", lines.values().stream().anyMatch(line -> line.percent() != null));
        return view;
    }

    @PostMapping("/classes/{classId}/shelf")
    String add(@AuthenticationPrincipal Person viewer, @PathVariable long classId, @RequestParam MultipartFile file,
               @RequestParam(defaultValue = "") String name, @RequestParam ShelfSound.Kind kind,
               @RequestParam(defaultValue = "") String author, @RequestParam(defaultValue = "") String licence,
               @RequestParam(defaultValue = "") String source, @RequestParam(defaultValue = "") String credit) throws IOException {
        access.taughtClass(viewer, classId);
        shelf.add(viewer, classId, new Shelf.About(name, kind, author, licence, source, credit),
                target -> file.transferTo(target.toFile()));
        return "redirect:/classes/" + classId + "/shelf";
    }

    @PostMapping("/shelf/{soundId}/take-away")
    String takeAway(@AuthenticationPrincipal Person viewer, @PathVariable long soundId) {
        return "redirect:/classes/" + shelf.takeAway(viewer, soundId) + "/shelf";
    }

    @PostMapping("/shelf/{soundId}/again")
    String again(@AuthenticationPrincipal Person viewer, @PathVariable long soundId) {
        return "redirect:/classes/" + shelf.again(viewer, soundId).classId() + "/shelf";
    }

    @PostMapping("/shelf/{soundId}/excerpts")
    String addExcerpt(@AuthenticationPrincipal Person viewer, @PathVariable long soundId, @RequestParam(defaultValue = "") String name,
                      @RequestParam(defaultValue = "") String from, @RequestParam(defaultValue = "") String to) {
        return "redirect:/classes/" + shelf.addExcerpt(viewer, soundId, name, words.frames(from), words.frames(to)) + "/shelf";
    }

    @PostMapping("/excerpts/{excerptId}/remove")
    String removeExcerpt(@AuthenticationPrincipal Person viewer, @PathVariable long excerptId) {
        return "redirect:/classes/" + shelf.removeExcerpt(viewer, excerptId) + "/shelf";
    }

    @GetMapping("/shelf/{soundId}/sound")
    ResponseEntity<Resource> sound(@AuthenticationPrincipal Person viewer, @PathVariable long soundId) throws IOException {
        return ResponseEntity.ok().contentType(WAV).cacheControl(CacheControl.noStore())
                .body(shelf.file(viewer, soundId));
    }

    /** What the bench offers of a sound; an excerpt is offered as a sound of its own. */
    record Offered(long soundId, long excerptId, String name, String kind, String credit, double startSeconds, double seconds) {
    }

    /** The sounds that an episode's crew may lay in. */
    @GetMapping("/episodes/{episodeId}/shelf")
    @ResponseBody
    List<Offered> offered(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId,
                          @RequestParam(defaultValue = "") String words) {
        Episode episode = access.episode(viewer, episodeId);
        Map<Long, List<Excerpt>> excerpts = shelf.excerpts(viewer, episode.classId());
        return shelf.find(viewer, episode.classId(), words).stream().filter(ShelfSound::ready).flatMap(sound -> {
            List<Offered> offered = new ArrayList<>();
            offered.add(offer(sound, 0, sound.name(), new Span(0, sound.frames())));
            excerpts.getOrDefault(sound.id(), List.of()).forEach(excerpt ->
                    offered.add(offer(sound, excerpt.id(), sound.name() + ": " + excerpt.name(), excerpt.span())));
            return offered.stream();
        }).toList();
    }

    private static Offered offer(ShelfSound sound, long excerptId, String name, Span span) {
        return new Offered(sound.id(), excerptId, name, sound.kind().name(), sound.credit(),
                span.startFrame() / (double) Frames.RATE,
                span.frames() / (double) Frames.RATE);
    }

    record Laying(String clientId, long base, long shown, long soundId, long excerptId, String trackName, long startFrame) {
    }

    @PostMapping("/episodes/{episodeId}/shelf")
    @ResponseBody
    Object layIn(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, @RequestBody Laying laying) {
        return benchViews.view(viewer, episodeId, layingIn.layIn(viewer, episodeId, laying.base(), BenchViews.clientId(laying.clientId()),
                laying.soundId(), laying.excerptId(), laying.trackName(), Math.max(0, laying.startFrame())), laying.shown());
    }
}
