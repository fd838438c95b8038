package org.mellowclass.app.takes;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.ShortBuffer;
import java.util.List;

import org.mellowclass.app.takes.TakeMapper.ChunkFacts;
import org.mellowclass.core.sound.SampleSource;

/** The chunks of a recording, one after the other, as one sound; only one of them is in memory. */
final class ChunkSound implements SampleSource {

    private final TakeMapper takes;
    private final Take take;
    private final List<ChunkFacts> chunks;
    private int next;
    private ShortBuffer samples = ShortBuffer.allocate(0);

    ChunkSound(TakeMapper takes, Take take) {
        this.takes = takes;
        this.take = take;
        this.chunks = takes.chunks(take.id());
    }

    long frames() {
        return chunks.stream().mapToLong(ChunkFacts::frames).sum();
    }

    @Override
    public int channels() {
        return take.sourceChannels();
    }

    @Override
    public int sampleRate() {
        return take.sourceRate();
    }

    @Override
    public int read(float[][] into, int offset, int frames) {
        if (!samples.hasRemaining()) {
            if (next == chunks.size()) {
                return 0;
            }
            samples = ByteBuffer.wrap(takes.pcm(take.id(), chunks.get(next++).number()).pcm())
                    .order(ByteOrder.LITTLE_ENDIAN).asShortBuffer();
        }
        int count = Math.min(frames, samples.remaining());
        for (int i = 0; i < count; i++) {
            into[0][offset + i] = samples.get() / 32768f;
        }
        return count;
    }
}
