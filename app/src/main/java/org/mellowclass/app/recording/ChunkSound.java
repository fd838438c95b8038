package org.mellowclass.app.recording;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.ShortBuffer;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

import org.mellowclass.app.recording.RecordingMapper.ChunkFacts;
import org.mellowclass.core.sound.SampleSource;
import org.mellowclass.core.sound.Span;

/**
 * The chunks of a recording, each at its place, as one sound; only one of them is in memory. Where one is missing there is
 * silence, so that everything else stays at its time.
 */
final class ChunkSound implements SampleSource {

    /** Recording is one voice on one channel. */
    private static final int CHANNELS = 1;

    private final RecordingMapper recordings;
    private final Session session;
    private final List<ChunkFacts> chunks;
    private final long end;
    private long position;
    private int next;
    private ShortBuffer samples = ShortBuffer.allocate(0);

    ChunkSound(RecordingMapper recordings, Session session) {
        this.recordings = recordings;
        this.session = session;
        this.chunks = recordings.chunks(session.takeId());
        this.end = session.sourceFrames();
    }

    long frames() {
        return end;
    }

    /** The stretches that never came, at the source's rate. */
    List<Span> missing() {
        List<Span> missing = new ArrayList<>();
        long reached = 0;
        for (ChunkFacts chunk : chunks) {
            if (chunk.firstFrame() > reached) {
                missing.add(new Span(reached, chunk.firstFrame()));
            }
            reached = Math.max(reached, chunk.endFrame());
        }
        if (end > reached) {
            missing.add(new Span(reached, end));
        }
        return missing;
    }

    @Override
    public int channels() {
        return CHANNELS;
    }

    @Override
    public int sampleRate() {
        return session.sampleRate();
    }

    @Override
    public int read(float[][] into, int offset, int frames) {
        while (!samples.hasRemaining() && next < chunks.size() && chunks.get(next).firstFrame() <= position) {
            open(chunks.get(next++));
        }
        if (samples.hasRemaining()) {
            int count = Math.min(frames, samples.remaining());
            for (int i = 0; i < count; i++) {
                into[0][offset + i] = samples.get() / 32768f;
            }
            position += count;
            return count;
        }
        long until = next < chunks.size() ? chunks.get(next).firstFrame() : end;
        int count = (int) Math.max(0, Math.min(frames, until - position));
        Arrays.fill(into[0], offset, offset + count, 0f);
        position += count;
        return count;
    }

    private void open(ChunkFacts chunk) {
        samples = ByteBuffer.wrap(recordings.pcm(session.takeId(), chunk.number()).pcm()).order(ByteOrder.LITTLE_ENDIAN).asShortBuffer();
        // what lies before the place reached was there already
        samples.position((int) Math.min(samples.limit(), position - chunk.firstFrame()));
    }
}
