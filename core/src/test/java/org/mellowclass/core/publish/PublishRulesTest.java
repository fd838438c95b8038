package org.mellowclass.core.publish;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

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

    @Test
    void the_gate_opens_only_when_nothing_is_missing() {
        assertThat(AirGate.missing(new AirGate.Facts(true, "Eels", "A story.", true))).isEmpty();
        assertThat(AirGate.missing(new AirGate.Facts(false, " ", null, false)))
                .containsExactlyInAnyOrder(AirGate.Missing.values());
        assertThat(AirGate.missing(new AirGate.Facts(true, "Eels", "A story.", false)))
                .containsExactly(AirGate.Missing.CONSENT);
    }
}
