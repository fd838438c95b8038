package org.mellowclass.app.brief;

import java.time.LocalDate;

import org.mellowclass.core.soundcheck.HouseSound;

/**
 * What the teacher asks for.
 *
 * @param version counts the changes, so that two browsers do not overwrite each other's
 * @param recipe  the cleanup that crews start from
 */
public record Brief(long classId, long version, String project, String story, double loudnessLufs, double ceilingDbtp,
                    long shortestFrames, long longestFrames, LocalDate dueDay, OutputFormat outputFormat, Recipe recipe) {

    /** What an episode is written as. */
    public enum OutputFormat { MP3_STEREO, MP3_MONO, FLAC, WAV, OPUS }

    /** The starter recipes, and none. */
    public enum Recipe { NONE, QUIET_ROOM, NOISY_CLASSROOM, PHONE_CORRIDOR, MUSIC_BED }

    /** The brief of a new class: the house sound of a speech feed. */
    public static Brief first(long classId, String project, String story, long shortestFrames, long longestFrames, LocalDate dueDay) {
        return new Brief(classId, 1, project, story, HouseSound.Preset.SPEECH_FEED.loudnessLufs(),
                HouseSound.Preset.SPEECH_FEED.ceilingDbtp(), shortestFrames,
                longestFrames, dueDay, OutputFormat.MP3_STEREO, Recipe.NONE);
    }

    public HouseSound houseSound() {
        return new HouseSound(loudnessLufs, ceilingDbtp, shortestFrames, longestFrames);
    }
}
