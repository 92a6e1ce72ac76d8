package yarrowmark.server.shelf.model;

import java.time.Clock;
import java.time.LocalDate;
import yarrowmark.core.setup.FactKey;
import yarrowmark.core.setup.FactVocabulary;
import yarrowmark.server.platform.Problem;

/** Dates as people type them, within what makes sense for a device. */
public final class Dates {
    private static final FactKey DATE = FactVocabulary.find("firmware.date").orElseThrow();
    private static final int FIRST_YEAR = 1970;
    private static final int YEARS_AHEAD = 5;

    private Dates() {}

    static String read(String typed, String what, Clock clock) {
        if (typed.matches("\\d{4}-\\d{2}-\\d{2}")) {
            // Judged here first: the general reader's range is wider and its words are about facts.
            checkYear(Integer.parseInt(typed.substring(0, 4)), what, clock);
        }
        LocalDate date = LocalDate.parse(EditableField.understood(DATE, typed));
        return checked(date, what, clock).toString();
    }

    public static LocalDate checked(LocalDate date, String what, Clock clock) {
        checkYear(date.getYear(), what, clock);
        return date;
    }

    private static void checkYear(int year, String what, Clock clock) {
        int latest = LocalDate.now(clock).getYear() + YEARS_AHEAD;
        if (year < FIRST_YEAR || year > latest) {
            throw Problem.invalid(
                    "date-out-of-range",
                    what + " must lie between " + FIRST_YEAR + " and " + latest + ", not in " + year + ".");
        }
    }
}
