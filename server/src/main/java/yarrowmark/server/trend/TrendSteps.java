package yarrowmark.server.trend;

import static yarrowmark.server.platform.Require.require;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.setup.FactGroup;
import yarrowmark.core.setup.FactKey;
import yarrowmark.core.setup.FactText;
import yarrowmark.core.setup.FactVocabulary;
import yarrowmark.core.setup.VersionOrder;
import yarrowmark.core.stats.Sample;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.shelf.configuration.ConfigurationRow;
import yarrowmark.server.shelf.configuration.KnownFacts;

/** Brings what was measured of a model, or of one of its units, into steps along a fact. */
final class TrendSteps {
    private static final int MOST = 60;

    /**
     * What one step is made of.
     *
     * @param key     by which an event is pinned to it
     * @param value   of the fact, or the day, as it is ordered by
     * @param samples by metric
     */
    record Step(
            String key,
            String value,
            String label,
            @Nullable Double x,
            List<ConfigurationRow> configurations,
            Map<Long, Sample> samples,
            Set<Long> sessions) {}

    private final List<ConfigurationRow> measured;
    private final Map<Long, Map<String, String>> facts;
    private final Map<Long, Map<Long, Sample>> samples;
    private final Map<Long, Set<Long>> held;
    private final Map<Long, LocalDate> days;

    /**
     * @param measured configurations that have a sample, in the order they were made
     * @param facts    of each
     * @param samples  by configuration and metric
     * @param held     metrics that a display holds, by configuration
     * @param days     of each session
     */
    TrendSteps(
            List<ConfigurationRow> measured,
            Map<Long, Map<String, String>> facts,
            Map<Long, Map<Long, Sample>> samples,
            Map<Long, Set<Long>> held,
            Map<Long, LocalDate> days) {
        this.measured = measured;
        this.facts = facts;
        this.samples = samples;
        this.held = held;
        this.days = days;
    }

    /** Facts that vary, and the date where there is more than one; those with the most steps first. */
    List<Trends.Along> offered() {
        Map<String, Set<String>> values = new TreeMap<>();
        for (ConfigurationRow c : measured) {
            facts.getOrDefault(c.id(), Map.of())
                    .forEach((key, value) -> values.computeIfAbsent(key, k -> new LinkedHashSet<>())
                            .add(value));
        }
        List<Trends.Along> all = new ArrayList<>();
        values.forEach((key, of) -> {
            FactKey fact = FactVocabulary.entry(key);
            if (of.size() > 1 && fact.group() != FactGroup.ROOM && order(fact) != null) {
                all.add(along(fact, of.size()));
            }
        });
        int dates = byDate().size();
        if (dates > 1) {
            all.add(new Trends.Along(TrendAsk.DATE, "date of the session", Trends.Order.DATE, "", dates));
        }
        // What somebody changes step by step comes before what merely went along with it.
        all.sort(Comparator.comparingInt((Trends.Along a) -> a.order() == Trends.Order.DATE ? 1 : 0)
                .thenComparing(Comparator.comparingInt(Trends.Along::steps).reversed())
                .thenComparing(a -> a.order() == Trends.Order.VERSION ? 0 : 1)
                .thenComparing(Trends.Along::label));
        return all;
    }

    private static Trends.Along along(FactKey fact, int steps) {
        return new Trends.Along(
                fact.key(),
                fact.label(),
                require(order(fact)),
                fact.isQuantity() ? fact.dimension().base() : "",
                steps);
    }

    private static Trends.@Nullable Order order(FactKey fact) {
        return fact.type() == FactKey.Type.VERSION
                ? Trends.Order.VERSION
                : fact.isQuantity() ? Trends.Order.QUANTITY : null;
    }

    /** @param between configurations from which it was opened: what differs among them comes first */
    Trends.Along along(@Nullable String asked, @Nullable Set<Long> between) {
        List<Trends.Along> offered = offered();
        if (asked == null && between != null && between.size() > 1) {
            Optional<Trends.Along> differs = offered.stream()
                    .filter(a -> a.order() != Trends.Order.DATE)
                    .filter(a -> between.stream()
                                    .map(c -> facts.getOrDefault(c, Map.of()).get(a.key()))
                                    .distinct()
                                    .count()
                            > 1)
                    .findFirst();
            if (differs.isPresent()) {
                return differs.get();
            }
        }
        if (asked == null) {
            if (offered.isEmpty()) {
                throw Problem.invalid(
                        "nothing-varies",
                        "There are no steps yet: nothing that is measured here differs in a version, a quantity or its day. "
                                + "Copy a configuration, change one fact and measure it, or measure again on another day.");
            }
            return offered.get(0);
        }
        if (asked.equals(TrendAsk.DATE)) {
            return new Trends.Along(TrendAsk.DATE, "date of the session", Trends.Order.DATE, "", byDate().size());
        }
        FactKey fact = FactVocabulary.entry(asked);
        if (order(fact) == null) {
            throw Problem.invalid(
                    "no-order",
                    fact.label() + " is neither a version nor a quantity, so its values have no order. Take one of: "
                            + offered.stream().map(Trends.Along::label).collect(Collectors.joining(", ")) + ".");
        }
        int values = (int) measured.stream()
                .map(c -> facts.getOrDefault(c.id(), Map.of()).get(asked))
                .filter(v -> v != null)
                .distinct()
                .count();
        if (values == 0) {
            throw Problem.invalid(
                    "nothing-varies",
                    fact.label() + " is not known of anything that is measured here, so there is nothing along it."
                            + (offered.isEmpty()
                                    ? ""
                                    : " There are steps along: "
                                            + offered.stream()
                                                    .map(Trends.Along::label)
                                                    .collect(Collectors.joining(", "))
                                            + "."));
        }
        return along(fact, values);
    }

    List<ConfigurationRow> unknown(Trends.Along along) {
        return along.order() == Trends.Order.DATE
                ? List.of()
                : measured.stream().filter(c -> value(c, along.key()) == null).toList();
    }

    List<Step> along(Trends.Along along) {
        List<Step> steps = along.order() == Trends.Order.DATE ? byDate() : byFact(along);
        if (steps.size() > MOST) {
            throw Problem.invalid(
                    "too-many-steps",
                    "There are " + steps.size() + " steps along " + along.label() + "; " + MOST
                            + " are the most that are shown. Take one unit, or another fact.");
        }
        return steps;
    }

    /** How values of a fact, or days, follow one another. */
    static Comparator<String> order(Trends.Order order) {
        return switch (order) {
            case QUANTITY ->
                Comparator.comparingDouble(v -> {
                    Double n = KnownFacts.number(v);
                    return n == null ? Double.NaN : n;
                });
            case VERSION -> VersionOrder.INSTANCE;
            case DATE -> Comparator.naturalOrder();
        };
    }

    /** Whether a display holds what was measured of a metric at a step. */
    boolean isHeld(Step step, long metricId) {
        return step.configurations().stream()
                .anyMatch(c -> held.getOrDefault(c.id(), Set.of()).contains(metricId));
    }

    /** Configurations with the same facts are one step; with the same value and other facts, steps beside one another. */
    private List<Step> byFact(Trends.Along along) {
        Map<String, Map<Map<String, String>, List<ConfigurationRow>>> byValue = new LinkedHashMap<>();
        for (ConfigurationRow c : measured) {
            String value = value(c, along.key());
            if (value != null) {
                byValue.computeIfAbsent(value, v -> new LinkedHashMap<>())
                        .computeIfAbsent(require(facts, c.id()), f -> new ArrayList<>())
                        .add(c);
            }
        }
        boolean quantity = along.order() == Trends.Order.QUANTITY;
        Comparator<String> order = order(along.order());
        FactKey fact = FactVocabulary.entry(along.key());
        List<Step> steps = new ArrayList<>();
        byValue.entrySet().stream()
                .sorted(Map.Entry.comparingByKey(order))
                .forEach(e -> e.getValue().values().forEach(same -> {
                    Map<Long, Sample> all = new HashMap<>();
                    same.forEach(c -> samples.getOrDefault(c.id(), Map.of())
                            .forEach((metric, sample) -> all.merge(metric, sample, Sample::joined)));
                    steps.add(new Step(
                            "c" + same.get(0).id(),
                            e.getKey(),
                            FactText.of(fact, e.getKey()),
                            quantity ? KnownFacts.number(e.getKey()) : null,
                            same,
                            all,
                            sessionsOf(all)));
                }));
        return steps;
    }

    /** A step for each day on which a configuration was measured. */
    private List<Step> byDate() {
        List<Step> steps = new ArrayList<>();
        for (ConfigurationRow c : measured) {
            Map<LocalDate, Map<Long, Sample>> byDay = new TreeMap<>();
            samples.getOrDefault(c.id(), Map.of()).forEach((metric, sample) -> sample.sessions().stream()
                    .collect(Collectors.groupingBy(s -> day(s.session())))
                    .forEach((day, of) ->
                            byDay.computeIfAbsent(day, d -> new HashMap<>()).put(metric, Sample.of(of))));
            byDay.forEach((day, of) -> steps.add(new Step(
                    "d" + c.id() + "-" + day,
                    day.toString(),
                    day.toString(),
                    (double) day.toEpochDay(),
                    List.of(c),
                    of,
                    sessionsOf(of))));
        }
        steps.sort(Comparator.comparingDouble((Step s) -> require(s.x()))
                .thenComparing(s -> s.configurations().get(0).id()));
        return steps;
    }

    LocalDate day(long session) {
        return require(days, session);
    }

    private static Set<Long> sessionsOf(Map<Long, Sample> samples) {
        return samples.values().stream()
                .flatMap(s -> s.sessions().stream())
                .map(Sample.OfSession::session)
                .collect(Collectors.toCollection(TreeSet::new));
    }

    Map<String, String> factsOf(Step step) {
        return facts.getOrDefault(step.configurations().get(0).id(), Map.of());
    }

    private @Nullable String value(ConfigurationRow c, String key) {
        return facts.getOrDefault(c.id(), Map.of()).get(key);
    }
}
