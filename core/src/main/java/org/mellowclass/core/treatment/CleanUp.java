package org.mellowclass.core.treatment;

import java.io.IOException;

import org.mellowclass.core.cleanup.Cleanup;
import org.mellowclass.core.cleanup.Heard;
import org.mellowclass.core.cleanup.Recipe;
import org.mellowclass.core.sound.Opening;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.sound.Span;

/**
 * Cleans a take by a recipe.
 *
 * @param room where its room is learned, in its frames; null to find it
 */
public record CleanUp(Recipe recipe, Span room) implements Step {

    @Override
    public SampleSource process(Opening sound, Findings findings) throws IOException {
        return Cleanup.prepare(recipe, sound, Heard.of(sound, recipe), room).process(sound.open());
    }

    @Override
    public boolean changesNothing() {
        return recipe.changesNothing();
    }

    @Override
    public int order() {
        return 4;
    }
}
