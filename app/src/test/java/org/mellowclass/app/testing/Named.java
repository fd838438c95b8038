package org.mellowclass.app.testing;

import java.util.Set;

import org.mellowclass.app.store.NamedSounds;

/** Files that the rows of a made-up feature name. */
public record Named(Set<String> keys) implements NamedSounds {

    @Override
    public Set<String> keysOfEpisode(long episodeId) {
        return keys;
    }

    @Override
    public Set<String> keysOfClass(long classId) {
        return keys;
    }
}
