package org.mellowclass.app.brief;

/** A line of the rubric. */
public record Criterion(long id, String name, int mostPoints) {
}
