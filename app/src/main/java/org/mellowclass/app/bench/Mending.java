package org.mellowclass.app.bench;

import java.util.List;
import java.util.Optional;

import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Episode;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.Voices;
import org.mellowclass.app.people.Voices.Side;
import org.mellowclass.app.people.Voices.Speaker;
import org.mellowclass.app.people.Voices.Voice;
import org.mellowclass.app.sounds.TakeFindings;
import org.mellowclass.app.sounds.TakeSounds;
import org.mellowclass.app.takes.Take;
import org.mellowclass.app.takes.TakeLanding.OnPage;
import org.mellowclass.app.takes.TakeShelf;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.core.measure.StereoFinder.Noticed;
import org.mellowclass.core.sound.Sides;
import org.mellowclass.core.timeline.edit.Edit;
import org.mellowclass.core.timeline.edit.PartSides;
import org.mellowclass.core.timeline.edit.Treat;
import org.mellowclass.core.treatment.ChooseSides;
import org.mellowclass.core.treatment.RedrawTops;
import org.mellowclass.core.treatment.Step;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Mends what was noticed about a take on the page, with one press: an edit like any other, which can be undone. */
@Service
@Transactional
public class Mending {

    private final Bench bench;
    private final PlacedTakes placed;
    private final TakeShelf takes;
    private final TakeSounds sounds;
    private final Voices voices;
    private final Access access;

    Mending(Bench bench, PlacedTakes placed, TakeShelf takes, TakeSounds sounds, Voices voices, Access access) {
        this.bench = bench;
        this.placed = placed;
        this.takes = takes;
        this.sounds = sounds;
        this.voices = voices;
        this.access = access;
    }

    /** What can be mended with one press. */
    public enum Trouble { LEFT_SILENT, RIGHT_SILENT, SAME_ON_BOTH, ONE_REVERSED, TWO_SPEAKERS, CLIPPED }

    /**
     * What there is to mend in a take that is on the page: its two sides first, then what is clipped.
     *
     * @param speech whether somebody's voice is in it: that both sides are the same says something of speech only
     */
    public static Optional<Trouble> trouble(Take take, TakeFindings findings, OnPage onPage, boolean speech) {
        if (findings == null || onPage == null || take.origin() == Take.Origin.SHELF) {
            return Optional.empty();
        }
        boolean sides = findings.noticed() != Noticed.NOTHING && (speech || findings.noticed() != Noticed.SAME_ON_BOTH);
        if (sides && lacks(onPage, ChooseSides.class)) {
            return Optional.of(Trouble.valueOf(findings.noticed().name()));
        }
        return findings.clipped().isEmpty() || !lacks(onPage, RedrawTops.class) ? Optional.empty() : Optional.of(Trouble.CLIPPED);
    }

    private static boolean lacks(OnPage onPage, Class<? extends Step> step) {
        return onPage.treatments().stream().anyMatch(treatment -> treatment.step(step).isEmpty());
    }

    /**
     * Does what suits; a second press changes nothing.
     *
     * @param left  who speaks on the left side, where two speakers are parted; nobody to leave that open
     * @param right who speaks on the right side
     */
    public void mend(Person viewer, long episodeId, long takeId, Optional<Speaker> left, Optional<Speaker> right) {
        Episode episode = access.ownEpisode(viewer, episodeId);
        Head head = bench.lockedHead(viewer, episodeId);
        Take take = Optional.ofNullable(takes.ready(episodeId).get(takeId)).orElseThrow(NotFound::new);
        OnPage onPage = placed.onPage(episodeId).get(takeId);
        Optional<Trouble> trouble = trouble(take, sounds.findings(takeId).orElse(null), onPage, voices.ofEpisode(episodeId).containsKey(takeId));
        if (trouble.isEmpty()) {
            boolean mended = onPage != null && onPage.treatments().stream().noneMatch(treatment -> treatment.steps().isEmpty());
            if (!mended) {
                throw Refusal.conflict("take.NOTHING_TO_FIX");
            }
            return;
        }
        if (trouble.get() == Trouble.TWO_SPEAKERS && left.isPresent() && right.isPresent()) {
            voices.onSides(viewer, episode, takeId, left.get(), right.get());
        }
        bench.edit(viewer, episodeId, head.seq(), "mend-" + takeId + "-" + head.seq(), edit(take, trouble.get()));
    }

    private Edit edit(Take take, Trouble trouble) {
        return switch (trouble) {
            case LEFT_SILENT -> sides(take, Sides.RIGHT);
            case RIGHT_SILENT -> sides(take, Sides.LEFT);
            case SAME_ON_BOTH -> sides(take, Sides.MEAN);
            case ONE_REVERSED -> sides(take, Sides.RIGHT_REVERSED);
            case TWO_SPEAKERS -> new PartSides(take.id(), otherVoice(take));
            case CLIPPED -> new Treat(take.id(), new RedrawTops());
        };
    }

    private static Edit sides(Take take, Sides sides) {
        return new Treat(take.id(), new ChooseSides(sides));
    }

    /** The track of the second speaker is called by the voice on the right, or by one that is in the take but for the one whose track it is on. */
    private String otherVoice(Take take) {
        List<Voice> known = voices.ofEpisode(take.episodeId()).getOrDefault(take.id(), List.of());
        return known.stream().filter(voice -> voice.side() == Side.RIGHT)
                .findFirst().or(() -> known.stream().filter(voice -> voice.side() == null && !voice.name().equals(take.trackName())).findFirst())
                .map(Voice::name).orElse(take.trackName());
    }
}
