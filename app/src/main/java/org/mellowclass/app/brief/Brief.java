package org.mellowclass.app.brief;

import java.time.LocalDate;

import org.mellowclass.core.soundcheck.HouseSound;

/** What the teacher asks for. */
public record Brief(long classId, String project, String story, double loudnessLufs, double ceilingDbtp,
                    long shortestFrames, long longestFrames, LocalDate dueDay) {

    public HouseSound houseSound() {
        return new HouseSound(loudnessLufs, ceilingDbtp, shortestFrames, longestFrames);
    }
}
