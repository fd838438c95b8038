package org.mellowclass.app.brief;

/**
 * A line of the rubric.
 *
 * @param sentence what it asks for; may be empty
 */
public record Criterion(long id, String name, int mostPoints, String sentence) {
}
