package org.mellowclass.app.web;

import java.io.IOException;
import java.time.Duration;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;

import org.springframework.http.HttpStatus;

/** Lets only so many at once do what takes much memory. Others wait in turn for a while, and are then told to come again. */
public final class Turnstile {

    private static final Duration PATIENCE = Duration.ofSeconds(20);

    private final Semaphore places;
    private final Duration patience;

    public Turnstile(int places) {
        this(places, PATIENCE);
    }

    Turnstile(int places, Duration patience) {
        this.places = new Semaphore(places, true);
        this.patience = patience;
    }

    /** Work that may fail as reading and writing do. */
    @FunctionalInterface
    public interface Work<T> {
        T run() throws IOException;
    }

    /** @throws Refusal if no place has become free in time */
    public <T> T pass(Work<T> work) throws IOException {
        boolean in;
        try {
            in = places.tryAcquire(patience.toMillis(), TimeUnit.MILLISECONDS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            in = false;
        }
        if (!in) {
            throw new Refusal(HttpStatus.SERVICE_UNAVAILABLE, "busy");
        }
        try {
            return work.run();
        } finally {
            places.release();
        }
    }
}
