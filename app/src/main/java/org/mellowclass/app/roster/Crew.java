package org.mellowclass.app.roster;

/** A crew of a class with the episode that it makes. */
public record Crew(long id, String name, long episodeId, String title, boolean touched) {
}
