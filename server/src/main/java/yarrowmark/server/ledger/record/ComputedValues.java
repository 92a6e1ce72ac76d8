package yarrowmark.server.ledger.record;

import static yarrowmark.server.platform.Require.require;

import jakarta.persistence.EntityManager;
import java.time.Clock;
import java.time.Instant;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.formula.Formula;
import yarrowmark.core.measure.Scale;
import yarrowmark.core.setup.FactVocabulary;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.CatalogCache;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.ledger.sample.Samples;
import yarrowmark.server.shelf.configuration.FactCorrected;
import yarrowmark.server.shelf.configuration.KnownFacts;

/**
 * Keeps the values that are computed from others of the same session: when an input changes, the value is computed anew,
 * and the one before is set aside. Run by run where the inputs have runs; an input that was read once counts for all.
 */
@Service
public class ComputedValues {
    static final String BY = "Yarrowmark";

    /** A counted reading of a session. */
    record Input(long readingId, long metricId, int run, double value, double resolution) {}

    /** The values of one metric in one session. @param reasons why there is none, by run, or under 0 where there is none at all */
    public record Outcome(
            Map<Integer, Formula.Value> values, Map<Integer, Double> steps, Map<Integer, String> reasons) {}

    private final ReadingRepository readings;
    private final RunRepository runs;
    private final SetAsideRepository asides;
    private final Samples samples;
    private final Catalog catalog;
    private final CatalogCache known;
    private final EntityManager entities;
    private final SessionRepository sessions;
    private final KnownFacts knownFacts;
    private final Clock clock;

    ComputedValues(
            ReadingRepository readings,
            RunRepository runs,
            SetAsideRepository asides,
            Samples samples,
            Catalog catalog,
            CatalogCache known,
            EntityManager entities,
            SessionRepository sessions,
            KnownFacts knownFacts,
            Clock clock) {
        this.sessions = sessions;
        this.knownFacts = knownFacts;
        this.clock = clock;
        this.readings = readings;
        this.runs = runs;
        this.asides = asides;
        this.samples = samples;
        this.catalog = catalog;
        this.known = known;
        this.entities = entities;
    }

    /** The caller holds the lock of the session's configuration. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void refresh(Session session, Collection<Long> touched, Instant at) {
        Set<Long> changed = new HashSet<>(touched);
        for (MetricRow metric : known.computed()) {
            if (metric.inputs().values().stream().anyMatch(changed::contains) && refresh(session, metric, at)) {
                changed.add(metric.id());
            }
        }
    }

    /** What was computed with a fact that turned out to be wrong is computed anew, in the correction's transaction. */
    @EventListener
    @Transactional(propagation = Propagation.MANDATORY)
    public void corrected(FactCorrected event) {
        List<MetricRow> needing = catalog.computed().stream()
                .filter(m -> m.facts().containsValue(event.key()))
                .toList();
        if (needing.isEmpty()) {
            return;
        }
        samples.lock(event.configurationId());
        for (Session session : sessions.findByConfigurationIdOrderByStartedAtDesc(event.configurationId())) {
            Set<Long> changed = needing.stream()
                    .filter(m -> refresh(session, m, clock.instant()))
                    .map(MetricRow::id)
                    .collect(Collectors.toSet());
            refresh(session, changed, clock.instant());
        }
    }

    private boolean refresh(Session session, MetricRow metric, Instant at) {
        Outcome outcome = compute(session, metric);
        Map<Integer, Input> stored = readings.findCountedInSession(session.id(), List.of(metric.id())).stream()
                .collect(Collectors.toMap(Input::run, i -> i, (a, b) -> b));
        boolean changed = false;
        Set<Integer> all = new TreeSet<>(stored.keySet());
        all.addAll(outcome.values().keySet());
        for (int run : all) {
            Formula.Value wanted = outcome.values().get(run);
            Input there = stored.get(run);
            if (there != null && wanted != null && there.value() == wanted.value()) {
                continue;
            }
            changed = true;
            if (there != null) {
                asides.save(new SetAside(
                        there.readingId(),
                        wanted == null
                                ? outcome.reasons().getOrDefault(run, "An input is missing now.")
                                : "An input changed.",
                        BY,
                        at));
            }
            if (wanted != null) {
                add(session, metric, run, wanted.value(), require(outcome.steps(), run), at);
            }
        }
        if (changed) {
            entities.flush();
            samples.refresh(session.configurationId(), metric);
        }
        return changed;
    }

    private void add(Session session, MetricRow metric, int number, double value, double step, Instant at) {
        int attempt = runs.findBySessionIdAndTestIdAndRunNumber(session.id(), metric.testId(), number).stream()
                        .mapToInt(Run::attempt)
                        .max()
                        .orElse(0)
                + 1;
        Run run = runs.save(new Run(
                session, new NewRun(metric.testId(), number, attempt, RunState.OK, null, null, 0, at, List.of(), BY)));
        readings.save(new Reading(run.id(), metric.id(), session.configurationId(), value, step, null));
    }

    /** What a metric is worth in a session, as its readings stand now. */
    @Transactional(readOnly = true)
    public Outcome compute(Session session, MetricRow metric) {
        Formula formula = Formula.parse(require(metric.formula()));
        Map<String, Double> facts = new HashMap<>();
        for (Map.Entry<String, String> fact : metric.facts().entrySet()) {
            Double known = knownFacts.quantity(session.configurationId(), fact.getValue());
            if (known == null) {
                return new Outcome(
                        Map.of(),
                        Map.of(),
                        Map.of(
                                0,
                                "The "
                                        + FactVocabulary.entry(fact.getValue())
                                                .label()
                                                .toLowerCase(Locale.ROOT) + " of this configuration is not known."));
            }
            facts.put(fact.getKey(), known);
        }
        Map<Long, Map<Integer, Input>> byMetric = new HashMap<>();
        readings.findCountedInSession(session.id(), metric.inputs().values())
                .forEach(i -> byMetric.computeIfAbsent(i.metricId(), m -> new TreeMap<>())
                        .put(i.run(), i));
        Map<Integer, Formula.Value> values = new TreeMap<>();
        Map<Integer, Double> steps = new HashMap<>();
        Map<Integer, String> reasons = new TreeMap<>();
        Set<Integer> numbers = new TreeSet<>();
        byMetric.values().stream().filter(m -> m.size() > 1).forEach(m -> numbers.addAll(m.keySet()));
        if (numbers.isEmpty()) {
            byMetric.values().stream()
                    .flatMap(m -> m.keySet().stream())
                    .min(Integer::compare)
                    .ifPresent(numbers::add);
        }
        for (int run : numbers) {
            Map<String, Double> inputs = new HashMap<>(facts);
            Map<String, Double> inputSteps = new HashMap<>();
            metric.inputs().forEach((name, id) -> {
                Map<Integer, Input> of = byMetric.getOrDefault(id, Map.of());
                Input input = of.size() == 1 ? of.values().iterator().next() : of.get(run);
                if (input != null) {
                    inputs.put(name, input.value());
                    inputSteps.put(name, input.resolution());
                }
            });
            Formula.Result result = formula.evaluate(inputs);
            if (result instanceof Formula.Value v && (metric.scale() == Scale.DIFFERENCE || v.value() > 0)) {
                values.put(run, v);
                steps.put(run, formula.step(inputs, inputSteps));
            } else {
                reasons.put(
                        run,
                        result instanceof Formula.NoValue none
                                ? none.reason()
                                : "The result, " + ((Formula.Value) result).value()
                                        + ", is not above 0, which a ratio needs.");
            }
        }
        if (numbers.isEmpty()) {
            reasons.put(0, "None of its inputs was measured in this session yet.");
        }
        return new Outcome(values, steps, reasons);
    }
}
