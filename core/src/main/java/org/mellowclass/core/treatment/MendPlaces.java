package org.mellowclass.core.treatment;

import java.io.IOException;
import java.util.List;
import java.util.stream.Stream;

import org.mellowclass.core.dsp.PlaceMender;
import org.mellowclass.core.sound.Opening;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.sound.Span;

/**
 * Mends clicks and small bumps, see {@link PlaceMender}.
 *
 * @param places in the take's frames, in order; those that touch are one
 */
public record MendPlaces(List<Span> places) implements Step {

    public MendPlaces {
        places = List.copyOf(Span.joined(places, 0));
    }

    /** This with some places more. */
    public MendPlaces and(List<Span> more) {
        return new MendPlaces(Stream.concat(places.stream(), more.stream()).toList());
    }

    @Override
    public SampleSource process(Opening sound, Findings findings) throws IOException {
        return PlaceMender.of(sound.open(), places);
    }

    @Override
    public int order() {
        return 3;
    }
}
