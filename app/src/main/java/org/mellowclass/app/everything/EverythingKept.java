package org.mellowclass.app.everything;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.zip.Deflater;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.SerializationFeature;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.SchoolOffice;
import org.mellowclass.app.securitylog.SecurityLog;
import org.mellowclass.app.store.Held;
import org.mellowclass.app.store.SoundStore;
import org.mellowclass.app.web.NotFound;
import org.mellowclass.media.SoundDecoder;
import org.mellowclass.media.SoundRefused;
import org.springframework.stereotype.Service;

/** Everything that is kept of one student, for them and their family: what the tables say, and every take that they have made or speak in. */
@Service
class EverythingKept {

    private final EverythingMapper tables;
    private final SoundStore store;
    private final SoundDecoder decoder;
    private final Access access;
    private final SchoolOffice office;
    private final SecurityLog log;
    private final ObjectMapper json;

    EverythingKept(EverythingMapper tables, SoundStore store, SoundDecoder decoder, Access access, SchoolOffice office, SecurityLog log, ObjectMapper json) {
        this.tables = tables;
        this.store = store;
        this.decoder = decoder;
        this.access = access;
        this.office = office;
        this.log = log;
        this.json = json.copy().enable(SerializationFeature.INDENT_OUTPUT).disable(JsonGenerator.Feature.AUTO_CLOSE_TARGET);
    }

    /** The student themselves. */
    Person own(Person viewer) {
        if (viewer.isTeacher()) {
            throw new NotFound();
        }
        return viewer;
    }

    /** A student whose home class the viewer teaches. */
    Person student(Person viewer, long classId, long studentId) {
        access.taughtClass(viewer, classId);
        if (!tables.isHome(classId, studentId)) {
            throw new NotFound();
        }
        return office.person(studentId).orElseThrow(NotFound::new);
    }

    /** Writes everything as a ZIP: {@code everything.json} and the takes. A take that cannot be read is named in it, and the rest is there. */
    void write(Person by, Person student, OutputStream out) throws IOException {
        log.note(student.schoolId(), SecurityLog.Kind.COPY_TAKEN, by.id(), student.id(), null);
        List<EverythingMapper.Take> takes = tables.takes(student.id());
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            // sound hardly shrinks
            zip.setLevel(Deflater.BEST_SPEED);
            Map<Long, List<String>> files = new LinkedHashMap<>();
            for (EverythingMapper.Take take : takes) {
                List<String> written = new ArrayList<>();
                put(zip, "takes/take-" + take.id(), take.soundKey()).ifPresent(written::add);
                put(zip, "takes/take-" + take.id() + "-as-it-came", take.originalKey()).ifPresent(written::add);
                for (EverythingMapper.Returned returned : tables.returned(take.id())) {
                    put(zip, "takes/take-" + take.id() + "-came-back-" + returned.id(), returned.originalKey()).ifPresent(written::add);
                }
                files.put(take.id(), written);
            }
            zip.putNextEntry(new ZipEntry("everything.json"));
            json.writeValue(zip, everything(student, takes, files));
            zip.closeEntry();
        }
    }

    /** The name under which a file stands in the ZIP; none for a key that is null, or whose file has gone meanwhile. */
    private Optional<String> put(ZipOutputStream zip, String name, String key) throws IOException {
        if (key == null) {
            return Optional.empty();
        }
        try (Held held = store.hold(key)) {
            String whole = name + ending(held.file());
            zip.putNextEntry(new ZipEntry(whole));
            Files.copy(held.file(), zip);
            zip.closeEntry();
            return Optional.of(whole);
        } catch (NoSuchFileException gone) {
            return Optional.empty();
        }
    }

    /** By its content, so that it can be opened elsewhere. */
    private String ending(Path file) throws IOException {
        try {
            String format = decoder.probe(file).format();
            return format.contains("m4a") ? ".m4a" : format.contains("webm") ? ".webm" : "." + format.split(",")[0];
        } catch (SoundRefused unknown) {
            return "";
        }
    }

    private Map<String, Object> everything(Person student, List<EverythingMapper.Take> takes, Map<Long, List<String>> files) {
        long id = student.id();
        Map<String, Object> all = new LinkedHashMap<>();
        all.put("person", tables.person(id));
        all.put("classes", tables.classes(id));
        all.put("askedInto", tables.askedInto(id));
        all.put("crews", tables.crews(id));
        all.put("consents", tables.consents(id));
        all.put("takes", takes.stream().map(take -> told(take, files.get(take.id()))).toList());
        all.put("filesOnTheWay", tables.filesOnTheWay(id));
        all.put("edits", tables.edits(id));
        all.put("handIns", tables.handIns(id));
        all.put("notes", tables.notes(id));
        all.put("notesDone", tables.notesDone(id));
        all.put("answers", tables.answers(id));
        all.put("listened", tables.listened(id));
        all.put("marks", tables.marks(id));
        all.put("guestsNamed", tables.guests(id));
        all.put("askedToErase", tables.eraseRequests(id));
        all.put("linedUp", tables.lineUps(id));
        all.put("onAirOfTheirCrews", tables.onAir(id));
        all.put("laptops", tables.laptops(id));
        all.put("signedIn", tables.signedIn(Long.toString(id)));
        all.put("log", tables.log(id));
        return all;
    }

    /** A take without the keys of its files, which are nobody's business. */
    private static Map<String, Object> told(EverythingMapper.Take take, List<String> files) {
        Map<String, Object> told = new LinkedHashMap<>();
        told.put("name", take.name());
        told.put("episode", take.episode());
        told.put("track", take.track());
        told.put("voices", take.voices());
        told.put("madeByThem", take.madeByThem());
        told.put("origin", take.origin());
        told.put("state", take.state());
        told.put("microphone", take.microphone());
        told.put("saidOn", take.saidOn());
        told.put("files", files);
        return told;
    }
}
