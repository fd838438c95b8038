package org.mellowclass.app.roster;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

import org.junit.jupiter.api.Test;

class OneRosterTest {

    private static final String USERS = """
            sourcedId,status,dateLastModified,enabledUser,orgSourcedIds,role,username,userIds,givenName,familyName,middleName,identifier,email
            u1,,,true,o1,student,noor,,Noor,Haddad,,801,noor@school.example
            u2,active,,true,o1,student,dana,,Dana,"Cruz, Lee",,,
            u3,tobedeleted,,true,o1,student,gone,,Gone,Away,,803,
            u4,,,false,o1,student,off,,Switched,Off,,804,
            u5,,,true,o1,teacher,okoro,,Ada,Okoro,,,
            """;
    private static final String CLASSES = """
            sourcedId,status,dateLastModified,title,grades,courseSourcedId,classCode,classType,location,schoolSourcedId,termSourcedIds
            c1,,,8 Heron,8,k1,8H,homeroom,,o1,t1
            c2,,,7 Teal,7,k1,7T,homeroom,,o1,t1
            c3,,,Nobody's,7,k1,7N,homeroom,,o1,t1
            """;
    private static final String ENROLLMENTS = """
            sourcedId,status,dateLastModified,classSourcedId,schoolSourcedId,userSourcedId,role,primary,beginDate,endDate
            e1,,,c1,o1,u1,student,,,
            e2,,,c1,o1,u2,student,,,
            e3,,,c1,o1,u3,student,,,
            e4,,,c1,o1,u4,student,,,
            e5,,,c1,o1,u5,teacher,true,,
            e6,,,c2,o1,u1,student,,,
            e7,tobedeleted,,c3,o1,u1,student,,,
            """;

    private static byte[] zip(Map<String, String> tables) throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(bytes)) {
            for (Map.Entry<String, String> table : tables.entrySet()) {
                zip.putNextEntry(new ZipEntry(table.getKey()));
                zip.write(table.getValue().getBytes(StandardCharsets.UTF_8));
            }
        }
        return bytes.toByteArray();
    }

    @Test
    void of_a_set_each_class_becomes_a_list_of_the_students_who_are_in_it_now() throws IOException {
        byte[] set = zip(Map.of("set/users.csv", "\uFEFF" + USERS, "set/classes.csv", CLASSES, "set/enrollments.csv", ENROLLMENTS, "manifest.csv", "propertyName,value\n"));
        assertThat(OneRoster.isZip(set)).isTrue();
        assertThat(OneRoster.read(set)).extracting(OneRoster.OfClass::title, OneRoster.OfClass::students).containsExactly(tuple("7 Teal", 1), tuple("8 Heron", 2));
        assertThat(RosterReader.read(OneRoster.read(set).get(1).list())).extracting(row -> row.entry().number(), row -> row.entry().name())
                .containsExactly(tuple("801", "Noor Haddad"), tuple("u2", "Dana Cruz, Lee"));
    }

    @Test
    void what_is_no_set_is_refused() throws IOException {
        assertThatThrownBy(() -> OneRoster.read(zip(Map.of("users.csv", USERS)))).hasMessage("roster.ONE_ROSTER");
        assertThatThrownBy(() -> OneRoster.read(new byte[] {'P', 'K', 3, 4, 9, 9, 9, 9})).hasMessage("roster.ONE_ROSTER");
        assertThatThrownBy(() -> OneRoster.read(zip(Map.of("users.csv", "a,a\n\"", "classes.csv", CLASSES, "enrollments.csv", ENROLLMENTS)))).hasMessage("roster.ONE_ROSTER");
        assertThat(OneRoster.isZip(USERS.getBytes(StandardCharsets.UTF_8))).isFalse();
    }

    @Test
    void a_table_that_unpacks_without_end_is_refused_and_not_kept_in_memory() throws IOException {
        byte[] bomb = zip(Map.of("users.csv", "x".repeat((8 << 20) + 1), "classes.csv", CLASSES, "enrollments.csv", ENROLLMENTS));
        assertThat(bomb.length).isLessThan(50_000);
        assertThatThrownBy(() -> OneRoster.read(bomb)).hasMessage("roster.TOO_LARGE");
    }
}
