package org.mellowclass.core.soundcheck;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.stream.Collectors;

import org.mellowclass.core.cleanup.Recipe;
import org.mellowclass.core.cleanup.StepKind;
import org.mellowclass.core.measure.StereoFinder;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.Sides;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.talk.Ducking;
import org.mellowclass.core.talk.Talk;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Fade;
import org.mellowclass.core.timeline.TakeSource;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.timeline.edit.DrawCurve;
import org.mellowclass.core.timeline.edit.Edit;
import org.mellowclass.core.timeline.edit.EditRefused;
import org.mellowclass.core.timeline.edit.Fill;
import org.mellowclass.core.timeline.edit.OpenUp;
import org.mellowclass.core.timeline.edit.Remove;
import org.mellowclass.core.timeline.edit.SetClipGains;
import org.mellowclass.core.timeline.edit.SetFade;
import org.mellowclass.core.timeline.edit.Together;
import org.mellowclass.core.timeline.edit.Treat;
import org.mellowclass.core.timeline.edit.Trim;
import org.mellowclass.core.treatment.ChooseSides;
import org.mellowclass.core.treatment.CleanUp;
import org.mellowclass.core.treatment.RedrawTops;
import org.mellowclass.core.treatment.Step;

/** What mends a reading that is not good: one edit, so that it is heard before it is kept, done with one press and undone with one. */
public final class Fixes {

    /** Where the sound begins and ends after a fix. */
    private static final long LEAD = Frames.ofMillis(400);
    private static final long TRAIL = Frames.ofMillis(1000);
    private static final long LAST_FADE = Frames.ofMillis(2000);

    private final Known known;
    private final Timeline timeline;
    private final Voices voices;

    public Fixes(Known known) {
        this.known = known;
        timeline = known.timeline();
        voices = new Voices(timeline, known.heard());
    }

    /** The edit that mends a reading of the page; empty where it is good, or where only the students themselves can mend it. */
    public Optional<Edit> of(Reading reading) {
        return reading.verdict().compareTo(Verdict.GOOD) <= 0 ? Optional.empty() : edit(reading).filter(this::applies);
    }

    private Optional<Edit> edit(Reading reading) {
        return switch (reading.kind()) {
            case VOICES_EVEN -> voices.even().map(even -> new SetClipGains(even.gainsDb()));
            case MUSIC_UNDER_VOICE -> together(timeline.tracks().stream().filter(track -> !track.muted() && track.clips().stream().noneMatch(voices::speaks))
                    .flatMap(track -> Ducking.curve(timeline, track.id(), known.talk()).stream().map(curve -> new DrawCurve(track.id(), curve))).toList());
            case DEAD_AIR -> together(shorter(reading.places()));
            case HUM -> cleaned(heard -> Readings.hum(heard.hum(), heard.loudnessLufs(), List.of()), StepKind.HUM_OUT);
            case ROOM_NOISE -> cleaned(heard -> Readings.roomNoise(heard.voiceToRoomLu(), List.of()), StepKind.NOISE_DOWN);
            case BURSTS -> cleaned(heard -> Readings.bursts(heard.clicks(), heard.pops(), heard.frames()), StepKind.CLICKS, StepKind.POPS);
            case SIBILANCE -> cleaned(heard -> Readings.sibilance(heard.sibilants(), heard.harsh()), StepKind.SOFT_S);
            case LOUDNESS_RANGE -> cleaned(voices.all(), StepKind.LEVEL);
            case CLIPPING -> treated(clippedTakes(), take -> new RedrawTops());
            case SIDES -> together(sides());
            case STARTS_AND_ENDS -> together(edges(reading));
            case LOUDNESS, TRUE_PEAK, WORKING_LEVEL, DROPOUTS, JOINS, LENGTH, PARTS, CREDITS, LIMITED, RAISED -> Optional.empty();
        };
    }

    private boolean applies(Edit edit) {
        try {
            edit.applyTo(timeline, known.takes());
            return true;
        } catch (EditRefused refused) {
            return false;
        }
    }

    private static Optional<Edit> together(List<? extends Edit> edits) {
        return edits.isEmpty() ? Optional.empty() : Optional.of(new Together(List.copyOf(edits)));
    }

    /** The takes that are not good by some steps more, always from the original. */
    private Optional<Edit> cleaned(Function<HeardSound, Reading> reading, StepKind... steps) {
        return cleaned(voices.notGood(reading), steps);
    }

    private static Optional<Edit> cleaned(Collection<TakeSource> sources, StepKind... steps) {
        return treated(sources, source -> {
            Optional<CleanUp> now = source.treatment().step(CleanUp.class);
            return new CleanUp(now.map(CleanUp::recipe).orElse(Recipe.of()).and(steps), now.map(CleanUp::room).orElse(null));
        });
    }

    private static Optional<Edit> treated(Collection<TakeSource> sources, Function<TakeSource, Step> step) {
        Map<Long, Step> steps = sources.stream().collect(Collectors.toMap(TakeSource::takeId, step, (one, other) -> one, TreeMap::new));
        return together(steps.entrySet().stream().map(entry -> new Treat(entry.getKey(), entry.getValue())).toList());
    }

    private List<TakeSource> clippedTakes() {
        return timeline.tracks().stream().filter(track -> !track.muted()).flatMap(track -> track.clips().stream()).map(Clip::source)
                .filter(TakeSource.class::isInstance).map(TakeSource.class::cast)
                .filter(source -> source.treatment().step(RedrawTops.class).isEmpty() && !known.clippedInTake().apply(source.takeId()).isEmpty()).toList();
    }

    private List<Edit> sides() {
        List<Edit> edits = new ArrayList<>();
        voices.heard((source, heard) -> {
            boolean chosen = source.treatment().step(ChooseSides.class).isPresent();
            Sides better = chosen || Readings.sides(heard.sides(), heard.correlation(), heard.channels(), List.of()).verdict().compareTo(Verdict.GOOD) <= 0 ? null : better(heard.sides());
            if (better != null) {
                edits.add(new Treat(source.takeId(), new ChooseSides(better)));
            }
        });
        return edits;
    }

    private static Sides better(StereoFinder.Noticed noticed) {
        return switch (noticed) {
            case LEFT_SILENT -> Sides.RIGHT;
            case RIGHT_SILENT -> Sides.LEFT;
            case ONE_REVERSED -> Sides.RIGHT_REVERSED;
            default -> null;
        };
    }

    private Set<Long> allTracks() {
        return timeline.tracks().stream().map(Track::id).collect(Collectors.toSet());
    }

    /** The pauses that are dead air become as long as that speaker's usually are, on all tracks that are cut together; from the last to the first. */
    private List<Edit> shorter(List<Span> places) {
        Talk spoken = Talk.of(timeline, known.talk());
        Set<Integer> groups = timeline.tracks().stream().filter(track -> spoken.speech().containsKey(track.id())).map(Track::group).collect(Collectors.toSet());
        Set<Long> trackIds = timeline.tracks().stream().filter(track -> groups.contains(track.group())).map(Track::id).collect(Collectors.toSet());
        return spoken.pauses().stream().filter(pause -> pause.allQuiet() && pause.cut() != null && places.stream().anyMatch(place -> meet(place, pause.span())))
                .map(Talk.Pause::cut).sorted(Comparator.comparingLong(Span::startFrame).reversed()).map(cut -> (Edit) new Remove(cut, trackIds)).toList();
    }

    private static boolean meet(Span one, Span other) {
        return one.startFrame() < other.endFrame() && other.startFrame() < one.endFrame();
    }

    private List<Edit> edges(Reading reading) {
        List<Edit> edits = new ArrayList<>();
        long end = timeline.endFrame();
        long trail = reading.places().stream().filter(place -> place.startFrame() > 0 && place.endFrame() >= end).mapToLong(Span::frames).max().orElse(0);
        if (trail > Readings.TRAIL_MOST) {
            edits.add(new Remove(new Span(end - trail + TRAIL, end), allTracks()));
        } else if (trail > 0) {
            edits.addAll(softEnd(end));
        }
        long lead = reading.value() == null ? LEAD : Math.round(reading.value() * Frames.RATE);
        if (lead > Readings.LEAD_MOST) {
            edits.add(new Remove(new Span(0, lead - LEAD), allTracks()));
        } else if (lead < Readings.LEAD_LEAST) {
            edits.add(new OpenUp(0, LEAD - lead, allTracks()));
        }
        return edits;
    }

    /** Music that ends with the page fades; a voice keeps its room a little longer. */
    private List<Edit> softEnd(long end) {
        List<Edit> edits = new ArrayList<>();
        for (Track track : timeline.tracks()) {
            for (Clip clip : track.muted() ? List.<Clip>of() : track.clips()) {
                if (clip.endFrame() < end) {
                    continue;
                }
                if (voices.speaks(clip)) {
                    edits.add(new Fill(new Span(end, end + TRAIL), Set.of(track.id())));
                } else {
                    edits.add(new SetFade(clip.id(), Trim.Edge.END, Math.min(LAST_FADE, clip.frames() - clip.fadeIn().reach()), Fade.Shape.SLOW_START));
                }
            }
        }
        return edits;
    }
}
