package org.mellowclass.app.people;

import java.time.Instant;
import java.util.Comparator;
import java.util.List;

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

    /**
     * Where somebody is signed in.
     *
     * @param handle tells it from the others without giving it away
     * @param here   whether it is the one that asks
     */
    public record Place(String handle, Instant since, Instant lastAt, boolean here) {
    }

    /** Where somebody is signed in, the newest first. */
    public List<Place> places(Person person, String hereId) {
        return sessions.findByPrincipalName(person.getName()).values().stream()
                .map(session -> new Place(handle(session.getId()), session.getCreationTime(), session.getLastAccessedTime(), session.getId().equals(hereId)))
                .sorted(Comparator.comparing(Place::since).reversed()).toList();
    }

    /** Signs somebody out everywhere but here, or at one other place. @param handle which; null for all */
    public void endOthers(Person person, String hereId, String handle) {
        sessions.findByPrincipalName(person.getName()).keySet().stream().filter(id -> !id.equals(hereId) && (handle == null || handle(id).equals(handle)))
                .forEach(sessions::deleteById);
        live.end(person.id());
    }

    private static String handle(String sessionId) {
        return Secrets.hash(sessionId).substring(0, 16);
    }

    /** Signs somebody out everywhere, at once: their live streams end too. */
    public void end(long personId) {
        sessions.findByPrincipalName(Long.toString(personId)).keySet().forEach(sessions::deleteById);
        live.end(personId);
    }
}
