package org.mellowclass.media;

import java.time.LocalDate;

/** What is written into a published file. On-air names only, never surnames. */
public record Tags(String title, String artist, String album, LocalDate date) {
}
