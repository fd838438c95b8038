package org.mellowclass.app.board;

import java.util.List;

import org.mellowclass.app.brief.Briefs;
import org.mellowclass.app.feed.AirDesk;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.SchoolClass;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;

@Controller
class BoardController {

    private final Access access;
    private final ClassBoard board;
    private final Briefs briefs;
    private final AirDesk airDesk;

    BoardController(Access access, ClassBoard board, Briefs briefs, AirDesk airDesk) {
        this.access = access;
        this.board = board;
        this.briefs = briefs;
        this.airDesk = airDesk;
    }

    @GetMapping("/classes/{classId}")
    String page(@AuthenticationPrincipal Person viewer, @PathVariable long classId, Model model) {
        SchoolClass schoolClass = access.taughtClass(viewer, classId);
        List<ClassBoard.Line> lines = board.lines(viewer, schoolClass);
        model.addAttribute("schoolClass", schoolClass);
        model.addAttribute("brief", briefs.ofClass(classId));
        model.addAttribute("lines", lines);
        model.addAttribute("toHear", lines.stream().filter(ClassBoard.Line::waitsForTeacher).toList());
        model.addAttribute("onAir", lines.stream().filter(line -> line.stage() == Stage.ON_AIR).count());
        model.addAttribute("feedKey", airDesk.feedKey(viewer, classId));
        return "board/board";
    }
}
