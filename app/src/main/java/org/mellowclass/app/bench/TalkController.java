package org.mellowclass.app.bench;

import java.io.IOException;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;

import org.mellowclass.app.people.Person;
import org.mellowclass.core.talk.EvenVoices;
import org.mellowclass.core.timeline.VolumeCurve;
import org.mellowclass.core.timeline.edit.Fades;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** What the bench offers from what was measured, and edits that are only heard. */
@RestController
class TalkController {

    private final TalkOfEpisode talk;
    private final Trials trials;

    TalkController(TalkOfEpisode talk, Trials trials) {
        this.talk = talk;
        this.trials = trials;
    }

    @GetMapping("/episodes/{episodeId}/pauses/{revision}")
    TalkOfEpisode.Pauses pauses(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, @PathVariable long revision) {
        return talk.pauses(viewer, episodeId, revision);
    }

    @GetMapping("/episodes/{episodeId}/ducked/{revision}/{trackId}")
    List<VolumeCurve.Point> ducked(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, @PathVariable long revision, @PathVariable long trackId) {
        return talk.ducked(viewer, episodeId, revision, trackId);
    }

    @GetMapping("/episodes/{episodeId}/even/{revision}")
    Optional<EvenVoices> even(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, @PathVariable long revision) {
        return talk.even(viewer, episodeId, revision);
    }

    /** @param lufs null for silence, and until it is measured */
    record Loudness(Double lufs) {
    }

    @GetMapping("/episodes/{episodeId}/loudness/{revision}/{clipId}")
    Loudness loudness(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, @PathVariable long revision, @PathVariable long clipId) {
        return new Loudness(talk.loudness(viewer, episodeId, revision, clipId).orElse(null));
    }

    /** @param lu voice minus music; null where there is nothing to compare */
    record Under(Double lu) {
    }

    @GetMapping("/episodes/{episodeId}/under-voice/{revision}/{frame}")
    Under underVoice(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, @PathVariable long revision, @PathVariable long frame) throws IOException {
        OptionalDouble lu = talk.musicUnderVoice(viewer, episodeId, revision, frame);
        return new Under(lu.isPresent() ? lu.getAsDouble() : null);
    }

    @GetMapping("/episodes/{episodeId}/fades/{revision}")
    List<Fades.Listed> fades(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, @PathVariable long revision) {
        return talk.fades(viewer, episodeId, revision);
    }

    record TrialRequest(long base, Wish edit) {
        TrialRequest {
            if (edit == null) {
                throw new IllegalArgumentException("no edit");
            }
        }
    }

    /** What an edit would sound like; nothing is kept. */
    @PostMapping("/episodes/{episodeId}/trials")
    Trials.Tried trial(@AuthenticationPrincipal Person viewer, @PathVariable long episodeId, @RequestBody TrialRequest request) {
        return trials.of(viewer, episodeId, request.base(), request.edit());
    }
}
