package org.mellowclass.app.bench;

import java.util.List;

import org.mellowclass.app.web.Fields;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.timeline.VolumeCurve;
import org.mellowclass.core.timeline.edit.AddTrack;
import org.mellowclass.core.timeline.edit.DrawCurve;
import org.mellowclass.core.timeline.edit.DropTrack;
import org.mellowclass.core.timeline.edit.Edit;
import org.mellowclass.core.timeline.edit.EditRefused;
import org.mellowclass.core.timeline.edit.MuteTrack;
import org.mellowclass.core.timeline.edit.NameTrack;
import org.mellowclass.core.timeline.edit.OrderTrack;
import org.mellowclass.core.timeline.edit.PanTrack;
import org.mellowclass.core.timeline.edit.SetTrackGain;
import org.mellowclass.core.timeline.edit.TieTrack;

/** Wishes that are about a whole track. */
sealed interface TrackWish extends Wish {

    record TrackGain(long trackId, double gainDb) implements TrackWish {
        @Override
        public Edit edit(Asked asked) {
            return new SetTrackGain(trackId, gainDb);
        }
    }

    record Panning(long trackId, double pan) implements TrackWish {
        @Override
        public Edit edit(Asked asked) {
            return new PanTrack(trackId, pan);
        }
    }

    record Muting(long trackId, boolean muted) implements TrackWish {
        @Override
        public Edit edit(Asked asked) {
            return new MuteTrack(trackId, muted);
        }
    }

    record NamingTrack(long trackId, String name) implements TrackWish {
        @Override
        public Edit edit(Asked asked) {
            return new NameTrack(trackId, Wish.name(name, "bench.TRACK_NAME_TOO_LONG"));
        }
    }

    /** @param withTrackId a track to which it is tied; 0 for none */
    record Tying(long trackId, long withTrackId) implements TrackWish {
        @Override
        public Edit edit(Asked asked) {
            return new TieTrack(trackId, asked.base().track(withTrackId).map(Track::group).orElse(0));
        }
    }

    record Ordering(long trackId, int place) implements TrackWish {
        @Override
        public Edit edit(Asked asked) {
            return new OrderTrack(trackId, place);
        }
    }

    record AddingTrack(String name) implements TrackWish {
        @Override
        public Edit edit(Asked asked) {
            return new AddTrack(Wish.name(name, "bench.TRACK_NAME_TOO_LONG"));
        }
    }

    record DroppingTrack(long trackId) implements TrackWish {
        @Override
        public Edit edit(Asked asked) {
            return new DropTrack(trackId);
        }
    }

    record Curving(long trackId, List<VolumeCurve.Point> points) implements TrackWish {
        @Override
        public Edit edit(Asked asked) {
            if (Wish.given(points).size() > VolumeCurve.MOST_POINTS) {
                throw new EditRefused(EditRefused.Reason.CURVE_TOO_LONG);
            }
            points.forEach(point -> Fields.frame(point.frame()));
            return new DrawCurve(trackId, new VolumeCurve(points));
        }
    }
}
