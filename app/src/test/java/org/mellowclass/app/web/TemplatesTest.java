package org.mellowclass.app.web;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;

import org.junit.jupiter.api.Test;

/** What the language of templates understands otherwise than it is read (Spring Expression Language, indexing into maps). */
class TemplatesTest {

    /** An index by a bare name means its letters, not what it names. */
    private static final Pattern BARE_INDEX = Pattern.compile("\\$\\{[^}]*[\\w)]\\[\\s*\\p{Alpha}[^\\]}]*]");

    @Test
    void no_map_is_asked_for_the_letters_of_a_name() throws IOException {
        List<String> found = new ArrayList<>();
        try (Stream<Path> templates = Files.walk(Path.of("src/main/resources/templates"))) {
            for (Path template : templates.filter(Files::isRegularFile).toList()) {
                Matcher index = BARE_INDEX.matcher(Files.readString(template));
                while (index.find()) {
                    found.add(template.getFileName() + ": " + index.group());
                }
            }
        }
        assertThat(found).isEmpty();
        assertThat("${line.points()[criterion]}").matches(BARE_INDEX.pattern() + ".*");
        assertThat("${sums[0]}").doesNotMatch(BARE_INDEX.pattern() + ".*");
    }
}
