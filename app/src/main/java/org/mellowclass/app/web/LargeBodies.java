package org.mellowclass.app.web;

import java.io.IOException;

/** Says whether there is room for what somebody is about to send. */
@FunctionalInterface
public interface LargeBodies {

    /** @throws Refusal if so many bytes should not come now */
    void admit(long bytes) throws IOException;
}
