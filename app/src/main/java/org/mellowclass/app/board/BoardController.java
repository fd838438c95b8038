package org.mellowclass.app.board;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;

import org.mellowclass.app.brief.Brief;
import org.mellowclass.app.brief.Briefs;
import org.mellowclass.app.erasing.Erasing;
import org.mellowclass.app.feed.AirDesk;
import org.mellowclass.app.live.LiveEvents;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.SchoolClass;
import org.mellowclass.app.turns.RecordingTurns;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.soundcheck.Reading;
import org.mellowclass.core.soundcheck.WorkingLevel;
import org.springframework.http.MediaType;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

@Controller
class BoardController {

    /** A crew that has not opened its episode for so long is named. */
    private static final Duration LONG_AGO = Duration.ofHours(40);

    private final Access access;
    private final ClassBoard board;
    private final Briefs briefs;
    private final AirDesk airDesk;
    private final RecordingTurns turns;
    private final Erasing erasing;
    private final LiveEvents live;
    private final Clock clock;

    BoardController(Access access, ClassBoard board, Briefs briefs, AirDesk airDesk, RecordingTurns turns, Erasing erasing, LiveEvents live,
                    Clock clock) {
        this.access = access;
        this.board = board;
        this.briefs = briefs;
        this.airDesk = airDesk;
        this.turns = turns;
        this.erasing = erasing;
        this.live = live;
        this.clock = clock;
    }

    @GetMapping("/classes/{classId}")
    String page(@AuthenticationPrincipal Person viewer, @PathVariable long classId,
                @RequestParam(defaultValue = "CREW") ClassBoard.Order sort, Model model) {
        fill(viewer, classId, sort, model);
        return "board/board";
    }

    /**
     * One measure of all episodes, drawn on one scale.
     *
     * @param low      where the scale begins
     * @param goodFrom where good values begin
     */
    public record Scale(Reading.Kind kind, double low, double high, double goodFrom, double goodTo) {

        /** Where a value stands, from 0 to 100. */
        public double part(double value) {
            return Math.rint(1000 * Math.max(0, Math.min(1, (value - low) / (high - low)))) / 10;
        }
    }

    /** All episodes beside each other, so that the feed sounds like one show. */
    @GetMapping("/classes/{classId}/compared")
    String compared(@AuthenticationPrincipal Person viewer, @PathVariable long classId, Model model) {
        SchoolClass schoolClass = access.taughtClass(viewer, classId);
        Brief brief = briefs.ofClass(classId);
        double shortest = Frames.toSeconds(brief.shortestFrames());
        double longest = Frames.toSeconds(brief.longestFrames());
        model.addAttribute("schoolClass", schoolClass);
        model.addAttribute("lines", ClassBoard.Order.CREW.sorted(board.lines(viewer, schoolClass)));
        model.addAttribute("scales", List.of(new Scale(Reading.Kind.LOUDNESS, brief.loudnessLufs() - 8, brief.loudnessLufs() + 8, brief.loudnessLufs() - 1, brief.loudnessLufs() + 1),
                new Scale(Reading.Kind.WORKING_LEVEL, -48, 0, WorkingLevel.STANDARD.lowGood(), WorkingLevel.STANDARD.highGood()), new Scale(Reading.Kind.ROOM_NOISE, 0, 60, 25, 60),
                new Scale(Reading.Kind.LENGTH, 0, 1.5 * longest, shortest, longest)));
        return "board/compared";
    }

    /** What changes while crews work, which the page asks for again when it hears of a change. */
    @GetMapping("/classes/{classId}/now")
    String now(@AuthenticationPrincipal Person viewer, @PathVariable long classId,
               @RequestParam(defaultValue = "CREW") ClassBoard.Order sort, Model model) {
        fill(viewer, classId, sort, model);
        return "board/now :: now";
    }

    @GetMapping(path = "/classes/{classId}/live", produces = MediaType.TEXT_EVENT_STREAM_VALUE)
    SseEmitter live(@AuthenticationPrincipal Person viewer, @PathVariable long classId) {
        return live.follow(viewer.id(), LiveEvents.board(access.taughtClass(viewer, classId).id()));
    }

    private void fill(Person viewer, long classId, ClassBoard.Order sort, Model model) {
        SchoolClass schoolClass = access.taughtClass(viewer, classId);
        List<ClassBoard.Line> lines = sort.sorted(board.lines(viewer, schoolClass));
        Instant longAgo = clock.instant().minus(LONG_AGO);
        model.addAttribute("schoolClass", schoolClass);
        model.addAttribute("sort", sort);
        model.addAttribute("orders", ClassBoard.Order.values());
        model.addAttribute("brief", briefs.ofClass(classId));
        model.addAttribute("lines", lines);
        model.addAttribute("now", clock.instant());
        model.addAttribute("toHear", lines.stream().filter(ClassBoard.Line::waitsForTeacher).toList());
        model.addAttribute("inTrouble", lines.stream().filter(ClassBoard.Line::needsHand).toList());
        model.addAttribute("notOpened", lines.stream().filter(line -> line.waitsFor() == ClassBoard.Waiting.CREW
                && (line.openedAt() == null || line.openedAt().isBefore(longAgo))).toList());
        model.addAttribute("eraseRequests", erasing.requests(schoolClass));
        model.addAttribute("round", turns.ofClass(classId).orElse(null));
        model.addAttribute("onAir", lines.stream().filter(line -> line.stage() == Stage.ON_AIR).count());
        model.addAttribute("feedKey", airDesk.feedKey(viewer, classId));
    }
}
