package org.mellowclass.app.demo;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.Duration;
import java.util.concurrent.locks.LockSupport;
import java.util.function.BooleanSupplier;

import org.springframework.stereotype.Component;

/** Waits for background jobs, as somebody at a screen would. */
@Component
class Waiting {

    private static final Duration PATIENCE = Duration.ofMinutes(3);
    private static final Duration LOOK_AGAIN = Duration.ofMillis(100);

    void until(BooleanSupplier done) {
        long end = System.nanoTime() + PATIENCE.toNanos();
        while (!done.getAsBoolean()) {
            if (System.nanoTime() > end || Thread.currentThread().isInterrupted()) {
                throw new UncheckedIOException(new IOException("the demo school did not become ready in time"));
            }
            LockSupport.parkNanos(LOOK_AGAIN.toNanos());
        }
    }
}
