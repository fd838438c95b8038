package org.mellowclass.app.bench;

import java.io.IOException;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

import org.mellowclass.app.web.NotFound;
import org.mellowclass.core.dsp.Limiter;
import org.mellowclass.core.render.Mastering;
import org.mellowclass.core.render.Mixer;
import org.mellowclass.core.sound.SampleSource;

/**
 * How a mix is finished, in thousandths of a decibel, so that it has a name: what is heard on the bench is a function of revision and finish.
 *
 * @param gainMilliDb       before the limiter
 * @param ceilingMilliDbtp  of the limiter
 */
public record Finish(int gainMilliDb, int ceilingMilliDbtp) {

    /** Until anything was measured. */
    static final Finish FIRST = new Finish(0, -1000);

    private static final Pattern NAME = Pattern.compile("(-?\\d{1,6})_(-?\\d{1,5})");
    private static final int MOST_GAIN_MILLIDB = 120_000;

    public static Finish of(Mastering mastering) {
        return new Finish((int) Math.round(1000 * mastering.gainDb()), (int) Math.round(1000 * mastering.ceilingDbtp()));
    }

    /** @throws NotFound if it is the name of none */
    static Finish named(String name) {
        Matcher matcher = NAME.matcher(name);
        if (!matcher.matches()) {
            throw new NotFound();
        }
        Finish finish = new Finish(Integer.parseInt(matcher.group(1)), Integer.parseInt(matcher.group(2)));
        if (Math.abs(finish.gainMilliDb) > MOST_GAIN_MILLIDB || finish.ceilingMilliDbtp > 0) {
            throw new NotFound();
        }
        return finish;
    }

    String name() {
        return gainMilliDb + "_" + ceilingMilliDbtp;
    }

    /** The finished mix from a frame on: the very samples that the whole of it would have there. Closing it does not close the mixer. */
    SampleSource from(Mixer mixer, long frame) throws IOException {
        long start = Math.max(0, frame - Limiter.MEMORY_FRAMES);
        SampleSource finished = mastering().apply(mixer.from(start));
        float[][] before = new float[2][Limiter.MEMORY_FRAMES];
        for (long left = frame - start; left > 0; ) {
            int read = finished.read(before, 0, (int) left);
            if (read == 0) {
                break;
            }
            left -= read;
        }
        return finished;
    }

    Mastering mastering() {
        return new Mastering(gainMilliDb / 1000.0, ceilingMilliDbtp / 1000.0, 0);
    }
}
