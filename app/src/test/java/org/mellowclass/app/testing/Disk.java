package org.mellowclass.app.testing;

import org.mellowclass.app.MellowProperties;
import org.mellowclass.app.disk.FreeSpace;
import org.springframework.boot.test.context.TestComponent;

/** The disk, which can look full for a while. */
@TestComponent
public class Disk implements FreeSpace {

    private final MellowProperties properties;
    private volatile long pretended = -1;

    Disk(MellowProperties properties) {
        this.properties = properties;
    }

    @Override
    public long bytes() {
        return pretended >= 0 ? pretended : properties.folder().toFile().getUsableSpace();
    }

    /** Work that finds so much free. */
    public void with(long freeBytes, Work work) throws Exception {
        pretended = freeBytes;
        try {
            work.run();
        } finally {
            pretended = -1;
        }
    }

    @FunctionalInterface
    public interface Work {
        void run() throws Exception;
    }
}
