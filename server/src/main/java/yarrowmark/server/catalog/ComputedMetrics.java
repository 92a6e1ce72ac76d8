package yarrowmark.server.catalog;

import static yarrowmark.server.platform.Require.require;

import jakarta.persistence.EntityManager;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.entry.TestLines;
import yarrowmark.core.formula.Formula;
import yarrowmark.core.formula.SuiteTotal;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Scale;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.history.ChangeLog;

/** Values that a suite computes from other tests: added, declared as totals of their parts, and brought up to date once. */
@Service
public class ComputedMetrics {
    private final TestDefinitionRepository tests;
    private final Catalog catalog;
    private final ChangeLog changes;
    private final EntityManager entities;
    private final ApplicationEventPublisher events;
    private final SuiteVersions suiteVersions;

    ComputedMetrics(
            TestDefinitionRepository tests,
            Catalog catalog,
            ChangeLog changes,
            EntityManager entities,
            ApplicationEventPublisher events,
            SuiteVersions suiteVersions) {
        this.tests = tests;
        this.catalog = catalog;
        this.changes = changes;
        this.entities = entities;
        this.events = events;
        this.suiteVersions = suiteVersions;
    }

    /** @param inputs metric ids by the formula's names */
    public record Computed(
            String name,
            String unit,
            Direction direction,
            Scale scale,
            TestGroup group,
            boolean main,
            String formula,
            Map<String, Long> inputs) {}

    /** Adds a value that is computed from others of the same session. @return the id of its test */
    @Transactional
    public long addComputed(long versionId, Computed c, String person) {
        SuiteVersion version = suiteVersions.version(versionId);
        if (version.suite().builtIn()) {
            throw Problem.conflict(
                    "built-in-suite",
                    "\"" + version.suite().name()
                            + "\" is built in and cannot be changed. Add the value to a suite of your own; its inputs may be anywhere.");
        }
        String name = c.name().strip();
        List<TestDefinition> there = tests.findBySuiteVersionIdOrderByPosition(versionId);
        if (there.stream().anyMatch(t -> t.retiredAt() == null && t.name().equalsIgnoreCase(name))) {
            throw Problem.conflict(
                    "test-exists", SuiteVersions.named(version) + " has a test \"" + name + "\" already.");
        }
        Formula formula = parsed(c.formula());
        List<Problem.Refused> refused = new ArrayList<>();
        Map<Long, MetricRow> known = catalog.metrics().stream().collect(Collectors.toMap(MetricRow::id, m -> m));
        Map<String, Long> inputs = new LinkedHashMap<>();
        for (String input : formula.inputs()) {
            Long metric = c.inputs().get(input);
            if (metric == null || !known.containsKey(metric)) {
                refused.add(new Problem.Refused(input, "Say which test \"" + input + "\" stands for."));
            } else {
                inputs.put(input, metric);
            }
        }
        if (!refused.isEmpty()) {
            throw Problem.refused("input-missing", refused);
        }
        // A formula can only name what is in the catalogue before it, and is never changed: so none can loop.
        int position = there.stream().mapToInt(TestDefinition::position).max().orElse(-1) + 1;
        Catalog.NewMetric metric = new Catalog.NewMetric(
                "computed",
                name,
                c.unit(),
                c.direction(),
                c.scale(),
                c.main(),
                new Catalog.More(TestLines.kind(c.unit()), List.of(), null, false, null, formula.text(), inputs));
        TestDefinition made = tests.save(new TestDefinition(
                version,
                suiteVersions.group(versionId),
                new Catalog.NewTest("computed-" + (position + 1), name, "", c.group(), List.of(metric)),
                position));
        made.metrics().forEach(m -> m.setBehind(true));
        changes.note(person, "suite version", versionId, "computed value", null, name + " = " + formula.text());
        entities.flush();
        made.metrics().forEach(m -> events.publishEvent(new ComputedAdded(m.id())));
        return made.id();
    }

    /** @param formula over the inputs. @param inputs metric ids by name. @param parts as they stand in the catalogue */
    private record TotalOfParts(String formula, Map<String, Long> inputs, List<MetricRow> parts) {}

    private TotalOfParts total(long versionId, SuiteTotal.Kind kind, Map<Long, Double> weights) {
        List<MetricRow> parts = tests.findBySuiteVersionIdOrderByPosition(versionId).stream()
                .filter(t -> t.retiredAt() == null)
                .flatMap(t -> t.metrics().stream())
                .filter(m -> weights.containsKey(m.id()))
                .map(MetricRow::of)
                .toList();
        if (parts.size() != weights.size() || parts.isEmpty()) {
            throw Problem.invalid("not-a-part", "A total is made of tests of its own version, one or more.");
        }
        List<SuiteTotal.Part> weighed = new ArrayList<>();
        Map<String, Long> inputs = new LinkedHashMap<>();
        for (MetricRow part : parts) {
            if (part.scale() != Scale.RATIO || part.direction() != parts.get(0).direction()) {
                throw Problem.invalid(
                        "not-a-part",
                        "\"" + part.test()
                                + "\" cannot be a part: all parts of a total are ratios and get better the same way.");
            }
            String input = "p" + (weighed.size() + 1);
            try {
                weighed.add(new SuiteTotal.Part(input, require(weights, part.id())));
            } catch (IllegalArgumentException e) {
                throw Problem.invalid("weight-not-positive", Problem.words(e));
            }
            inputs.put(input, part.id());
        }
        return new TotalOfParts(SuiteTotal.formula(kind, weighed), inputs, parts);
    }

    /** The total that the suite computes from its parts. Each is weighed; what has no weight takes no part. */
    @Transactional
    public long addTotal(long versionId, SuiteTotal.Kind kind, Map<Long, Double> weights, String unit, String person) {
        TotalOfParts of = total(versionId, kind, weights);
        MetricRow first = of.parts().get(0);
        return addComputed(
                versionId,
                new Computed(
                        "Total", unit, first.direction(), Scale.RATIO, first.group(), false, of.formula(), of.inputs()),
                person);
    }

    /**
     * A number that people type is the total of these parts: it no longer counts beside them, and Compare says which of
     * them a difference comes from.
     */
    @Transactional
    public void declareTotal(long metricId, SuiteTotal.Kind kind, Map<Long, Double> weights, String person) {
        Metric metric = typedRatio(metricId);
        TotalOfParts of = total(metric.test().suiteVersion().id(), kind, weights);
        for (MetricRow part : of.parts()) {
            if (part.id() == metricId || part.formula() != null) {
                throw Problem.invalid(
                        "not-a-part",
                        "\"" + part.test() + "\" is a total or computed itself, so it is no part of "
                                + metric.test().name() + ".");
            }
            if (part.direction() != metric.direction()) {
                throw Problem.invalid(
                        "not-a-part",
                        "\"" + part.test() + "\" and " + metric.test().name() + " do not get better the same way.");
            }
        }
        String before = metric.formula();
        metric.declareTotal(of.formula(), of.inputs());
        changes.note(
                person,
                "suite version",
                metric.test().suiteVersion().id(),
                "total " + metric.test().name(),
                before,
                of.formula());
    }

    /** The number stands for itself again. */
    @Transactional
    public void undeclareTotal(long metricId, String person) {
        Metric metric = typedRatio(metricId);
        if (metric.formula() != null) {
            changes.note(
                    person,
                    "suite version",
                    metric.test().suiteVersion().id(),
                    "total " + metric.test().name(),
                    metric.formula(),
                    null);
            metric.undeclareTotal();
        }
    }

    private Metric typedRatio(long metricId) {
        Metric metric = entities.find(Metric.class, metricId);
        if (metric == null) {
            throw Problem.notFound("metric", metricId);
        }
        if (metric.test().suiteVersion().suite().builtIn()
                || metric.scale() != Scale.RATIO
                || metric.formula() != null && !metric.typed()) {
            throw Problem.invalid(
                    "not-a-total",
                    "\"" + metric.test().name()
                            + "\" cannot be declared a total: that is for numbers of a suite of your own that are typed and compared by ratios.");
        }
        return metric;
    }

    /** Metrics that are still to be computed for sessions that were there before them, in the order they were added. */
    @Transactional(readOnly = true)
    public List<MetricRow> behind() {
        return entities.createQuery("select m from Metric m where m.behind = true order by m.id", Metric.class)
                .getResultStream()
                .map(MetricRow::of)
                .toList();
    }

    /** It is computed for every session that there is. */
    @Transactional
    public void caughtUp(long metricId) {
        Metric metric = entities.find(Metric.class, metricId);
        if (metric != null) {
            metric.setBehind(false);
        }
    }

    static Formula parsed(String text) {
        try {
            return Formula.parse(text);
        } catch (IllegalArgumentException e) {
            throw Problem.invalid("not-a-formula", Problem.words(e));
        }
    }
}
