package org.mellowclass.app.people;

/** What was said of voices, as part of the surrounding transaction: what is on air must fit it. */
public sealed interface VoicesChanged {

    /** Who said so. */
    Person by();

    /** How far the voice of a student or a guest may be heard. */
    record ConsentSaid(Person by, Voices.Speaker of) implements VoicesChanged {
    }

    /** Who speaks in a take of an episode. */
    record SpeakersSaid(Person by, long episodeId) implements VoicesChanged {
    }
}
