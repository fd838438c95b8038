package org.mellowclass.app.review;

import org.mellowclass.app.people.Person;

/** Told in the transaction in which a spoken note is taken back: its sound has to go. */
public record SpokenNoteGone(long takeId, Person by) {
}
