package org.mellowclass.app.web;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Stream;
import java.util.zip.GZIPInputStream;

import org.flywaydb.core.Flyway;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.core.io.Resource;
import org.springframework.core.io.support.PathMatchingResourcePatternResolver;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.datasource.DriverManagerDataSource;

/** Filled databases of earlier versions become what this version expects, and nothing in them is lost. */
class MigrationTest {

    private static final String SCHEMA = "mellow_migration_tests";

    private static JdbcClient migrated(String dump) throws Exception {
        DriverManagerDataSource source = loaded(dump);
        Flyway.configure().dataSource(source).load().migrate();
        return JdbcClient.create(source);
    }

    /** By the client that restores copies, which reads what a dump asks for in comments. */
    private static DriverManagerDataSource loaded(String dump) throws Exception {
        URI server = URI.create(System.getenv("MELLOW_DATABASE_SERVER").substring("jdbc:".length()));
        String user = System.getenv("MELLOW_DATABASE_USER");
        String password = System.getenv("MELLOW_DATABASE_PASSWORD");
        ProcessBuilder client = new ProcessBuilder("mariadb", "--no-defaults", "--protocol=tcp", "--host=" + server.getHost(), "--port=" + server.getPort(), "--user=" + user,
                "--default-character-set=utf8mb4").redirectErrorStream(true);
        client.environment().put("MYSQL_PWD", password);
        Process process = client.start();
        try (OutputStream out = process.getOutputStream(); InputStream file = new GZIPInputStream(MigrationTest.class.getResourceAsStream(dump))) {
            out.write("DROP DATABASE IF EXISTS %1$s; CREATE DATABASE %1$s; USE %1$s;\n".formatted(SCHEMA).getBytes(StandardCharsets.UTF_8));
            file.transferTo(out);
        }
        String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertThat(process.waitFor()).as(said).isZero();
        return new DriverManagerDataSource("jdbc:" + server + "/" + SCHEMA, user, password);
    }

    /** The demo schools of these versions. */
    @ParameterizedTest
    @ValueSource(strings = {"/db/v18.sql.gz", "/db/v20.sql.gz", "/db/v21.sql.gz", "/db/v24.sql.gz", "/db/v34.sql.gz"})
    void every_row_of_a_school_is_there_afterwards_and_one_teacher_leads_it(String dump) throws Exception {
        DriverManagerDataSource source = loaded(dump);
        JdbcClient database = JdbcClient.create(source);
        Map<String, Integer> before = rows(database);
        assertThat(before).containsKeys("take", "revision", "hand_in", "consent", "person");
        Flyway.configure().dataSource(source).load().migrate();
        assertThat(rows(database)).containsAllEntriesOf(before);
        assertThat(count(database, "person WHERE is_lead")).isEqualTo(count(database, "school")).isPositive();
    }

    /** What version 11 held, brought from each version to the next: whichever a school has stayed on, nothing is lost on the way from there. */
    @Test
    void every_version_in_between_comes_to_this_one_with_all_its_rows() throws Exception {
        DriverManagerDataSource source = loaded("/db/v11.sql.gz");
        JdbcClient database = JdbcClient.create(source);
        Map<String, Map<String, Integer>> byVersion = new LinkedHashMap<>();
        for (String version : versionsInBetween()) {
            Flyway.configure().dataSource(source).target(version).load().migrate();
            byVersion.put(version, rows(database));
        }
        Flyway.configure().dataSource(source).load().migrate();
        Map<String, Integer> now = rows(database);
        assertThat(byVersion).hasSizeGreaterThan(30).allSatisfy((version, before) -> assertThat(now).as("from %s", version).containsAllEntriesOf(before));
    }

    private static List<String> versionsInBetween() throws IOException {
        Resource[] migrations = new PathMatchingResourcePatternResolver().getResources("classpath:db/migration/V*.sql");
        List<Integer> versions = Stream.of(migrations).map(file -> Integer.valueOf(file.getFilename().replaceAll("V(\\d+)__.*", "$1"))).filter(version -> version > 11).sorted().toList();
        return versions.subList(0, versions.size() - 1).stream().map(String::valueOf).toList();
    }

    /** How many rows each table has that has any. */
    private static Map<String, Integer> rows(JdbcClient database) {
        Map<String, Integer> rows = new TreeMap<>();
        for (String table : database.sql("SELECT table_name FROM information_schema.tables WHERE table_schema = ? AND table_name <> 'flyway_schema_history'").param(SCHEMA)
                .query(String.class).list()) {
            int count = count(database, table);
            if (count > 0) {
                rows.put(table, count);
            }
        }
        return rows;
    }

    /** It holds two speakers parted (38), a side left out (44), tops drawn anew (49), a clock corrected (135) and an erased one (93). */
    @Test
    void takes_that_were_made_of_others_become_treatments_of_these() throws Exception {
        JdbcClient database = migrated("/db/v11.sql.gz");
        assertThat(database.sql("SELECT concat(id, ' is ', take_id, ' by ', treatment) FROM former_take ORDER BY id").query(String.class).list())
                .isEqualTo(List.of(
                        "39 is 38 by {\"steps\":[{\"type\":\"sides\",\"sides\":\"LEFT\"}]}",
                        "40 is 38 by {\"steps\":[{\"type\":\"sides\",\"sides\":\"RIGHT\"}]}",
                        "45 is 44 by {\"steps\":[{\"type\":\"sides\",\"sides\":\"LEFT\"}]}",
                        "47 is 46 by {\"steps\":[{\"type\":\"sides\",\"sides\":\"LEFT\"}]}",
                        "48 is 46 by {\"steps\":[{\"type\":\"sides\",\"sides\":\"RIGHT\"}]}",
                        "50 is 49 by {\"steps\":[{\"type\":\"tops\"}]}",
                        "94 is 93 by {\"steps\":[{\"type\":\"sides\",\"sides\":\"LEFT\"}]}",
                        "136 is 135 by {\"steps\":[{\"type\":\"clock\",\"longerPpm\":89.72160119648602}]}"));
        assertThat(count(database, "take WHERE id IN (SELECT id FROM former_take)")).as("made takes are takes no more").isZero();
        assertThat(count(database, "take")).as("what was said is all there: 162 takes, of which 8 were made").isEqualTo(154);
        assertThat(count(database, "sound WHERE treatment_key <> 'as-it-is'")).as("their files are sounds now, but for the erased one").isEqualTo(7);
        assertThat(count(database, "sound s JOIN take t ON t.id = s.take_id WHERE t.state = 'READY' AND s.treatment_key = 'as-it-is'"))
                .as("every take that can be heard has its sound").isEqualTo(count(database, "take WHERE state = 'READY'"));
        assertThat(count(database, "recording")).isEqualTo(count(database, "take WHERE origin = 'RECORDED'"));
        assertThat(database.sql("SELECT first_take, second_take FROM line_up WHERE episode_id = 279").query((row, number) ->
                List.of(row.getLong(1), row.getLong(2))).list()).as("the pair with the corrected take is the pair that it was made of")
                .containsExactly(List.of(134L, 135L));
    }

    @Test
    void a_sound_that_was_made_before_has_the_name_under_which_it_is_looked_for_now() throws Exception {
        JdbcClient database = migrated("/db/v11.sql.gz");
        String json = "{\"steps\":[{\"type\":\"sides\",\"sides\":\"LEFT\"}]}";
        assertThat(database.sql("SELECT treatment FROM sound WHERE take_id = 44 AND treatment_key = sha2(?, 256)").param("1:" + json)
                .query(String.class).list()).containsExactly(json);
    }

    private static int count(JdbcClient database, String from) {
        return database.sql("SELECT count(*) FROM " + from).query(Integer.class).single();
    }
}
