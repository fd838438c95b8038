package org.mellowclass.app.testing;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;

/** A clock that a test moves on. */
public final class MovableClock extends Clock {

    private Instant now;

    public MovableClock(Instant now) {
        this.now = now;
    }

    public void advance(Duration by) {
        now = now.plus(by);
    }

    public void set(Instant then) {
        now = then;
    }

    @Override
    public Instant instant() {
        return now;
    }

    @Override
    public ZoneOffset getZone() {
        return ZoneOffset.UTC;
    }

    @Override
    public Clock withZone(ZoneId zone) {
        return this;
    }
}
