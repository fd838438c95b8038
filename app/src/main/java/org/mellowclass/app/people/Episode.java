package org.mellowclass.app.people;

/** What a crew makes, with whose it is. */
public record Episode(long id, String title, long crewId, String crewName, long classId) {
}
