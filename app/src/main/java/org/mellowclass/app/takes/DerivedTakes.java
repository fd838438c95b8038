package org.mellowclass.app.takes;

import java.time.Clock;

import org.mellowclass.app.jobs.Jobs;
import org.mellowclass.core.sound.Frames;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** Asks for takes that are made of other takes; whoever asks has been let through. */
@Service
@Transactional(propagation = Propagation.MANDATORY)
public class DerivedTakes {

    private final TakeMapper takes;
    private final Jobs jobs;
    private final Clock clock;

    DerivedTakes(TakeMapper takes, Jobs jobs, Clock clock) {
        this.takes = takes;
        this.jobs = jobs;
        this.clock = clock;
    }

    /** The take whose clock is corrected by so many millionths, in the place of the one that it is made of. */
    public void inStep(long authorId, Take whole, double driftPpm) {
        make(authorId, whole, Derivation.IN_STEP, driftPpm, Take.Placing.SWAP, null);
    }

    void make(long authorId, Take whole, Derivation derivation, Double driftPpm, Take.Placing placing, Long placeFrame) {
        TakeMapper.NewTake made = new TakeMapper.NewTake(whole.episodeId(), authorId, whole.name(), whole.trackName(),
                Take.Origin.BROUGHT_IN, Take.State.ARRIVED, Frames.RATE, whole.channels(), null, null, clock.instant());
        made.madeFrom = whole.id();
        made.derivation = derivation;
        made.driftPpm = driftPpm;
        made.placing = placing;
        made.placeFrame = placeFrame;
        made.leadSourceFrames = whole.leadFrames();
        made.lineId = whole.lineId();
        takes.add(made);
        takes.copyVoices(whole.id(), made.id);
        jobs.ask(TakeConversion.KIND, made.id);
    }
}
