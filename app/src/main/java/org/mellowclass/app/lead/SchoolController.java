package org.mellowclass.app.lead;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import org.mellowclass.app.MellowProperties;
import org.mellowclass.app.disk.DiskRoom;
import org.mellowclass.app.people.Access;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.SchoolOffice;
import org.mellowclass.app.securitylog.SecurityLog;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** What the school's lead looks after: copies, room on the disk, and what has happened. */
@Controller
class SchoolController {

    private static final int SHOWN = 200;
    private static final long GIGABYTE = 1L << 30;
    /** A copy each night, and a day of grace. */
    private static final Duration OLD = Duration.ofDays(2);

    private final Access access;
    private final SchoolOffice office;
    private final DiskRoom room;
    private final SecurityLog log;
    private final MellowProperties properties;
    private final Clock clock;

    SchoolController(Access access, SchoolOffice office, DiskRoom room, SecurityLog log, MellowProperties properties, Clock clock) {
        this.access = access;
        this.office = office;
        this.room = room;
        this.log = log;
        this.properties = properties;
        this.clock = clock;
    }

    @GetMapping("/school")
    String page(@AuthenticationPrincipal Person viewer, Model model) throws IOException {
        access.requireLead(viewer);
        Optional<Instant> copied = lastCopy(properties.folder());
        model.addAttribute("zone", office.zone(viewer.schoolId()));
        model.addAttribute("listeners", office.listeners(viewer.schoolId()));
        model.addAttribute("copiedAt", copied.orElse(null));
        model.addAttribute("copyIsOld", copied.isEmpty() || copied.get().plus(OLD).isBefore(clock.instant()));
        model.addAttribute("freeTenths", room.freeBytes() * 10 / GIGABYTE);
        model.addAttribute("events", log.newest(viewer.schoolId(), SHOWN));
        return "lead/school";
    }

    @PostMapping("/school/listeners")
    String listeners(@AuthenticationPrincipal Person viewer, @RequestParam(defaultValue = "") String contact, @RequestParam(defaultValue = "false") boolean indexed) {
        access.requireLead(viewer);
        office.setListeners(viewer.schoolId(), contact, indexed);
        return "redirect:/school";
    }

    /** When {@code bin/backup} was last done, which writes it in seconds since 1970. */
    private static Optional<Instant> lastCopy(Path folder) throws IOException {
        try {
            return Optional.of(Instant.ofEpochSecond(Long.parseLong(Files.readString(folder.resolve("last-backup")).strip())));
        } catch (NoSuchFileException | NumberFormatException never) {
            return Optional.empty();
        }
    }
}
