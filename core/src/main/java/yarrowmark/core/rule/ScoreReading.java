package yarrowmark.core.rule;

import com.google.gson.JsonElement;
import com.google.gson.JsonParseException;
import com.google.gson.JsonParser;
import com.google.re2j.Matcher;
import com.google.re2j.Pattern;
import java.io.IOException;
import java.io.StringReader;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.LongSupplier;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.capture.TerminalText;
import yarrowmark.core.entry.ScoreText;

/** Takes scores out of a text by patterns. What is not found, or is no number, is said. */
public final class ScoreReading {
    /**
     * @param run        from 1
     * @param unit       of the value: that of the text where it tells one, else the pattern's
     * @param resolution the last digit that was printed
     * @param line       in the text, from 1; 0 where the text is no list of lines
     */
    public record FoundScore(
            String pattern, int run, double value, String unit, double resolution, int line, String text) {}

    public record MissedScore(String pattern, String reason) {}

    public record Scores(List<FoundScore> found, List<MissedScore> missed) {
        public Scores {
            found = List.copyOf(found);
            missed = List.copyOf(missed);
        }

        /** Whether the text is of the kind the patterns are for. */
        public boolean anything() {
            return !found.isEmpty();
        }
    }

    private record Place(String text, @Nullable String unit, int line) {}

    static final int LONGEST_TEXT = 2_000_000;
    static final Duration MOST_TIME = Duration.ofSeconds(2);

    private ScoreReading() {}

    public static Scores read(List<ScorePattern> patterns, String text) {
        return read(patterns, text, System::nanoTime);
    }

    /** @param nanos the clock by which the whole reading is cut off after {@link #MOST_TIME} */
    static Scores read(List<ScorePattern> patterns, String text, LongSupplier nanos) {
        if (text.length() > LONGEST_TEXT) {
            throw new IllegalArgumentException(
                    "The text has " + text.length() + " characters; " + LONGEST_TEXT + " are the most that are read.");
        }
        long end = nanos.getAsLong() + MOST_TIME.toNanos();
        List<String> lines = TerminalText.lines(text);
        List<FoundScore> found = new ArrayList<>();
        List<MissedScore> missed = new ArrayList<>();
        for (ScorePattern p : patterns) {
            List<Place> places = new ArrayList<>();
            boolean inTime =
                    switch (p.kind()) {
                        case LINE -> lines(ScorePattern.compile(p.name(), p.expression()), lines, places, nanos, end);
                        case KEY -> keys(p.expression(), lines, places, nanos, end);
                        case COLUMN -> column(p.expression(), text, places, nanos, end);
                        case POINTER -> pointer(p.expression(), text, places, nanos, end);
                    };
            if (inTime) {
                take(p, places, found, missed);
            } else {
                missed.add(new MissedScore(p.name(), "Reading was given up after " + MOST_TIME.toSeconds() + " s."));
            }
        }
        return new Scores(found, missed);
    }

    private static void take(ScorePattern p, List<Place> places, List<FoundScore> found, List<MissedScore> missed) {
        List<Place> taken = p.occurrence() == ScorePattern.EACH || places.isEmpty()
                ? places
                : p.occurrence() == ScorePattern.LAST
                        ? List.of(places.get(places.size() - 1))
                        : places.size() >= p.occurrence() ? List.of(places.get(p.occurrence() - 1)) : List.of();
        if (taken.isEmpty()) {
            missed.add(new MissedScore(
                    p.name(),
                    places.isEmpty()
                            ? "Nothing in the text is like this."
                            : "It is there only " + places.size() + " times."));
        }
        for (int i = 0; i < taken.size(); i++) {
            Place place = taken.get(i);
            String unit = place.unit() == null ? p.unit() : place.unit();
            if (PrintedUnit.told(unit)
                    && UnitStep.known(p.unit())
                    && UnitStep.factor(unit, p.unit()).isEmpty()) {
                missed.add(new MissedScore(
                        p.name(),
                        "\"" + shortened(place.text()) + "\"" + inLine(place) + " is printed in " + unit
                                + ", which does not turn into " + p.unit() + "."));
            } else if (ScoreText.read(place.text(), unit) instanceof ScoreText.Value v) {
                found.add(new FoundScore(p.name(), i + 1, v.value(), unit, v.resolution(), place.line(), place.text()));
            } else {
                missed.add(new MissedScore(
                        p.name(),
                        "\"" + shortened(place.text()) + "\"" + inLine(place) + " is no value in " + unit + "."));
            }
        }
    }

    private static boolean lines(Pattern pattern, List<String> lines, List<Place> into, LongSupplier nanos, long end) {
        try {
            return search(pattern, lines, into, nanos, end);
        } catch (TimedText.TimeIsUp e) {
            return false;
        }
    }

    private static boolean search(Pattern pattern, List<String> lines, List<Place> into, LongSupplier nanos, long end) {
        boolean told = pattern.namedGroups().containsKey("unit");
        for (int i = 0; i < lines.size(); i++) {
            Matcher m = pattern.matcher(new TimedText(lines.get(i), nanos, end));
            while (m.find()) {
                if (m.group(1) != null) {
                    String unit = told
                            ? m.group("unit")
                            : PrintedUnit.behind(lines.get(i).substring(m.end(1)));
                    into.add(
                            PrintedUnit.in(m.group(1)).isEmpty() && unit != null
                                    ? new Place(m.group(1).strip(), unit, i + 1)
                                    : place(m.group(1), null, i + 1));
                }
            }
            if (nanos.getAsLong() > end) {
                return false;
            }
        }
        return true;
    }

    private static boolean keys(String key, List<String> lines, List<Place> into, LongSupplier nanos, long end) {
        String wanted = key.strip().toLowerCase(Locale.ROOT);
        for (int i = 0; i < lines.size(); i++) {
            String line = lines.get(i).strip();
            if (line.toLowerCase(Locale.ROOT).startsWith(wanted)) {
                String rest = line.substring(wanted.length()).strip();
                if (rest.startsWith(":") || rest.startsWith("=")) {
                    into.add(place(rest.substring(1), PrintedUnit.inBrackets(key), i + 1));
                }
            }
            if (nanos.getAsLong() > end) {
                return false;
            }
        }
        return true;
    }

    private static boolean column(String name, String text, List<Place> into, LongSupplier nanos, long end) {
        String heading = text.strip().lines().findFirst().orElse("");
        char separator = heading.contains("\t") ? '\t' : heading.contains(";") ? ';' : ',';
        CSVFormat format = CSVFormat.DEFAULT
                .builder()
                .setDelimiter(separator)
                .setIgnoreSurroundingSpaces(true)
                .setIgnoreEmptyLines(true)
                .get();
        try (CSVParser parser = CSVParser.parse(new StringReader(text.strip()), format)) {
            int at = -1;
            for (CSVRecord row : parser) {
                if (row.getRecordNumber() == 1) {
                    at = row.toList().stream()
                            .map(h -> h.strip().toLowerCase(Locale.ROOT))
                            .toList()
                            .indexOf(name.strip().toLowerCase(Locale.ROOT));
                } else if (at >= 0 && at < row.size() && !row.get(at).isBlank()) {
                    into.add(place(row.get(at), PrintedUnit.inBrackets(name), (int) parser.getCurrentLineNumber()));
                }
                if (at < 0) {
                    return true;
                }
                if (nanos.getAsLong() > end) {
                    return false;
                }
            }
        } catch (IOException | RuntimeException e) {
            // No table: nothing is found in it, which the caller says.
            into.clear();
        }
        return true;
    }

    /** One document, or one a line. */
    private static boolean pointer(String pointer, String text, List<Place> into, LongSupplier nanos, long end) {
        List<JsonElement> documents = new ArrayList<>();
        try {
            documents.add(JsonParser.parseString(text));
        } catch (JsonParseException | IllegalStateException whole) {
            for (String line : text.split("\\R")) {
                try {
                    if (line.strip().startsWith("{") || line.strip().startsWith("[")) {
                        documents.add(JsonParser.parseString(line));
                    }
                } catch (JsonParseException | IllegalStateException notThis) {
                    // A line that is no document of its own says nothing.
                }
                if (nanos.getAsLong() > end) {
                    return false;
                }
            }
        }
        for (JsonElement document : documents) {
            JsonElement at = at(document, pointer);
            if (at != null && at.isJsonPrimitive()) {
                into.add(place(at.getAsString(), null, 0));
            }
        }
        return nanos.getAsLong() <= end;
    }

    private static @Nullable JsonElement at(JsonElement document, String pointer) {
        JsonElement at = document;
        for (String escaped : pointer.substring(1).split("/", -1)) {
            String step = escaped.replace("~1", "/").replace("~0", "~");
            if (at.isJsonObject()) {
                at = at.getAsJsonObject().get(step);
            } else if (at.isJsonArray()
                    && step.matches("0|[1-9]\\d{0,6}")
                    && Integer.parseInt(step) < at.getAsJsonArray().size()) {
                at = at.getAsJsonArray().get(Integer.parseInt(step));
            } else {
                return null;
            }
            if (at == null) {
                return null;
            }
        }
        return at;
    }

    /** @param otherwise the unit where the text has none beside its number */
    private static Place place(String text, @Nullable String otherwise, int line) {
        return PrintedUnit.in(text)
                .map(p -> new Place(p.number(), p.unit(), line))
                .orElseGet(() -> new Place(text.strip(), otherwise, line));
    }

    private static String inLine(Place place) {
        return place.line() > 0 ? " in line " + place.line() : "";
    }

    private static String shortened(String text) {
        return text.length() <= 60 ? text : text.substring(0, 59) + "…";
    }
}
