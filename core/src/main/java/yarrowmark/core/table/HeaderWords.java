package yarrowmark.core.table;

import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.setup.FactVocabulary;

/**
 * Understands what stands over a column: "Export (s)", "Archive 2", "Harbour avg fps, higher is better", "RAM". English
 * first, and the words that German, French and Spanish sheets use for what every sheet has.
 *
 * @param name      without unit, direction and run
 * @param metric    which number of its test, such as "1 % low"; empty where the header names none
 * @param unit      as the program writes it; empty where none stands there
 * @param direction where words or arrows say it
 * @param run       0 where none stands there
 */
record HeaderWords(String name, String metric, String unit, @Nullable Direction direction, int run) {
    private static final Pattern IN_BRACKETS = Pattern.compile("\\s*[(\\[]([^)\\]]*)[)\\]]");
    private static final Pattern TIMES_EACH = Pattern.compile("(?i)\\d+ ?[x×]|[x×] ?\\d+");
    private static final Pattern RUN = Pattern.compile(
            "(?i)(?:(.*?)[\\s,_:–-]*)?(?:\\b(?:run|pass|round|try|attempt|lauf|essai|prueba)|#)\\s*#?(\\d{1,2})");
    private static final Pattern NUMBERED = Pattern.compile("(.*\\D)[\\s_#.-](\\d{1,2})");
    /** Whatever is counted in a time. */
    private static final Pattern RATE = Pattern.compile("\\p{L}{1,14}/(?:s|min|h)");

    private static final Pattern LESS =
            Pattern.compile("(?i)\\b(?:less|lower|smaller|fewer|weniger|niedriger|moins|menos)\\b[^,;]*|[↓▼]");
    private static final Pattern MORE =
            Pattern.compile("(?i)\\b(?:more|higher|larger|greater|mehr|höher|plus haut|más)\\b[^,;]*|[↑▲]");
    private static final Pattern METRIC = Pattern.compile(
            "(?i)(?:(.*?)[\\s,_:–-]+)?(avg\\.?|average|mean|median|minimum|maximum|min\\.?|max\\.?|peak|(?:p ?)?(?:0[.,]1|1|5|99) ?%?(?: ?%)?[ -]*(?:lows?|percentile)|0[.,]1 ?%|1 ?%|p99|p95|p1)");

    /** Single letters say too little where they stand without brackets: "Vitamin C". */
    private static final Set<String> ONLY_IN_BRACKETS =
            Set.of("s", "m", "h", "c", "g", "w", "$", "€", "£", "score", "points");

    private static final Set<String> SCORE_UNITS = Set.of(
            "s", "ms", "min", "h", "h:min", "ns", "µs", "fps", "MB/s", "MiB/s", "GB/s", "GiB/s", "Mbit/s", "Gbit/s",
            "ops/s", "IOPS", "1", "°C", "°F", "dB", "dB(A)", "%");

    private static final Set<String> LESS_UNITS =
            Set.of("s", "ms", "min", "h", "h:min", "ns", "µs", "W", "°C", "°F", "dB", "dB(A)");
    private static final Pattern LONGER_IS_BETTER =
            Pattern.compile("(?i)battery|runtime|run time|endurance|playback|akku|laufzeit|autonom|batería");

    static HeaderWords of(String header) {
        String rest = header.strip().replaceAll("\\s+", " ");
        String unit = "";
        Direction direction = null;
        Matcher brackets = IN_BRACKETS.matcher(rest);
        StringBuilder without = new StringBuilder();
        while (brackets.find()) {
            String inside = brackets.group(1).strip();
            boolean taken = TIMES_EACH.matcher(inside).matches();
            for (String part : inside.split("[,;]")) {
                String said = part.strip();
                if (direction == null && directionOf(said) != null) {
                    direction = directionOf(said);
                    taken = true;
                } else if (unit.isEmpty() && !unitOf(said).isEmpty()) {
                    unit = unitOf(said);
                    taken = true;
                }
            }
            brackets.appendReplacement(without, taken ? " " : Matcher.quoteReplacement(brackets.group()));
        }
        brackets.appendTail(without);
        rest = tidy(without.toString());
        if (direction == null
                && (LESS.matcher(rest).find() || MORE.matcher(rest).find())) {
            direction = directionOf(rest);
            rest = tidy(MORE.matcher(LESS.matcher(rest).replaceAll(" ")).replaceAll(" "));
        }
        if (unit.isEmpty()) {
            int last = Math.max(rest.lastIndexOf(' '), rest.lastIndexOf(','));
            String tail = rest.substring(last + 1);
            String comma = last > 0 && rest.substring(0, last + 1).strip().endsWith(",") ? "," : "";
            if (last > 0
                    && !unitOf(tail).isEmpty()
                    && !tail.equals("%")
                    && (!comma.isEmpty() || !ONLY_IN_BRACKETS.contains(tail.toLowerCase(Locale.ROOT)))) {
                unit = unitOf(tail);
                rest = tidy(rest.substring(0, last).replaceFirst("(?i)\\bin$", ""));
            }
        }
        int run = 0;
        Matcher runs = RUN.matcher(rest);
        if (runs.matches()) {
            run = Integer.parseInt(runs.group(2));
            rest = runs.group(1) == null ? "" : tidy(runs.group(1));
        }
        String metric = "";
        Matcher metrics = METRIC.matcher(rest);
        if (metrics.matches()) {
            metric = metric(metrics.group(2));
            rest = metrics.group(1) == null ? "" : tidy(metrics.group(1));
        }
        return new HeaderWords(rest, metric, unit, direction, run);
    }

    /** "Archive 2" is the second run of "Archive" where its sisters stand beside it, which only they can say. */
    Optional<HeaderWords> asNumbered() {
        Matcher m = NUMBERED.matcher(name);
        return run == 0 && metric.isEmpty() && m.matches()
                ? Optional.of(new HeaderWords(tidy(m.group(1)), "", unit, direction, Integer.parseInt(m.group(2))))
                : Optional.empty();
    }

    Optional<ColumnRole> role() {
        return HeadingVocabulary.role(key())
                .or(() -> name.isEmpty() && metric.equals("average") && unit.isEmpty()
                        ? Optional.of(ColumnRole.CHECK)
                        : Optional.empty());
    }

    /** Some names are those of facts and of tests: "Memory, GB/s" is no size. */
    private boolean isOfScores() {
        return SCORE_UNITS.contains(unit);
    }

    Optional<String> field() {
        return isOfScores() ? Optional.empty() : HeadingVocabulary.field(key());
    }

    Optional<String> fact() {
        if (isOfScores()) {
            return Optional.empty();
        }
        String key = key();
        return HeadingVocabulary.fact(key).or(() -> FactVocabulary.all().stream()
                .filter(k -> k.label().equalsIgnoreCase(name)
                        || k.brief().equalsIgnoreCase(name)
                        || k.key().equalsIgnoreCase(name))
                .map(k -> k.key())
                .findFirst());
    }

    boolean saysSomething() {
        return role().isPresent()
                || field().isPresent()
                || fact().isPresent()
                || !unit.isEmpty()
                || !metric.isEmpty()
                || run > 0;
    }

    private String key() {
        return name.toLowerCase(Locale.ROOT).replaceAll("[.:]+$", "");
    }

    /** A unit as the program writes it; empty for what is none. */
    static String unitOf(String said) {
        String plain = said.strip();
        return HeadingVocabulary.unit(plain.toLowerCase(Locale.ROOT).replace(" ", ""))
                .orElseGet(() -> RATE.matcher(plain).matches() ? plain : "");
    }

    /** Times, heat, noise and power are better where they are less, unless it is how long a battery lasts. */
    static Direction usual(String name, String unit) {
        return LESS_UNITS.contains(unit) && !LONGER_IS_BETTER.matcher(name).find()
                ? Direction.LESS_IS_BETTER
                : Direction.MORE_IS_BETTER;
    }

    private static @Nullable Direction directionOf(String said) {
        return LESS.matcher(said).find()
                ? Direction.LESS_IS_BETTER
                : MORE.matcher(said).find() ? Direction.MORE_IS_BETTER : null;
    }

    private static String metric(String said) {
        String plain = said.toLowerCase(Locale.ROOT)
                .replaceAll("\\s+", " ")
                .replace(',', '.')
                .replaceAll("\\.$", "");
        if (plain.startsWith("avg") || plain.equals("average") || plain.equals("mean")) {
            return "average";
        }
        if (plain.startsWith("0.1")) {
            return "0.1 % low";
        }
        if (plain.matches("(?:p ?)?1 ?%?.*|p1")) {
            return "1 % low";
        }
        return switch (plain) {
            case "min", "minimum" -> "minimum";
            case "max", "maximum", "peak" -> "highest";
            default -> plain;
        };
    }

    private static String tidy(String text) {
        return text.replaceAll("\\s+", " ").replaceAll("^[\\s,;:–-]+|[\\s,;:–-]+$", "");
    }
}
