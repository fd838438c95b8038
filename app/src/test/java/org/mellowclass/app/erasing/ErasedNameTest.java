package org.mellowclass.app.erasing;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ErasedNameTest {

    private final ErasedName name = new ErasedName("Will Nightingale", "Willy", List.of("Tess Marram"));

    @ParameterizedTest
    @CsvSource({"Will Nightingale, Somebody", "will, Somebody", "Willy, Somebody", "Will 2, Somebody 2", "Will and Tess, Somebody and Tess", "will-at-sea, Somebody-at-sea",
        "Goodwill, Goodwill", "Willow, Willow"})
    void tracks_and_takes_lose_each_of_the_names_as_a_whole_word(String before, String after) {
        assertThat(name.inName(before)).isEqualTo(after);
    }

    @ParameterizedTest
    @CsvSource({"Well said by Will Nightingale!, Well said by Somebody!", "Will you cut this?, Will you cut this?"})
    void sentences_lose_only_the_full_name_since_a_first_name_may_be_any_word(String before, String after) {
        assertThat(name.inSentence(before)).isEqualTo(after);
    }

    @Test
    void a_first_name_that_somebody_else_of_the_crew_has_too_stays() {
        ErasedName one = new ErasedName("Noor Quill", "Noor", List.of("Noor Haddad"));
        assertThat(one.inName("Noor")).isEqualTo("Noor");
        assertThat(one.inName("Noor Quill")).isEqualTo("Somebody");
    }
}
