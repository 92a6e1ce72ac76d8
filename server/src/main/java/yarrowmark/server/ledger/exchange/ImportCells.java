package yarrowmark.server.ledger.exchange;

import java.math.BigDecimal;
import java.time.Instant;
import java.time.format.DateTimeParseException;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;
import yarrowmark.core.entry.KindText;
import yarrowmark.core.entry.ScoreText;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Kind;
import yarrowmark.core.measure.Scale;
import yarrowmark.server.ledger.exchange.ImportRow.Measure;

/** Reads single cells of a file, and says of one that cannot be read which and why. */
final class ImportCells {
    /** A cell that cannot be taken. */
    static final class Refused extends Exception {
        private static final long serialVersionUID = 1;
        private final String column;
        private final String value;

        Refused(String column, String value, String reason) {
            super(reason, null, false, false);
            this.column = column;
            this.value = value;
        }

        String column() {
            return column;
        }

        String value() {
            return value;
        }
    }

    /** What the records hold, by column; facts have a limit of their own, and so have all others. */
    private static final Map<String, Integer> LIMITS = Map.of(
            "measure unit",
            30,
            "version",
            40,
            "unit",
            80,
            "configuration",
            200,
            "note",
            500,
            "choices",
            2_000,
            ImportReading.POINTS,
            10_000_000);

    private static final int LIMIT = 120;
    private static final int FACT_LIMIT = 500;
    private static final int LEAST_LIMIT = 30;
    private static final Pattern WHOLE = Pattern.compile("[1-9]\\d{0,2}|1000");
    private static final Pattern PLAIN = Pattern.compile("\\d{1,15}(?:\\.\\d{1,15})?");

    /** Thousands of rows share few times. */
    private final Map<String, Instant> times = new HashMap<>();

    static void checkLengths(CsvFile.Row row, List<String> columns) throws Refused {
        for (int i = 0; i < row.cells().length; i++) {
            String value = row.cells()[i];
            // The least of all limits first: hardly any cell is longer.
            if (value.length() > LEAST_LIMIT) {
                String column = columns.get(i);
                int most = LIMITS.getOrDefault(column, column.startsWith("fact:") ? FACT_LIMIT : LIMIT);
                if (value.length() > most) {
                    throw new Refused(column, value, "At most " + most + " characters fit here.");
                }
            }
        }
    }

    static ScoreText.Value value(String text, Measure m) throws Refused {
        // What another program wrote needs none of the ways in which people write.
        if (PLAIN.matcher(text).matches()) {
            BigDecimal number = new BigDecimal(text);
            if (m.scale() == Scale.DIFFERENCE || number.signum() > 0) {
                return new ScoreText.Value(
                        number.doubleValue(),
                        BigDecimal.ONE.movePointLeft(number.scale()).doubleValue());
            }
        }
        boolean words = (m.kind() == Kind.CHECK || m.kind() == Kind.CHOICE)
                && !PLAIN.matcher(text).matches();
        ScoreText.Said said =
                words ? KindText.read(text, m.kind(), m.unit(), m.choices()).said() : ScoreText.read(text, m.unit());
        if (said instanceof ScoreText.Value v && (m.scale() == Scale.DIFFERENCE || v.value() > 0)) {
            return v;
        }
        throw new Refused(
                "value",
                text,
                "This is no value in " + (m.unit().equals("1") ? "points" : m.unit()) + ", or not above 0.");
    }

    static <E extends Enum<E>> E one(E[] all, CsvFile.Row row, String column, E otherwise) throws Refused {
        String typed = row.cell(column);
        if (typed.isEmpty()) {
            return otherwise;
        }
        return Arrays.stream(all)
                .filter(e -> e.name().replace('_', ' ').equalsIgnoreCase(typed))
                .findFirst()
                .orElseThrow(() -> new Refused(
                        column,
                        typed,
                        "This is one of: "
                                + String.join(
                                        ", ",
                                        Arrays.stream(all)
                                                .map(e -> e.name()
                                                        .toLowerCase(Locale.ROOT)
                                                        .replace('_', ' '))
                                                .toList())
                                + "."));
    }

    static Optional<Direction> direction(CsvFile.Row row) {
        return switch (row.cell("direction").toLowerCase(Locale.ROOT)) {
            case "more", "higher" -> Optional.of(Direction.MORE_IS_BETTER);
            case "less", "lower" -> Optional.of(Direction.LESS_IS_BETTER);
            default -> Optional.empty();
        };
    }

    Instant time(CsvFile.Row row, String column) throws Refused {
        String text = row.cell(column);
        Instant known = times.get(text);
        if (known != null) {
            return known;
        }
        try {
            Instant read = Instant.parse(text);
            times.put(text, read);
            return read;
        } catch (DateTimeParseException e) {
            throw new Refused(column, text, "This is no time. Write it like 2026-03-01T09:10:00Z.");
        }
    }

    /** 1 where nothing is written. */
    static int whole(CsvFile.Row row, String column) throws Refused {
        String text = row.cell(column);
        if (!text.isEmpty() && !WHOLE.matcher(text).matches()) {
            throw new Refused(column, text, "This is a whole number from 1 to 1000.");
        }
        return text.isEmpty() ? 1 : Integer.parseInt(text);
    }

    /** A step that makes no sense is no reason to refuse a value: the one of its last digit is taken. */
    static double resolution(CsvFile.Row row, double otherwise) {
        try {
            double value = row.cell("resolution").isEmpty() ? otherwise : Double.parseDouble(row.cell("resolution"));
            return value >= 0 && value < Double.POSITIVE_INFINITY ? value : otherwise;
        } catch (NumberFormatException e) {
            return otherwise;
        }
    }
}
