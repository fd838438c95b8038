package org.mellowclass.app.brief;

import java.util.List;

/** A brief with everything that belongs to it, each list in its order. */
public record WholeBrief(Brief brief, List<Part> parts, List<ScriptLine> lines, List<Criterion> rubric, List<StarterClip> starter) {

    public WholeBrief {
        parts = List.copyOf(parts);
        lines = List.copyOf(lines);
        rubric = List.copyOf(rubric);
        starter = List.copyOf(starter);
    }
}
