package org.mellowclass.app.bench;

import java.time.Clock;
import java.util.List;

import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.web.Fields;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.app.web.Words;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The log of an episode's revisions, and the names that some of them have. */
@Service
@Transactional
class History {

    private static final int MOST = 60;
    private static final int LONGEST_NAME = 60;

    private final RevisionMapper revisions;
    private final Access access;
    private final EditWords words;
    private final Words times;
    private final Clock clock;

    History(RevisionMapper revisions, Access access, EditWords words, Words times, Clock clock) {
        this.revisions = revisions;
        this.access = access;
        this.words = words;
        this.times = times;
        this.clock = clock;
    }

    /**
     * One revision of the log.
     *
     * @param who  empty for what happened by itself
     * @param name the version's name; null if it has none
     */
    record Entry(long seq, String ago, String who, String what, String name) {
    }

    /** The newest revisions before one, newest first. */
    @Transactional(readOnly = true)
    public List<Entry> log(Person viewer, long episodeId, long before) {
        access.episode(viewer, episodeId);
        return revisions.log(episodeId, before, MOST).stream().map(row -> new Entry(row.seq(), times.ago(row.createdAt(), clock.instant()),
                row.author() == null ? "" : row.author(), what(row), row.name())).toList();
    }

    private String what(RevisionMapper.Logged row) {
        if (row.edit() != null) {
            return words.of(row.edit());
        }
        // an undo can be redone to the revision right before it
        return words.of(row.author() == null ? "begin" : row.redoTo() == row.seq() - 1 ? "undo" : "redo", new Object[0]);
    }

    /** Names a revision; an empty name takes its name away. */
    public void name(Person viewer, long episodeId, long seq, String name) {
        access.ownEpisode(viewer, episodeId);
        revisions.find(episodeId, seq).orElseThrow(NotFound::new);
        String named = Fields.optional(name, LONGEST_NAME, "bench.VERSION_NAME_TOO_LONG");
        if (named.isEmpty()) {
            revisions.unnameVersion(episodeId, seq);
        } else {
            revisions.nameVersion(episodeId, seq, named);
        }
    }
}
