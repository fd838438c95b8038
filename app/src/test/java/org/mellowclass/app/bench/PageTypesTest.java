package org.mellowclass.app.bench;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.lang.reflect.RecordComponent;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.mellowclass.core.measure.ClippedSpot;
import org.mellowclass.core.timeline.Fade;
import org.mellowclass.core.timeline.Flag;

/** The types that pages are checked against are the records that they get. */
class PageTypesTest {

    static Stream<Class<? extends Record>> records() {
        return Stream.of(BenchViews.TimelineView.class, BenchViews.TrackView.class, BenchViews.ClipView.class, BenchViews.SourceView.class,
                BenchViews.TakeView.class, ClippedSpot.class, Fade.class, Flag.class);
    }

    @ParameterizedTest
    @MethodSource("records")
    void a_type_of_the_page_has_the_names_of_its_record(Class<? extends Record> record) throws IOException {
        List<String> components = Arrays.stream(record.getRecordComponents()).map(RecordComponent::getName).toList();
        assertThat(propertiesOf(record.getSimpleName())).containsExactlyElementsOf(components);
    }

    private static List<String> propertiesOf(String type) throws IOException {
        String source;
        try (var file = PageTypesTest.class.getResourceAsStream("/static/js/page/types.js")) {
            source = new String(file.readAllBytes(), StandardCharsets.UTF_8);
        }
        Matcher typedef = Pattern.compile("@typedef \\{\\{ (.*) \\}\\} " + type + " ").matcher(source);
        assertThat(typedef.find()).as("there is a type %s", type).isTrue();
        // names at the outermost level: what stands in braces belongs to a property
        return Pattern.compile("(\\w+): ").matcher(typedef.group(1).replaceAll("\\{[^}]*\\}", "map")).results().map(match -> match.group(1)).toList();
    }
}
