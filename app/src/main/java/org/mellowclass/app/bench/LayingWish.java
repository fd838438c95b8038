package org.mellowclass.app.bench;

import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;

import org.mellowclass.app.web.Fields;
import org.mellowclass.core.timeline.edit.Edit;
import org.mellowclass.core.timeline.edit.LayCopy;

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
