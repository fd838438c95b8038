package org.mellowclass.app.people;

import java.io.Serializable;
import java.security.Principal;

/** Somebody who is signed in: the viewer that every service asks about. */
public record Person(long id, long schoolId, Role role, String name) implements Principal, Serializable {

    /** What somebody is at the school. */
    public enum Role { TEACHER, STUDENT }

    /** The id, since sessions are filed under it and no name belongs there. */
    @Override
    public String getName() {
        return Long.toString(id);
    }

    public boolean isTeacher() {
        return role == Role.TEACHER;
    }
}
