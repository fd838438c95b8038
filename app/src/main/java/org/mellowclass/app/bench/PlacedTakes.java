package org.mellowclass.app.bench;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

import org.mellowclass.app.live.LiveEvents;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.sounds.SoundsChanged;
import org.mellowclass.app.sounds.TakeSounds;
import org.mellowclass.app.takes.Take;
import org.mellowclass.app.takes.TakeLanding;
import org.mellowclass.app.takes.TakeShelf;
import org.mellowclass.app.web.Fields;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.TakeSource;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.TimelineTooLong;
import org.mellowclass.core.timeline.edit.EditRefused;
import org.mellowclass.core.timeline.edit.EraseTake;
import org.mellowclass.core.timeline.edit.LayInStep;
import org.mellowclass.core.timeline.edit.LaySpan;
import org.mellowclass.core.timeline.edit.SetTakeGain;
import org.mellowclass.core.timeline.edit.SwapTake;
import org.mellowclass.core.treatment.Treatment;
import org.mellowclass.core.treatment.Trick;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Whole takes on an episode's page: where they land, which of a line is chosen, how they lie to each other, what is erased. */
@Service
@Transactional
public class PlacedTakes implements TakeLanding {

    private final Bench bench;
    private final Access access;
    private final TakeShelf takes;
    private final TakeSounds sounds;
    private final LiveEvents live;

    PlacedTakes(Bench bench, Access access, TakeShelf takes, TakeSounds sounds, LiveEvents live) {
        this.bench = bench;
        this.access = access;
        this.takes = takes;
        this.sounds = sounds;
        this.live = live;
    }

    /**
     * Lays a take that has just become ready onto the track it was made for, whatever happened on the bench meanwhile: at its
     * place or, where none was asked for, behind everything. A retake of a line that is on the page waits until it is chosen, and what the page
     * has no room for waits in the take list.
     */
    @Override
    public Optional<String> land(Take take, Place asked, List<Long> flags) {
        Head head = bench.head(take.episodeId());
        Set<Long> onPage = Bench.takesIn(head.timeline());
        boolean retake = take.lineId() != null && takes.ofLine(take.episodeId(), take.lineId()).stream()
                .anyMatch(other -> other.id() != take.id() && onPage.contains(other.id()));
        if (asked.placing() == Take.Placing.LIST || retake) {
            return Optional.empty();
        }
        Long place = asked.placing() == Take.Placing.START ? Long.valueOf(0) : asked.placeFrame();
        LaySpan edit = place == null
                ? LaySpan.behind(head.timeline(), take.id(), take.spoken(), take.trackName(), flags)
                : new LaySpan(new TakeSource(take.id()), take.spoken(), take.trackName(), place, 0, flags);
        try {
            // tried here, since what a service of its own refuses takes the whole transaction with it
            edit.applyTo(head.timeline(), sounds.facts(take.episodeId()));
        } catch (TimelineTooLong noRoom) {
            return Optional.empty();
        }
        bench.append(take.episodeId(), head, edit, take.authorId(), "take-" + take.id());
        return Optional.of(edit.landing(head.timeline()));
    }

    /** A trick is one stretch's, not its take's. */
    @Override
    public Map<Long, OnPage> onPage(long episodeId) {
        Map<Long, OnPage> takesOnPage = new HashMap<>();
        bench.head(episodeId).timeline().tracks().stream().flatMap(track -> track.clips().stream()).forEach(clip ->
                takesOnPage.merge(clip.source().takeId(), new OnPage(clip.gainDb(), Set.of(clip.source().treatment().without(Trick.class))), PlacedTakes::both));
        return takesOnPage;
    }

    private static OnPage both(OnPage one, OnPage other) {
        Set<Treatment> treatments = new HashSet<>(one.treatments());
        treatments.addAll(other.treatments());
        return new OnPage(Math.min(one.lowestGainDb(), other.lowestGainDb()), treatments);
    }

    /** Gives every clip of a take the same gain; that it has it already is no error. */
    public void setTakeGain(Person viewer, long episodeId, long takeId, double gainDb) {
        Head head = bench.lockedHead(viewer, episodeId);
        OnPage now = onPage(episodeId).get(takeId);
        if (now != null && now.lowestGainDb() != gainDb) {
            bench.edit(viewer, episodeId, head.seq(), "gain-" + takeId + "-" + head.seq(), new SetTakeGain(takeId, gainDb));
        }
    }

    /** The page draws and plays what could not be before. */
    @EventListener
    public void soundsChanged(SoundsChanged changed) {
        live.changed(Bench.topic(changed.episodeId()), bench.head(changed.episodeId()).seq());
    }

    /**
     * Where a take of unknown length would land that starts at a frame, or behind everything if it is negative.
     *
     * @param startFrame where it would start
     * @param beside     whether that is not the track that was asked for, since something stands there
     */
    public record Landing(String trackName, long startFrame, boolean beside) {
    }

    @Transactional(readOnly = true)
    public Landing landing(Person viewer, long episodeId, String trackName, long placeFrame) {
        access.ownEpisode(viewer, episodeId);
        Fields.frame(placeFrame);
        Timeline timeline = bench.head(episodeId).timeline();
        // the shortest stretch: what it will really need, nobody knows yet
        Span span = new Span(0, Frames.ofSeconds(1));
        LaySpan lay = placeFrame < 0 ? LaySpan.behind(timeline, 0, span, trackName, List.of())
                : new LaySpan(0, span, trackName, placeFrame, 0);
        String landing = lay.landing(timeline);
        return new Landing(landing, lay.startFrame(), !landing.equals(trackName));
    }

    /**
     * Chooses a take among those of its line: it takes the place of the one on the page, or is laid behind everything.
     *
     * @return by how many frames what follows has moved to make room, negative if it came nearer
     */
    public long choose(Person viewer, long episodeId, long takeId) {
        Head head = bench.lockedHead(viewer, episodeId);
        Take take = takes.ready(episodeId).get(takeId);
        if (take == null || take.lineId() == null) {
            throw new NotFound();
        }
        Set<Long> onPage = Bench.takesIn(head.timeline());
        if (onPage.contains(takeId)) {
            return 0;
        }
        Optional<Take> old = takes.ofLine(episodeId, take.lineId()).stream().filter(other -> onPage.contains(other.id())).findFirst();
        String clientId = "choose-" + takeId + "-" + head.seq();
        if (old.isEmpty()) {
            bench.edit(viewer, episodeId, head.seq(), clientId, LaySpan.behind(head.timeline(), takeId, take.spoken(), take.trackName(), List.of()));
            return 0;
        }
        SwapTake edit = new SwapTake(old.get().id(), takeId, take.spoken());
        bench.edit(viewer, episodeId, head.seq(), clientId, edit);
        return edit.longerBy(head.timeline());
    }

    /** Lays two takes in step, for somebody who has been let through; that they are in step already is no error. */
    public void layInStep(long authorId, long episodeId, String clientId, LayInStep edit) {
        access.hold(episodeId);
        Head head = bench.head(episodeId);
        try {
            // tried here, since what a service of its own refuses takes the whole transaction with it
            edit.applyTo(head.timeline(), sounds.facts(episodeId));
        } catch (EditRefused refused) {
            if (refused.reason() == EditRefused.Reason.CHANGES_NOTHING) {
                return;
            }
            throw refused;
        }
        bench.append(episodeId, head, edit, authorId, clientId + "-" + head.seq());
    }

    /** Takes a take off the page that is being erased; whoever asks holds the episode and has been let through. */
    public void erase(Person teacher, long episodeId, long takeId) {
        Head head = bench.head(episodeId);
        if (Bench.takesIn(head.timeline()).contains(takeId)) {
            EraseTake edit = new EraseTake(takeId);
            bench.append(episodeId, head, edit, teacher.id(), "erase-" + takeId);
        }
    }
}
