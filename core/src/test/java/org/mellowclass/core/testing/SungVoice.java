package org.mellowclass.core.testing;

import org.mellowclass.core.sound.Frames;

/** A sung vowel: pulses whose pitch and strength wander, through three formants (Klatt's resonators), its peak at 1. */
public final class SungVoice {

    private SungVoice() {
    }

    public static float[] of(int frames) {
        double[] sound = new double[frames];
        double phase = 0;
        for (int i = 0; i < frames; i++) {
            double t = (double) i / Frames.RATE;
            phase += (180 + 15 * Math.sin(2 * Math.PI * 1.3 * t)) / Frames.RATE;
            double strength = 0.6 + 0.4 * Math.sin(2 * Math.PI * 0.7 * t);
            // the slope of a glottal pulse: slow to open, quick to close
            double within = phase - Math.floor(phase);
            sound[i] = strength * (within < 0.6 ? Math.sin(Math.PI * within / 0.6) : -Math.sin(Math.PI * (within - 0.6) / 0.4) * 1.5);
        }
        for (double[] formant : new double[][] {{650, 90}, {1080, 110}, {2650, 160}}) {
            double c = -Math.exp(-2 * Math.PI * formant[1] / Frames.RATE);
            double b = 2 * Math.exp(-Math.PI * formant[1] / Frames.RATE) * Math.cos(2 * Math.PI * formant[0] / Frames.RATE);
            for (int i = 0; i < frames; i++) {
                sound[i] = (1 - b - c) * sound[i] + b * (i > 0 ? sound[i - 1] : 0) + c * (i > 1 ? sound[i - 2] : 0);
            }
        }
        double most = 0;
        for (double sample : sound) {
            most = Math.max(most, Math.abs(sample));
        }
        float[] voice = new float[frames];
        for (int i = 0; i < frames; i++) {
            voice[i] = (float) (sound[i] / most);
        }
        return voice;
    }
}
