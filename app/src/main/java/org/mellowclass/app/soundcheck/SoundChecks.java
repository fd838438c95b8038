package org.mellowclass.app.soundcheck;

import java.io.IOException;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

import com.fasterxml.jackson.core.type.TypeReference;
import com.fasterxml.jackson.databind.ObjectMapper;
import org.mellowclass.app.bench.Bench;
import org.mellowclass.app.bench.Finishes;
import org.mellowclass.app.bench.Fixing;
import org.mellowclass.app.bench.TalkOfEpisode;
import org.mellowclass.app.brief.Briefs;
import org.mellowclass.app.brief.Part;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.SchoolClass;
import org.mellowclass.app.sounds.HeardSounds;
import org.mellowclass.app.sounds.TakeFindings;
import org.mellowclass.app.sounds.TakeSounds;
import org.mellowclass.app.sounds.Treating;
import org.mellowclass.app.store.StoredJson;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.core.render.Mastering;
import org.mellowclass.core.soundcheck.Fixes;
import org.mellowclass.core.soundcheck.HouseSound;
import org.mellowclass.core.soundcheck.Known;
import org.mellowclass.core.soundcheck.MixCheck;
import org.mellowclass.core.soundcheck.Reading;
import org.mellowclass.core.soundcheck.SoundCheck;
import org.mellowclass.core.timeline.TakeSource;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.edit.Edit;
import org.springframework.stereotype.Service;

/** Sound checks: of what is handed in, and of the newest page while it is worked on. */
@Service
public class SoundChecks implements Fixing {

    private final Bench bench;
    private final Finishes finishes;
    private final TakeSounds sounds;
    private final HeardSounds heardSounds;
    private final TalkOfEpisode talk;
    private final Treating treating;
    private final Briefs briefs;
    private final Access access;
    private final StoredJson<SoundCheck> stored;

    SoundChecks(Bench bench, Finishes finishes, TakeSounds sounds, HeardSounds heardSounds, TalkOfEpisode talk, Treating treating, Briefs briefs,
                Access access, ObjectMapper json) {
        this.bench = bench;
        this.finishes = finishes;
        this.sounds = sounds;
        this.heardSounds = heardSounds;
        this.talk = talk;
        this.treating = treating;
        this.briefs = briefs;
        this.access = access;
        this.stored = StoredJson.of(json, new TypeReference<>() {
        });
    }

    /** How sound checks are stored. */
    public StoredJson<SoundCheck> stored() {
        return stored;
    }

    /** Makes every sound that a timeline plays, and measures those that have not been. */
    public void prepare(Timeline timeline) throws IOException {
        for (TakeSource source : Bench.soundsIn(timeline)) {
            treating.ensure(source.takeId(), source.treatment());
            heardSounds.ensure(source);
        }
    }

    public HouseSound houseSound(long episodeId) {
        return briefs.ofEpisode(episodeId).houseSound();
    }

    /** Judges a mix that has been heard, of a timeline that is {@linkplain #prepare prepared}. */
    public SoundCheck check(long episodeId, Timeline timeline, MixCheck heard, Mastering mastering) throws IOException {
        List<String> parts = briefs.whole(briefs.ofEpisode(episodeId).classId()).parts().stream().map(Part::name).toList();
        return heard.check(known(episodeId, timeline), sounds, mastering, houseSound(episodeId), parts);
    }

    private Known known(long episodeId, Timeline timeline) {
        Map<Long, TakeFindings> findings = sounds.findingsOf(episodeId);
        return new Known(timeline, sounds.facts(episodeId), talk.facts(episodeId), heardSounds.of(episodeId),
                take -> findings.containsKey(take) ? findings.get(take).clipped() : List.of());
    }

    /**
     * The check of a page.
     *
     * @param revision which was read
     */
    public record OfPage(long revision, SoundCheck check) {
    }

    /** The newest check of an episode's page; empty until the first is made. */
    public Optional<OfPage> newest(Person viewer, long episodeId) {
        access.episode(viewer, episodeId);
        return newest(episodeId);
    }

    /** The same for whoever has been let through to the episode. */
    public Optional<OfPage> newest(long episodeId) {
        return finishes.read(episodeId).map(read -> new OfPage(read.revision(), stored.read(read.report())));
    }

    /** The newest checks of the pages of a class that {@link Access#taughtClass} has let through, by episode. */
    public Map<Long, OfPage> newestOfClass(SchoolClass schoolClass) {
        Map<Long, OfPage> checks = new HashMap<>();
        finishes.readOfClass(schoolClass.id()).forEach((episodeId, read) -> checks.put(episodeId, new OfPage(read.revision(), stored.read(read.report()))));
        return checks;
    }

    /** Which readings of a check can be mended with one press. */
    public List<Reading.Kind> mendable(Person viewer, long episodeId, OfPage read) {
        Fixes fixes = new Fixes(known(episodeId, bench.timeline(viewer, episodeId, read.revision)));
        return read.check.readings().stream().filter(reading -> fixes.of(reading).isPresent()).map(Reading::kind).toList();
    }

    @Override
    public Edit fix(long episodeId, long revision, Timeline timeline, Reading.Kind kind) {
        OfPage read = newest(episodeId).filter(newest -> newest.revision == revision).orElseThrow(() -> Refusal.conflict("check.NOT_READ_YET"));
        Fixes fixes = new Fixes(known(episodeId, timeline));
        return read.check.readings().stream().filter(reading -> reading.kind() == kind).findFirst().flatMap(fixes::of).orElseThrow(() -> Refusal.unfit("check.NOTHING_MENDS_IT"));
    }
}
