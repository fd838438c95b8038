package org.mellowclass.app.review;

import java.io.IOException;
import java.util.Set;

import org.mellowclass.app.people.Person;
import org.mellowclass.app.recording.Recording;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.app.web.Words;
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
import org.springframework.web.bind.annotation.ResponseBody;

@Controller
class SpokenNoteController {

    private static final MediaType WAV = MediaType.valueOf("audio/wav");

    private final SpokenNotes notes;
    private final Words times;

    SpokenNoteController(SpokenNotes notes, Words times) {
        this.notes = notes;
        this.times = times;
    }

    /** Times as people write them. */
    record Start(MarginNote.Kind kind, String words, String from, String to, Set<Long> on, int sampleRate, String microphone) {
    }

    record Begun(long noteId, long takeId, String uploadKey, byte[] seal, int mostSeconds) {
    }

    @PostMapping("/hand-ins/{handInId}/spoken-notes")
    @ResponseBody
    Begun begin(@AuthenticationPrincipal Person viewer, @PathVariable long handInId, @RequestBody Start start) {
        if (start.kind == null) {
            throw Refusal.unfit("note.KIND");
        }
        MarginNotes.Wish wish = new MarginNotes.Wish(start.kind, start.words == null ? "" : start.words, frame(start.from), frame(start.to),
                start.on == null ? Set.of() : start.on);
        SpokenNotes.Begun begun = notes.begin(viewer, handInId, wish, start.sampleRate, start.microphone);
        return new Begun(begun.noteId(), begun.recording().takeId(), begun.recording().uploadKey(), begun.recording().seal(), Recording.MOST_NOTE_SECONDS);
    }

    private long frame(String time) {
        return times.frames(time == null ? "" : time).orElseThrow(() -> Refusal.unfit("note.SPAN"));
    }

    /** What is spoken, as it stands in its note. */
    @GetMapping("/notes/{noteId}/spoken")
    String spoken(@AuthenticationPrincipal Person viewer, @PathVariable long noteId, Model model) throws IOException {
        model.addAttribute("spoken", notes.of(viewer, noteId));
        model.addAttribute("own", !viewer.isTeacher());
        return "review/spoken :: spoken";
    }

    @GetMapping("/notes/{noteId}/sound")
    ResponseEntity<Resource> sound(@AuthenticationPrincipal Person viewer, @PathVariable long noteId) throws IOException {
        return ResponseEntity.ok().contentType(WAV).cacheControl(CacheControl.noStore()).body(notes.sound(viewer, noteId));
    }

    @PostMapping("/notes/{noteId}/spoken/complete")
    String complete(@AuthenticationPrincipal Person viewer, @PathVariable long noteId) {
        return "redirect:/hand-ins/" + notes.complete(viewer, noteId).handInId();
    }

    @PostMapping("/notes/{noteId}/spoken/again")
    String again(@AuthenticationPrincipal Person viewer, @PathVariable long noteId) {
        return "redirect:/hand-ins/" + notes.again(viewer, noteId).handInId();
    }
}
