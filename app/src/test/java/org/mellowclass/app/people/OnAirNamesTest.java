package org.mellowclass.app.people;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

class OnAirNamesTest {

    @Test
    void the_first_name_is_found_on_either_side_of_the_comma() {
        assertThat(OnAirNames.first("Noor Haddad")).isEqualTo("Noor");
        assertThat(OnAirNames.first("Haddad, Noor Amal")).isEqualTo("Noor");
        assertThat(OnAirNames.first(" Zoë ")).isEqualTo("Zoë");
    }

    @Test
    void a_surname_is_noticed_wherever_it_stands() {
        assertThat(OnAirNames.tellsSurname("Noor", "Noor Haddad")).isFalse();
        assertThat(OnAirNames.tellsSurname("Captain Noor", "Noor Haddad")).isFalse();
        assertThat(OnAirNames.tellsSurname("noor HADDAD", "Noor Haddad")).isTrue();
        assertThat(OnAirNames.tellsSurname("Haddad", "Haddad, Noor")).isTrue();
    }
}
