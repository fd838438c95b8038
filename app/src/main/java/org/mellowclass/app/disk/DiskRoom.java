package org.mellowclass.app.disk;

import java.io.IOException;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

import org.mellowclass.app.MellowProperties;
import org.mellowclass.app.store.NamedSounds;
import org.mellowclass.app.store.SoundStore;
import org.mellowclass.app.web.LargeBodies;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.core.sound.SampleSink;
import org.springframework.boot.autoconfigure.condition.ConditionalOnMissingBean;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.util.unit.DataSize;

/**
 * Refuses what would fill the disk: files while there is still room for the recordings that run, and more than its share by one crew or
 * one class. What is refused has not been stored, and nothing that is stored is touched.
 */
@Component
public class DiskRoom implements LargeBodies {

    /** With less than this not even a recording begins. */
    private static final long LAST_BYTES = DataSize.ofMegabytes(64).toBytes();

    private static final long LOOK_EACH_BYTES = DataSize.ofMegabytes(16).toBytes();

    private final FreeSpace free;
    private final SoundStore store;
    private final List<NamedSounds> named;
    private final MellowProperties.Room room;

    DiskRoom(FreeSpace free, SoundStore store, List<NamedSounds> named, MellowProperties properties) {
        this.free = free;
        this.store = store;
        this.named = named;
        this.room = properties.room();
    }

    @Configuration
    static class ThisDisk {
        @Bean
        @ConditionalOnMissingBean
        FreeSpace freeSpace(MellowProperties properties) {
            // of the file itself: a file store is looked up among mounts, which a container may not see
            return () -> properties.folder().toFile().getUsableSpace();
        }
    }

    /** How much there is on the disk. */
    public long freeBytes() throws IOException {
        return free.bytes();
    }

    @Override
    public void admit(long bytes) throws IOException {
        forFile(bytes);
    }

    /** @throws Refusal if a file of so many bytes would leave too little for recordings */
    public void forFile(long bytes) throws IOException {
        if (free.bytes() - bytes < room.keptForRecordings().toBytes()) {
            throw new Refusal(HttpStatus.INSUFFICIENT_STORAGE, "disk.FILE");
        }
    }

    /** Goes along with sound that is being written: stops while there is still room for everybody else. The work is tried again later. */
    public SampleSink whileWriting() {
        return new SampleSink() {
            private long unchecked;

            @Override
            public void accept(float[][] block, int frames) throws IOException {
                unchecked += (long) frames * block.length * Float.BYTES;
                if (unchecked >= LOOK_EACH_BYTES) {
                    unchecked = 0;
                    if (free.bytes() < room.keptForRecordings().toBytes()) {
                        throw new IOException("No space left on device: what is left is kept for recordings");
                    }
                }
            }
        };
    }

    /** @throws Refusal if there is no room at all */
    public void forRecording() throws IOException {
        if (free.bytes() < LAST_BYTES) {
            throw new Refusal(HttpStatus.INSUFFICIENT_STORAGE, "disk.RECORDING");
        }
    }

    /**
     * What an episode keeps and what is on its way, with so much more, is within its crew's and its class's share.
     *
     * @throws Refusal if it is not
     */
    public void shareOfCrew(long episodeId, long classId, long more) throws IOException {
        Set<String> keys = new HashSet<>();
        named.forEach(feature -> keys.addAll(feature.keysOfEpisode(episodeId)));
        if (bytes(keys) + more > room.mostForCrew().toBytes()) {
            throw new Refusal(HttpStatus.INSUFFICIENT_STORAGE, "disk.CREW", room.mostForCrew().toGigabytes());
        }
        shareOfClass(classId, more);
    }

    /** @throws Refusal if a class keeps its share already, with so much more */
    public void shareOfClass(long classId, long more) throws IOException {
        Set<String> keys = new HashSet<>();
        named.forEach(feature -> keys.addAll(feature.keysOfClass(classId)));
        if (bytes(keys) + more > room.mostForClass().toBytes()) {
            throw new Refusal(HttpStatus.INSUFFICIENT_STORAGE, "disk.CLASS", room.mostForClass().toGigabytes());
        }
    }

    private long bytes(Set<String> keys) throws IOException {
        long bytes = 0;
        for (String key : keys) {
            bytes += store.size(key);
        }
        return bytes;
    }
}
