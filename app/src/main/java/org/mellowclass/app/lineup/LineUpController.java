package org.mellowclass.app.lineup;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.sounds.TakeSounds;
import org.mellowclass.app.takes.Take;
import org.mellowclass.app.takes.TakeShelf;
import org.mellowclass.app.web.SkylinePicture;
import org.mellowclass.core.sound.Frames;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** The page on which takes of one conversation are compared and laid in step. */
@Controller
class LineUpController {

    private static final int COLUMNS = 400;

    private final LineUps lineUps;
    private final TakeShelf takes;
    private final TakeSounds sounds;
    private final Access access;

    LineUpController(LineUps lineUps, TakeShelf takes, TakeSounds sounds, Access access) {
        this.lineUps = lineUps;
        this.takes = takes;
        this.sounds = sounds;
        this.access = access;
    }

    /** A take in a picture: where it starts and how long it is, in thousandths of the picture's width. */
    public record Strip(String name, String body, double left, double width) {
    }

    /**
     * Two takes as the page shows them.
     *
     * @param before both from their starts
     * @param after  in step; empty unless they match
     */
    public record Picture(LinedUp pair, String firstName, String secondName, boolean complete, List<Strip> before, List<Strip> after) {

        private static final double SURE = 0.9;
        private static final double FAIRLY_SURE = 0.7;

        /** How far the starts of the two lie apart, in seconds. */
        public double apartSeconds() {
            return (double) Math.abs(pair.offsetFrames()) / Frames.RATE;
        }

        /** How far their clocks run apart, in millionths. */
        public double clocksPpm() {
            return Math.abs(pair.driftPpm());
        }

        /** How sure the measurement is, as a code for words. */
        public String sureness() {
            return pair.confidence() >= SURE ? "SURE" : pair.confidence() >= FAIRLY_SURE ? "FAIRLY" : "HARDLY";
        }
    }

    @GetMapping("/episodes/{episodeId}/line-up")
    String page(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, Model model) throws IOException {
        fill(viewer, episodeId, model);
        return "lineup/lineup";
    }

    @GetMapping("/episodes/{episodeId}/line-up/pairs")
    String pairs(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, Model model) throws IOException {
        fill(viewer, episodeId, model);
        return "lineup/pairs :: pairs";
    }

    @PostMapping("/episodes/{episodeId}/line-up")
    String ask(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, @RequestParam(required = false) Long first,
               @RequestParam(required = false) List<Long> others) {
        List<Long> chosen = new ArrayList<>();
        if (first != null) {
            chosen.add(first);
        }
        (others == null ? List.<Long>of() : others).stream().filter(id -> !id.equals(first)).forEach(chosen::add);
        lineUps.ask(viewer, episodeId, chosen);
        return "redirect:/episodes/" + episodeId + "/line-up";
    }

    @PostMapping("/episodes/{episodeId}/line-up/{lineUpId}/lay")
    String lay(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, @PathVariable long lineUpId) {
        lineUps.lay(viewer, episodeId, lineUpId);
        return "redirect:/episodes/" + episodeId + "/line-up";
    }

    private void fill(Person viewer, long episodeId, Model model) throws IOException {
        model.addAttribute("episode", access.episode(viewer, episodeId));
        model.addAttribute("own", !viewer.isTeacher());
        List<Take> all = takes.ofEpisode(viewer, episodeId);
        model.addAttribute("takes", all.stream().filter(take -> take.ready() && take.origin() != Take.Origin.SHELF).toList());
        Map<Long, Take> ready = takes.ready(episodeId);
        List<Picture> pictures = new ArrayList<>();
        for (LinedUp pair : lineUps.ofEpisode(viewer, episodeId)) {
            pictures.add(picture(pair, ready.get(pair.firstTake()), ready.get(pair.secondTake())));
        }
        model.addAttribute("pairs", pictures);
        model.addAttribute("measuring", pictures.stream().anyMatch(it -> it.pair().state() == LinedUp.State.MEASURING));
    }

    /** A pair of which one was erased has no picture. */
    private Picture picture(LinedUp pair, Take first, Take second) throws IOException {
        if (first == null || second == null) {
            return new Picture(pair, "", "", false, List.of(), List.of());
        }
        String bodyOfFirst = SkylinePicture.of(sounds.smallSkyline(first, COLUMNS), COLUMNS).body();
        String bodyOfSecond = SkylinePicture.of(sounds.smallSkyline(second, COLUMNS), COLUMNS).body();
        long offset = pair.offsetFrames() == null ? 0 : pair.offsetFrames();
        long start = Math.min(0, offset);
        // one scale for both pictures, so that what moves is seen to move
        double whole = Math.max(Math.max(first.frames(), second.frames()), Math.max(first.frames(), offset + second.frames()) - start);
        double scale = SkylinePicture.WIDTH / whole;
        List<Strip> before = List.of(new Strip(first.name(), bodyOfFirst, 0, first.frames() * scale),
                new Strip(second.name(), bodyOfSecond, 0, second.frames() * scale));
        List<Strip> after = pair.state() != LinedUp.State.MATCHED ? List.of()
                : List.of(new Strip(first.name(), bodyOfFirst, -start * scale, first.frames() * scale),
                        new Strip(second.name(), bodyOfSecond, (offset - start) * scale, second.frames() * scale));
        return new Picture(pair, first.name(), second.name(), true, before, after);
    }
}
