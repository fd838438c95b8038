package org.mellowclass.app.shelf;

import java.io.IOException;
import java.time.Clock;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.OptionalInt;
import java.util.OptionalLong;
import java.util.Set;
import java.util.stream.Collectors;
import org.mellowclass.app.disk.DiskRoom;
import org.mellowclass.app.incoming.IncomingFiles;
import org.mellowclass.app.jobs.Jobs;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.store.Held;
import org.mellowclass.app.store.Scratch;
import org.mellowclass.app.store.SkylineFile;
import org.mellowclass.app.store.SoundStore;
import org.mellowclass.app.web.Fields;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.app.web.Refusal;
import org.mellowclass.core.sound.Span;
import org.springframework.core.io.Resource;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;

/** A class's music and effects, each with what has to be said of it. The teacher fills it; the class's crews use it. */
@Service
public class Shelf {

    private static final int LONGEST_NAME = 120;
    private static final int LONGEST_LINE = 300;
    private static final int LONGEST_EXCERPT_NAME = 60;

    private final ShelfMapper sounds;
    private final Access access;
    private final SoundStore store;
    private final IncomingFiles incoming;
    private final DiskRoom room;
    private final Jobs jobs;
    private final Clock clock;
    private final TransactionTemplate transaction;

    Shelf(ShelfMapper sounds, Access access, SoundStore store, IncomingFiles incoming, DiskRoom room, Jobs jobs, Clock clock,
          TransactionTemplate transaction) {
        this.sounds = sounds;
        this.access = access;
        this.store = store;
        this.incoming = incoming;
        this.room = room;
        this.jobs = jobs;
        this.clock = clock;
        this.transaction = transaction;
    }

    /** What a teacher says of a sound; all of it is needed before anybody may use it. */
    public record About(String name, ShelfSound.Kind kind, String author, String licence, String source, String credit) {

        public About {
            name = Fields.required(name, LONGEST_NAME, "shelf.NAME");
            author = Fields.required(author, LONGEST_NAME, "shelf.AUTHOR");
            licence = Fields.required(licence, LONGEST_NAME, "shelf.LICENCE");
            source = Fields.required(source, LONGEST_LINE, "shelf.SOURCE");
            credit = credit == null || credit.isBlank() ? "“" + name + "” by " + author + ", " + licence : credit;
            credit = Fields.required(credit, LONGEST_LINE, "shelf.CREDIT");
        }
    }

    /** The sounds of a class that the viewer teaches or is in, whose names, makers or credits hold the words asked for. */
    @Transactional(readOnly = true)
    public List<ShelfSound> find(Person viewer, long classId, String words) {
        access.sharedClass(viewer, classId);
        String wanted = words == null ? "" : words.strip().toLowerCase(Locale.ROOT);
        return sounds.ofClass(classId).stream()
                .filter(sound -> String.join("\n", sound.name(), sound.author(), sound.credit(), sound.kind().name())
                        .toLowerCase(Locale.ROOT).contains(wanted)).toList();
    }

    /** The excerpts of the sounds of such a class, by sound. */
    @Transactional(readOnly = true)
    public Map<Long, List<Excerpt>> excerpts(Person viewer, long classId) {
        access.sharedClass(viewer, classId);
        return sounds.excerptsOfClass(classId).stream().collect(Collectors.groupingBy(Excerpt::soundId));
    }

    /** Puts a file on the shelf, and returns the id of the sound that is being made from it. */
    public long add(Person viewer, long classId, About about, IncomingFiles.Upload upload) throws IOException {
        access.taughtClass(viewer, classId);
        room.shareOfClass(classId, 0);
        String key = incoming.keep(Scratch.Owner.shelf(classId), upload);
        Long id = transaction.execute(status -> {
            ShelfMapper.NewSound sound = new ShelfMapper.NewSound(classId, about.name, about.kind, about.author, about.licence,
                    about.source, about.credit, key, viewer.id(), clock.instant());
            sounds.add(sound);
            jobs.ask(ShelfConversion.KIND, sound.id, Jobs.ofClass(classId));
            return sound.id;
        });
        return id == null ? 0 : id;
    }

    /** Takes a sound off the shelf. Crews that have laid it in keep it, with its credit. Returns its class. */
    @Transactional
    public long takeAway(Person viewer, long soundId) {
        ShelfSound sound = taught(viewer, soundId);
        sounds.takeAway(soundId, clock.instant());
        return sound.classId();
    }

    /** A shelf sound that is heard, and the line that says whose it is; it may have been taken off the shelf since. */
    public record Credit(String name, String credit) {
    }

    /** The credits of the shelf sounds among takes of an episode, for whoever has been let through. */
    @Transactional(readOnly = true)
    public List<Credit> credits(long episodeId, Set<Long> takeIds) {
        return takeIds.isEmpty() ? List.of() : sounds.credits(episodeId, takeIds);
    }

    /** Saves a stretch of a sound under a name; returns its class. Times that make no sense are empty. */
    @Transactional
    public long addExcerpt(Person viewer, long soundId, String name, OptionalLong from, OptionalLong to) {
        ShelfSound sound = taught(viewer, soundId);
        if (from.isEmpty() || to.isEmpty() || to.getAsLong() <= from.getAsLong()) {
            throw Refusal.unfit("shelf.EXCERPT_SPAN").at("from");
        }
        Span span = new Span(from.getAsLong(), to.getAsLong());
        String checked = Fields.required(name, LONGEST_EXCERPT_NAME, "shelf.EXCERPT_NAME");
        if (!sound.ready() || span.endFrame() > sound.frames()) {
            throw Refusal.unfit("shelf.EXCERPT_SPAN").at("from");
        }
        try {
            sounds.addExcerpt(new ShelfMapper.NewRow(), soundId, checked, span.startFrame(), span.endFrame());
        } catch (DuplicateKeyException taken) {
            throw Refusal.conflict("shelf.EXCERPT_TAKEN");
        }
        return sound.classId();
    }

    @Transactional
    public long removeExcerpt(Person viewer, long excerptId) {
        Excerpt excerpt = sounds.excerpt(excerptId).orElseThrow(NotFound::new);
        long classId = taught(viewer, excerpt.soundId()).classId();
        sounds.deleteExcerpt(excerptId);
        return classId;
    }

    /** A sound of a class that the viewer teaches or is in. */
    @Transactional(readOnly = true)
    public ShelfSound sound(Person viewer, long soundId) {
        ShelfSound sound = sounds.find(soundId).orElseThrow(NotFound::new);
        access.sharedClass(viewer, sound.classId());
        return sound;
    }

    /** An excerpt of a sound that {@link #sound} has let through. */
    @Transactional(readOnly = true)
    public Excerpt excerpt(ShelfSound sound, long excerptId) {
        return sounds.excerpt(excerptId).filter(excerpt -> excerpt.soundId() == sound.id()).orElseThrow(NotFound::new);
    }

    /** How far a sound has come on its way to being ready, in percent. */
    public OptionalInt percent(ShelfSound sound) {
        return jobs.percent(ShelfConversion.KIND, sound.id());
    }

    public Resource file(Person viewer, long soundId) throws IOException {
        ShelfSound sound = sound(viewer, soundId);
        if (!sound.ready()) {
            throw new NotFound();
        }
        return store.stream(sound.soundKey());
    }

    /** The skyline of a ready sound, at the coarsest level that has so many bins or at the finest. */
    public byte[] smallSkyline(ShelfSound sound, int bins) throws IOException {
        try (Held skyline = store.hold(sound.skylineKey())) {
            return SkylineFile.readWhole(skyline.file(), sound.frames(), bins);
        }
    }

    /** A copy of a ready sound and its excerpts on another class's shelf: the same files. Returns the new ids by the old. */
    @Transactional
    public Copied copy(Person viewer, ShelfSound sound, long toClassId) {
        access.taughtClass(viewer, toClassId);
        ShelfMapper.NewRow row = new ShelfMapper.NewRow();
        sounds.copy(row, sound.id(), toClassId, viewer.id(), clock.instant());
        Map<Long, Long> excerpts = sounds.excerptsOfClass(sound.classId()).stream()
                .filter(excerpt -> excerpt.soundId() == sound.id()).collect(Collectors.toMap(Excerpt::id, excerpt -> {
                    ShelfMapper.NewRow copy = new ShelfMapper.NewRow();
                    sounds.addExcerpt(copy, row.id, excerpt.name(), excerpt.startFrame(), excerpt.endFrame());
                    return copy.id;
                }));
        return new Copied(row.id, excerpts);
    }

    /** @param excerptIds the new ids of the excerpts by the old */
    public record Copied(long soundId, Map<Long, Long> excerptIds) {
    }

    /** Tries once more to make a sound ready whose file is kept. */
    @Transactional
    public ShelfSound again(Person viewer, long soundId) {
        ShelfSound sound = taught(viewer, soundId);
        if (sounds.again(soundId) == 1 || jobs.waitsFor(ShelfConversion.KIND, soundId).isPresent()) {
            jobs.again(ShelfConversion.KIND, soundId, Jobs.ofClass(sound.classId()));
        }
        return sound;
    }

    private ShelfSound taught(Person viewer, long soundId) {
        ShelfSound sound = sounds.find(soundId).orElseThrow(NotFound::new);
        access.taughtClass(viewer, sound.classId());
        return sound;
    }
}
