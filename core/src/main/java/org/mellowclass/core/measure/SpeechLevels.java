package org.mellowclass.core.measure;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;

import org.mellowclass.core.sound.Decibels;
import org.mellowclass.core.sound.Frames;
import org.mellowclass.core.sound.SampleSink;
import org.mellowclass.core.sound.Span;

/**
 * The level of a sound at 48 kHz in frames of 10 ms, as it is and K-weighted (ITU-R BS.1770-5): mean squares, the mean of
 * all channels that are not digitally silent. A constant offset, which some sound cards add, is no level: what is constant in a stretch
 * is taken out of its unweighted level. Keeps twelve bytes a frame of one channel, some 4 MB an hour. The loudness is measured on
 * the way: both look at the same weighted sound.
 */
public final class SpeechLevels implements SampleSink {

    /** Frames at 48 kHz of one level. */
    static final int FRAME = Frames.RATE / 100;
    private static final int SECOND = 100;
    private static final double ROOM_UNDER_VOICE_LU = 15;
    private static final double HEARD_UNDER_LU = 25;

    private final double[] weights;
    private final KWeighting[] weighting;
    private final LoudnessMeter loudness;
    private final boolean[] heard;
    private float[] plain = new float[4096];
    private float[] weighted = new float[4096];
    /** The mean of each frame, by channel. */
    private final float[][] offsets;
    private final double[] sums;
    private int count;
    private int filled;
    private double plainSum;
    private double weightedSum;
    private long frames;

    public SpeechLevels(int channels) {
        weights = ChannelWeights.of(channels);
        weighting = new KWeighting[channels];
        loudness = new LoudnessMeter(channels);
        heard = new boolean[channels];
        offsets = new float[channels][plain.length];
        sums = new double[channels];
        for (int c = 0; c < channels; c++) {
            weighting[c] = new KWeighting();
        }
    }

    @Override
    public void accept(float[][] block, int length) {
        for (int done = 0; done < length; ) {
            int part = Math.min(length - done, FRAME - filled);
            double forLoudness = 0;
            for (int c = 0; c < weighting.length; c++) {
                double squares = 0;
                double sum = 0;
                for (int i = done; i < done + part; i++) {
                    float sample = block[c][i];
                    squares += (double) sample * sample;
                    sum += sample;
                }
                sums[c] += sum;
                heard[c] |= squares > 0;
                plainSum += squares;
                if (weighting.length != 2) {
                    double louder = weighting[c].squares(block[c], done, part);
                    weightedSum += louder;
                    forLoudness += weights[c] * louder;
                }
            }
            if (weighting.length == 2) {
                // both weigh one
                forLoudness = KWeighting.squares(weighting[0], block[0], weighting[1], block[1], done, part);
                weightedSum += forLoudness;
            }
            loudness.add(forLoudness, part);
            done += part;
            filled += part;
            frames += part;
            if (filled == FRAME) {
                end();
            }
        }
    }

    /** The loudness of the sound so far. */
    public LoudnessMeter loudness() {
        return loudness;
    }

    /** The pauses of the sound that has ended. */
    public Pauses pauses() {
        if (filled > 0) {
            end();
        }
        return Pauses.find(this, loudness.integrated());
    }

    /**
     * The quietest second, K-weighted, in which no 10 ms are digitally silent: the room of a take as long as the recording
     * room has kept none. Empty where there is no such second, or none that lies 15 LU or more under the voice.
     */
    public Optional<Span> room() {
        OptionalDouble voice = loudness.integrated();
        double least = Double.POSITIVE_INFINITY;
        int best = -1;
        double sum = 0;
        int silentAt = -1;
        for (int i = 0; i < count; i++) {
            sum += weighted[i];
            silentAt = plain[i] == 0 ? i : silentAt;
            if (i >= SECOND) {
                sum -= weighted[i - SECOND];
            }
            int start = i - SECOND + 1;
            if (start >= 0 && silentAt < start && sum < least) {
                least = sum;
                best = start;
            }
        }
        double mean = least / SECOND / Math.max(1, channelsHeard());
        boolean quiet = voice.isPresent()
                && LoudnessMeter.OFFSET_LUFS + Decibels.ofPower(mean) <= voice.getAsDouble() - ROOM_UNDER_VOICE_LU;
        return best < 0 || !quiet ? Optional.empty() : Optional.of(new Span((long) best * FRAME, (long) (best + SECOND) * FRAME));
    }

    /** What of some spans, at whole 10 ms, is not digitally silent. */
    public List<Span> outsideSilence(List<Span> spans) {
        List<Span> heardSpans = new ArrayList<>();
        for (Span span : spans) {
            int last = (int) Math.min(count, span.endFrame() / FRAME);
            int from = (int) (span.startFrame() / FRAME);
            for (int i = from; i <= last; i++) {
                if (i == last || plain[i] == 0) {
                    if (i > from) {
                        heardSpans.add(new Span((long) from * FRAME, (long) i * FRAME));
                    }
                    from = i + 1;
                }
            }
        }
        return heardSpans;
    }

    /** How the sound that has ended begins and ends; empty for silence. */
    public Optional<SoundEdges> edges() {
        OptionalDouble mean = loudness.integrated();
        if (mean.isEmpty()) {
            return Optional.empty();
        }
        double least = Decibels.toPower(mean.getAsDouble() - LoudnessMeter.OFFSET_LUFS - HEARD_UNDER_LU) * Math.max(1, channelsHeard());
        int first = 0;
        while (first < count && weighted[first] < least) {
            first++;
        }
        int last = count;
        while (last > first && weighted[last - 1] < least) {
            last--;
        }
        if (first == count) {
            return Optional.empty();
        }
        // a loud room is heard before the first word, and is no sound yet
        List<Span> pauses = pauses().spans();
        long lead = pauses.stream().filter(pause -> pause.startFrame() == 0).mapToLong(Span::endFrame).findFirst().orElse(0);
        long trail = pauses.stream().filter(pause -> pause.endFrame() >= frames).mapToLong(Span::frames).findFirst().orElse(0);
        return Optional.of(new SoundEdges(Math.max(lead, (long) first * FRAME), Math.max(trail, frames - Math.min(frames, (long) last * FRAME))));
    }

    public long frames() {
        return frames;
    }

    /** The mean power of some frames as it is, without what is constant in them. */
    double plain(int from, int frames) {
        double power = 0;
        for (int i = from; i < from + frames; i++) {
            power += plain[i];
        }
        power /= frames;
        for (float[] means : offsets) {
            double offset = 0;
            for (int i = from; i < from + frames; i++) {
                offset += means[i];
            }
            power -= offset / frames * offset / frames;
        }
        return Math.max(0, power) / Math.max(1, channelsHeard());
    }

    double[] weighted() {
        return meanOfChannels(weighted);
    }

    private double[] meanOfChannels(float[] sums) {
        int channels = Math.max(1, channelsHeard());
        double[] means = new double[count];
        for (int i = 0; i < count; i++) {
            means[i] = sums[i] / channels;
        }
        return means;
    }

    private int channelsHeard() {
        int channels = 0;
        for (boolean channel : heard) {
            channels += channel ? 1 : 0;
        }
        return channels;
    }

    private void end() {
        if (count == plain.length) {
            plain = Arrays.copyOf(plain, 2 * count);
            weighted = Arrays.copyOf(weighted, 2 * count);
            for (int c = 0; c < offsets.length; c++) {
                offsets[c] = Arrays.copyOf(offsets[c], 2 * count);
            }
        }
        for (int c = 0; c < offsets.length; c++) {
            offsets[c][count] = (float) (sums[c] / filled);
            sums[c] = 0;
        }
        plain[count] = (float) (plainSum / filled);
        weighted[count++] = (float) (weightedSum / filled);
        plainSum = 0;
        weightedSum = 0;
        filled = 0;
    }
}
