package org.mellowclass.app.demo;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;

import org.mellowclass.app.MellowProperties;
import org.mellowclass.app.people.FirstStart;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/** Loads the demo school when the application has started, and tells the start command that everything is ready. */
@Component
class DemoLoader {

    private final MellowProperties properties;
    private final DemoSchool school;
    private final FirstStart firstStart;

    DemoLoader(MellowProperties properties, DemoSchool school, FirstStart firstStart) {
        this.properties = properties;
        this.school = school;
        this.firstStart = firstStart;
    }

    @EventListener(ApplicationReadyEvent.class)
    void load() throws IOException {
        StringBuilder words = new StringBuilder("It is ready.\n");
        if (properties.demo()) {
            school.load();
            words.append("\nThe demo school is Saltmarsh Lane School, class 8 Heron. Its sign-ins:\n");
            words.append(line("teacher", DemoSchool.TEACHER_EMAIL, DemoSchool.TEACHER_PASSWORD));
            for (DemoSchool.SignIn student : DemoSchool.STUDENTS) {
                words.append(line(student.crew() + " crew", DemoSchool.CLASS_CODE + " · " + student.name(),
                        student.passphrase()));
            }
        }
        firstStart.key().ifPresent(key -> words.append("\nThere is no school yet. Make yours at /first-start?key=").append(key).append('\n'));
        Path file = properties.readyFile();
        if (file != null) {
            Path part = Files.writeString(file.resolveSibling(file.getFileName() + ".part"), words.append('\n'));
            Files.move(part, file);
        }
    }

    private static String line(String who, String account, String secret) {
        return String.format("  %-16s %-28s %s%n", who, account, secret);
    }
}
