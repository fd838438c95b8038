package org.mellowclass.app.brief;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

import org.mellowclass.app.brief.BriefChanges.Change;
import org.mellowclass.app.brief.BriefMapper.Begun;
import org.mellowclass.app.brief.BriefMapper.NewRow;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Episode;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.shelf.LayingIn.Placed;
import org.mellowclass.app.shelf.Shelf;
import org.mellowclass.app.shelf.ShelfSound;
import org.mellowclass.app.takes.Take;
import org.mellowclass.app.web.Fields;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.app.web.Words;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.timeline.edit.Gains;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Keeps the briefs of classes. */
@Service
@Transactional
public class Briefs {

    private static final int LONGEST_TITLE = 120;
    private static final int LONGEST_STORY = 1000;
    private static final int LONGEST_PART = 60;
    private static final int LONGEST_LINE = 500;
    /** Some letters less than the column has: written again, they stand a little further apart. */
    private static final int LONGEST_LEVELS = 480;
    private static final int MOST_ROWS = 200;
    private static final long LONGEST_FRAMES = Frames.ofSeconds(7200);

    private final BriefMapper briefs;
    private final Access access;
    private final Shelf shelf;
    private final Words words;

    Briefs(BriefMapper briefs, Access access, Shelf shelf, Words words) {
        this.briefs = briefs;
        this.access = access;
        this.shelf = shelf;
        this.words = words;
    }

    /** The brief of a class that whoever asks has been let through to. */
    @Transactional(readOnly = true)
    public Brief ofClass(long classId) {
        return briefs.find(classId);
    }

    /** The brief that an episode is made to; as {@link #ofClass}. */
    @Transactional(readOnly = true)
    public Brief ofEpisode(long episodeId) {
        return briefs.ofEpisode(episodeId);
    }

    /** A brief with its parts, script, rubric and starter layout; as {@link #ofClass}. */
    @Transactional(readOnly = true)
    public WholeBrief whole(long classId) {
        return new WholeBrief(briefs.find(classId), briefs.parts(classId), briefs.lines(classId), briefs.rubric(classId),
                briefs.starter(classId));
    }

    public void add(Brief brief) {
        briefs.add(brief);
    }

    /**
     * Changes a brief. If crews have begun and the teacher has not read what changes for whom, nothing is written and that
     * is returned; else the list is empty.
     */
    public List<Change> change(Person viewer, long classId, BriefDraft draft) {
        access.taughtClass(viewer, classId);
        WholeBrief before = whole(classId);
        if (before.brief().version() != draft.version()) {
            throw Refusal.conflict("brief.CHANGED_MEANWHILE");
        }
        List<Integer> partOfLine = new ArrayList<>();
        WholeBrief after = checked(viewer, classId, before, draft, partOfLine);
        return write(before, after, partOfLine, draft.evenSo());
    }

    /** Copies a brief to another class that the viewer teaches, with the shelf sounds that it starts with. As {@link #change}. */
    public List<Change> copy(Person viewer, long fromClassId, long toClassId, boolean evenSo) {
        access.taughtClass(viewer, fromClassId);
        access.taughtClass(viewer, toClassId);
        if (fromClassId == toClassId) {
            throw new NotFound();
        }
        WholeBrief from = whole(fromClassId);
        WholeBrief before = whole(toClassId);
        Brief brief = from.brief();
        Brief copy = new Brief(toClassId, before.brief().version() + 1, brief.project(), brief.story(), brief.loudnessLufs(),
                brief.ceilingDbtp(), brief.shortestFrames(), brief.longestFrames(), brief.dueDay(), brief.outputFormat(), brief.recipe(), brief.actions());
        List<Part> parts = from.parts().stream().map(part -> new Part(0, part.name(), part.shortestFrames(), part.longestFrames())).toList();
        List<Integer> partOfLine = from.lines().stream().map(line -> indexOf(from.parts(), line.partId())).toList();
        List<ScriptLine> lines = from.lines().stream().map(line -> new ScriptLine(0, null, line.words(), line.cue())).toList();
        List<Change> asked = unread(before, new WholeBrief(copy, parts, lines, from.rubric(), from.starter()), evenSo);
        if (!asked.isEmpty()) {
            return asked;
        }
        Map<Long, Shelf.Copied> copied = new HashMap<>();
        List<StarterClip> starter = from.starter().stream().map(clip -> {
            Shelf.Copied sound = copied.computeIfAbsent(clip.soundId(),
                    id -> shelf.copy(viewer, shelf.sound(viewer, id), toClassId));
            return new StarterClip(0, clip.trackName(), sound.soundId(),
                    clip.excerptId() == null ? null : sound.excerptIds().get(clip.excerptId()), clip.startFrame(), clip.gainDb());
        }).toList();
        return write(before, new WholeBrief(copy, parts, lines, from.rubric(), starter), partOfLine, true);
    }

    private static int indexOf(List<Part> parts, Long partId) {
        for (int i = 0; i < parts.size(); i++) {
            if (partId != null && parts.get(i).id() == partId) {
                return i;
            }
        }
        return -1;
    }

    /** What the starter layout of a class lays onto a new crew's bench. */
    @Transactional(readOnly = true)
    public List<Placed> starter(Person viewer, long classId) {
        access.taughtClass(viewer, classId);
        return briefs.starter(classId).stream().map(clip -> new Placed(shelf.sound(viewer, clip.soundId()),
                clip.excerptId() == null ? 0 : clip.excerptId(), clip.trackName(), clip.startFrame(), clip.gainDb()))
                .filter(placed -> placed.sound().ready()).toList();
    }

    /** Who has the parts of an episode, by part: the persons' ids. The viewer may look at the episode. */
    @Transactional(readOnly = true)
    public Map<Long, Long> owners(long classId, long episodeId) {
        Map<Long, Long> owners = new HashMap<>();
        briefs.owners(classId).stream().filter(owner -> owner.episodeId() == episodeId)
                .forEach(owner -> owners.put(owner.partId(), owner.personId()));
        return owners;
    }

    /** Gives a part of a crew's episode to one of its students, or to nobody (0). */
    public Episode give(Person viewer, long episodeId, long partId, long personId) {
        Episode episode = access.taughtEpisode(viewer, episodeId);
        if (briefs.parts(episode.classId()).stream().noneMatch(part -> part.id() == partId)) {
            throw new NotFound();
        }
        if (personId == 0) {
            briefs.takeBack(episodeId, partId);
        } else if (access.crewOf(episode).stream().anyMatch(student -> student.id() == personId)) {
            briefs.give(episodeId, partId, personId);
        } else {
            throw Refusal.conflict("brief.NOT_IN_CREW");
        }
        return episode;
    }

    private List<Change> unread(WholeBrief before, WholeBrief after, boolean evenSo) {
        long classId = before.brief().classId();
        List<String> begun = briefs.crews(classId).stream().filter(Begun::begun).map(Begun::crewName).toList();
        return evenSo || begun.isEmpty() ? List.of() : BriefChanges.of(before, after, begun, briefs.owners(classId));
    }

    private List<Change> write(WholeBrief before, WholeBrief after, List<Integer> partOfLine, boolean evenSo) {
        long classId = before.brief().classId();
        List<Change> asked = unread(before, after, evenSo);
        if (!asked.isEmpty()) {
            return asked;
        }
        if (briefs.change(after.brief()) == 0) {
            throw Refusal.conflict("brief.CHANGED_MEANWHILE");
        }
        List<Long> partIds = new ArrayList<>();
        for (int i = 0; i < after.parts().size(); i++) {
            Part part = after.parts().get(i);
            if (part.id() == 0 || briefs.changePart(classId, i, part) == 0) {
                NewRow row = new NewRow();
                briefs.addPart(row, classId, i, part);
                partIds.add(row.id);
            } else {
                partIds.add(part.id());
            }
        }
        Set<Long> lineIds = new HashSet<>();
        for (int i = 0; i < after.lines().size(); i++) {
            ScriptLine line = after.lines().get(i);
            int part = partOfLine.get(i);
            ScriptLine placed = new ScriptLine(line.id(), part < 0 ? null : partIds.get(part), line.words(), line.cue());
            lineIds.add(line.id());
            if (line.id() == 0 || briefs.changeLine(classId, i, placed) == 0) {
                briefs.addLine(classId, i, placed);
            }
        }
        before.lines().stream().filter(line -> !lineIds.contains(line.id())).forEach(line -> briefs.deleteLine(line.id()));
        before.parts().stream().filter(part -> !partIds.contains(part.id())).forEach(part -> briefs.deletePart(part.id()));
        briefs.deleteRubric(classId);
        for (int i = 0; i < after.rubric().size(); i++) {
            briefs.addCriterion(classId, i, after.rubric().get(i));
        }
        briefs.deleteStarter(classId);
        for (int i = 0; i < after.starter().size(); i++) {
            briefs.addStarterClip(classId, i, after.starter().get(i));
        }
        return List.of();
    }

    private WholeBrief checked(Person viewer, long classId, WholeBrief before, BriefDraft draft, List<Integer> partOfLine) {
        long shortest = length(draft.shortest());
        long longest = length(draft.longest());
        if (longest < shortest || longest > LONGEST_FRAMES || longest == 0) {
            throw Refusal.unfit("brief.LENGTH");
        }
        if (!(draft.loudnessLufs() >= -36 && draft.loudnessLufs() <= -9) || !(draft.ceilingDbtp() >= -9 && draft.ceilingDbtp() <= -0.1)) {
            throw Refusal.unfit("brief.HOUSE_SOUND");
        }
        Brief brief = new Brief(classId, draft.version() + 1, Fields.required(draft.project(), LONGEST_TITLE, "brief.PROJECT"),
                Fields.optional(draft.story(), LONGEST_STORY, "brief.STORY"), draft.loudnessLufs(), draft.ceilingDbtp(), shortest,
                longest, day(draft.dueDay()), draft.outputFormat(), draft.recipe(), draft.actions());
        if (draft.parts().size() + draft.lines().size() + draft.rubric().size() + draft.starter().size() > MOST_ROWS) {
            throw Refusal.unfit("brief.TOO_MANY", MOST_ROWS);
        }
        List<Part> parts = draft.parts().stream().map(part -> part(before, part)).toList();
        List<ScriptLine> lines = draft.lines().stream().map(line -> {
            partOfLine.add(line.part() >= 0 && line.part() < parts.size() ? line.part() : -1);
            Long partId = partOfLine.get(partOfLine.size() - 1) < 0 ? null : parts.get(line.part()).id();
            return new ScriptLine(known(before.lines().stream().map(ScriptLine::id).toList(), line.id()), partId,
                    Fields.required(line.words(), LONGEST_LINE, "brief.LINE"), Fields.optional(line.cue(), LONGEST_TITLE, "brief.CUE"));
        }).toList();
        List<Criterion> rubric = draft.rubric().stream().map(row -> {
            if (row.mostPoints() < 1 || row.mostPoints() > 100) {
                throw Refusal.unfit("brief.POINTS");
            }
            return new Criterion(0, Fields.required(row.name(), LONGEST_TITLE, "brief.CRITERION"), row.mostPoints(),
                    Fields.optional(row.sentence(), LONGEST_LINE, "brief.LINE"), levels(row));
        }).toList();
        List<StarterClip> starter = draft.starter().stream().map(clip -> clip(viewer, classId, clip)).toList();
        return new WholeBrief(brief, parts, lines, rubric, starter);
    }

    private static String levels(BriefDraft.CriterionDraft row) {
        String typed = Fields.optional(row.levels(), LONGEST_LEVELS, "brief.LINE");
        return Criterion.written(Criterion.read(typed, row.mostPoints()).orElseThrow(() -> Refusal.unfit("brief.LEVELS", row.name())));
    }

    private Part part(WholeBrief before, BriefDraft.PartDraft part) {
        long shortest = length(part.shortest());
        long longest = length(part.longest());
        if (longest < shortest || longest > LONGEST_FRAMES) {
            throw Refusal.unfit("brief.LENGTH");
        }
        return new Part(known(before.parts().stream().map(Part::id).toList(), part.id()),
                Fields.required(part.name(), LONGEST_PART, "brief.PART"), shortest, longest);
    }

    private StarterClip clip(Person viewer, long classId, BriefDraft.ClipDraft clip) {
        ShelfSound sound = shelf.sound(viewer, clip.soundId());
        if (sound.classId() != classId) {
            throw new NotFound();
        }
        if (!(clip.gainDb() >= Gains.LOWEST_DB && clip.gainDb() <= Gains.HIGHEST_DB)) {
            throw Refusal.unfit("edit.GAIN_OUT_OF_RANGE");
        }
        Long excerptId = clip.excerptId() == 0 ? null : shelf.excerpt(sound, clip.excerptId()).id();
        return new StarterClip(0, Fields.required(clip.trackName(), Take.LONGEST_TRACK_NAME, "take.TRACK_NAME"), sound.id(),
                excerptId, length(clip.start()), clip.gainDb());
    }

    private static long known(List<Long> ids, long id) {
        return ids.contains(id) ? id : 0;
    }

    private long length(String text) {
        return words.frames(text).orElseThrow(() -> Refusal.unfit("brief.TIME", text == null ? "" : text));
    }

    private static LocalDate day(String text) {
        try {
            return text == null || text.isBlank() ? null : LocalDate.parse(text.strip());
        } catch (DateTimeException e) {
            throw Refusal.unfit("brief.DAY");
        }
    }
}
