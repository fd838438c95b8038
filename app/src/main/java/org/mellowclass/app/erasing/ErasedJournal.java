package org.mellowclass.app.erasing;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import java.util.stream.Stream;

import org.mellowclass.app.MellowProperties;
import org.mellowclass.app.store.RandomKey;
import org.springframework.stereotype.Component;

/**
 * What was erased on purpose, in a file of its own beside the sounds, a line each: {@code take 17}, {@code student 5}, {@code file 0123…}.
 * It is written before anything is erased, so that an erasing that was killed is done to its end, and one that a restored backup knows
 * nothing of is done again.
 */
@Component
class ErasedJournal {

    private static final String FILE = "file ";

    private final Path journal;

    ErasedJournal(MellowProperties properties) {
        journal = properties.folder().toAbsolutePath().resolve("erased");
    }

    /** What can be erased whole. */
    enum Kind {
        TAKE, STUDENT, CLASS, SCHOOL;

        private String word() {
            return name().toLowerCase(Locale.ROOT) + " ";
        }
    }

    /** It is on the disk when this returns. @throws UncheckedIOException if it is not: nothing may be erased then */
    synchronized void write(Kind kind, long id, Collection<String> keys) {
        String lines = Stream.concat(Stream.of(kind.word() + id), keys.stream().map(key -> FILE + key)).map(line -> line + "\n").collect(Collectors.joining());
        try (FileChannel channel = FileChannel.open(journal, StandardOpenOption.CREATE, StandardOpenOption.WRITE, StandardOpenOption.APPEND)) {
            channel.write(ByteBuffer.wrap(lines.getBytes(StandardCharsets.US_ASCII)));
            channel.force(true);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    List<Long> ids(Kind kind) {
        return lines(kind.word()).stream().filter(id -> id.matches("\\d{1,18}")).map(Long::valueOf).toList();
    }

    List<String> files() {
        return lines(FILE).stream().filter(RandomKey::is).toList();
    }

    private List<String> lines(String kind) {
        if (!Files.exists(journal)) {
            return List.of();
        }
        try (Stream<String> lines = Files.lines(journal, StandardCharsets.US_ASCII)) {
            return lines.filter(line -> line.startsWith(kind)).map(line -> line.substring(kind.length())).distinct().toList();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
