package org.mellowclass.app.review;

import java.util.List;
import java.util.Set;

import org.mellowclass.app.people.Person;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.app.web.Words;
import org.mellowclass.core.sound.Span;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.bind.annotation.ResponseStatus;

@Controller
class MarginNoteController {

    private final HandIns handIns;
    private final MarginNotes notes;
    private final Words times;

    MarginNoteController(HandIns handIns, MarginNotes notes, Words times) {
        this.handIns = handIns;
        this.notes = notes;
        this.times = times;
    }

    /** The notes alone, when one has been written. */
    @GetMapping("/hand-ins/{handInId}/notes")
    String list(@AuthenticationPrincipal Person viewer, @PathVariable long handInId, Model model) {
        HandIn handIn = handIns.find(viewer, handInId);
        model.addAttribute("handIn", handIn);
        model.addAttribute("own", !viewer.isTeacher());
        model.addAttribute("notes", notes.in(viewer, handIn, handIn));
        return "review/notes :: list";
    }

    /** Times as people write them: 1:05.3 or 65.3. */
    @PostMapping("/hand-ins/{handInId}/notes")
    String write(@AuthenticationPrincipal Person viewer, @PathVariable long handInId, @RequestParam MarginNote.Kind kind,
                 @RequestParam String words, @RequestParam String from, @RequestParam String to, @RequestParam(defaultValue = "") Set<Long> on) {
        long start = times.frames(from).orElseThrow(() -> Refusal.unfit("note.SPAN"));
        long end = times.frames(to).orElseThrow(() -> Refusal.unfit("note.SPAN"));
        notes.write(viewer, handInId, new MarginNotes.Wish(kind, words, start, end, on));
        return "redirect:/hand-ins/" + handInId;
    }

    @PostMapping("/notes/{noteId}/take-back")
    String takeBack(@AuthenticationPrincipal Person viewer, @PathVariable long noteId) {
        MarginNote note = notes.takeBack(viewer, noteId);
        return viewer.isTeacher() ? "redirect:/hand-ins/" + note.handInId() : "redirect:/early";
    }

    @PostMapping("/notes/{noteId}/held")
    String hold(@AuthenticationPrincipal Person viewer, @PathVariable long noteId, @RequestParam boolean held) {
        return "redirect:/hand-ins/" + notes.hold(viewer, noteId, held).handInId();
    }

    @PostMapping("/notes/{noteId}/report")
    String report(@AuthenticationPrincipal Person viewer, @PathVariable long noteId) {
        return "redirect:/hand-ins/" + notes.report(viewer, noteId).handInId();
    }

    /** A note as the bench shows it. */
    record NoteView(long id, MarginNote.Kind kind, String words, boolean spoken, String tracks, String author, int handIn, boolean done, String doneWords, boolean agreed, List<ReplyView> replies, List<Span> places, boolean swapped) {
    }

    record ReplyView(String author, String words) {
    }

    @GetMapping("/episodes/{episodeId}/notes/{revision}")
    @ResponseBody
    List<NoteView> at(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, @PathVariable long revision) {
        return notes.at(viewer, episodeId, revision).stream().map(placed -> new NoteView(placed.note().id(),
                placed.note().kind(), placed.note().words(), placed.note().spoken(), placed.note().trackNames(), placed.note().authorName(), placed.note().handInNumber(),
                placed.note().done(), placed.note().doneWords(), placed.note().agreed(),
                placed.replies().stream().map(reply -> new ReplyView(reply.authorName(), reply.words())).toList(), placed.places(), placed.swapped())).toList();
    }

    record Tick(boolean done, String how) {
    }

    @PostMapping("/notes/{noteId}/done")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void tick(@AuthenticationPrincipal Person viewer, @PathVariable long noteId, @RequestBody Tick tick) {
        notes.tick(viewer, noteId, tick.done(), tick.how());
    }

    @PostMapping("/notes/{noteId}/judged")
    String judge(@AuthenticationPrincipal Person viewer, @PathVariable long noteId, @RequestParam boolean agreed, @RequestParam(required = false) Long seen) {
        return onPage(notes.judge(viewer, noteId, agreed), seen);
    }

    @PostMapping("/notes/{noteId}/replies")
    String reply(@AuthenticationPrincipal Person viewer, @PathVariable long noteId, @RequestParam String words, @RequestParam(required = false) Long seen) {
        return onPage(notes.reply(viewer, noteId, words), seen);
    }

    /** Back to the hand-in that was looked at, which may be a later one than the note is on. */
    private static String onPage(MarginNote note, Long seen) {
        return "redirect:/hand-ins/" + (seen == null ? note.handInId() : seen);
    }
}
