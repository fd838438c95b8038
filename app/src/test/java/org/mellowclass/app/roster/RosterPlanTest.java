package org.mellowclass.app.roster;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Optional;

import org.junit.jupiter.api.Test;
import org.mellowclass.app.people.Consent;
import org.mellowclass.app.roster.RosterPlan.Kind;
import org.mellowclass.app.roster.RosterPlan.Known;
import org.mellowclass.app.roster.RosterPlan.Line;

class RosterPlanTest {

    private static final Known NOOR = new Known(1, "801", "Noor Haddad", "Noor", "Kingfisher", Consent.PUBLIC, true, "8 Heron", true);
    private static final Known RAVI = new Known(2, "", "Ravi", "Ravi", "", null, true, "8 Heron", true);
    private static final Known TESS_ELSEWHERE = new Known(3, "", "Tess", "Tess", "", null, false, "7 Wren", true);
    private static final Known TESS_OF_OTHERS = new Known(3, "77", "Tess", "Tess", "", null, false, "7 Wren", false);

    private static List<Kind> kinds(String list, Known... school) {
        return plan(list, Map.of(), school).lines().stream().map(Line::kind).toList();
    }

    private static RosterPlan plan(String list, Map<Integer, Long> answers, Known... school) {
        return RosterPlan.of(RosterReader.read(list), List.of(school), new RosterPlan.Answers(answers, Map.of()));
    }

    @Test
    void the_number_is_the_key_even_when_the_name_has_changed() {
        RosterPlan plan = plan("801,Noor Quill", Map.of(), NOOR);
        assertThat(plan.lines().get(0).kind()).isEqualTo(Kind.CHANGED);
        assertThat(plan.lines().get(0).student()).isEqualTo(NOOR);
    }

    @Test
    void without_a_number_name_and_class_are_the_key_and_the_same_again_changes_nothing() {
        assertThat(kinds("ravi\n", RAVI)).containsExactly(Kind.CHANGED);
        assertThat(kinds("Ravi\n", RAVI)).containsExactly(Kind.SAME);
        assertThat(kinds("Ravi,Ferry\n", RAVI)).containsExactly(Kind.CHANGED);
        assertThat(kinds("801,Noor Haddad,Kingfisher\n", NOOR)).containsExactly(Kind.SAME);
        assertThat(kinds("Otis\n", NOOR, RAVI)).containsExactly(Kind.NEW);
    }

    @Test
    void all_rows_that_no_class_has_room_for_are_counted_as_left_out() {
        StringBuilder list = new StringBuilder();
        for (int i = 0; i < RosterReader.MOST_ROWS + 212; i++) {
            list.append(1000 + i).append(",Wren\n");
        }
        RosterPlan plan = plan(list.toString(), Map.of());
        assertThat(plan.count(Kind.BAD)).isEqualTo(212);
        assertThat(plan.count(Kind.NEW)).isEqualTo(RosterReader.MOST_ROWS);
        assertThat(plan.lines()).last().extracting(Line::problem).isEqualTo("TOO_MANY_ROWS");
    }

    @Test
    void a_student_of_other_teachers_is_asked_for() {
        assertThat(kinds("77,Tess\n", TESS_OF_OTHERS)).containsExactly(Kind.WAITS);
        assertThat(plan("Tess\n", Map.of(1, 3L), TESS_OF_OTHERS).lines().get(0).kind()).isEqualTo(Kind.WAITS);
    }

    @Test
    void a_namesake_in_another_class_is_asked_about_and_the_answer_decides() {
        assertThat(kinds("Tess\n", TESS_ELSEWHERE)).containsExactly(Kind.ASK);
        assertThat(plan("Tess\n", Map.of(1, 3L), TESS_ELSEWHERE).lines().get(0).kind()).isEqualTo(Kind.JOINS);
        assertThat(plan("Tess\n", Map.of(1, RosterPlan.SOMEBODY_NEW), TESS_ELSEWHERE).lines().get(0).kind()).isEqualTo(Kind.NEW);
        assertThat(plan("Tess\n", Map.of(1, 99L), TESS_ELSEWHERE).lines().get(0).kind()).as("an answer that is none").isEqualTo(Kind.ASK);
    }

    @Test
    void a_number_for_somebody_who_had_none_is_asked_about() {
        assertThat(kinds("805,Ravi\n", RAVI)).containsExactly(Kind.ASK);
        assertThat(kinds("805,Noor Haddad\n", NOOR)).as("another number is another child").containsExactly(Kind.NEW);
    }

    @Test
    void only_the_steps_that_exist_are_read_as_a_consent_and_everything_else_is_asked_once() {
        String list = "name,consent\nNoor,yes\nRavi,Y\nTess,in public\nWren,yes\nOtis,No\nMina,\n";
        RosterPlan plan = plan(list, Map.of());
        assertThat(plan.unclear()).containsExactly("yes", "y", "no");
        assertThat(plan.clear()).isFalse();
        assertThat(plan.lines()).extracting(line -> line.entry().consent()).containsExactly(null, null, Consent.PUBLIC, null, null, null);
        RosterPlan answered = RosterPlan.of(RosterReader.read(list), List.of(), new RosterPlan.Answers(Map.of(), Map.of("yes", Optional.of(Consent.SCHOOL), "y", Optional.empty(), "no", Optional.of(Consent.NONE))));
        assertThat(answered.clear()).isTrue();
        assertThat(answered.lines()).extracting(line -> line.entry().consent()).containsExactly(Consent.SCHOOL, null, Consent.PUBLIC, Consent.SCHOOL, Consent.NONE, null);
    }

    @Test
    void who_stands_in_the_list_twice_is_taken_once() {
        assertThat(kinds("801,Noor\n801,Noor\n")).containsExactly(Kind.NEW, Kind.BAD);
        assertThat(kinds("Ravi\nRavi\n", RAVI)).containsExactly(Kind.SAME, Kind.BAD);
        assertThat(kinds("811,Ann\n812,Ann\n")).as("namesakes with numbers").containsExactly(Kind.NEW, Kind.NEW);
    }
}
