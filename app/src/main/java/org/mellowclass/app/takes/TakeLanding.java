package org.mellowclass.app.takes;

/** Told when a take has become ready, in the transaction that makes it so; lays it onto its track. */
public interface TakeLanding {

    void land(Take take);
}
