package org.mellowclass.app.brief;

import java.io.UncheckedIOException;
import java.util.List;

import org.springframework.stereotype.Component;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;

/** What pages of episodes show of their class's brief; who sees such a page was let through to it. */
@Component("briefForPages")
class BriefForPages {

    private final BriefMapper briefs;
    private final ObjectMapper json;

    BriefForPages(BriefMapper briefs, ObjectMapper json) {
        this.briefs = briefs;
        this.json = json;
    }

    /** The names of the parts asked for: a flag that is called so starts a paragraph of the page. */
    public List<String> parts(long classId) {
        return briefs.parts(classId).stream().map(Part::name).toList();
    }

    /** How much of what can be done is in sight. */
    public Brief.Actions actions(long classId) {
        return briefs.find(classId).actions();
    }

    /** The same for scripts. */
    public String partsAsJson(long classId) {
        try {
            return json.writeValueAsString(parts(classId));
        } catch (JsonProcessingException e) {
            throw new UncheckedIOException(e);
        }
    }
}
