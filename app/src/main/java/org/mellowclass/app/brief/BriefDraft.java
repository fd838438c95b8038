package org.mellowclass.app.brief;

import java.util.List;

/**
 * A brief as its page sends it: times as people write them, rows with id 0 where they are new.
 *
 * @param version of the brief that was changed
 * @param evenSo  whether the teacher has read what will change for whom
 */
public record BriefDraft(long version, String project, String story, double loudnessLufs, double ceilingDbtp, String shortest,
                  String longest, String dueDay, Brief.OutputFormat outputFormat, Brief.Recipe recipe, Brief.Actions actions, List<PartDraft> parts,
                  List<LineDraft> lines, List<CriterionDraft> rubric, List<ClipDraft> starter, boolean evenSo) {

    public record PartDraft(long id, String name, String shortest, String longest) {
    }

    /** @param part which of the parts it belongs to, from 0; -1 for none */
    public record LineDraft(long id, int part, String words, String cue) {
    }

    public record CriterionDraft(String name, int mostPoints, String sentence, String levels) {
    }

    /** @param excerptId 0 for the whole sound */
    public record ClipDraft(String trackName, long soundId, long excerptId, String start, double gainDb) {
    }
}
