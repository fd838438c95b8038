package org.mellowclass.app.bench;

import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;

import org.mellowclass.app.takes.Take;
import org.mellowclass.app.web.Fields;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.talk.Retake;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.timeline.edit.Edit;
import org.mellowclass.core.timeline.edit.EditRefused;
import org.mellowclass.core.timeline.edit.LayCopy;
import org.mellowclass.core.timeline.edit.SwapPassage;

/** Wishes that lay sound on the page. */
sealed interface LayingWish extends Wish {

    /**
     * Lays a take of the episode.
     *
     * @param startFrame where; null for behind everything on the track
     */
    record Laying(long takeId, String trackName, Long startFrame) implements LayingWish {
        @Override
        public Edit edit(Asked asked) {
            throw new IllegalArgumentException("only the bench knows its takes");
        }
    }

    /**
     * Puts a take's words in the place of a selection, on the track that is called as the take's if it is selected, otherwise on the first
     * with sound there.
     */
    record Swapping(long startFrame, long endFrame, Set<Long> trackIds, long takeId) implements LayingWish {
        @Override
        public Edit edit(Asked asked) {
            Span passage = Wish.spanned(startFrame, endFrame);
            Take take = asked.take(takeId);
            List<Track> selected = asked.base().tracks().stream().filter(track -> Wish.given(trackIds).contains(track.id())).toList();
            Track track = selected.stream().filter(it -> it.name().equals(take.trackName())).findFirst()
                    .or(() -> selected.stream().filter(it -> it.clips().stream().anyMatch(clip -> clip.overlaps(passage))).findFirst())
                    .orElseThrow(() -> new EditRefused(EditRefused.Reason.NO_TRACK_CHOSEN));
            Span words = Retake.of(asked.base(), track.id(), passage, takeId, take.frames(), asked.facts());
            return new SwapPassage(track.id(), passage, takeId, words, asked.base().tiedTo(Set.of(track.id())));
        }
    }

    /**
     * Lays a copy of a selection that was made on a revision.
     *
     * @param over whether it is laid over what is there; otherwise what is there moves along, on all tied tracks
     */
    record Copying(long revision, long startFrame, long endFrame, Set<Long> trackIds, long toFrame, boolean over) implements LayingWish {
        @Override
        public Edit edit(Asked asked) {
            List<LayCopy.Copy> copies = LayCopy.copies(asked.at(revision), Wish.spanned(startFrame, endFrame), Wish.given(trackIds)).stream()
                    .filter(copy -> asked.base().track(copy.trackId()).isPresent()).toList();
            Set<Long> tied = asked.base().tiedTo(copies.stream().map(LayCopy.Copy::trackId).collect(Collectors.toSet()));
            return new LayCopy(copies, endFrame - startFrame, Math.max(0, Fields.frame(toFrame)), over ? Set.of() : tied);
        }
    }
}
