package org.mellowclass.app.bench;

import java.io.IOException;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;

import org.mellowclass.app.people.Person;
import org.mellowclass.app.sounds.TakeFindings;
import org.mellowclass.app.sounds.TakeSounds;
import org.mellowclass.app.takes.Take;
import org.mellowclass.app.takes.TakeShelf;
import org.mellowclass.app.web.Fields;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.app.web.Turnstile;
import org.mellowclass.core.soundcheck.MusicUnderVoice;
import org.mellowclass.core.talk.Ducking;
import org.mellowclass.core.talk.EvenVoices;
import org.mellowclass.core.talk.Levels;
import org.mellowclass.core.talk.Talk;
import org.mellowclass.core.talk.TalkFacts;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.timeline.VolumeCurve;
import org.mellowclass.core.timeline.edit.Fades;
import org.springframework.stereotype.Service;

/** Who speaks when on an episode's page, and what follows from it: pauses, ducked music, even voices. */
@Service
public class TalkOfEpisode {

    private final Bench bench;
    private final TakeShelf takes;
    private final TakeSounds sounds;
    private final Turnstile turnstile = new Turnstile(2);

    TalkOfEpisode(Bench bench, TakeShelf takes, TakeSounds sounds) {
        this.bench = bench;
        this.takes = takes;
        this.sounds = sounds;
    }

    /**
     * @param measured whether every take on the page is measured: those that are not have no pauses yet
     */
    record Pauses(boolean measured, List<Talk.Pause> pauses) {
    }

    Pauses pauses(Person viewer, long episodeId, long revision) {
        Timeline timeline = bench.timeline(viewer, episodeId, revision);
        TalkFacts facts = facts(episodeId);
        return new Pauses(measured(timeline, facts), Talk.of(timeline, facts).pauses());
    }

    private static boolean measured(Timeline timeline, TalkFacts facts) {
        return Bench.takesIn(timeline).stream().allMatch(take -> facts.of(take).isPresent());
    }

    /** The points that take a track of music down under the voices. */
    List<VolumeCurve.Point> ducked(Person viewer, long episodeId, long revision, long trackId) {
        Timeline timeline = bench.timeline(viewer, episodeId, revision);
        if (timeline.track(trackId).isEmpty()) {
            throw Refusal.conflict("bench.CHANGED_MEANWHILE");
        }
        TalkFacts facts = facts(episodeId);
        if (!measured(timeline, facts)) {
            throw Refusal.unfit("bench.NOT_MEASURED_YET");
        }
        return Ducking.curve(timeline, trackId, facts).orElseThrow(() -> Refusal.unfit("bench.NOTHING_TO_DUCK")).points();
    }

    /** How loud the voices are, and the gains that make them even; empty where nobody speaks, or nothing is measured yet. */
    Optional<EvenVoices> even(Person viewer, long episodeId, long revision) {
        return EvenVoices.of(Levels.spoken(bench.timeline(viewer, episodeId, revision), facts(episodeId)));
    }

    /** How loud a clip is in the mix, in LUFS; empty for silence, and until it is measured. */
    Optional<Double> loudness(Person viewer, long episodeId, long revision, long clipId) {
        Timeline timeline = bench.timeline(viewer, episodeId, revision);
        Optional<Track> track = timeline.trackOf(clipId);
        Optional<Clip> clip = track.flatMap(it -> it.clip(clipId));
        return clip.flatMap(it -> Levels.lufs(track.get(), it, facts(episodeId)));
    }

    /** How far music lies under the voice around a moment, in LU; empty where nobody speaks over music, or no take of it is measured. */
    OptionalDouble musicUnderVoice(Person viewer, long episodeId, long revision, long frame) throws IOException {
        Timeline timeline = bench.timeline(viewer, episodeId, revision);
        long from = Math.max(0, Fields.frame(frame) - MusicUnderVoice.STRETCH_FRAMES / 2);
        return turnstile.pass(() -> MusicUnderVoice.of(timeline, facts(episodeId), sounds, from, from + MusicUnderVoice.STRETCH_FRAMES).over());
    }

    List<Fades.Listed> fades(Person viewer, long episodeId, long revision) {
        return Fades.of(bench.timeline(viewer, episodeId, revision));
    }

    /** @throws NotFound if it is no ready take of the episode */
    Take take(long episodeId, long takeId) {
        return Optional.ofNullable(takes.ready(episodeId).get(takeId)).orElseThrow(NotFound::new);
    }

    /** What is known of the takes of an episode that has been let through. */
    public TalkFacts facts(long episodeId) {
        Map<Long, Take> ready = takes.ready(episodeId);
        Map<Long, TakeFindings.Speech> speech = sounds.speechOf(episodeId);
        return takeId -> Optional.ofNullable(speech.get(takeId)).filter(found -> ready.containsKey(takeId))
                .map(found -> new TalkFacts.Measured(ready.get(takeId).origin() != Take.Origin.SHELF, found.pauses(), found.loudnessLufs()));
    }
}
