package org.mellowclass.app.demo;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.time.LocalDate;
import java.util.List;
import java.util.OptionalLong;

import org.mellowclass.app.brief.Brief;
import org.mellowclass.app.brief.BriefDraft;
import org.mellowclass.app.brief.BriefDraft.ClipDraft;
import org.mellowclass.app.brief.BriefDraft.CriterionDraft;
import org.mellowclass.app.brief.BriefDraft.LineDraft;
import org.mellowclass.app.brief.BriefDraft.PartDraft;
import org.mellowclass.app.brief.Briefs;
import org.mellowclass.app.incoming.IncomingFiles;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.shelf.Shelf;
import org.mellowclass.app.shelf.ShelfSound;
import org.mellowclass.core.sound.Frames;
import org.springframework.stereotype.Component;

/** The demo school's shelf and brief. */
@Component
class DemoBrief {

    private static final String AUTHOR = "Saltmarsh Lane sound club";
    private static final String LICENCE = "CC0 1.0";

    private final Shelf shelf;
    private final Briefs briefs;

    DemoBrief(Shelf shelf, Briefs briefs) {
        this.shelf = shelf;
        this.briefs = briefs;
    }

    /** A shipped file as an upload. */
    static IncomingFiles.Upload shipped(String sound) {
        return target -> {
            try (InputStream file = DemoBrief.class.getResourceAsStream("/demo/" + sound + ".flac")) {
                Files.write(target, file.readAllBytes());
            }
        };
    }

    void fill(Person teacher, long classId, LocalDate due, Waiting waiting) throws IOException {
        briefs.add(Brief.first(classId, "Tides and Tales", "", Frames.ofSeconds(60), Frames.ofSeconds(120), due));
        long opening = add(teacher, classId, "Opening", ShelfSound.Kind.MUSIC, "shelf-opening");
        long ending = add(teacher, classId, "Ending", ShelfSound.Kind.MUSIC, "shelf-ending");
        long bed = add(teacher, classId, "Tide music", ShelfSound.Kind.MUSIC, "tide-music");
        add(teacher, classId, "Buoy bell", ShelfSound.Kind.EFFECT, "shelf-bell");
        long waves = add(teacher, classId, "Waves", ShelfSound.Kind.EFFECT, "shelf-waves");
        add(teacher, classId, "Three knocks", ShelfSound.Kind.EFFECT, "shelf-knocks");
        add(teacher, classId, "Gulls", ShelfSound.Kind.EFFECT, "shelf-gulls");
        waiting.until(() -> shelf.find(teacher, classId, "").stream().allMatch(ShelfSound::ready));
        shelf.addExcerpt(teacher, waves, "one wave", OptionalLong.of(Frames.ofSeconds(4)), OptionalLong.of(Frames.ofSeconds(9)));

        briefs.change(teacher, classId, new BriefDraft(1, "Tides and Tales",
                "Audio stories of one to two minutes about the river town we live in, told by class 8 Heron.", -16, -1, "1:00", "2:00",
                due.toString(), Brief.OutputFormat.MP3_STEREO, Brief.Recipe.QUIET_ROOM, Brief.Actions.USUAL,
                List.of(new PartDraft(0, "Cold open", "0:05", "0:15"), new PartDraft(0, "The story", "0:40", "1:20"),
                        new PartDraft(0, "Ending", "0:08", "0:20")),
                List.of(new LineDraft(0, 0, "Start in the middle: one thing that happened, in one breath.", "Waves"),
                        new LineDraft(0, 0, "Hello, and welcome to Tides and Tales. I am …", "Opening"),
                        new LineDraft(0, 1, "Where are we, and when?", ""),
                        new LineDraft(0, 1, "Who was there? Let them speak.", ""),
                        new LineDraft(0, 1, "What nobody expected.", "Three knocks"),
                        new LineDraft(0, 2, "This was …, from the … crew. Thank you for listening.", "Ending")),
                List.of(new CriterionDraft("The story has a surprise", 5, "Something happens that nobody saw coming.", "0 not yet; 3 a small one; 5 nobody saw it coming"), new CriterionDraft("Every word can be understood", 5, "No voice is too quiet, too fast or under the music.", "0 hardly; 3 most; 5 every one"),
                        new CriterionDraft("Sounds help the story", 3, "Each sound tells where we are or what happens.", "")),
                List.of(new ClipDraft("Music", opening, 0, "0:00", -6), new ClipDraft("Music", bed, 0, "0:04", -14),
                        new ClipDraft("Music", ending, 0, "1:20", -6)),
                false));
    }

    private long add(Person teacher, long classId, String name, ShelfSound.Kind kind, String file) throws IOException {
        return shelf.add(teacher, classId, new Shelf.About(name, kind, AUTHOR, LICENCE, "synthesised for this class, demo/make-sounds", ""),
                shipped(file));
    }
}
