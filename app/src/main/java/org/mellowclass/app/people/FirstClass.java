package org.mellowclass.app.people;

/** Makes the class that a new school begins with. */
public interface FirstClass {

    /** Makes a class that a teacher teaches; returns its id. */
    long add(Person teacher, String name);
}
