package yarrowmark.server.catalog;

import static yarrowmark.server.platform.Require.require;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import yarrowmark.core.curve.SeriesNumber;
import yarrowmark.core.entry.TestLines;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Kind;
import yarrowmark.core.measure.Scale;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.history.ChangeLog;
import yarrowmark.server.platform.records.Chain;

/** The catalogue of suites, tests and metrics. */
@Service
public class Catalog {
    private final SuiteRepository suites;
    private final SuiteVersionRepository versions;
    private final ComparabilityGroupRepository comparability;
    private final TestDefinitionRepository tests;
    private final CatalogCache known;
    private final ChangeLog changes;

    Catalog(
            SuiteRepository suites,
            SuiteVersionRepository versions,
            ComparabilityGroupRepository comparability,
            TestDefinitionRepository tests,
            CatalogCache known,
            ChangeLog changes) {
        this.known = known;
        this.suites = suites;
        this.versions = versions;
        this.comparability = comparability;
        this.tests = tests;
        this.changes = changes;
    }

    /** @param main whether it takes part in overall rankings */
    public record NewMetric(
            String key, String name, String unit, Direction direction, Scale scale, boolean main, More more) {
        public NewMetric(String key, String name, String unit, Direction direction, Scale scale, boolean main) {
            this(key, name, unit, direction, scale, main, More.of(TestLines.kind(unit)));
        }
    }

    /** What only some metrics have; see {@link MetricRow}. */
    public record More(
            Kind kind,
            List<String> choices,
            @Nullable String xUnit,
            boolean capped,
            @Nullable SeriesNumber series,
            @Nullable String formula,
            Map<String, Long> inputs,
            Map<String, String> facts) {
        public More(
                Kind kind,
                List<String> choices,
                @Nullable String xUnit,
                boolean capped,
                @Nullable SeriesNumber series,
                @Nullable String formula,
                Map<String, Long> inputs) {
            this(kind, choices, xUnit, capped, series, formula, inputs, Map.of());
        }

        public static More of(Kind kind) {
            return new More(kind, List.of(), null, false, null, null, Map.of());
        }
    }

    /** @param command that the runner carries out; null for every other test */
    public record NewTest(
            String key,
            String name,
            String summary,
            TestGroup group,
            List<NewMetric> metrics,
            @Nullable TimedCommand command) {
        public NewTest(String key, String name, String summary, TestGroup group, List<NewMetric> metrics) {
            this(key, name, summary, group, metrics, null);
        }
    }

    /** Makes a suite version with its tests and its own comparability group, unless it is there. Returns the test ids in order. */
    @Transactional
    public List<Long> ensure(String suite, String version, List<NewTest> newTests) {
        var known = versions.findBySuiteNameAndVersionAndMode(suite, version, "");
        if (known.isPresent()) {
            return tests.findBySuiteVersionIdOrderByPosition(known.get().id()).stream()
                    .map(TestDefinition::id)
                    .toList();
        }
        return make(suite, version, "", false, newTests);
    }

    /**
     * Makes what is missing of a built-in suite version.
     *
     * @return all tests of the version by key
     */
    @Transactional
    Map<String, TestRow> ensureBuiltIn(String suite, String version, String mode, List<NewTest> newTests) {
        // A suite of the reviewer's own may have had the name before there was a built-in one.
        suites.findByName(suite).filter(s -> !s.builtIn()).ifPresent(own -> {
            String name = suite + ", own";
            for (int i = 2; suites.findByName(name).isPresent(); i++) {
                name = suite + ", own " + i;
            }
            own.rename(name);
            suites.flush();
            changes.note(
                    "yarrowmark",
                    "suite",
                    own.id(),
                    "name",
                    suite,
                    name,
                    "There is a built-in suite of this name now.");
        });
        SuiteVersion made = versions.findBySuiteNameAndVersionAndMode(suite, version, mode)
                .orElseGet(() -> {
                    make(suite, version, mode, true, List.of());
                    return versions.findBySuiteNameAndVersionAndMode(suite, version, mode)
                            .orElseThrow();
                });
        List<TestDefinition> there = tests.findBySuiteVersionIdOrderByPosition(made.id());
        Set<String> known = there.stream().map(TestDefinition::key).collect(Collectors.toSet());
        int position = there.stream().mapToInt(TestDefinition::position).max().orElse(-1);
        ComparabilityGroup group = comparability.findBySuiteVersionId(made.id()).orElseThrow();
        for (NewTest test : newTests) {
            if (!known.contains(test.key())) {
                tests.save(new TestDefinition(made, group, test, ++position));
            }
        }
        tests.flush();
        return tests.findBySuiteVersionIdOrderByPosition(made.id()).stream()
                .collect(Collectors.toMap(TestDefinition::key, TestRow::of));
    }

    private List<Long> make(String suite, String version, String mode, boolean builtIn, List<NewTest> newTests) {
        Suite owner = suites.findByName(suite).orElseGet(() -> suites.save(new Suite(suite, builtIn)));
        SuiteVersion made = versions.save(new SuiteVersion(owner, version, mode));
        VersionsInOrder.place(made, versions.findOfSuite(owner.id()));
        ComparabilityGroup group = comparability.save(new ComparabilityGroup(made));
        List<Long> ids = new ArrayList<>();
        for (NewTest test : newTests) {
            ids.add(tests.save(new TestDefinition(made, group, test, ids.size()))
                    .id());
        }
        return ids;
    }

    /** A version of a suite of the reviewer's own. Each version and mode has a comparability group of its own at first. */
    @Transactional
    public List<Long> makeOwn(String suite, String version, String mode, List<NewTest> newTests, String person) {
        suites.findByName(suite).filter(Suite::builtIn).ifPresent(s -> {
            throw Problem.conflict(
                    "built-in-suite", "\"" + suite + "\" is built in and cannot be changed. Choose another name.");
        });
        if (versions.findBySuiteNameAndVersionAndMode(suite, version, mode).isPresent()) {
            throw Problem.conflict(
                    "version-exists",
                    suite + " " + version + (mode.isEmpty() ? "" : ", " + mode) + " is in the catalogue already.");
        }
        List<Long> ids = make(suite, version, mode, false, newTests);
        changes.note(
                person,
                "suite",
                ids.get(0),
                ChangeLog.MADE,
                null,
                suite + " " + version + (mode.isEmpty() ? "" : ", " + mode));
        return ids;
    }

    /** Further tests of a version of the reviewer's own, behind those that it has, in its comparability group. */
    @Transactional
    public List<Long> addTests(String suite, String version, String mode, List<NewTest> newTests, String person) {
        SuiteVersion there = versions.findBySuiteNameAndVersionAndMode(suite, version, mode)
                .orElseThrow(() -> Problem.notFound("suite version", suite + " " + version));
        List<TestDefinition> before = tests.findBySuiteVersionIdOrderByPosition(there.id());
        if (there.suite().builtIn() || before.isEmpty()) {
            throw Problem.conflict("built-in-suite", "\"" + suite + "\" is built in and cannot be changed.");
        }
        List<Long> ids = new ArrayList<>();
        for (NewTest test : newTests) {
            ids.add(tests.save(new TestDefinition(
                            there, before.get(0).comparabilityGroup(), test, before.size() + ids.size()))
                    .id());
            changes.note(person, "suite", before.get(0).id(), "test added", null, test.name());
        }
        return ids;
    }

    /**
     * Which of these metrics are one and the same for a comparison: those of the same test name, unit and direction in
     * joined groups.
     *
     * @return for each metric the id of the oldest of them, itself where there is no other
     */
    @Transactional(readOnly = true)
    public Map<Long, Long> comparable(Collection<MetricRow> metrics) {
        Map<Long, Long> joined = readsOnly() ? known.now().joins() : CatalogCache.pairs(comparability.findJoins());
        if (joined.isEmpty()) {
            return metrics.stream().collect(Collectors.toMap(MetricRow::id, MetricRow::id));
        }
        Map<Long, Long> groupOfTest = readsOnly() ? known.now().groupOf() : CatalogCache.pairs(tests.findGroups());
        Map<Long, List<Object>> comparedBy = new HashMap<>();
        Map<List<Object>, Long> oldest = new HashMap<>();
        for (MetricRow m : metrics) {
            long group = Chain.endOf(joined, require(groupOfTest, m.testId()));
            List<Object> key = List.of(
                    group,
                    m.test().toLowerCase(Locale.ROOT),
                    m.series() == null ? "" : m.series(),
                    m.unit(),
                    m.direction(),
                    m.scale());
            comparedBy.put(m.id(), key);
            oldest.merge(key, m.id(), Math::min);
        }
        return metrics.stream().collect(Collectors.toMap(MetricRow::id, m -> oldest.get(comparedBy.get(m.id()))));
    }

    /** What is not committed yet is seen by whoever may write it; nobody else has to read it each time. */
    private static boolean readsOnly() {
        return TransactionSynchronizationManager.isCurrentTransactionReadOnly();
    }

    /** Every test, by group, suite and position. */
    @Transactional(readOnly = true)
    public List<TestRow> tests() {
        return readsOnly() ? known.now().tests() : CatalogCache.inOrder(tests);
    }

    @Transactional(readOnly = true)
    public List<TestRow> tests(Collection<Long> ids) {
        return readsOnly()
                ? ids.stream()
                        .distinct()
                        .map(known.now().byId()::get)
                        .filter(Objects::nonNull)
                        .toList()
                : tests.findByIdIn(ids).stream().map(TestRow::of).toList();
    }

    /** Metrics that are computed from others, each after those it is computed from. */
    @Transactional(readOnly = true)
    public List<MetricRow> computed() {
        if (readsOnly()) {
            return known.now().computed();
        }
        List<Long> ids = tests.findComputed();
        return ids.isEmpty()
                ? List.of()
                : CatalogCache.metrics(tests(ids)).stream()
                        .sorted(Comparator.comparingLong(MetricRow::id))
                        .toList();
    }

    /** Every metric, in the order of its test. */
    @Transactional(readOnly = true)
    public List<MetricRow> metrics() {
        return readsOnly() ? known.now().metrics() : CatalogCache.metrics(tests());
    }

    /** Every metric of tests that were not retired. */
    @Transactional(readOnly = true)
    public List<MetricRow> metricsInUse() {
        return readsOnly()
                ? known.now().inUse()
                : CatalogCache.metrics(
                        tests().stream().filter(t -> !t.retired()).toList());
    }

    /** Suite versions that a newer one of the same suite and mode has taken the place of. */
    @Transactional(readOnly = true)
    public Set<Long> outdatedVersions() {
        return readsOnly() ? known.now().outdated() : CatalogCache.outdated(versions.findAllInOrder());
    }
}
