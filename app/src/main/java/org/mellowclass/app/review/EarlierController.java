package org.mellowclass.app.review;

import java.util.List;

import org.mellowclass.app.people.Person;
import org.mellowclass.core.soundcheck.Reading;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;

/** The hand-in before another one, so that both can be heard in one place. */
@RestController
class EarlierController {

    private final HandIns handIns;
    private final Differences differences;

    EarlierController(HandIns handIns, Differences differences) {
        this.handIns = handIns;
        this.differences = differences;
    }

    /** A stretch of the later one; {@code wasFrame} is where its words begin in the earlier one. */
    record Stretch(long startFrame, long endFrame, long wasFrame) {
    }

    /** @param lufs how loud the later one is; null for silence, and where there is no earlier one */
    record Earlier(List<Stretch> stretches, Double lufs, Double earlierLufs) {
    }

    @GetMapping("/hand-ins/{handInId}/same-words")
    Earlier sameWords(@AuthenticationPrincipal Person viewer, @PathVariable long handInId) {
        HandIn later = handIns.find(viewer, handInId);
        return handIns.ofEpisode(viewer, later.episodeId()).stream().filter(other -> other.number() == later.number() - 1 && other.ready() && later.ready()).findFirst()
                .map(earlier -> compared(earlier, later)).orElse(new Earlier(List.of(), null, null));
    }

    private Earlier compared(HandIn earlier, HandIn later) {
        return new Earlier(differences.sameWords(earlier, later).stream().map(stretch -> new Stretch(stretch.is().startFrame(), stretch.is().endFrame(), stretch.wasFrame())).toList(),
                loudness(later), loudness(earlier));
    }

    private Double loudness(HandIn handIn) {
        return handIns.report(handIn).readings().stream().filter(reading -> reading.kind() == Reading.Kind.LOUDNESS).findFirst().map(Reading::value).orElse(null);
    }
}
