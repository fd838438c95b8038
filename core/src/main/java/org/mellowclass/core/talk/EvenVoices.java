package org.mellowclass.core.talk;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.ToDoubleFunction;

import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.timeline.Clip;
import org.mellowclass.core.timeline.Track;
import org.mellowclass.core.timeline.edit.Gains;

/**
 * Voices brought to one loudness: a gain for each clip in which somebody speaks, so that every take comes to the mean of them all.
 *
 * @param targetLufs the mean loudness of all voices, by their lengths, as power
 * @param gainsDb    by clip, in steps of half a dB, at most 24 dB either way
 * @param voices     by track, in their order
 */
public record EvenVoices(double targetLufs, Map<Long, Double> gainsDb, List<Voice> voices) {

    /** A clip in which somebody speaks. @param lufs how loud it is in the mix, with the gains of clip and track */
    public record Spoken(Track track, Clip clip, double lufs) {

        private double evenGainDb(double targetLufs) {
            double gain = Math.rint(2 * (clip.gainDb() + targetLufs - lufs)) / 2;
            return Math.max(Gains.LOWEST_DB, Math.min(Gains.HIGHEST_DB, gain));
        }

        private double evenLufs(double targetLufs) {
            return lufs - clip.gainDb() + evenGainDb(targetLufs);
        }
    }

    /** A track on which somebody speaks. @param lufs how loud it is in the mix @param evenLufs how loud it is with the gains */
    public record Voice(long trackId, double lufs, double evenLufs) {
    }

    /** Empty where nobody speaks. */
    public static Optional<EvenVoices> of(List<Spoken> spoken) {
        if (spoken.isEmpty()) {
            return Optional.empty();
        }
        double target = mean(spoken, Spoken::lufs);
        Map<Long, Double> gains = new TreeMap<>();
        spoken.forEach(one -> gains.put(one.clip.id(), one.evenGainDb(target)));
        List<Voice> voices = new ArrayList<>();
        spoken.stream().map(one -> one.track.id()).distinct().forEach(trackId -> {
            List<Spoken> here = spoken.stream().filter(one -> one.track.id() == trackId).toList();
            voices.add(new Voice(trackId, mean(here, Spoken::lufs), mean(here, one -> one.evenLufs(target))));
        });
        return Optional.of(new EvenVoices(target, gains, voices));
    }

    private static double mean(List<Spoken> spoken, ToDoubleFunction<Spoken> lufs) {
        double power = spoken.stream().mapToDouble(one -> one.clip.frames() * Decibels.toPower(lufs.applyAsDouble(one))).sum();
        return Decibels.ofPower(power / spoken.stream().mapToDouble(one -> one.clip.frames()).sum());
    }
}
