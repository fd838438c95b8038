package org.mellowclass.core.soundcheck;

import java.util.List;
import java.util.function.LongFunction;

import org.mellowclass.core.measure.ClippedSpot;
import org.mellowclass.core.talk.TalkFacts;
import org.mellowclass.core.timeline.Timeline;
import org.mellowclass.core.timeline.edit.TakeFacts;

/**
 * What is known of a page and its takes, before its mix is heard.
 *
 * @param clippedInTake the clipped spots of a take as it came, in its frames at 48 kHz
 */
public record Known(Timeline timeline, TakeFacts takes, TalkFacts talk, Voices.Facts heard, LongFunction<List<ClippedSpot>> clippedInTake) {
}
