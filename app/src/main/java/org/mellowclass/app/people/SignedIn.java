package org.mellowclass.app.people;

import org.mellowclass.app.live.LiveEvents;
import org.springframework.session.FindByIndexNameSessionRepository;
import org.springframework.session.Session;
import org.springframework.stereotype.Component;

/** Where people are signed in. */
@Component
public class SignedIn {

    private final FindByIndexNameSessionRepository<? extends Session> sessions;
    private final LiveEvents live;

    SignedIn(FindByIndexNameSessionRepository<? extends Session> sessions, LiveEvents live) {
        this.sessions = sessions;
        this.live = live;
    }

    /** Signs somebody out everywhere, at once: their live streams end too. */
    public void end(long personId) {
        sessions.findByPrincipalName(Long.toString(personId)).keySet().forEach(sessions::deleteById);
        live.end(personId);
    }
}
