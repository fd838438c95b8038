package org.mellowclass.app.incoming;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;

import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.mellowclass.app.disk.DiskRoom;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Episode;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.store.RandomKey;
import org.mellowclass.app.store.Scratch;
import org.mellowclass.app.store.SoundStore;
import org.mellowclass.app.takes.Take;
import org.mellowclass.app.web.Fields;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.app.web.Refusal;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;

/**
 * Large files that come in parts: whatever cuts them off, they go on where they stopped. A part that was cut off itself is
 * kept as far as it came. Nothing is a take before all of it is there and has been looked at.
 */
@Service
class FilesInParts {

    static final long MOST_BYTES = 2L << 30;
    private static final int LONGEST_NAME = 255;
    /** So many are one drop of a crew's files. */
    private static final int MOST_OPEN = 50;
    private static final Duration LAPSES_AFTER = Duration.ofHours(1);
    /** The sweeper deletes arriving files that nobody has written to for a day; their rows go a little later. */
    private static final Duration FORGOTTEN_AFTER = Duration.ofDays(2);

    private final IncomingFileMapper rows;
    private final BringingIn bringingIn;
    private final SoundStore store;
    private final Scratch scratch;
    private final DiskRoom room;
    private final Access access;
    private final Clock clock;
    private final Set<String> busy = ConcurrentHashMap.newKeySet();

    FilesInParts(IncomingFileMapper rows, BringingIn bringingIn, SoundStore store, Scratch scratch, DiskRoom room, Access access, Clock clock) {
        this.rows = rows;
        this.bringingIn = bringingIn;
        this.store = store;
        this.scratch = scratch;
        this.room = room;
        this.access = access;
        this.clock = clock;
    }

    /** What is known of a file on its way. */
    record IncomingFile(String uploadKey, long episodeId, String fileName, String trackName, Take.Placing placing, long bytes, String arriving,
                        Long takeId) {
    }

    @Mapper
    interface IncomingFileMapper {

        @Insert("""
                INSERT INTO incoming_file (upload_key, episode_id, author_id, file_name, track_name, placing, bytes, arriving, begun_at)
                VALUES (#{file.uploadKey}, #{file.episodeId}, #{authorId}, #{file.fileName}, #{file.trackName}, #{file.placing}, #{file.bytes},
                        #{file.arriving}, #{at})
                """)
        void add(IncomingFile file, long authorId, Instant at);

        @Select("""
                SELECT upload_key, episode_id, file_name, track_name, placing, bytes, arriving, take_id FROM incoming_file
                WHERE upload_key = #{key}
                """)
        Optional<IncomingFile> find(String key);

        /** Where those lie that are no take yet. */
        @Select("SELECT arriving FROM incoming_file WHERE episode_id = #{episodeId} AND take_id IS NULL")
        List<String> onTheWay(long episodeId);

        @Update("UPDATE incoming_file SET take_id = #{takeId} WHERE upload_key = #{key}")
        void arrived(String key, long takeId);

        @Delete("DELETE FROM incoming_file WHERE upload_key = #{key}")
        void delete(String key);

        /** A file that was begun some time ago. */
        record Old(String uploadKey, String arriving, Long takeId, Instant begunAt) {
        }

        @Select("SELECT upload_key, arriving, take_id, begun_at FROM incoming_file WHERE begun_at < #{before}")
        List<Old> begunBefore(Instant before);

        @Select("SELECT count(*) FROM incoming_file WHERE author_id = #{personId} AND take_id IS NULL")
        int openOf(long personId);
    }

    /** Begins a file of so many bytes; returns its key. */
    String begin(Person viewer, long episodeId, String fileName, String trackName, Take.Placing placing, long bytes) throws IOException {
        Episode episode = access.ownEpisode(viewer, episodeId);
        if (bytes <= 0) {
            throw Refusal.unfit("take.EMPTY_FILE");
        }
        if (bytes > MOST_BYTES) {
            throw Refusal.unfit("take.TOO_LARGE");
        }
        String track = Fields.required(trackName, Take.LONGEST_TRACK_NAME, "take.TRACK_NAME");
        String name = fileName == null ? "" : fileName.substring(0, Math.min(LONGEST_NAME, fileName.length()));
        forgetOld();
        room.forFile(bytes);
        if (rows.openOf(viewer.id()) >= MOST_OPEN) {
            throw Refusal.conflict("take.MANY_FILES", MOST_OPEN);
        }
        room.shareOfCrew(episodeId, episode.classId(), onTheWay(episodeId) + bytes);
        String key = RandomKey.next();
        rows.add(new IncomingFile(key, episodeId, name, track, placing, bytes, scratch.partFile().toString(), null), viewer.id(), clock.instant());
        return key;
    }

    /** What nobody has gone on with goes, with what is here of it; soon where nothing has come. */
    private void forgetOld() throws IOException {
        Instant now = clock.instant();
        for (IncomingFileMapper.Old old : rows.begunBefore(now.minus(LAPSES_AFTER))) {
            if (old.begunAt().isBefore(now.minus(FORGOTTEN_AFTER)) || here(old.arriving()) == 0 && old.takeId() == null) {
                rows.delete(old.uploadKey());
                scratch.deletePart(old.arriving());
            }
        }
    }

    private static long here(String arriving) throws IOException {
        Path path = Path.of(arriving);
        return Files.exists(path) ? Files.size(path) : 0;
    }

    /** What has come of the files of an episode; what was only announced takes no room. */
    private long onTheWay(long episodeId) throws IOException {
        long bytes = 0;
        for (String arriving : rows.onTheWay(episodeId)) {
            bytes += here(arriving);
        }
        return bytes;
    }

    /** A file on its way, for its crew. */
    private IncomingFile find(Person viewer, String key) {
        IncomingFile file = rows.find(key).orElseThrow(NotFound::new);
        access.ownEpisode(viewer, file.episodeId);
        return file;
    }

    /** How much is here of a file of so many bytes. */
    record Progress(long here, long bytes) {
    }

    /**
     * How far a file has come.
     *
     * @throws Refusal 423 while a part is being taken: the last one makes a take of the file, which is neither here nor there meanwhile
     */
    Progress progress(Person viewer, String key) throws IOException {
        hold(key);
        try {
            IncomingFile file = find(viewer, key);
            return new Progress(arrived(file), file.bytes);
        } finally {
            busy.remove(key);
        }
    }

    private void hold(String key) {
        if (!busy.add(key)) {
            throw new Refusal(HttpStatus.LOCKED, "take.PART_IS_COMING");
        }
    }

    private long arrived(IncomingFile file) throws IOException {
        if (file.takeId != null) {
            return file.bytes;
        }
        Path arriving = Path.of(file.arriving);
        if (!Files.exists(arriving)) {
            throw new NotFound();
        }
        return Files.size(arriving);
    }

    /**
     * Takes the next part, and makes a take of the file with the last one; returns how much is here now. A refused file
     * leaves nothing behind.
     *
     * @param offset where the part begins: where the one before has ended
     */
    long add(Person viewer, String key, long offset, InputStream part) throws IOException {
        find(viewer, key);
        hold(key);
        try {
            IncomingFile file = find(viewer, key);
            if (arrived(file) != offset) {
                throw Refusal.conflict("take.WRONG_PART");
            }
            if (file.takeId != null) {
                return file.bytes;
            }
            room.forFile(file.bytes - offset);
            // others may have sent theirs since this one was announced
            room.shareOfCrew(file.episodeId, access.ownEpisode(viewer, file.episodeId).classId(), onTheWay(file.episodeId) + file.bytes - offset);
            Path arriving = Path.of(file.arriving);
            try (OutputStream out = Files.newOutputStream(arriving, StandardOpenOption.APPEND)) {
                byte[] buffer = new byte[1 << 16];
                long left = file.bytes - offset;
                for (int read; left > 0 && (read = part.read(buffer, 0, (int) Math.min(buffer.length, left))) > 0; left -= read) {
                    out.write(buffer, 0, read);
                }
            }
            long here = Files.size(arriving);
            if (here == file.bytes) {
                finish(viewer, file, arriving);
            }
            return here;
        } finally {
            busy.remove(key);
        }
    }

    private void finish(Person viewer, IncomingFile file, Path arriving) throws IOException {
        try {
            rows.arrived(file.uploadKey, bringingIn.bringIn(viewer, file.episodeId, file.fileName, file.trackName, file.placing,
                    target -> Files.move(arriving, target, StandardCopyOption.REPLACE_EXISTING)));
        } catch (Refusal refused) {
            rows.delete(file.uploadKey);
            throw refused;
        }
    }
}
