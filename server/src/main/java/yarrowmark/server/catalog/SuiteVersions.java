package yarrowmark.server.catalog;

import static yarrowmark.server.platform.Require.require;

import jakarta.persistence.EntityManager;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.entry.TestLines;
import yarrowmark.core.formula.Formula;
import yarrowmark.core.formula.SuiteTotal;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Kind;
import yarrowmark.core.measure.Scale;
import yarrowmark.core.standing.RatingLimits;
import yarrowmark.core.stats.UsualSpread;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.history.ChangeLog;

/**
 * What may still be done to a suite version that has scores: computed values are added, tests are retired, and its
 * comparability group is joined with another. None of it changes what a stored score means.
 */
@Service
public class SuiteVersions {
    /** @param into the version whose scores these are held against */
    record Joined(long into, String intoName, String reason, String person, Instant at) {}

    /** @param joined absent where its scores stand alone, or where others were joined into it */
    record VersionRow(long id, String suite, String version, boolean builtIn, int tests, @Nullable Joined joined) {}

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

    private final SuiteVersionRepository versions;
    private final ComparabilityGroupRepository groups;
    private final TestDefinitionRepository tests;
    private final Catalog catalog;
    private final ChangeLog changes;
    private final EntityManager entities;
    private final ApplicationEventPublisher events;
    private final Clock clock;

    SuiteVersions(
            SuiteVersionRepository versions,
            ComparabilityGroupRepository groups,
            TestDefinitionRepository tests,
            Catalog catalog,
            ChangeLog changes,
            EntityManager entities,
            ApplicationEventPublisher events,
            Clock clock) {
        this.versions = versions;
        this.groups = groups;
        this.tests = tests;
        this.catalog = catalog;
        this.changes = changes;
        this.entities = entities;
        this.events = events;
        this.clock = clock;
    }

    @Transactional(readOnly = true)
    List<VersionRow> all() {
        Map<Long, Long> counts =
                catalog.tests().stream().collect(Collectors.groupingBy(TestRow::suiteVersionId, Collectors.counting()));
        Map<Long, ComparabilityGroup> joined = groups.findByJoinedIntoIsNotNull().stream()
                .collect(Collectors.toMap(g -> g.suiteVersion().id(), g -> g));
        return versions.findAllInOrder().stream()
                .map(v -> {
                    ComparabilityGroup g = joined.get(v.id());
                    return new VersionRow(
                            v.id(),
                            v.suite().name(),
                            v.version(),
                            v.suite().builtIn(),
                            counts.getOrDefault(v.id(), 0L).intValue(),
                            g == null
                                    ? null
                                    : new Joined(
                                            require(g.joinedInto())
                                                    .suiteVersion()
                                                    .id(),
                                            named(require(g.joinedInto()).suiteVersion()),
                                            require(g.joinedReason()),
                                            require(g.joinedBy()),
                                            require(g.joinedAt())));
                })
                .toList();
    }

    /** Moves a version one place among those of its suite, where its number does not say when it came out. */
    @Transactional
    void move(long versionId, boolean earlier, String person) {
        SuiteVersion version = version(versionId);
        if (VersionsInOrder.move(version, versions.findOfSuite(version.suite().id()), earlier)) {
            changes.note(
                    person, "suite version", versionId, "order", null, earlier ? "one earlier" : "one later", "moved");
        }
    }

    /** From now on scores of the one are compared with those of the other, test by test where name, unit and direction agree. */
    @Transactional
    void join(long versionId, long intoId, String reason, String person) {
        ComparabilityGroup group = group(versionId);
        ComparabilityGroup into = group(intoId);
        if (group.root().id().equals(into.root().id())) {
            throw Problem.conflict(
                    "joined-already",
                    named(version(versionId)) + " and " + named(version(intoId)) + " are compared already.");
        }
        Set<String> here = names(versionId);
        if (names(intoId).stream().noneMatch(here::contains)) {
            throw Problem.invalid(
                    "nothing-in-common",
                    named(version(versionId)) + " and " + named(version(intoId))
                            + " have no test of the same name, unit and direction, so nothing would be compared.");
        }
        // The end of this chain is joined, so that whatever was joined here before comes along.
        ComparabilityGroup end = group.root();
        end.join(into.root(), reason.strip(), person, clock.instant());
        changes.note(
                person,
                "suite version",
                end.suiteVersion().id(),
                "compared with",
                null,
                named(into.root().suiteVersion()),
                reason.strip());
    }

    @Transactional
    void part(long versionId, String person) {
        ComparabilityGroup group = group(versionId);
        if (group.joinedInto() == null) {
            throw Problem.conflict("not-joined", named(version(versionId)) + " was not joined with another version.");
        }
        changes.note(
                person,
                "suite version",
                versionId,
                "compared with",
                named(group.joinedInto().suiteVersion()),
                null);
        group.part();
    }

    private Set<String> names(long versionId) {
        Set<String> names = new HashSet<>();
        tests.findBySuiteVersionIdOrderByPosition(versionId).forEach(t -> t.metrics()
                .forEach(m -> names.add(
                        t.name().toLowerCase(Locale.ROOT) + "|" + m.series() + "|" + m.unit() + "|" + m.direction())));
        return names;
    }

    /** Adds a value that is computed from others of the same session. @return the id of its test */
    @Transactional
    public long addComputed(long versionId, Computed c, String person) {
        SuiteVersion version = version(versionId);
        if (version.suite().builtIn()) {
            throw Problem.conflict(
                    "built-in-suite",
                    "\"" + version.suite().name()
                            + "\" is built in and cannot be changed. Add the value to a suite of your own; its inputs may be anywhere.");
        }
        String name = c.name().strip();
        List<TestDefinition> there = tests.findBySuiteVersionIdOrderByPosition(versionId);
        if (there.stream().anyMatch(t -> t.retiredAt() == null && t.name().equalsIgnoreCase(name))) {
            throw Problem.conflict("test-exists", named(version) + " has a test \"" + name + "\" already.");
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
                group(versionId),
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

    /** Its scores stay in the ledger; it is no longer offered, computed or ranked. */
    @Transactional
    void retire(long testId, boolean retired, String person) {
        TestDefinition test = tests.findById(testId).orElseThrow(() -> Problem.notFound("test", testId));
        if (test.suiteVersion().suite().builtIn()) {
            throw Problem.conflict("built-in-suite", "\"" + test.name() + "\" is built in and cannot be retired.");
        }
        if (retired != (test.retiredAt() != null)) {
            test.retire(retired ? clock.instant() : null);
            changes.note(
                    person,
                    "suite version",
                    test.suiteVersion().id(),
                    "retired",
                    retired ? null : test.name(),
                    retired ? test.name() : null);
        }
    }

    /** Says it of every test of a suite version. */
    @Transactional
    void stateAll(long versionId, @Nullable Double percent, @Nullable String source, String person) {
        if (!versions.existsById(versionId)) {
            throw Problem.notFound("suite version", versionId);
        }
        tests.findBySuiteVersionIdOrderByPosition(versionId).forEach(test -> state(test, percent, source, person));
    }

    /** Says how repeatable a test is, or takes that back: it lends noise where nothing better is known. */
    @Transactional
    void state(long testId, @Nullable Double percent, @Nullable String source, String person) {
        state(tests.findById(testId).orElseThrow(() -> Problem.notFound("test", testId)), percent, source, person);
    }

    private void state(TestDefinition test, @Nullable Double percent, @Nullable String source, String person) {
        String from = source == null ? "" : source.strip();
        if (percent != null) {
            try {
                new UsualSpread(percent);
            } catch (IllegalArgumentException e) {
                throw Problem.invalid(
                        "not-a-repeatability", "A repeatability is 0.0001 to 1000 %, not " + percent + " %.");
            }
            if (from.isEmpty()) {
                throw Problem.invalid(
                        "no-source",
                        "Say where the repeatability comes from: who measured it, or which page states it.");
            }
        }
        String before = words(test.repeatability(), test.repeatabilitySource());
        test.state(percent, percent == null ? null : from);
        changes.note(
                person,
                "suite version",
                test.suiteVersion().id(),
                "repeatability of " + test.name(),
                before,
                words(test.repeatability(), test.repeatabilitySource()));
    }

    private static @Nullable String words(@Nullable Double percent, @Nullable String source) {
        return percent == null ? null : percent + " % (" + source + ")";
    }

    /** Says from where on a value is good, and from where on poor; without both, thirds say it again. */
    @Transactional
    void limit(long metricId, @Nullable Double good, @Nullable Double poor, String person) {
        Metric metric = entities.find(Metric.class, metricId);
        if (metric == null) {
            throw Problem.notFound("metric", metricId);
        }
        if ((good == null) != (poor == null)) {
            throw Problem.invalid("one-limit", "Both limits are needed: from where on good, and from where on poor.");
        }
        RatingLimits before = metric.limits();
        RatingLimits now = good == null || poor == null ? null : limits(metric, good, poor);
        metric.limit(now);
        changes.note(
                person,
                "suite version",
                metric.test().suiteVersion().id(),
                "limits of " + metric.name(),
                words(before, metric.unit()),
                words(now, metric.unit()));
    }

    private static RatingLimits limits(Metric metric, double good, double poor) {
        if (metric.kind() == Kind.CHECK || metric.kind() == Kind.CHOICE) {
            throw Problem.invalid("no-limits", metric.name() + " has no number that a limit could be set on.");
        }
        try {
            return new RatingLimits(metric.direction(), good, poor);
        } catch (IllegalArgumentException e) {
            throw Problem.invalid("not-limits", "The limits of " + metric.name() + ": " + Problem.words(e) + ".");
        }
    }

    private static @Nullable String words(@Nullable RatingLimits limits, String unit) {
        return limits == null ? null : "good from " + limits.good() + ", poor from " + limits.poor() + " " + unit;
    }

    static Formula parsed(String text) {
        try {
            return Formula.parse(text);
        } catch (IllegalArgumentException e) {
            throw Problem.invalid("not-a-formula", Problem.words(e));
        }
    }

    private SuiteVersion version(long id) {
        return versions.findById(id).orElseThrow(() -> Problem.notFound("suite version", id));
    }

    private ComparabilityGroup group(long versionId) {
        return groups.findBySuiteVersionId(versionId).orElseThrow(() -> Problem.notFound("suite version", versionId));
    }

    static String named(SuiteVersion v) {
        return v.suite().name() + " " + v.version();
    }
}
