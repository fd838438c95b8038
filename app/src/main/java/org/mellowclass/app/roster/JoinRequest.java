package org.mellowclass.app.roster;

/**
 * A class would like to have a student of another one.
 *
 * @param classId   the class that asks
 * @param className its name
 * @param personId  the student
 * @param name      of the student
 * @param askedBy   the teacher who asks
 */
public record JoinRequest(long classId, String className, long personId, String name, String askedBy) {
}
