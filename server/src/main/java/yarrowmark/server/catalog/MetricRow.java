package yarrowmark.server.catalog;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.curve.SeriesNumber;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.InvalidReadingException;
import yarrowmark.core.measure.Kind;
import yarrowmark.core.measure.Measured;
import yarrowmark.core.measure.Scale;
import yarrowmark.core.sensor.Sensed;
import yarrowmark.core.standing.RatingLimits;

/**
 * A metric with its place in the catalogue.
 *
 * @param choices of an ordered list, from worst to best
 * @param xUnit   of a curve
 * @param capped  whether a display may hold the value
 * @param series  which number of the test's curve or frame times it is
 * @param formula present where it is computed from others of the same session, or is known to be made of them
 * @param typed   whether a person types it although it has a formula: a total whose parts are known
 * @param inputs  of the formula: metric ids by name
 * @param facts   of the configuration that the formula needs as well: keys by name, in base units
 * @param builtIn whether a device measures it by itself
 * @param goodLimit from where on a value is good, as the lab says it; absent: by thirds of those placed
 * @param poorLimit from where on it is poor; there with the other
 * @param repeatability how repeatable the test is said to be, in per cent; it lends where nothing better is known
 */
public record MetricRow(
        long id,
        String key,
        String name,
        String unit,
        Direction direction,
        Scale scale,
        boolean main,
        long testId,
        String test,
        TestGroup group,
        long suiteId,
        String suite,
        String version,
        long suiteVersionId,
        Kind kind,
        List<String> choices,
        @Nullable String xUnit,
        boolean capped,
        @Nullable SeriesNumber series,
        @Nullable String formula,
        boolean typed,
        Map<String, Long> inputs,
        Map<String, String> facts,
        boolean builtIn,
        @Nullable Double repeatability,
        @Nullable Double goodLimit,
        @Nullable Double poorLimit) {
    private static final String ENERGY = "energy";
    private static final Map<String, String> QUANTITIES =
            Map.of("W", "power", "mW", "power", "J", ENERGY, "Wh", ENERGY, "mWh", ENERGY);

    static MetricRow of(Metric m) {
        TestDefinition t = m.test();
        RatingLimits limits = m.limits();
        return new MetricRow(
                m.id(),
                m.key(),
                m.name(),
                m.unit(),
                m.direction(),
                m.scale(),
                m.main(),
                t.id(),
                t.name(),
                t.group(),
                t.suiteVersion().suite().id(),
                t.suiteVersion().suite().name(),
                t.suiteVersion().version(),
                t.suiteVersion().id(),
                m.kind(),
                m.choices(),
                m.xUnit(),
                m.capped(),
                m.series(),
                m.formula(),
                m.typed(),
                Map.copyOf(m.inputs()),
                Map.copyOf(m.facts()),
                t.suiteVersion().suite().builtIn(),
                t.repeatability(),
                limits == null ? null : limits.good(),
                limits == null ? null : limits.poor());
    }

    /**
     * What stands for its test, what is computed from several, and whatever a lab of its own counts; the further numbers of a
     * curve do not crowd a list.
     */
    public boolean listed() {
        if (Sensed.KEYS.contains(key)) {
            return Sensed.TELLING.contains(key);
        }
        return series == null ? main || scale == Scale.DIFFERENCE || !given() || !builtIn : main;
    }

    /** Null: by thirds of those placed. */
    public @Nullable RatingLimits limits() {
        return goodLimit == null || poorLimit == null ? null : new RatingLimits(direction, goodLimit, poorLimit);
    }

    /** What there is less of where less is better: "time"; empty where the unit does not say. */
    public Optional<String> whatIsLess() {
        return kind == Kind.DURATION ? Optional.of("time") : Optional.ofNullable(QUANTITIES.get(unit));
    }

    /** Why this can be no value of the metric; null where it can. */
    public @Nullable String unusable(double value) {
        if (scale == Scale.RATIO && !(value > 0)) {
            return "A score in " + (unit.equals("1") ? "points" : unit) + " is above 0.";
        }
        try {
            new Measured(value, 0).admittedFor(scale);
            return null;
        } catch (InvalidReadingException e) {
            return e.getMessage();
        }
    }

    /** Under which keys it can be left out of a whole: "group:" and its name, "suite:" or "test:" and its number. */
    public List<String> partKeys() {
        return List.of("group:" + group.name(), "suite:" + suiteVersionId, "test:" + testId);
    }

    /** Of a total and its parts only the parts: weighed beside each other, the parts would count twice. */
    public static List<MetricRow> withoutTotals(List<MetricRow> metrics) {
        Set<Long> ids = metrics.stream().map(MetricRow::id).collect(Collectors.toSet());
        return metrics.stream()
                .filter(m -> m.formula() == null || m.inputs().values().stream().noneMatch(ids::contains))
                .toList();
    }

    /** Whether a person types, pastes or measures it, rather than the server computing it. */
    public boolean given() {
        return formula == null || typed;
    }
}
