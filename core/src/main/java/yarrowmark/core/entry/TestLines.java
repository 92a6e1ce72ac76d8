package yarrowmark.core.entry;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Scale;

/**
 * Reads a list of tests as a reviewer types or pastes it, one a line: name, unit, whether more or less is better, and,
 * if wanted, the group: "Sequential read, MB/s, more, Storage". Commas, semicolons or tabs part them.
 */
public final class TestLines {
    /** @param group as typed; empty where none was given */
    public record Line(int number, String name, String unit, Direction direction, Scale scale, Optional<String> group) { }

    public record Refused(int number, String text, String reason) { }

    public record Lines(List<Line> read, List<Refused> refused) {
        public Lines {
            read = List.copyOf(read);
            refused = List.copyOf(refused);
        }
    }

    private static final int MOST_LINES = 300;
    private static final List<String> MORE = List.of("more", "higher", "larger", "up", "+", "more is better", "higher is better");
    private static final List<String> LESS = List.of("less", "lower", "smaller", "down", "-", "−", "less is better", "lower is better");
    /** Units whose zero is no "nothing": values are held against each other by their difference. */
    private static final List<String> INTERVAL = List.of("°c", "cel", "°f", "db", "db(a)", "dba", "dbm");

    private TestLines() {
    }

    public static Lines read(String text) {
        List<Line> read = new ArrayList<>();
        List<Refused> refused = new ArrayList<>();
        Map<String, Integer> names = new LinkedHashMap<>();
        String[] lines = text.split("\\R", -1);
        for (int i = 0; i < lines.length; i++) {
            String line = lines[i].strip();
            if (line.isEmpty()) {
                continue;
            }
            if (read.size() + refused.size() >= MOST_LINES) {
                refused.add(new Refused(i + 1, line, "A list has " + MOST_LINES + " tests at most."));
                break;
            }
            String[] parts = line.split(line.contains("\t") ? "\t" : line.contains(";") ? ";" : ",", -1);
            String reason = reason(parts);
            Integer twin = reason == null ? names.putIfAbsent(parts[0].strip().toLowerCase(Locale.ROOT), i + 1) : null;
            if (reason == null && twin != null) {
                reason = "Line " + twin + " has this name already.";
            }
            if (reason != null) {
                refused.add(new Refused(i + 1, line, reason));
            } else {
                String unit = parts[1].strip().isEmpty() ? "1" : parts[1].strip();
                read.add(new Line(i + 1, parts[0].strip(), unit, direction(parts[2].strip()).orElseThrow(),
                    scale(unit),
                    parts.length > 3 && !parts[3].isBlank() ? Optional.of(parts[3].strip()) : Optional.empty()));
            }
        }
        return new Lines(read, refused);
    }

    /** How values in this unit are held against each other. */
    public static Scale scale(String unit) {
        return INTERVAL.contains(unit.toLowerCase(Locale.ROOT)) ? Scale.DIFFERENCE : Scale.RATIO;
    }

    private static String reason(String[] parts) {
        if (parts.length < 3 || parts.length > 4) {
            return "A line has a name, a unit, and more or less, such as \"Sequential read, MB/s, more\".";
        }
        if (parts[0].isBlank() || parts[0].strip().length() > 120) {
            return "A name has 1 to 120 characters.";
        }
        if (parts[1].strip().length() > 30) {
            return "A unit has 30 characters at most.";
        }
        return direction(parts[2].strip()).isEmpty() ? "\"" + parts[2].strip() + "\" says neither that more nor that less is better." : null;
    }

    private static Optional<Direction> direction(String text) {
        String plain = text.toLowerCase(Locale.ROOT);
        return MORE.contains(plain) ? Optional.of(Direction.MORE_IS_BETTER) : LESS.contains(plain) ? Optional.of(Direction.LESS_IS_BETTER) : Optional.empty();
    }
}
