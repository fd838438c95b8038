package org.mellowclass.app.bench;

import java.time.Clock;
import java.time.Duration;
import java.util.List;

import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.web.Fields;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Who else has an episode open, and where on the page. */
@Service
@Transactional
public class Presence {

    /** Pages say every ten seconds that they are still there. */
    private static final Duration COUNTS_FOR = Duration.ofSeconds(25);

    private final PresenceMapper presence;
    private final Access access;
    private final Clock clock;

    Presence(PresenceMapper presence, Access access, Clock clock) {
        this.presence = presence;
        this.access = access;
        this.clock = clock;
    }

    /** @param frame where the ribbon is */
    public record Somebody(long personId, String name, long frame) {
    }

    /** Says that somebody is there, and hears who else is. */
    public List<Somebody> here(Person viewer, long episodeId, long frame) {
        access.episode(viewer, episodeId);
        presence.here(episodeId, viewer.id(), Math.max(0, Fields.frame(frame)), clock.instant());
        presence.forget(episodeId, clock.instant().minus(COUNTS_FOR));
        return presence.others(episodeId, viewer.id());
    }

    public void gone(Person viewer, long episodeId) {
        access.episode(viewer, episodeId);
        presence.gone(episodeId, viewer.id());
    }
}
