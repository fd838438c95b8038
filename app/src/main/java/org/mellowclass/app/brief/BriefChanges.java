package org.mellowclass.app.brief;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.stream.Collectors;

import org.mellowclass.app.brief.BriefMapper.Owner;

/** What changing a brief means for crews that have begun: one line for each thing, saying for whom. */
public final class BriefChanges {

    private BriefChanges() {
    }

    /** The message {@code brief.change.CODE} with its arguments. */
    public record Change(String code, List<Object> arguments) {

        Change(String code, Object... arguments) {
            this(code, List.of(arguments));
        }
    }

    /** @param begun the names of the crews that have begun */
    static List<Change> of(WholeBrief before, WholeBrief after, List<String> begun, List<Owner> owners) {
        List<Change> changes = new ArrayList<>();
        String crews = String.join(", ", begun);
        Brief old = before.brief();
        Brief now = after.brief();
        if (old.loudnessLufs() != now.loudnessLufs() || old.ceilingDbtp() != now.ceilingDbtp()) {
            changes.add(new Change("HOUSE_SOUND", old.loudnessLufs(), now.loudnessLufs(), crews));
        }
        if (old.shortestFrames() != now.shortestFrames() || old.longestFrames() != now.longestFrames()) {
            changes.add(new Change("LENGTH", crews));
        }
        if (!Objects.equals(old.dueDay(), now.dueDay())) {
            changes.add(new Change("DUE_DAY", crews));
        }
        if (old.outputFormat() != now.outputFormat()) {
            changes.add(new Change("FORMAT", crews));
        }
        if (old.recipe() != now.recipe()) {
            changes.add(new Change("RECIPE", crews));
        }
        if (old.actions() != now.actions()) {
            changes.add(new Change("ACTIONS", crews));
        }
        parts(before.parts(), after.parts(), crews, owners, changes);
        if (!before.lines().equals(after.lines())) {
            changes.add(new Change("SCRIPT", crews));
        }
        if (!before.rubric().stream().map(row -> row.name() + row.mostPoints() + row.sentence() + row.levels()).toList()
                .equals(after.rubric().stream().map(row -> row.name() + row.mostPoints() + row.sentence() + row.levels()).toList())) {
            changes.add(new Change("RUBRIC", crews));
        }
        if (!before.starter().stream().map(BriefChanges::withoutId).toList()
                .equals(after.starter().stream().map(BriefChanges::withoutId).toList())) {
            changes.add(new Change("STARTER", crews));
        }
        return changes;
    }

    private static void parts(List<Part> before, List<Part> after, String crews, List<Owner> owners, List<Change> changes) {
        for (Part part : before) {
            Part kept = after.stream().filter(it -> it.id() == part.id()).findFirst().orElse(null);
            String whose = owners.stream().filter(owner -> owner.partId() == part.id())
                    .map(owner -> owner.personName() + " (" + owner.crewName() + ")").collect(Collectors.joining(", "));
            if (kept == null) {
                changes.add(whose.isEmpty() ? new Change("PART_GONE", part.name()) : new Change("PART_GONE_FROM", part.name(), whose));
            } else if (!kept.equals(part)) {
                changes.add(new Change("PART", kept.name(), whose.isEmpty() ? crews : whose));
            }
        }
        after.stream().filter(part -> before.stream().noneMatch(it -> it.id() == part.id()))
                .forEach(part -> changes.add(new Change("PART_NEW", part.name(), crews)));
    }

    private static StarterClip withoutId(StarterClip clip) {
        return new StarterClip(0, clip.trackName(), clip.soundId(), clip.excerptId(), clip.startFrame(), clip.gainDb());
    }
}
