package yarrowmark.server.standing;

import static yarrowmark.server.platform.Require.require;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.measure.Kind;
import yarrowmark.core.measure.Merit;
import yarrowmark.core.setup.FactKey;
import yarrowmark.core.setup.FactText;
import yarrowmark.core.setup.FactVocabulary;
import yarrowmark.core.standing.Frontier;
import yarrowmark.core.standing.Standing;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.ledger.sample.SampleCache;
import yarrowmark.server.ledger.sample.Samples;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.shelf.Population;
import yarrowmark.server.shelf.Population.Member;
import yarrowmark.server.shelf.configuration.KnownFacts;

/** A standing against what it costs: a price, a weight, a day, a fact or another score. */
@Service
class AgainstQuantity {
    private static final String RELEASED = "released";
    private static final String FACT = "fact:";
    private static final String METRIC = "metric:";

    /** @param key price, weight, released, "fact:" and a key, or "metric:" and an id. @param divides whether scores can be divided by it */
    record StandingQuantity(String key, String label, String unit, boolean divides) {}

    /**
     * @param lessIsBetter whether the frontier runs to the left: cheaper, lighter, earlier
     * @param date         x is a day, counted from 1970
     * @param without      placed configurations that are not on it because the quantity is not known of them
     */
    record Against(
            StandingQuantity quantity, boolean lessIsBetter, boolean date, List<ValuePoint> points, int without) {}

    /** @param x in the unit of the quantity. @param shown the same as people write it. @param index absent where one metric is ranked by differences. @param value of the metric that is ranked alone. @param frontier whether no other is as good and costs as little */
    record ValuePoint(
            long configurationId,
            double x,
            String shown,
            @Nullable Double index,
            @Nullable Double value,
            boolean frontier) {}

    private record Known(double x, String shown, double cost) {}

    private final StandingsService standings;
    private final Population population;
    private final Catalog catalog;
    private final SampleCache samples;

    AgainstQuantity(StandingsService standings, Population population, Catalog catalog, SampleCache samples) {
        this.standings = standings;
        this.population = population;
        this.catalog = catalog;
        this.samples = samples;
    }

    /** What is known of any configuration. */
    @Transactional(readOnly = true)
    public List<StandingQuantity> offered() {
        String currency = StandingFilter.currency(population.all());
        List<StandingQuantity> all = new ArrayList<>(List.of(
                new StandingQuantity(StandingFilter.PRICE, "price", currency == null ? "" : currency, true),
                new StandingQuantity(StandingFilter.WEIGHT, "weight", "g", true),
                new StandingQuantity(RELEASED, "release date", "", false)));
        population.keys().keySet().stream()
                .map(FactVocabulary::entry)
                .filter(FactKey::isQuantity)
                .sorted(Comparator.comparing(FactKey::label))
                .forEach(k -> all.add(new StandingQuantity(
                        FACT + k.key(),
                        k.label().toLowerCase(java.util.Locale.ROOT),
                        k.dimension().base(),
                        true)));
        catalog.metricsInUse().stream()
                .filter(m -> m.main() && m.series() == null && m.kind() != Kind.CHECK && m.kind() != Kind.CHOICE)
                .forEach(m -> all.add(new StandingQuantity(METRIC + m.id(), m.name(), m.unit(), false)));
        return all;
    }

    /** @param tried amounts that somebody tries out, by configuration, in the unit of the quantity: nothing is stored */
    @Transactional(readOnly = true)
    public Against of(StandingsAsk ask, String key, Map<Long, Double> tried) {
        StandingQuantity quantity = offered().stream()
                .filter(q -> q.key().equals(key))
                .findFirst()
                .orElseThrow(() -> Problem.invalid(
                        "unknown-quantity",
                        "Standings can be held against price, weight, released, a quantity among the facts or a test, not against \""
                                + key + "\"."));
        Ranked ranked = standings.ranked(ask);
        MetricRow metric = key.startsWith(METRIC)
                ? catalog.metricsInUse().stream()
                        .filter(m -> key.equals(METRIC + m.id()))
                        .findFirst()
                        .orElseThrow()
                : null;
        Map<Long, Known> known = known(quantity, metric, ranked);
        if (!tried.isEmpty() && !quantity.divides()) {
            throw Problem.invalid(
                    "not-to-try", "Another " + quantity.label() + " cannot be tried: it is measured, or a day.");
        }
        tried.forEach((id, amount) -> known.put(
                id,
                new Known(
                        amount,
                        BigDecimal.valueOf(amount).stripTrailingZeros().toPlainString() + " " + quantity.unit(),
                        amount)));
        List<Standing.Entry> placed = ranked.standing().entries().stream()
                .filter(e -> e.status() == Standing.Status.PLACED)
                .toList();
        List<Standing.Entry> shown = placed.stream()
                .filter(e -> known.containsKey(ranked.rows().get(e.row())))
                .toList();
        boolean[] frontier = Frontier.of(
                shown.stream()
                        .mapToDouble(
                                e -> require(known, ranked.rows().get(e.row())).cost())
                        .toArray(),
                shown.stream().mapToDouble(e -> e.merit().orElseThrow()).toArray());
        List<ValuePoint> points = new ArrayList<>();
        for (int i = 0; i < frontier.length; i++) {
            long id = ranked.rows().get(shown.get(i).row());
            points.add(new ValuePoint(
                    id,
                    require(known, id).x(),
                    require(known, id).shown(),
                    ranked.byDifferences() ? null : shown.get(i).index().orElseThrow(),
                    ranked.ask().oneMetric() && ranked.ask().per() == null
                            ? value(ranked, shown.get(i).row())
                            : null,
                    frontier[i]));
        }
        return new Against(
                quantity,
                metric == null || metric.direction().sign() < 0,
                key.equals(RELEASED),
                points,
                placed.size() - shown.size());
    }

    private static double value(Ranked ranked, int row) {
        MetricRow metric = ranked.metrics().get(0);
        return Merit.toValue(require(ranked.centre(row, metric)).merit(), metric.direction(), metric.scale());
    }

    private Map<Long, Known> known(StandingQuantity quantity, @Nullable MetricRow metric, Ranked ranked) {
        Map<Long, Known> known = new HashMap<>();
        if (metric != null) {
            for (Samples.SampleRow row : samples.ofMetrics(List.of(metric.id()))) {
                double merit = row.sample().mean();
                known.put(
                        row.configurationId(),
                        new Known(Merit.toValue(merit, metric.direction(), metric.scale()), "", -merit));
            }
            return known;
        }
        FactKey fact = quantity.key().startsWith(FACT)
                ? FactVocabulary.entry(quantity.key().substring(FACT.length()))
                : null;
        Map<Long, String> values = fact == null ? Map.of() : require(population.facts(List.of(fact.key())), fact.key());
        for (Member m : ranked.chosen().members().values()) {
            long id = m.configuration().id();
            switch (quantity.key()) {
                case StandingFilter.PRICE ->
                    put(
                            known,
                            id,
                            m.price() != null && quantity.unit().equals(m.currency())
                                    ? m.price().doubleValue()
                                    : null,
                            v -> require(m.price()).stripTrailingZeros().toPlainString() + " " + m.currency());
                case StandingFilter.WEIGHT -> put(known, id, m.weight(), v -> Math.round(v) + " g");
                case RELEASED ->
                    put(
                            known,
                            id,
                            m.released() == null ? null : (double) m.released().toEpochDay(),
                            v -> require(m.released()).toString());
                default ->
                    put(
                            known,
                            id,
                            KnownFacts.number(values.get(id)),
                            v -> FactText.of(require(fact), require(values, id)));
            }
        }
        return known;
    }

    private static void put(
            Map<Long, Known> known, long id, @Nullable Double value, java.util.function.DoubleFunction<String> words) {
        if (value != null) {
            known.put(id, new Known(value, words.apply(value), value));
        }
    }
}
