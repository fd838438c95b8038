package org.mellowclass.app.roster;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.stream.IntStream;

import org.junit.jupiter.api.Test;
import org.mellowclass.app.people.Consent;
import org.mellowclass.app.roster.RosterReader.Entry;
import org.mellowclass.app.roster.RosterReader.Problem;
import org.mellowclass.app.roster.RosterReader.Row;

class RosterReaderTest {

    private static List<Entry> entries(String text) {
        return RosterReader.read(text).stream().map(Row::entry).toList();
    }

    @Test
    void a_name_begins_with_a_letter_of_any_alphabet_and_no_cell_is_a_formula() {
        assertThat(RosterReader.read("=SUM(A1)\n+Dana\n-Dana\n@Dana\nDana,=crew()\nŁucja\nÇelik\n李明\n\"Cruz, Dana\"")).extracting(row -> row.problem() == null ? row.entry().name() : row.problem().name())
                .containsExactly("NOT_A_NAME", "NOT_A_NAME", "NOT_A_NAME", "NOT_A_NAME", "NOT_A_NAME", "Łucja", "Çelik", "李明", "Dana Cruz");
    }

    @Test
    void a_picture_is_no_list() {
        byte[] picture = {(byte) 0x89, 'P', 'N', 'G', '\r', '\n', 0x1A, '\n', 0, 0, 0, 13, 'I', 'H', 'D', 'R', ','};
        assertThatThrownBy(() -> RosterReader.read(RosterReader.decode(picture))).hasMessage("roster.NO_TEXT");
    }

    @Test
    void a_list_with_a_header_is_read_by_its_headings_in_any_order() {
        assertThat(entries("Crew;Student number;First name;Surname;Consent\nMudlark;801;Noor;Haddad;public\n"))
                .containsExactly(new Entry("801", "Noor Haddad", "", "Mudlark", Consent.PUBLIC));
    }

    @Test
    void without_a_header_it_is_number_name_and_crew_or_name_and_crew() {
        assertThat(entries("801,Noor,Kingfisher\n802,Ravi,\n")).containsExactly(
                new Entry("801", "Noor", "", "Kingfisher", null), new Entry("802", "Ravi", "", "", null));
        assertThat(entries("Noor\nRavi\n")).extracting(Entry::name).containsExactly("Noor", "Ravi");
        assertThat(entries("Noor\tKingfisher")).containsExactly(new Entry("", "Noor", "", "Kingfisher", null));
    }

    @Test
    void quotes_hold_delimiters_and_line_breaks_together() {
        assertThat(entries("name,crew\r\n\"Haddad, Noor\",\"The \"\"Mud\"\" larks\"\r\n\"Ravi\nPatel\",Ferry\r\n")).containsExactly(
                new Entry("", "Noor Haddad", "", "The \"Mud\" larks", null), new Entry("", "Ravi Patel", "", "Ferry", null));
    }

    @Test
    void the_usual_encodings_are_all_understood() {
        String list = "Zoë,Fähre\nŁukasz,Fähre\n";
        byte[] plain = list.getBytes(StandardCharsets.UTF_8);
        assertThat(RosterReader.decode(plain)).isEqualTo(list);
        assertThat(entries(RosterReader.decode(("\uFEFF" + list).getBytes(StandardCharsets.UTF_8)))).isEqualTo(entries(list));
        assertThat(entries(RosterReader.decode(("\uFEFF" + list).getBytes(StandardCharsets.UTF_16LE)))).isEqualTo(entries(list));
        assertThat(RosterReader.decode("Zoë,Fähre".getBytes(Charset.forName("windows-1252")))).isEqualTo("Zoë,Fähre");
    }

    @Test
    void each_bad_row_says_why_and_the_others_are_read() {
        List<Row> rows = RosterReader.read("name,crew,consent,on-air name\n,Ferry,,\nNoor Haddad,Ferry,perhaps,\nRavi Patel,,,Ravi Patel\nTess,Ferry,no,\n"
                + "x".repeat(90) + ",,,\n\"Isla,Ferry\nOtis,Ferry,,\n");
        assertThat(rows).extracting(Row::problem).containsExactly(Problem.NO_NAME, null, Problem.SURNAME_ON_AIR, null,
                Problem.NAME_TOO_LONG, Problem.QUOTE, null);
        assertThat(rows).extracting(Row::line).containsExactly(2, 3, 4, 5, 6, 7, 8);
        assertThat(rows).extracting(Row::unclear).containsExactly("", "perhaps", "", "no", "", "", "");
        assertThat(rows.get(6).entry().name()).isEqualTo("Otis");
    }

    @Test
    void a_list_that_is_no_class_any_more_is_cut_off_and_says_so() {
        String list = String.join("\n", IntStream.range(0, 2000).mapToObj(i -> "Student " + i).toList());
        List<Row> rows = RosterReader.read(list);
        assertThat(rows).hasSize(RosterReader.MOST_ROWS + 1);
        assertThat(rows.get(RosterReader.MOST_ROWS).problem()).isEqualTo(Problem.TOO_MANY_ROWS);
    }
}
