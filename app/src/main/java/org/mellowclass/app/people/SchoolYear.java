package org.mellowclass.app.people;

import java.time.LocalDate;
import java.time.Month;
import java.time.MonthDay;

/** School years end with July. */
final class SchoolYear {

    private static final MonthDay LAST_DAY = MonthDay.of(Month.JULY, 31);

    private SchoolYear() {
    }

    /** The day until which a class is kept that begins on a day: the last one of the school year after. */
    static LocalDate keptUntil(LocalDate begins) {
        return endOf(begins).plusYears(1);
    }

    private static LocalDate endOf(LocalDate day) {
        LocalDate end = LAST_DAY.atYear(day.getYear());
        return end.isBefore(day) ? end.plusYears(1) : end;
    }
}
