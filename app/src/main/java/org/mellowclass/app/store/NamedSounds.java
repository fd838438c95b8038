package org.mellowclass.app.store;

import java.util.Set;

/** Tells which files of the stores a feature's rows name. Whoever keeps sound has one. */
public interface NamedSounds {

    Set<String> keys();

    /** Those that belong to one episode. */
    Set<String> keysOfEpisode(long episodeId);

    /** Those that belong to a class, those of its episodes among them. */
    Set<String> keysOfClass(long classId);
}
