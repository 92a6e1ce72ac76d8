package yarrowmark.core.table;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** Dates as people write them in tables. */
final class TableDates {
    private static final Pattern NUMERIC_DATE = Pattern.compile("(\\d{1,2})[./-](\\d{1,2})[./-](\\d{4}|\\d{2})");
    private static final Pattern ISO_DATE = Pattern.compile("(\\d{4})-(\\d{1,2})-(\\d{1,2})(?:[T ].*)?");
    private static final Pattern WORD_DATE =
            Pattern.compile("(?i)(\\d{1,2})\\.? (jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec)[a-z]*,? (\\d{4})");
    private static final List<String> MONTHS =
            List.of("jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec");

    private TableDates() {}

    /** A date as people write it. @param dayFirst whether 03/04/2026 is in April */
    static Optional<LocalDate> read(String text, boolean dayFirst) {
        try {
            Matcher iso = ISO_DATE.matcher(text);
            if (iso.matches()) {
                return Optional.of(LocalDate.of(number(iso.group(1)), number(iso.group(2)), number(iso.group(3))));
            }
            Matcher words = WORD_DATE.matcher(text);
            if (words.matches()) {
                return Optional.of(LocalDate.of(
                        number(words.group(3)),
                        MONTHS.indexOf(words.group(2).toLowerCase(Locale.ROOT)) + 1,
                        number(words.group(1))));
            }
            Matcher numeric = NUMERIC_DATE.matcher(text);
            if (numeric.matches()) {
                int year = number(numeric.group(3));
                boolean isDay = dayFirst || text.contains(".");
                return Optional.of(LocalDate.of(
                        year < 100 ? 2000 + year : year,
                        number(numeric.group(isDay ? 2 : 1)),
                        number(numeric.group(isDay ? 1 : 2))));
            }
        } catch (DateTimeException e) {
            return Optional.empty();
        }
        return Optional.empty();
    }

    private static int number(@Nullable String digits) {
        return Integer.parseInt(java.util.Objects.requireNonNull(digits));
    }
}
