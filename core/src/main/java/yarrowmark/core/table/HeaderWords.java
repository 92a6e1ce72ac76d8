package yarrowmark.core.table;

import java.util.List;
import java.util.Locale;
import java.util.Map;
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

    /** As people write units, and as they are kept. */
    private static final Map<String, String> UNITS = Map.ofEntries(
            Map.entry("s", "s"),
            Map.entry("sec", "s"),
            Map.entry("secs", "s"),
            Map.entry("second", "s"),
            Map.entry("seconds", "s"),
            Map.entry("sek", "s"),
            Map.entry("sekunden", "s"),
            Map.entry("m:ss", "s"),
            Map.entry("mm:ss", "s"),
            Map.entry("min:sec", "s"),
            Map.entry("h:mm:ss", "s"),
            Map.entry("ms", "ms"),
            Map.entry("min", "min"),
            Map.entry("mins", "min"),
            Map.entry("minutes", "min"),
            Map.entry("minuten", "min"),
            Map.entry("h:mm", "h:min"),
            Map.entry("hh:mm", "h:min"),
            Map.entry("h:min", "h:min"),
            Map.entry("h", "h"),
            Map.entry("hours", "h"),
            Map.entry("stunden", "h"),
            Map.entry("fps", "fps"),
            Map.entry("frames/s", "fps"),
            Map.entry("mb/s", "MB/s"),
            Map.entry("mbyte/s", "MB/s"),
            Map.entry("mib/s", "MiB/s"),
            Map.entry("gb/s", "GB/s"),
            Map.entry("gib/s", "GiB/s"),
            Map.entry("mbit/s", "Mbit/s"),
            Map.entry("mbps", "Mbit/s"),
            Map.entry("gbit/s", "Gbit/s"),
            Map.entry("ops/s", "ops/s"),
            Map.entry("iops", "IOPS"),
            Map.entry("pts", "1"),
            Map.entry("pts.", "1"),
            Map.entry("points", "1"),
            Map.entry("punkte", "1"),
            Map.entry("score", "1"),
            Map.entry("w", "W"),
            Map.entry("watt", "W"),
            Map.entry("watts", "W"),
            Map.entry("wh", "Wh"),
            Map.entry("°c", "°C"),
            Map.entry("c", "°C"),
            Map.entry("°f", "°F"),
            Map.entry("db", "dB"),
            Map.entry("db(a)", "dB(A)"),
            Map.entry("dba", "dB(A)"),
            Map.entry("%", "%"),
            Map.entry("ns", "ns"),
            Map.entry("µs", "µs"),
            Map.entry("us", "µs"),
            Map.entry("nits", "cd/m²"),
            Map.entry("cd/m²", "cd/m²"),
            Map.entry("cd/m2", "cd/m²"),
            Map.entry("m", "m"),
            Map.entry("mm", "mm"),
            Map.entry("cm", "cm"),
            Map.entry("g", "g"),
            Map.entry("kg", "kg"),
            Map.entry("lb", "lb"),
            Map.entry("lbs", "lb"),
            Map.entry("oz", "oz"),
            Map.entry("gb", "GB"),
            Map.entry("gib", "GiB"),
            Map.entry("tb", "TB"),
            Map.entry("ghz", "GHz"),
            Map.entry("mhz", "MHz"),
            Map.entry("mt/s", "MT/s"),
            Map.entry("hz", "Hz"),
            Map.entry("eur", "EUR"),
            Map.entry("€", "EUR"),
            Map.entry("usd", "USD"),
            Map.entry("$", "USD"),
            Map.entry("gbp", "GBP"),
            Map.entry("£", "GBP"),
            Map.entry("chf", "CHF"));

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

    private static final Map<String, ColumnRole> ROLES = Map.ofEntries(
                    roles(
                            ColumnRole.MAKER,
                            "maker",
                            "brand",
                            "manufacturer",
                            "vendor",
                            "make",
                            "hersteller",
                            "marke",
                            "marque",
                            "fabricant",
                            "marca",
                            "fabricante"),
                    roles(
                            ColumnRole.MODEL,
                            "model",
                            "device",
                            "product",
                            "name",
                            "machine",
                            "computer",
                            "laptop",
                            "notebook",
                            "phone",
                            "tablet",
                            "desktop",
                            "mini",
                            "system",
                            "pc",
                            "gerät",
                            "modell",
                            "geräte",
                            "appareil",
                            "modèle",
                            "dispositivo",
                            "modelo",
                            "equipo"),
                    roles(
                            ColumnRole.DEVICE_CLASS,
                            "class",
                            "category",
                            "type",
                            "device class",
                            "form factor",
                            "kind",
                            "klasse",
                            "kategorie",
                            "catégorie",
                            "clase"),
                    roles(ColumnRole.UNIT, "unit", "specimen", "sample", "serial", "serial number", "exemplar"),
                    roles(
                            ColumnRole.DATE,
                            "date",
                            "tested",
                            "measured",
                            "test date",
                            "tested on",
                            "measured on",
                            "datum",
                            "getestet",
                            "date du test",
                            "fecha",
                            "day",
                            "when"),
                    roles(ColumnRole.SESSION, "session", "sitting"),
                    roles(
                            ColumnRole.NOTE,
                            "note",
                            "notes",
                            "remark",
                            "remarks",
                            "comment",
                            "comments",
                            "bemerkung",
                            "anmerkung",
                            "kommentar",
                            "remarque",
                            "notas",
                            "nota"),
                    roles(
                            ColumnRole.CHECK,
                            "average",
                            "avg",
                            "mean",
                            "total",
                            "overall",
                            "sum",
                            "geomean",
                            "geometric mean",
                            "ø",
                            "durchschnitt",
                            "gesamt",
                            "summe",
                            "moyenne",
                            "promedio",
                            "media"),
                    roles(
                            ColumnRole.IGNORED,
                            "rank",
                            "place",
                            "position",
                            "rang",
                            "platz",
                            "#",
                            "no",
                            "no.",
                            "nr",
                            "nr.",
                            "index",
                            "id",
                            "link",
                            "url",
                            "verdict",
                            "stars"))
            .entrySet()
            .stream()
            .flatMap(e -> e.getValue().stream().map(word -> Map.entry(word, e.getKey())))
            .collect(java.util.stream.Collectors.toUnmodifiableMap(Map.Entry::getKey, Map.Entry::getValue));

    /** Fields of a model, by the words over them. */
    private static final Map<String, String> FIELDS = Map.ofEntries(
            Map.entry("price", "price"),
            Map.entry("cost", "price"),
            Map.entry("msrp", "price"),
            Map.entry("rrp", "price"),
            Map.entry("list price", "price"),
            Map.entry("street price", "price"),
            Map.entry("preis", "price"),
            Map.entry("prix", "price"),
            Map.entry("precio", "price"),
            Map.entry("weight", "weight"),
            Map.entry("mass", "weight"),
            Map.entry("gewicht", "weight"),
            Map.entry("poids", "weight"),
            Map.entry("peso", "weight"),
            Map.entry("width", "width"),
            Map.entry("breite", "width"),
            Map.entry("depth", "depth"),
            Map.entry("tiefe", "depth"),
            Map.entry("height", "height"),
            Map.entry("thickness", "height"),
            Map.entry("höhe", "height"),
            Map.entry("released", "released"),
            Map.entry("release", "released"),
            Map.entry("year", "released"),
            Map.entry("launch", "released"),
            Map.entry("launched", "released"),
            Map.entry("jahr", "released"),
            Map.entry("année", "released"),
            Map.entry("año", "released"),
            Map.entry("battery", "battery"),
            Map.entry("battery capacity", "battery"),
            Map.entry("ports", "ports"),
            Map.entry("wireless", "wireless"));

    /** What people call facts beside the vocabulary's own labels. */
    private static final Map<String, String> FACTS = Map.ofEntries(
            Map.entry("cpu", "processor.name"),
            Map.entry("soc", "processor.name"),
            Map.entry("chip", "processor.name"),
            Map.entry("chipset", "processor.name"),
            Map.entry("prozessor", "processor.name"),
            Map.entry("processeur", "processor.name"),
            Map.entry("procesador", "processor.name"),
            Map.entry("cpu cores", "processor.cores"),
            Map.entry("kerne", "processor.cores"),
            Map.entry("threads", "processor.threads"),
            Map.entry("cpu threads", "processor.threads"),
            Map.entry("base", "processor.base_clock"),
            Map.entry("boost", "processor.boost_clock"),
            Map.entry("boost clock", "processor.boost_clock"),
            Map.entry("turbo", "processor.boost_clock"),
            Map.entry("max clock", "processor.boost_clock"),
            Map.entry("ram", "memory.size"),
            Map.entry("memory", "memory.size"),
            Map.entry("arbeitsspeicher", "memory.size"),
            Map.entry("mémoire", "memory.size"),
            Map.entry("memoria", "memory.size"),
            Map.entry("ram type", "memory.kind"),
            Map.entry("memory type", "memory.kind"),
            Map.entry("ram speed", "memory.speed"),
            Map.entry("gpu", "graphics.renderer"),
            Map.entry("graphics card", "graphics.renderer"),
            Map.entry("grafik", "graphics.renderer"),
            Map.entry("ssd", "storage.size"),
            Map.entry("storage", "storage.size"),
            Map.entry("drive", "storage.size"),
            Map.entry("disk", "storage.size"),
            Map.entry("capacity", "storage.size"),
            Map.entry("tdp", "power.sustained_limit"),
            Map.entry("power limit", "power.sustained_limit"),
            Map.entry("pl1", "power.sustained_limit"),
            Map.entry("os", "os.name"),
            Map.entry("operating system", "os.name"),
            Map.entry("betriebssystem", "os.name"),
            Map.entry("os version", "os.version"),
            Map.entry("kernel", "os.kernel"),
            Map.entry("bios", "firmware.version"),
            Map.entry("firmware", "firmware.version"),
            Map.entry("browser", "browser.name"),
            Map.entry("browser version", "browser.version"),
            Map.entry("driver", "graphics.driver"),
            Map.entry("gpu driver", "graphics.driver"),
            Map.entry("resolution", "display.resolution"),
            Map.entry("refresh", "display.refresh"),
            Map.entry("refresh rate", "display.refresh"));

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
        return Optional.ofNullable(ROLES.get(key()))
                .or(() -> name.isEmpty() && metric.equals("average") && unit.isEmpty()
                        ? Optional.of(ColumnRole.CHECK)
                        : Optional.empty());
    }

    /** Some names are those of facts and of tests: "Memory, GB/s" is no size. */
    private boolean isOfScores() {
        return SCORE_UNITS.contains(unit);
    }

    Optional<String> field() {
        return isOfScores() ? Optional.empty() : Optional.ofNullable(FIELDS.get(key()));
    }

    Optional<String> fact() {
        if (isOfScores()) {
            return Optional.empty();
        }
        String key = key();
        String known = FACTS.get(key);
        if (known != null) {
            return Optional.of(known);
        }
        return FactVocabulary.all().stream()
                .filter(k -> k.label().equalsIgnoreCase(name)
                        || k.brief().equalsIgnoreCase(name)
                        || k.key().equalsIgnoreCase(name))
                .map(k -> k.key())
                .findFirst();
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
        String known = UNITS.get(plain.toLowerCase(Locale.ROOT).replace(" ", ""));
        return known != null ? known : RATE.matcher(plain).matches() ? plain : "";
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

    private static Map.Entry<ColumnRole, List<String>> roles(ColumnRole role, String... words) {
        return Map.entry(role, List.of(words));
    }
}
