package org.mellowclass.app.store;

import java.util.Set;

/** Tells which files of the store a feature's rows name. Whoever keeps sound has one. */
public interface NamedSounds {

    Set<String> keys();
}
