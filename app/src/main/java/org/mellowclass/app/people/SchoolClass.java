package org.mellowclass.app.people;

/** A class of a school, with the code that its students sign in with. */
public record SchoolClass(long id, long schoolId, String schoolName, String timeZone, String name, String code) {
}
