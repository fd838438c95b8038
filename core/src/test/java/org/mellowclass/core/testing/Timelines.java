package org.mellowclass.core.testing;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;

import org.mellowclass.core.cleanup.Recipe;
import org.mellowclass.core.cleanup.StarterRecipe;
import org.mellowclass.core.sound.Sides;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Fade;
import org.mellowclass.core.timeline.Flag;
import org.mellowclass.core.timeline.RoomSource;
import org.mellowclass.core.timeline.Source;
import org.mellowclass.core.timeline.TakeSource;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.timeline.VolumeCurve;
import org.mellowclass.core.timeline.edit.AddFlag;
import org.mellowclass.core.timeline.edit.AddTrack;
import org.mellowclass.core.timeline.edit.Blank;
import org.mellowclass.core.timeline.edit.Clear;
import org.mellowclass.core.timeline.edit.DrawCurve;
import org.mellowclass.core.timeline.edit.DropTrack;
import org.mellowclass.core.timeline.edit.Fill;
import org.mellowclass.core.timeline.edit.Edit;
import org.mellowclass.core.timeline.edit.EraseTake;
import org.mellowclass.core.timeline.edit.LayCopy;
import org.mellowclass.core.timeline.edit.LayInStep;
import org.mellowclass.core.timeline.edit.LaySpan;
import org.mellowclass.core.timeline.edit.LayTake;
import org.mellowclass.core.timeline.edit.Mend;
import org.mellowclass.core.timeline.edit.Move;
import org.mellowclass.core.timeline.edit.MoveJoin;
import org.mellowclass.core.timeline.edit.MuteTrack;
import org.mellowclass.core.timeline.edit.NameFlag;
import org.mellowclass.core.timeline.edit.NameTrack;
import org.mellowclass.core.timeline.edit.OpenUp;
import org.mellowclass.core.timeline.edit.OrderTrack;
import org.mellowclass.core.timeline.edit.PanTrack;
import org.mellowclass.core.timeline.edit.PartSides;
import org.mellowclass.core.timeline.edit.PlayTrick;
import org.mellowclass.core.timeline.edit.Remove;
import org.mellowclass.core.timeline.edit.RemoveClip;
import org.mellowclass.core.timeline.edit.RemoveFlag;
import org.mellowclass.core.timeline.edit.SetClipGain;
import org.mellowclass.core.timeline.edit.SetClipGains;
import org.mellowclass.core.timeline.edit.SetFade;
import org.mellowclass.core.timeline.edit.SetFades;
import org.mellowclass.core.timeline.edit.SetTakeGain;
import org.mellowclass.core.timeline.edit.SetTrackGain;
import org.mellowclass.core.timeline.edit.Soften;
import org.mellowclass.core.timeline.edit.Split;
import org.mellowclass.core.timeline.edit.SwapPassage;
import org.mellowclass.core.timeline.edit.SwapTake;
import org.mellowclass.core.timeline.edit.TakeFacts;
import org.mellowclass.core.timeline.edit.TieTrack;
import org.mellowclass.core.timeline.edit.Together;
import org.mellowclass.core.timeline.edit.Treat;
import org.mellowclass.core.timeline.edit.Trim;
import org.mellowclass.core.treatment.ChooseSides;
import org.mellowclass.core.treatment.CleanUp;
import org.mellowclass.core.treatment.CorrectClock;
import org.mellowclass.core.treatment.RedrawTops;
import org.mellowclass.core.treatment.Step;
import org.mellowclass.core.treatment.Treatment;
import org.mellowclass.core.treatment.Trick;

/** Makes timelines and edits from a seed, for tests of what must hold for every one of them. */
public final class Timelines {

    private static final int FLAGS = 3;
    private static final int TAKE_COUNT = 3;
    private static final long TAKE_FRAMES = 200_000;

    /** Three takes of a little over four seconds; the room is known of the first two. */
    public static final TakeFacts TAKES = facts(Map.of(1L, new Span(100, 20_100), 2L, new Span(50_000, 58_000)));

    private Timelines() {
    }

    /** Takes that are as long as those of {@link #TAKES}, with other rooms. */
    public static TakeFacts facts(Map<Long, Span> rooms) {
        return new TakeFacts() {
            @Override
            public OptionalLong frames(long takeId) {
                return OptionalLong.of(TAKE_FRAMES);
            }

            @Override
            public Optional<Span> room(long takeId) {
                return Optional.ofNullable(rooms.get(takeId));
            }
        };
    }

    /**
     * One to four tracks, some of them tied, each with up to six clips: with gaps, close to each other, touching, crossfaded,
     * split, room between them; ends after frame 2 000 at the earliest.
     */
    public static Timeline generate(Random random) {
        List<Track> tracks = new ArrayList<>();
        long id = 1;
        int trackCount = 1 + random.nextInt(4);
        for (int t = 0; t < trackCount; t++) {
            long trackId = id++;
            List<Clip> clips = new ArrayList<>();
            long at = random.nextInt(3000);
            int clipCount = 1 + random.nextInt(6);
            for (int c = 0; c < clipCount; c++) {
                long frames = 2000 + random.nextInt(8000);
                Clip clip = new Clip(id++, source(random), at, random.nextInt(50_000), frames, random.nextInt(13) - 6, edge(random), edge(random));
                Clip last = clips.isEmpty() ? null : clips.get(clips.size() - 1);
                if (last != null && last.endFrame() == at && random.nextInt(3) == 0) {
                    clip = crossfaded(clips, last, clip, random);
                }
                clips.add(clip);
                at = clip.endFrame() + switch (random.nextInt(4)) {
                    case 0 -> random.nextInt(4000);
                    case 1 -> 1 + random.nextInt(30);
                    default -> 0;
                };
            }
            tracks.add(new Track(trackId, "Voice " + t, random.nextInt(4) == 0 ? 2 : 1, random.nextInt(7) - 3, random.nextInt(3) == 0 ? random.nextInt(21) / 10.0 - 1 : 0,
                    random.nextInt(5) == 0, curve(random, at), clips));
        }
        return new Timeline(tracks, flags(tracks, random, id), id + FLAGS);
    }

    private static Clip crossfaded(List<Clip> clips, Clip last, Clip clip, Random random) {
        long overlap = Fade.EDGE_FRAMES + random.nextInt(500);
        Fade fade = Fade.of(overlap, random.nextBoolean() ? Fade.Shape.EQUAL_POWER : Fade.Shape.GENTLE);
        clips.set(clips.size() - 1, last.withFades(last.fadeIn(), fade));
        return clip.movedBy(-overlap).withFades(fade, clip.fadeOut());
    }

    private static Source source(Random random) {
        long take = 1 + random.nextInt(TAKE_COUNT);
        Treatment treatment = random.nextInt(4) == 0 ? Treatment.of(new ChooseSides(Sides.MEAN)) : Treatment.NONE;
        return random.nextInt(8) == 0 ? new RoomSource(take, treatment, 100, 20_000) : new TakeSource(take, treatment);
    }

    private static List<Flag> flags(List<Track> tracks, Random random, long firstId) {
        List<Flag> flags = new ArrayList<>();
        for (int i = 0; i < FLAGS; i++) {
            Track track = tracks.get(random.nextInt(tracks.size()));
            flags.add(new Flag(firstId + i, track.id(), random.nextLong(track.endFrame()), "flag " + i));
        }
        return flags;
    }

    /** Often none. */
    private static VolumeCurve curve(Random random, long endFrame) {
        Map<Long, VolumeCurve.Point> points = new TreeMap<>();
        for (int i = random.nextInt(3) == 0 ? 1 + random.nextInt(5) : 0; i > 0; i--) {
            long frame = random.nextLong(endFrame + 1000);
            points.put(frame, new VolumeCurve.Point(frame, random.nextInt(6) == 0 ? VolumeCurve.SILENT_DB : random.nextInt(30) - 20));
        }
        return new VolumeCurve(List.copyOf(points.values()));
    }

    private static Fade edge(Random random) {
        return switch (random.nextInt(6)) {
            case 0, 1 -> Fade.EDGE;
            case 2 -> Fade.EDGE.meeting(Fade.Seam.EQUAL_POWER);
            case 3 -> Fade.of(300, Fade.Shape.values()[random.nextInt(Fade.Shape.values().length)]);
            default -> Fade.NONE;
        };
    }

    /** A clip of a take, without gain and fades. */
    public static Clip clip(long id, long takeId, long startFrame, long takeFrame, long frames) {
        return new Clip(id, new TakeSource(takeId), startFrame, takeFrame, frames, 0, Fade.NONE, Fade.NONE);
    }

    /** Any edit; it may turn out not to apply. */
    public static Edit edit(Timeline timeline, Random random) {
        Remove span = removal(timeline, random);
        List<Clip> clips = timeline.tracks().stream().flatMap(track -> track.clips().stream()).toList();
        if (clips.isEmpty()) {
            return span;
        }
        Clip clip = clips.get(random.nextInt(clips.size()));
        Track track = timeline.tracks().get(random.nextInt(timeline.tracks().size()));
        long take = 1 + random.nextInt(TAKE_COUNT);
        int from = random.nextInt(9) * 300;
        return switch (random.nextInt(43)) {
            case 0, 1, 2 -> span;
            case 3 -> new Blank(span.span(), span.trackIds());
            case 4 -> new Soften(span.span(), span.trackIds());
            case 5 -> new Split(span.span().startFrame(), span.trackIds());
            case 6, 7 -> new Move(clip.id(), track.id(), random.nextLong(timeline.endFrame() + 5000));
            case 8 -> new Trim(clip.id(), Trim.Edge.START, clip.startFrame() + random.nextInt(4000) - 1000);
            case 9 -> new Trim(clip.id(), Trim.Edge.END, clip.endFrame() + random.nextInt(4000) - 3000);
            case 10 -> new SetClipGain(clip.id(), random.nextInt(60) - 40);
            case 11 -> new SetTrackGain(track.id(), random.nextInt(60) - 40);
            case 12 -> new SetTakeGain(take, random.nextInt(20) - 10);
            case 13 -> new AddFlag(track.id(), random.nextLong(timeline.endFrame()), "here");
            case 14 -> timeline.flags().isEmpty() ? span : new RemoveFlag(timeline.flags().get(random.nextInt(timeline.flags().size())).id());
            case 15 -> timeline.flags().isEmpty() ? span
                    : new NameFlag(timeline.flags().get(random.nextInt(timeline.flags().size())).id(), "name " + random.nextInt(3));
            case 16, 17 -> new LaySpan(take, new Span(0, 1000 + random.nextInt(5000)), random.nextBoolean() ? track.name() : "Shelf " + random.nextInt(2),
                    random.nextLong(timeline.endFrame()), 0);
            case 18 -> new LayTake(9, TAKE_FRAMES, 0, random.nextBoolean() ? track.name() : "Shelf " + random.nextInt(2));
            case 19 -> new SwapTake(take, 8, new Span(500, 1500 + random.nextInt(5000)));
            case 20 -> new Treat(take, step(random));
            case 21 -> random.nextBoolean() ? new PartSides(take, "Other side") : new EraseTake(take);
            case 22 -> new LayInStep(new LayInStep.Laid(take, new Span(0, 5000), "Voice 0"),
                    new LayInStep.Laid(7, new Span(0, 5000), "Laid"), random.nextInt(20_000) - 3000, random.nextBoolean() ? 0 : 80);
            case 23 -> random.nextBoolean() ? new Clear(span.span(), span.trackIds()) : new Fill(span.span(), span.trackIds());
            case 24 -> new OpenUp(span.span().startFrame(), 1 + random.nextInt(5000), span.trackIds());
            case 25 -> new RemoveClip(clip.id());
            case 26 -> new SetFade(clip.id(), Trim.Edge.values()[random.nextInt(2)], random.nextInt(3) * 700, Fade.Shape.values()[random.nextInt(5)]);
            case 27 -> new MoveJoin(clip.id(), random.nextInt(1500) - 750);
            case 28 -> copy(timeline, span, random, true);
            case 29 -> copy(timeline, span, random, false);
            case 30 -> new DrawCurve(track.id(), curve(random, timeline.endFrame()));
            case 31 -> new SetClipGains(Map.of(clip.id(), (double) (random.nextInt(20) - 10)));
            case 32 -> random.nextBoolean() ? new PanTrack(track.id(), random.nextInt(3) - 1) : new MuteTrack(track.id(), random.nextBoolean());
            case 33 -> random.nextBoolean() ? new NameTrack(track.id(), "Voice " + random.nextInt(6)) : new AddTrack("Shelf " + random.nextInt(2));
            case 34 -> new TieTrack(track.id(), random.nextInt(3));
            case 35 -> new OrderTrack(track.id(), random.nextInt(4));
            case 36 -> new DropTrack(track.id());
            case 37 -> new Mend(Map.of(take, List.of(new Span(from, from + 1 + random.nextInt(500)))));
            case 38 -> new SetFades(List.of(new SetFade(clip.id(), Trim.Edge.START, random.nextInt(600), Fade.Shape.GENTLE),
                    new SetFade(clips.get(random.nextInt(clips.size())).id(), Trim.Edge.END, random.nextInt(600), Fade.Shape.STRAIGHT)));
            case 39 -> new SwapPassage(track.id(), span.span(), 8, new Span(500, 1500 + random.nextInt(5000)), span.trackIds());
            case 40 -> trick(track.id(), span, random);
            case 41 -> new PlayTrick(track.id(), span.span(), null, 0, span.trackIds());
            default -> together(span, random);
        };
    }

    private static LayCopy copy(Timeline timeline, Remove span, Random random, boolean over) {
        return new LayCopy(LayCopy.copies(timeline, span.span(), span.trackIds()), span.span().frames(), random.nextLong(timeline.endFrame()),
                over ? Set.of() : span.trackIds());
    }

    private static PlayTrick trick(long trackId, Remove span, Random random) {
        Trick.Kind kind = Trick.Kind.values()[random.nextInt(Trick.Kind.values().length)];
        return new PlayTrick(trackId, span.span(), kind, kind.least() + random.nextInt(5) * (kind.most() - kind.least()) / 4, span.trackIds());
    }

    private static Step step(Random random) {
        return switch (random.nextInt(4)) {
            case 0 -> new RedrawTops();
            case 1 -> new ChooseSides(Sides.LEFT);
            case 2 -> new CleanUp(random.nextInt(3) == 0 ? Recipe.of() : StarterRecipe.values()[random.nextInt(2)].recipe(), null);
            default -> new CorrectClock(random.nextInt(600) - 300);
        };
    }

    private static Edit together(Remove span, Random random) {
        List<Long> tracks = List.copyOf(span.trackIds());
        if (tracks.size() < 2) {
            return span;
        }
        long later = random.nextInt(3000);
        return new Together(List.of(new Remove(span.span(), Set.of(tracks.get(0))),
                new Remove(new Span(span.span().startFrame() + later, span.span().endFrame() + later), Set.of(tracks.get(1)))));
    }

    /** A removal on some of the tracks, which starts before the timeline's end. */
    public static Remove removal(Timeline timeline, Random random) {
        long start = random.nextLong(timeline.endFrame());
        Set<Long> chosen = new HashSet<>();
        for (Track track : timeline.tracks()) {
            if (random.nextInt(3) > 0) {
                chosen.add(track.id());
            }
        }
        if (chosen.isEmpty()) {
            chosen.add(timeline.tracks().get(0).id());
        }
        return new Remove(new Span(start, start + 1 + random.nextInt(9000)), chosen);
    }
}
