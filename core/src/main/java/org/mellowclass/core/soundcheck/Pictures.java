package org.mellowclass.core.soundcheck;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;

import org.mellowclass.core.measure.LoudnessMeter;
import org.mellowclass.core.measure.PeaksBySecond;
import org.mellowclass.core.sound.Decibels;

/**
 * What the readings draw, rounded to tenths. What is over time is in stretches of equal length.
 *
 * @param loudnessLufs  momentary loudness, the mean of each stretch; null where it is silent
 * @param peaksDbtp     the true peak of each stretch; null where it is silent
 * @param voicesLufs    how loud each track with a voice is in the mix, by track
 * @param underVoiceLu  voice minus music; null where too little is spoken over music
 * @param roomDbfs      the room of the noisiest take by steps of {@link HeardSound#ROOM_STEP_HZ}
 */
public record Pictures(List<Double> loudnessLufs, List<Double> peaksDbtp, Map<Long, Double> voicesLufs, List<Double> underVoiceLu, List<Double> roomDbfs) {

    public static final Pictures NONE = new Pictures(List.of(), List.of(), Map.of(), List.of(), List.of());

    private static final int STRETCHES = 120;

    public Pictures {
        // an earlier version did not keep them
        peaksDbtp = peaksDbtp == null ? List.of() : peaksDbtp;
    }

    static Pictures of(HeardSound.Meters mix, PeaksBySecond peaks, Voices voices, MusicUnderVoice music) {
        return new Pictures(loudness(mix.momentary()), highest(peaks.bySecond()), voices.loudnessByTrack(), music == null ? List.of() : rounded(music.overTime(STRETCHES)), voices.roomDbfs());
    }

    private static List<Double> loudness(double[] momentary) {
        int count = Math.min(STRETCHES, momentary.length);
        List<Double> means = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            int from = (int) ((long) momentary.length * i / count);
            int to = (int) ((long) momentary.length * (i + 1) / count);
            double power = 0;
            for (int block = from; block < to; block++) {
                power += Double.isFinite(momentary[block]) ? Decibels.toPower(momentary[block]) : 0;
            }
            means.add(power == 0 ? null : Decibels.ofPower(power / (to - from)));
        }
        return rounded(means);
    }

    private static List<Double> highest(List<Double> seconds) {
        int count = Math.min(STRETCHES, seconds.size());
        List<Double> highest = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            highest.add(seconds.subList(seconds.size() * i / count, seconds.size() * (i + 1) / count).stream().filter(Objects::nonNull).max(Double::compare).orElse(null));
        }
        return rounded(highest);
    }

    private static List<Double> rounded(List<Double> values) {
        List<Double> rounded = new ArrayList<>();
        values.forEach(value -> rounded.add(value == null ? null : Math.rint(10 * value) / 10));
        return rounded;
    }
}
