package org.mellowclass.app.people;

/** Where an episode stands and what its viewer does next, for the head of every page; told by a room that knows all of it. */
public interface EpisodeStandings {

    /**
     * @param stage        a code for words
     * @param handInNumber of the newest hand-in, or null
     * @param sentence     what the teacher asks for in another pass, or null
     */
    record Standing(String stage, String nextWords, String nextAddress, Integer handInNumber, String sentence) {
    }

    /** For an episode that the viewer has been let through to; {@code own} if they are of its crew. */
    Standing of(Episode episode, boolean own);
}
