package org.mellowclass.media;

import java.time.LocalDate;

/**
 * What is written into a published file. On-air names only, never surnames.
 *
 * @param comment the credits of what others made; empty for none
 */
public record Tags(String title, String artist, String album, LocalDate date, String comment) {
}
