package org.mellowclass.app.brief;

import java.time.LocalDate;

import org.mellowclass.core.soundcheck.HouseSound;

/**
 * What the teacher asks for.
 *
 * @param version counts the changes, so that two browsers do not overwrite each other's
 * @param recipe  the cleanup that crews start from
 * @param actions how many of the bench's actions are seen before the rest is opened
 */
public record Brief(long classId, long version, String project, String story, double loudnessLufs, double ceilingDbtp,
                    long shortestFrames, long longestFrames, LocalDate dueDay, OutputFormat outputFormat, Recipe recipe,
                    Actions actions) {

    /** What an episode is written as. */
    public enum OutputFormat { MP3_STEREO, MP3_MONO, FLAC, WAV, OPUS }

    /** How much of what can be done with a selection is in sight; the rest is one press away. */
    public enum Actions { FEW, USUAL, ALL }

    /** The starter recipes, and none. */
    public enum Recipe { NONE, QUIET_ROOM, NOISY_CLASSROOM, PHONE_CORRIDOR, MUSIC_BED }

    /** The brief of a new class: the house sound of a speech feed. */
    public static Brief first(long classId, String project, String story, long shortestFrames, long longestFrames, LocalDate dueDay) {
        return new Brief(classId, 1, project, story, HouseSound.Preset.SPEECH_FEED.loudnessLufs(),
                HouseSound.Preset.SPEECH_FEED.ceilingDbtp(), shortestFrames,
                longestFrames, dueDay, OutputFormat.MP3_STEREO, Recipe.NONE, Actions.USUAL);
    }

    public HouseSound houseSound() {
        return new HouseSound(loudnessLufs, ceilingDbtp, shortestFrames, longestFrames);
    }
}
