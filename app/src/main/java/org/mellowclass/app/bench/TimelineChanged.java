package org.mellowclass.app.bench;

/** Told when an episode has a new revision, or somebody listens to one that was never measured. */
public record TimelineChanged(long episodeId) {
}
