package org.mellowclass.app.store;

import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

import com.github.kagkarlsson.scheduler.task.helper.RecurringTask;
import com.github.kagkarlsson.scheduler.task.helper.Tasks;
import com.github.kagkarlsson.scheduler.task.schedule.FixedDelay;
import org.mellowclass.app.MellowProperties;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.stereotype.Component;

/**
 * Keeps the stores from growing for ever: what no row has named for a day goes into a bin, the files of work that was killed
 * between the store and the database; of what can be made again, what was used last is kept.
 */
@Component
class StoreKeeping {

    private static final Logger LOG = LoggerFactory.getLogger(StoreKeeping.class);
    private static final Duration GRACE = Duration.ofDays(1);
    private static final Duration IN_BIN = Duration.ofDays(30);
    private static final Duration EVERY = Duration.ofHours(6);

    private final SoundStore store;
    private final DerivedStore derived;
    private final List<NamedSounds> named;
    private final MellowProperties properties;
    private final Clock clock;

    StoreKeeping(SoundStore store, DerivedStore derived, List<NamedSounds> named, MellowProperties properties, Clock clock) {
        this.store = store;
        this.derived = derived;
        this.named = named;
        this.properties = properties;
        this.clock = clock;
    }

    @Configuration
    static class Schedule {
        @Bean
        RecurringTask<Void> storeKeepingJob(StoreKeeping keeping) {
            return Tasks.recurring("sweep-sounds", FixedDelay.of(EVERY)).execute((instance, context) -> keeping.keep());
        }
    }

    void keep() {
        Instant now = clock.instant();
        Set<String> kept = new HashSet<>();
        named.forEach(feature -> kept.addAll(feature.keys()));
        try {
            int binned = store.sweep(kept, now.minus(GRACE), now.minus(IN_BIN));
            LOG.info("{} files that no row names lie in the bin now", binned);
        } catch (IOException e) {
            LOG.error("the sound store could not be swept", e);
        }
        try {
            LOG.info("{} files that can be made again were let go", derived.evict(properties.mostDerived().toBytes()));
        } catch (IOException e) {
            LOG.error("what can be made again could not be let go", e);
        }
    }
}
