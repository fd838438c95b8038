package org.mellowclass.app.live;

import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import java.util.ArrayDeque;
import java.util.Collections;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;

import org.mellowclass.app.live.EventMapper.Event;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.dao.DataAccessException;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/**
 * Tells open pages that something has changed, and no more: what it is now, the page asks for itself. Changes are rows,
 * written in the transaction that makes them and read twice a second by every node, so that it does not matter which node
 * somebody is connected to.
 */
@Component
public class LiveEvents {

    private static final Logger LOG = LoggerFactory.getLogger(LiveEvents.class);
    private static final Duration LONGEST_STREAM = Duration.ofMinutes(30);
    private static final Duration KEEP = Duration.ofMinutes(10);
    /** Rows may become visible out of the order of their ids: those just before the newest are looked at again. */
    private static final int LOOK_BACK = 200;
    private static final int REMEMBERED = 2000;
    private static final int MOST_OF_ONE = 12;

    private final EventMapper events;
    private final Clock clock;
    private final Map<String, List<SseEmitter>> followers = new ConcurrentHashMap<>();
    /** The open streams of each person, the oldest first. */
    private final Map<Long, Deque<SseEmitter>> byPerson = new ConcurrentHashMap<>();
    private final Set<Long> told = Collections.newSetFromMap(new LinkedHashMap<>() {
        @Override
        protected boolean removeEldestEntry(Map.Entry<Long, Boolean> eldest) {
            return size() > REMEMBERED;
        }
    });
    private long newest = -1;

    LiveEvents(EventMapper events, Clock clock) {
        this.events = events;
        this.clock = clock;
    }

    /** The topic of everything that the class board shows. */
    public static String board(long classId) {
        return "board-" + classId;
    }

    /** Says that a topic has a new revision, once the surrounding transaction has ended well. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void changed(String topic, long revision) {
        events.add(topic, revision, clock.instant());
    }

    /** Says that an episode stands differently on its class's board. */
    @Transactional
    public void episodeChanged(long episodeId) {
        events.addForBoard(episodeId, clock.instant());
    }

    /**
     * A stream of the revisions of topics from now on; whoever asks has been let through. Of too many that one person has open, the oldest
     * ends: its page asks again.
     */
    public SseEmitter follow(long personId, String... topics) {
        SseEmitter emitter = new SseEmitter(LONGEST_STREAM.toMillis());
        byPerson.compute(personId, (id, open) -> {
            Deque<SseEmitter> all = open == null ? new ArrayDeque<>() : open;
            all.add(emitter);
            return all;
        });
        while (openOf(personId) > MOST_OF_ONE) {
            Optional.ofNullable(takeOldest(personId)).ifPresent(LiveEvents::end);
        }
        for (String topic : topics) {
            followers.compute(topic, (name, open) -> {
                List<SseEmitter> all = open == null ? new CopyOnWriteArrayList<>() : open;
                all.add(emitter);
                return all;
            });
        }
        Runnable leave = () -> {
            byPerson.computeIfPresent(personId, (id, open) -> {
                open.remove(emitter);
                return open.isEmpty() ? null : open;
            });
            for (String topic : topics) {
                followers.computeIfPresent(topic, (name, all) -> {
                    all.remove(emitter);
                    return all.isEmpty() ? null : all;
                });
            }
        };
        emitter.onCompletion(leave);
        emitter.onTimeout(emitter::complete);
        emitter.onError(gone -> leave.run());
        send(emitter, SseEmitter.event().comment("here"));
        return emitter;
    }

    private int openOf(long personId) {
        int[] open = {0};
        byPerson.computeIfPresent(personId, (id, all) -> {
            open[0] = all.size();
            return all;
        });
        return open[0];
    }

    private SseEmitter takeOldest(long personId) {
        SseEmitter[] oldest = {null};
        byPerson.computeIfPresent(personId, (id, all) -> {
            oldest[0] = all.poll();
            return all.isEmpty() ? null : all;
        });
        return oldest[0];
    }

    /** Ends every stream of somebody who is signed out. */
    public void end(long personId) {
        Deque<SseEmitter> open = byPerson.remove(personId);
        if (open != null) {
            open.forEach(LiveEvents::end);
        }
    }

    @Scheduled(fixedDelayString = "PT0.5S")
    void tell() {
        try {
            tellWhatIsNew();
        } catch (DataAccessException away) {
            LOG.warn("what is new cannot be told now: {}", away.getClass().getSimpleName());
        }
    }

    private void tellWhatIsNew() {
        if (newest < 0) {
            newest = events.newest();
        }
        for (Event event : events.since(newest - LOOK_BACK)) {
            if (told.add(event.id())) {
                newest = Math.max(newest, event.id());
                for (SseEmitter emitter : followers.getOrDefault(event.topic(), List.of())) {
                    send(emitter, SseEmitter.event().data(event.revision()));
                }
            }
        }
    }

    /** Keeps streams open through proxies, notices pages that are gone, and forgets old rows. */
    @Scheduled(fixedDelayString = "PT15S")
    void tidy() {
        followers.values().forEach(all -> all.forEach(emitter -> send(emitter, SseEmitter.event().comment("still here"))));
        events.forget(clock.instant().minus(KEEP));
    }

    /** Open streams would hold up the end of the application. */
    @EventListener(ContextClosedEvent.class)
    void close() {
        followers.values().forEach(all -> all.forEach(LiveEvents::end));
    }

    private static void send(SseEmitter emitter, SseEmitter.SseEventBuilder event) {
        try {
            emitter.send(event);
        } catch (IOException | IllegalStateException gone) {
            end(emitter);
        }
    }

    /** A page that is gone already may not keep others from being told. */
    private static void end(SseEmitter emitter) {
        try {
            emitter.complete();
        } catch (IllegalStateException gone) {
            LOG.debug("a stream had ended already", gone);
        }
    }
}
