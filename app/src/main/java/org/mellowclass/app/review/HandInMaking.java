package org.mellowclass.app.review;

import com.github.kagkarlsson.scheduler.task.Task;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.Set;
import org.mellowclass.app.bench.Bench;
import org.mellowclass.app.jobs.Jobs;
import org.mellowclass.app.jobs.Reporting;
import org.mellowclass.app.live.LiveEvents;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.soundcheck.SoundChecks;
import org.mellowclass.app.sounds.TakeSounds;
import org.mellowclass.app.store.Scratch;
import org.mellowclass.app.store.SkylineFile;
import org.mellowclass.app.store.SoundStore;
import org.mellowclass.app.takes.TakeShelf;
import org.mellowclass.core.measure.Skyline;
import org.mellowclass.core.render.Mastering;
import org.mellowclass.core.render.Mixer;
import org.mellowclass.core.sound.Alongside;
import org.mellowclass.core.sound.Opening;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.sound.Tap;
import org.mellowclass.core.soundcheck.HouseSound;
import org.mellowclass.core.soundcheck.MixCheck;
import org.mellowclass.core.soundcheck.SoundCheck;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.media.SoundEncoder;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/** Mixes a hand-in down to the house sound, keeps it as FLAC and judges it. */
@Component
class HandInMaking {

    static final String KIND = "hand-in";

    private static final Logger LOG = LoggerFactory.getLogger(HandInMaking.class);

    /** Passes over the mix that most hand-ins need: two to find the mastering, one to write. */
    private static final int USUAL_PASSES = 3;

    private final HandInMapper handIns;
    private final Bench bench;
    private final TakeShelf takes;
    private final TakeSounds sounds;
    private final SoundChecks checks;
    private final SoundStore store;
    private final Scratch scratch;
    private final SoundEncoder encoder;
    private final Access access;
    private final TransactionTemplate transaction;
    private final Jobs jobs;
    private final LiveEvents live;

    HandInMaking(HandInMapper handIns, Bench bench, TakeShelf takes, TakeSounds sounds, SoundChecks checks, SoundStore store, Scratch scratch, SoundEncoder encoder,
                 Access access, TransactionTemplate transaction, Jobs jobs, LiveEvents live) {
        this.handIns = handIns;
        this.bench = bench;
        this.takes = takes;
        this.sounds = sounds;
        this.checks = checks;
        this.store = store;
        this.scratch = scratch;
        this.encoder = encoder;
        this.access = access;
        this.transaction = transaction;
        this.jobs = jobs;
        this.live = live;
    }

    @Configuration
    static class Schedule {
        @Bean
        Task<?> handInJob(HandInMaking making, Jobs jobs) {
            return jobs.kind(KIND, making::run, making.handIns::failed);
        }
    }

    /** Again if a take that it holds is erased meanwhile: nothing of it may be left. */
    void run(long handInId) throws IOException {
        for (HandIn handIn = find(handInId); handIn.state() == HandIn.State.MAKING; handIn = find(handInId)) {
            make(handIn);
        }
    }

    private HandIn find(long handInId) {
        return handIns.find(handInId).orElseThrow();
    }

    private void make(HandIn handIn) throws IOException {
        long handInId = handIn.id();
        Set<Long> heard = heard(handIn);
        Timeline timeline = bench.timeline(handIn.timelineHash());
        checks.prepare(timeline);
        HouseSound house = checks.houseSound(handIn.episodeId());
        Path flac = scratch.scratchFile(Scratch.Owner.episode(handIn.episodeId()), ".flac");
        Path skylineFile = scratch.scratchFile(Scratch.Owner.episode(handIn.episodeId()), ".skyline");
        try (Mixer mixer = new Mixer(timeline, sounds)) {
            Passes passes = new Passes(handIn, mixer);
            Mastering mastering = Mastering.find(passes, house.loudnessLufs(), house.ceilingDbtp());
            MixCheck heardMix = new MixCheck();
            Skyline skyline = new Skyline(2);
            try (Alongside meters = new Alongside(heardMix, skyline)) {
                encoder.flac(new Tap(mastering.apply(passes.open()), meters), flac);
            }
            skyline.finish();
            SkylineFile.write(skyline, skylineFile);

            SoundCheck check = checks.check(handIn.episodeId(), timeline, heardMix, mastering);
            keep(handIn, heard, store.put(flac), store.put(skylineFile), checks.stored().write(check));
        } finally {
            jobs.ended(KIND, handInId);
            Files.deleteIfExists(flac);
            Files.deleteIfExists(skylineFile);
        }
    }

    private void keep(HandIn handIn, Set<Long> heard, String soundKey, String skylineKey, String report) throws IOException {
        Boolean kept = transaction.execute(status -> {
            access.hold(handIn.episodeId());
            if (!heard(handIn).equals(heard) || handIns.ready(handIn.id(), soundKey, skylineKey, report) == 0) {
                return false;
            }
            live.episodeChanged(handIn.episodeId());
            return true;
        });
        if (!Boolean.TRUE.equals(kept)) {
            LOG.info("hand-in {} was made in vain: a take was erased, or somebody else has made it", handIn.id());
            store.delete(soundKey);
            store.delete(skylineKey);
        }
    }

    /** The takes that are heard in it now. */
    private Set<Long> heard(HandIn handIn) {
        Set<Long> heard = new HashSet<>(Bench.takesIn(bench.timeline(handIn.timelineHash())));
        heard.retainAll(takes.ready(handIn.episodeId()).keySet());
        return heard;
    }

    /** Opens the mix once for each pass over it, and tells the progress over all of them. */
    private final class Passes implements Opening {

        private final HandIn handIn;
        private final Mixer mixer;
        private long doneBefore;

        Passes(HandIn handIn, Mixer mixer) {
            this.handIn = handIn;
            this.mixer = mixer;
            this.doneBefore = -handIn.frames();
        }

        @Override
        public SampleSource open() {
            doneBefore += handIn.frames();
            long before = doneBefore;
            return new Reporting(mixer.whole(), handIn.frames(),
                    read -> jobs.progress(KIND, handIn.id(), before + read, USUAL_PASSES * handIn.frames()));
        }
    }
}
