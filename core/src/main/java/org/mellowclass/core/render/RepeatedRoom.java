package org.mellowclass.core.render;

import java.io.IOException;

import org.mellowclass.core.sound.RandomAccessSound;
import org.mellowclass.core.timeline.RoomSource;

/**
 * The room of a take, without end: its quiet stretch again and again, each end blended into the next start with equal power.
 * Every frame follows from its number alone.
 */
final class RepeatedRoom implements RandomAccessSound {

    private final RandomAccessSound take;
    private final RoomSource room;
    private final float[][] ending;

    RepeatedRoom(RandomAccessSound take, RoomSource room) {
        this.take = take;
        this.room = room;
        this.ending = new float[take.channels()][RoomSource.BLEND_FRAMES];
    }

    @Override
    public int channels() {
        return take.channels();
    }

    @Override
    public long frames() {
        return Long.MAX_VALUE;
    }

    @Override
    public void readAt(long fromFrame, float[][] into, int offset, int frames) throws IOException {
        long period = room.periodFrames();
        for (int done = 0; done < frames; ) {
            long frame = fromFrame + done;
            long inPeriod = frame % period;
            int count = (int) Math.min(frames - done, period - inPeriod);
            take.readAt(room.roomFrame() + inPeriod, into, offset + done, count);
            if (frame >= period && inPeriod < RoomSource.BLEND_FRAMES) {
                blend(inPeriod, into, offset + done, (int) Math.min(count, RoomSource.BLEND_FRAMES - inPeriod));
            }
            done += count;
        }
    }

    private void blend(long inPeriod, float[][] into, int offset, int count) throws IOException {
        take.readAt(room.roomFrame() + room.periodFrames() + inPeriod, ending, 0, count);
        for (int i = 0; i < count; i++) {
            double angle = 0.5 * Math.PI * (inPeriod + i + 0.5) / RoomSource.BLEND_FRAMES;
            float in = (float) Math.sin(angle);
            float out = (float) Math.cos(angle);
            for (int c = 0; c < ending.length; c++) {
                into[c][offset + i] = in * into[c][offset + i] + out * ending[c][i];
            }
        }
    }
}
