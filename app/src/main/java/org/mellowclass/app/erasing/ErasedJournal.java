package org.mellowclass.app.erasing;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;

import org.mellowclass.app.MellowProperties;
import org.mellowclass.app.store.RandomKey;
import org.springframework.stereotype.Component;

/**
 * What was erased on purpose, in a file of its own beside the sounds, a line each: {@code take 17} or {@code file 0123…}. It is written
 * before anything is erased, so that an erasing that was killed is done to its end, and one that a restored backup knows nothing of
 * is done again.
 */
@Component
class ErasedJournal {

    private static final String TAKE = "take ";
    private static final String FILE = "file ";

    private final Path journal;

    ErasedJournal(MellowProperties properties) {
        journal = properties.folder().toAbsolutePath().resolve("erased");
    }

    /** It is on the disk when this returns. */
    synchronized void write(long takeId, List<String> keys) throws IOException {
        String lines = Stream.concat(Stream.of(TAKE + takeId), keys.stream().map(key -> FILE + key)).map(line -> line + "\n").reduce("", String::concat);
        try (FileChannel channel = FileChannel.open(journal, StandardOpenOption.CREATE, StandardOpenOption.WRITE, StandardOpenOption.APPEND)) {
            channel.write(ByteBuffer.wrap(lines.getBytes(StandardCharsets.US_ASCII)));
            channel.force(true);
        }
    }

    List<Long> takes() throws IOException {
        return lines(TAKE).stream().filter(id -> id.matches("\\d{1,18}")).map(Long::valueOf).toList();
    }

    List<String> files() throws IOException {
        return lines(FILE).stream().filter(RandomKey::is).toList();
    }

    private List<String> lines(String kind) throws IOException {
        List<String> found = new ArrayList<>();
        if (Files.exists(journal)) {
            for (String line : Files.readAllLines(journal, StandardCharsets.US_ASCII)) {
                if (line.startsWith(kind)) {
                    found.add(line.substring(kind.length()));
                }
            }
        }
        return found.stream().distinct().toList();
    }
}
