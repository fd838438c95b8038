package org.mellowclass.app.brief;

import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Keeps the briefs of classes; whoever asks has been let through to the class already. */
@Service
@Transactional
public class Briefs {

    private final BriefMapper briefs;

    Briefs(BriefMapper briefs) {
        this.briefs = briefs;
    }

    @Transactional(readOnly = true)
    public Brief ofClass(long classId) {
        return briefs.find(classId);
    }

    /** The brief that an episode is made to. */
    @Transactional(readOnly = true)
    public Brief ofEpisode(long episodeId) {
        return briefs.ofEpisode(episodeId);
    }

    public void add(Brief brief) {
        briefs.add(brief);
    }
}
