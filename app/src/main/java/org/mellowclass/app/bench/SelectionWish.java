package org.mellowclass.app.bench;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Set;

import org.mellowclass.app.web.Fields;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.core.dsp.PlaceMender;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.edit.Blank;
import org.mellowclass.core.timeline.edit.Clear;
import org.mellowclass.core.timeline.edit.Edit;
import org.mellowclass.core.timeline.edit.EditRefused;
import org.mellowclass.core.timeline.edit.Fill;
import org.mellowclass.core.timeline.edit.Mend;
import org.mellowclass.core.timeline.edit.OpenUp;
import org.mellowclass.core.timeline.edit.PlayTrick;
import org.mellowclass.core.timeline.edit.Remove;
import org.mellowclass.core.timeline.edit.Soften;
import org.mellowclass.core.timeline.edit.Split;
import org.mellowclass.core.timeline.edit.Together;
import org.mellowclass.core.treatment.Trick;

/** Wishes that are about a stretch of time on some tracks. */
sealed interface SelectionWish extends Wish {

    /** Of a selection: a span on some tracks. */
    sealed interface OnSelection extends SelectionWish permits Removing, KeepingOnly, Blanking, Clearing, Filling, Mending, Softening, Tricking {

        long startFrame();

        long endFrame();

        Set<Long> trackIds();

        default Span span() {
            return Wish.spanned(startFrame(), endFrame());
        }
    }

    record Removing(long startFrame, long endFrame, Set<Long> trackIds) implements OnSelection {
        @Override
        public Edit edit(Asked asked) {
            return new Remove(span(), Wish.given(trackIds));
        }
    }

    record KeepingOnly(long startFrame, long endFrame, Set<Long> trackIds) implements OnSelection {
        @Override
        public Edit edit(Asked asked) {
            List<Edit> edits = new ArrayList<>();
            long end = asked.base().endFrame();
            if (span().endFrame() < end) {
                edits.add(new Remove(new Span(endFrame, end), Wish.given(trackIds)));
            }
            if (startFrame > 0) {
                edits.add(new Remove(new Span(0, startFrame), Wish.given(trackIds)));
            }
            if (edits.isEmpty()) {
                throw new EditRefused(EditRefused.Reason.CHANGES_NOTHING);
            }
            return new Together(edits);
        }
    }

    record Blanking(long startFrame, long endFrame, Set<Long> trackIds) implements OnSelection {
        @Override
        public Edit edit(Asked asked) {
            return new Blank(span(), Wish.given(trackIds));
        }
    }

    record Clearing(long startFrame, long endFrame, Set<Long> trackIds) implements OnSelection {
        @Override
        public Edit edit(Asked asked) {
            return new Clear(span(), Wish.given(trackIds));
        }
    }

    record Filling(long startFrame, long endFrame, Set<Long> trackIds) implements OnSelection {
        @Override
        public Edit edit(Asked asked) {
            return new Fill(span(), Wish.given(trackIds));
        }
    }

    /** What is too long to be guessed from what is around it becomes room. */
    record Mending(long startFrame, long endFrame, Set<Long> trackIds) implements OnSelection {
        @Override
        public Edit edit(Asked asked) {
            return span().frames() <= PlaceMender.LONGEST ? Mend.heard(asked.base(), span(), Wish.given(trackIds)) : new Blank(span(), Wish.given(trackIds));
        }
    }

    record Softening(long startFrame, long endFrame, Set<Long> trackIds) implements OnSelection {
        @Override
        public Edit edit(Asked asked) {
            return new Soften(span(), Wish.given(trackIds));
        }
    }

    /** @param kind null to hear it as it was said */
    record Tricking(long startFrame, long endFrame, Set<Long> trackIds, Trick.Kind kind, double amount) implements OnSelection {
        @Override
        public Edit edit(Asked asked) {
            if (Wish.given(trackIds).size() != 1) {
                throw Refusal.unfit("bench.ONE_TRACK");
            }
            return new PlayTrick(trackIds.iterator().next(), span(), kind, amount, asked.base().tiedTo(trackIds));
        }
    }

    record Splitting(long frame, Set<Long> trackIds) implements SelectionWish {
        @Override
        public Edit edit(Asked asked) {
            return new Split(Math.max(0, Fields.frame(frame)), Wish.given(trackIds));
        }
    }

    record OpeningUp(long frame, long frames, Set<Long> trackIds) implements SelectionWish {
        @Override
        public Edit edit(Asked asked) {
            return new OpenUp(Math.max(0, Fields.frame(frame)), Fields.frame(frames), Wish.given(trackIds));
        }
    }

    /** Takes spans, of which each is the too long middle of a pause, out of the tracks. */
    record ShorteningPauses(List<Span> spans, Set<Long> trackIds) implements SelectionWish {
        @Override
        public Edit edit(Asked asked) {
            if (Wish.given(spans).isEmpty() || spans.size() > MOST_AT_ONCE) {
                throw Refusal.unfit("bench.NOTHING_SELECTED");
            }
            // from the last to the first, so that none moves another
            return new Together(spans.stream().map(span -> Wish.spanned(span.startFrame(), span.endFrame()))
                    .sorted(Comparator.comparingLong(Span::startFrame).reversed()).map(span -> (Edit) new Remove(span, Wish.given(trackIds))).toList());
        }
    }
}
