package yarrowmark.core.entry;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Kind;
import yarrowmark.core.measure.Scale;

/**
 * Reads a list of tests as a reviewer types or pastes it, one a line: name, unit, whether more or less is better, and,
 * in any order, a group and what else is to be said: "Sequential read, MB/s, more, Storage". A check is "Wakes from
 * sleep, check"; an ordered choice "Smooth playback, choice 720p &lt; 1080p &lt; 2160p"; many points "Read, MB/s, more, curve
 * over B" or "Reed flight, fps, more, frame times". A line that begins with + is a further number of the test above it: "+ 1 %
 * low, fps, more". Commas, semicolons or tabs part them.
 */
public final class TestLines {
    /**
     * @param group   as typed; empty where none was given
     * @param choices of an ordered list, from worst to best
     * @param xUnit   of a curve
     * @param capped  whether a display may hold the value
     * @param main    whether it takes part in overall rankings
     * @param further whether it is a further number of the test before it, under whose name it stands
     */
    public record Line(
            int number,
            String name,
            String unit,
            Direction direction,
            Scale scale,
            Optional<String> group,
            Kind kind,
            List<String> choices,
            String xUnit,
            boolean capped,
            boolean main,
            boolean further) {
        private Line asFurther(@Nullable Line before) throws NotALine {
            if (before == null) {
                throw new NotALine("A further number stands below its test; there is none above it.");
            }
            if (before.kind().isSeries() || before.kind() == Kind.CHECK || before.kind() == Kind.CHOICE) {
                throw new NotALine("Only a test whose score is a number has further ones, and \"" + before.name()
                        + "\" has none.");
            }
            if (kind.isSeries() || kind == Kind.CHECK || kind == Kind.CHOICE || group.isPresent()) {
                throw new NotALine(
                        "A further number has a name, a unit, and more or less, such as \"+ 1 % low, fps, more\".");
            }
            return new Line(
                    number, name, unit, direction, scale, before.group(), kind, choices, xUnit, capped, false, true);
        }
    }

    public record Refused(int number, String text, String reason) {}

    public record Lines(List<Line> read, List<Refused> refused) {
        public Lines {
            read = List.copyOf(read);
            refused = List.copyOf(refused);
        }
    }

    private static final class NotALine extends Exception {
        private static final long serialVersionUID = 1;

        private final String reason;

        NotALine(String reason) {
            super(reason);
            this.reason = reason;
        }
    }

    private static final int MOST_LINES = 300;
    private static final int MOST_CHOICES = 30;
    private static final int LONGEST_NAME = 120;
    private static final int LONGEST_SERIES_NAME = 90;
    private static final List<String> MORE =
            List.of("more", "higher", "larger", "up", "+", "more is better", "higher is better");
    private static final List<String> LESS =
            List.of("less", "lower", "smaller", "down", "-", "−", "less is better", "lower is better");
    /** Units whose zero is no "nothing": values are held against each other by their difference. */
    private static final List<String> INTERVAL = List.of("°c", "cel", "°f", "db", "db(a)", "dba", "dbm");

    private static final Set<String> TIMES = Set.of("ns", "µs", "us", "ms", "s", "min", "h");

    private TestLines() {}

    public static Lines read(String text) {
        List<Line> read = new ArrayList<>();
        List<Refused> refused = new ArrayList<>();
        Map<String, Integer> names = new LinkedHashMap<>();
        String of = "";
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
            try {
                boolean further = line.startsWith("+");
                String said = further ? line.substring(1).strip() : line;
                Line one = line(i + 1, said.split(said.contains("\t") ? "\t" : said.contains(";") ? ";" : ",", -1));
                if (further) {
                    one = one.asFurther(read.isEmpty() ? null : read.get(read.size() - 1));
                    if (of.length() + one.name().length() + 2 > LONGEST_NAME) {
                        throw new NotALine("With the name of its test before it, a further number has " + LONGEST_NAME
                                + " characters at most.");
                    }
                } else {
                    of = one.name();
                }
                String name = (further ? of + "+" : "") + one.name();
                Integer twin = names.putIfAbsent(name.toLowerCase(Locale.ROOT), i + 1);
                if (twin != null) {
                    throw new NotALine("Line " + twin + " has this name already.");
                }
                read.add(one);
            } catch (NotALine e) {
                refused.add(new Refused(i + 1, line, e.reason));
            }
        }
        return new Lines(read, refused);
    }

    /** How values in this unit are held against each other. */
    public static Scale scale(String unit) {
        return INTERVAL.contains(unit.toLowerCase(Locale.ROOT)) ? Scale.DIFFERENCE : Scale.RATIO;
    }

    /** What kind a plain number in this unit is of. */
    public static Kind kind(String unit) {
        return TIMES.contains(unit) ? Kind.DURATION : unit.equals("%") ? Kind.PERCENTAGE : Kind.NUMBER;
    }

    private static Line line(int number, String[] parts) throws NotALine {
        String name = parts[0].strip();
        if (name.isEmpty() || name.length() > LONGEST_NAME) {
            throw new NotALine("A name has 1 to " + LONGEST_NAME + " characters.");
        }
        String second = parts.length > 1 ? parts[1].strip() : "";
        boolean check = second.equalsIgnoreCase("check") || second.equalsIgnoreCase("pass/fail");
        boolean choice = second.toLowerCase(Locale.ROOT).startsWith("choice");
        if (check || choice) {
            Said said = said(Arrays.copyOfRange(parts, 2, parts.length), check ? Kind.CHECK : Kind.CHOICE);
            return new Line(
                    number,
                    name,
                    "1",
                    Direction.MORE_IS_BETTER,
                    Scale.DIFFERENCE,
                    said.group,
                    check ? Kind.CHECK : Kind.CHOICE,
                    choice ? choices(second.substring(6)) : List.of(),
                    "",
                    false,
                    said.main,
                    false);
        }
        if (parts.length < 3) {
            throw new NotALine(
                    "A line has a name, a unit, and more or less, such as \"Sequential read, MB/s, more\"; or a name and \"check\".");
        }
        if (second.length() > 30) {
            throw new NotALine("A unit has 30 characters at most.");
        }
        String unit = second.isEmpty() ? "1" : second;
        Direction direction = direction(parts[2].strip())
                .orElseThrow(() ->
                        new NotALine("\"" + parts[2].strip() + "\" says neither that more nor that less is better."));
        Said said = said(Arrays.copyOfRange(parts, 3, parts.length), kind(unit));
        if (said.kind.isSeries() && name.length() > LONGEST_SERIES_NAME) {
            throw new NotALine("A test of many points has a name of at most " + LONGEST_SERIES_NAME
                    + " characters: each of its numbers adds a few words.");
        }
        return new Line(
                number,
                name,
                unit,
                direction,
                said.difference ? Scale.DIFFERENCE : scale(unit),
                said.group,
                said.kind,
                List.of(),
                said.xUnit,
                said.capped,
                said.main,
                false);
    }

    private static final class Said {
        private Optional<String> group = Optional.empty();
        private Kind kind;
        private String xUnit = "";
        private boolean capped;
        private boolean main = true;
        private boolean difference;

        Said(Kind kind) {
            this.kind = kind;
        }
    }

    private static Said said(String[] parts, Kind kind) throws NotALine {
        Said said = new Said(kind);
        for (String part : parts) {
            String word = part.strip().toLowerCase(Locale.ROOT);
            if (word.isEmpty()) {
                continue;
            }
            if (word.startsWith("curve over ") && word.length() <= 41) {
                said.kind = Kind.CURVE;
                said.xUnit = part.strip().substring("curve over ".length()).strip();
            } else if (word.equals("frame times")) {
                said.kind = Kind.FRAME_TIMES;
                said.capped = true;
            } else if (word.equals("capped")) {
                said.capped = true;
            } else if (word.equals("part") || word.equals("not counted")) {
                said.main = false;
            } else if (word.equals("difference")) {
                said.difference = true;
            } else if (said.group.isEmpty()) {
                said.group = Optional.of(part.strip());
            } else {
                throw new NotALine("\"" + part.strip() + "\" is not understood; \"" + said.group.get()
                        + "\" is taken for the group already.");
            }
        }
        return said;
    }

    private static List<String> choices(String text) throws NotALine {
        List<String> choices = Arrays.stream(text.replaceFirst("^\\s*:?", "").split("[<|]"))
                .map(String::strip)
                .toList();
        if (choices.size() < 2
                || choices.size() > MOST_CHOICES
                || choices.stream().anyMatch(c -> c.isEmpty() || c.length() > 60)
                || choices.stream()
                                .map(c -> c.toLowerCase(Locale.ROOT))
                                .distinct()
                                .count()
                        != choices.size()) {
            throw new NotALine("A choice names 2 to " + MOST_CHOICES
                    + " different words from worst to best, such as \"choice none < some < full\".");
        }
        return choices;
    }

    private static Optional<Direction> direction(String text) {
        String plain = text.toLowerCase(Locale.ROOT);
        return MORE.contains(plain)
                ? Optional.of(Direction.MORE_IS_BETTER)
                : LESS.contains(plain) ? Optional.of(Direction.LESS_IS_BETTER) : Optional.empty();
    }
}
