package org.mellowclass.app.jobs;

import java.time.Duration;

/** A job was ended since its time was over. */
final class TookTooLong extends RuntimeException {

    TookTooLong(Duration limit, Exception cause) {
        super("it took longer than " + limit, cause);
    }
}
