package org.mellowclass.core.publish;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

class PublishRulesTest {

    @ParameterizedTest
    @CsvSource(quoteCharacter = '"', value = {
        "Why the eels came back, why-the-eels-came-back",
        "\"  The lock-keeper’s kettle! \", the-lock-keepers-kettle",
        "Ärger im Café, arger-im-cafe",
        "../../etc/passwd, etc-passwd",
        "潮, episode"})
    void a_title_becomes_a_plain_file_name(String title, String slug) {
        assertThat(Slug.of(title)).isEqualTo(slug);
    }

    @Test
    void a_long_title_is_cut_without_a_hyphen_at_its_end() {
        assertThat(Slug.of("a".repeat(59) + " b")).isEqualTo("a".repeat(59));
    }

    private static final AirGate.Voice PUBLIC = new AirGate.Voice("Noor", AirGate.Reach.PUBLIC);

    @Test
    void the_gate_opens_only_when_nothing_is_missing() {
        assertThat(AirGate.missing(new AirGate.Facts(true, "Eels", "A story.", 0, List.of(PUBLIC), List.of("Waves by Ines"), 0, true))).isEmpty();
        assertThat(AirGate.missing(new AirGate.Facts(true, "Eels", "A story.", 0, List.of(), List.of(), 0, true))).as("music alone").isEmpty();
        assertThat(AirGate.missing(new AirGate.Facts(false, " ", null, 1, List.of(new AirGate.Voice("Otis", AirGate.Reach.SCHOOL)), List.of(" "), 2, false)))
                .containsExactlyInAnyOrder(AirGate.Missing.values());
        assertThat(AirGate.missing(new AirGate.Facts(true, "Eels", "A story.", 1, List.of(PUBLIC), List.of(), 0, true))).containsExactly(AirGate.Missing.VOICES);
    }

    @ParameterizedTest
    @EnumSource(value = AirGate.Reach.class, names = "PUBLIC", mode = EnumSource.Mode.EXCLUDE)
    void one_voice_that_may_not_be_heard_in_public_keeps_it_shut(AirGate.Reach reach) {
        assertThat(AirGate.missing(new AirGate.Facts(true, "Eels", "A story.", 0, List.of(PUBLIC, new AirGate.Voice("Wren", reach)), List.of(), 0, true)))
                .containsExactly(AirGate.Missing.CONSENT);
    }
}
