package yarrowmark.server.catalog;

import static yarrowmark.server.platform.Require.require;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;
import yarrowmark.core.calibration.Calibration;
import yarrowmark.core.entry.TestLines;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Kind;
import yarrowmark.core.measure.Scale;
import yarrowmark.server.platform.StartupTask;

/**
 * The suites that Yarrowmark brings along, from web/src/workloads/suites.json, which the device page's workloads go by
 * too, and from the runner's native-suites.json; docs/method.md says what each test does. A change of the work inside one is a new version there, and so a new
 * comparability group.
 */
@Component
public class BuiltInSuites implements StartupTask {
    /** The key of a test's main metric, unless it has many points. */
    public static final String RATE = "rate";
    /** A first look at any device: five tests of two suites. */
    private static final List<String> FIRST_ROUND =
            List.of("weir-hash-one", "weir-hash-all", "map-tile-crush", "species-list", "transect-sketch");

    /** Keys of tests that the runner carries out begin with it; a page in a browser cannot. */
    static final String RUNNER = "native-";

    private static final String TOTAL = "total";
    private static final String COMPUTED = "computed";
    private static final String CALIBRATED = "calibrated";
    private static final int CALIBRATION = 1;

    /** @param main whether its tests take part in overall rankings; null: they do. @param total whether it has one. @param byChoice whether it takes so long that only a plan of one's own has it */
    record SuiteEntry(
            String name,
            String version,
            @Nullable String mode,
            TestGroup group,
            @Nullable Boolean main,
            @Nullable Boolean total,
            @Nullable Boolean byChoice,
            List<TestEntry> tests,
            @Nullable List<ComputedEntry> computed) {}

    /** @param aside whether it takes no part in the total and in overall rankings, because it says what limits the device rather than how fast it is */
    record TestEntry(String key, String name, String summary, @Nullable Boolean aside, List<MetricEntry> metrics) {
        boolean counts() {
            return !Boolean.TRUE.equals(aside);
        }
    }

    /** @param words behind the test's name, where it is not the test's main metric. @param kind null: by the unit. @param main null: the first one of a test is its main metric. @param bare whether a curve's peak says nothing, so that it is only kept and shown */
    record MetricEntry(
            String key,
            @Nullable String words,
            String unit,
            @Nullable Direction direction,
            @Nullable Kind kind,
            @Nullable String xUnit,
            @Nullable List<String> choices,
            @Nullable Boolean main,
            @Nullable Boolean bare) {}

    /**
     * @param formula where it says "calibrated", the total of the inputs by the calibration table is meant
     * @param inputs  by the formula's names: test and metric with a dot between
     * @param facts   by the formula's names: what it needs to know of the configuration
     */
    record ComputedEntry(
            String key,
            String name,
            String summary,
            String unit,
            String formula,
            Map<String, String> inputs,
            @Nullable Map<String, String> facts) {}

    record SuitesFile(List<SuiteEntry> suites) {}

    private final Catalog catalog;
    private final Purposes purposes;
    private final List<SuiteEntry> suites;

    BuiltInSuites(Catalog catalog, Purposes purposes, JsonMapper json) {
        this.catalog = catalog;
        this.purposes = purposes;
        this.suites = Stream.of("suites.json", "native-suites.json")
                .flatMap(name -> read(name, json).stream())
                .toList();
    }

    private static List<SuiteEntry> read(String name, JsonMapper json) {
        try (InputStream in = Objects.requireNonNull(
                BuiltInSuites.class.getResourceAsStream("/yarrowmark/workloads/" + name),
                "the server was built without " + name)) {
            return json.readValue(in, SuitesFile.class).suites();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** The tests of the first round, in the order they run. */
    @Transactional(readOnly = true)
    public List<Long> firstRound() {
        Map<String, Long> ids = current();
        return FIRST_ROUND.stream().map(ids::get).toList();
    }

    /** Every test that a device carries out by itself, in the order of the suites; without what only a plan of one's own has. */
    @Transactional(readOnly = true)
    public List<Long> everything() {
        return List.copyOf(current().values());
    }

    /** By key, in the order of the suites: the versions of now alone, as old ones stay in the catalogue with the same keys. */
    private Map<String, Long> current() {
        Map<String, Long> ids = new HashMap<>();
        Set<String> versions =
                suites.stream().map(s -> s.name() + " " + s.version()).collect(Collectors.toSet());
        catalog.tests().stream()
                .filter(t -> t.builtIn() && !t.retired() && versions.contains(t.suite() + " " + t.number()))
                .forEach(t -> ids.put(t.key(), t.id()));
        Map<String, Long> ordered = new LinkedHashMap<>();
        suites.stream()
                .filter(s -> !Boolean.TRUE.equals(s.byChoice()))
                .flatMap(s -> s.tests().stream())
                .filter(t -> ids.containsKey(t.key()))
                .forEach(t -> ordered.put(t.key(), ids.get(t.key())));
        return ordered;
    }

    @Override
    public int getPhase() {
        return 10;
    }

    @Override
    @Transactional
    public void start() {
        suites.forEach(this::ensure);
        purposes.ensure(Purposes.ALL_ROUND, Purposes.alike());
    }

    private void ensure(SuiteEntry suite) {
        boolean main = !Boolean.FALSE.equals(suite.main());
        List<Catalog.NewTest> tests = suite.tests().stream()
                .map(t -> new Catalog.NewTest(
                        t.key(), t.name(), t.summary(), suite.group(), metrics(t, main && t.counts())))
                .toList();
        String mode = suite.mode() == null ? "" : suite.mode();
        Map<String, TestRow> made = catalog.ensureBuiltIn(suite.name(), suite.version(), mode, tests);
        List<Catalog.NewTest> more = new ArrayList<>();
        for (ComputedEntry c : suite.computed() == null ? List.<ComputedEntry>of() : suite.computed()) {
            Map<String, Long> inputs = new LinkedHashMap<>();
            List<Calibration.Part> parts = new ArrayList<>();
            c.inputs().forEach((name, of) -> {
                String test = of.substring(0, of.indexOf('.'));
                MetricRow input = metric(made, test, of.substring(of.indexOf('.') + 1));
                inputs.put(name, input.id());
                parts.add(new Calibration.Part(test, name, input.direction()));
            });
            String formula = c.formula().contains(CALIBRATED)
                    ? c.formula()
                            .replace(CALIBRATED, Calibration.load(CALIBRATION).total(parts))
                    : c.formula();
            more.add(computed(
                    c.key(),
                    c.name(),
                    c.summary(),
                    suite.group(),
                    c.unit(),
                    formula,
                    inputs,
                    c.facts() == null ? Map.of() : c.facts()));
        }
        if (Boolean.TRUE.equals(suite.total())) {
            Map<String, Long> inputs = new LinkedHashMap<>();
            List<Calibration.Part> parts = new ArrayList<>();
            for (TestEntry t : suite.tests().stream().filter(TestEntry::counts).toList()) {
                MetricRow first = counted(t, require(made, t.key()));
                String input = "t" + (parts.size() + 1);
                inputs.put(input, first.id());
                parts.add(new Calibration.Part(t.key(), input, first.direction()));
            }
            more.add(computed(
                    TOTAL,
                    suite.name() + (mode.isEmpty() ? "" : " " + mode) + ", total",
                    "Geometric mean of the ratios to calibration table " + CALIBRATION
                            + ", times 1000. Only where every part was measured.",
                    suite.group(),
                    "points",
                    Calibration.load(CALIBRATION).total(parts),
                    inputs,
                    Map.of()));
        }
        catalog.ensureBuiltIn(suite.name(), suite.version(), mode, more);
    }

    private static MetricRow metric(Map<String, TestRow> tests, String test, String metric) {
        return require(tests, test).metrics().stream()
                .filter(m -> m.key().equals(metric))
                .findFirst()
                .orElseThrow(() -> new IllegalStateException("there is no " + test + "." + metric));
    }

    /** What is computed says in other words what was measured, so it takes no part in overall rankings. */
    private static Catalog.NewTest computed(
            String key,
            String name,
            String summary,
            TestGroup group,
            String unit,
            String formula,
            Map<String, Long> inputs,
            Map<String, String> facts) {
        return new Catalog.NewTest(
                key,
                name,
                summary,
                group,
                List.of(new Catalog.NewMetric(
                        COMPUTED,
                        name,
                        unit,
                        Direction.MORE_IS_BETTER,
                        Scale.RATIO,
                        false,
                        new Catalog.More(TestLines.kind(unit), List.of(), null, false, null, formula, inputs, facts))));
    }

    /** The metric that stands for the test in its suite's total. */
    private static MetricRow counted(TestEntry entry, TestRow test) {
        String key = entry.metrics().stream()
                .filter(m -> Boolean.TRUE.equals(m.main()))
                .findFirst()
                .map(MetricEntry::key)
                .orElse(test.metrics().get(0).key());
        return test.metrics().stream()
                .filter(m -> m.key().equals(key))
                .findFirst()
                .orElseThrow();
    }

    private static List<Catalog.NewMetric> metrics(TestEntry test, boolean main) {
        List<Catalog.NewMetric> metrics = new ArrayList<>();
        boolean named = test.metrics().stream().anyMatch(m -> m.main() != null);
        for (MetricEntry m : test.metrics()) {
            boolean first = named ? Boolean.TRUE.equals(m.main()) : metrics.isEmpty();
            Kind kind = m.kind() == null ? TestLines.kind(m.unit()) : m.kind();
            Direction direction = m.direction() == null ? Direction.MORE_IS_BETTER : m.direction();
            if (Boolean.TRUE.equals(m.bare())) {
                metrics.add(SeriesMetrics.bare(test.name() + ", " + m.key(), m.unit(), m.xUnit(), kind));
            } else if (kind.isSeries()) {
                metrics.addAll(SeriesMetrics.of(
                        test.name(), m.unit(), m.xUnit(), kind, direction, first && main, kind == Kind.FRAME_TIMES));
            } else {
                List<String> choices = m.choices() == null ? List.of() : m.choices();
                metrics.add(new Catalog.NewMetric(
                        m.key(),
                        test.name() + (m.words() == null ? "" : ", " + m.words()),
                        m.unit(),
                        direction,
                        choices.isEmpty() ? TestLines.scale(m.unit()) : Scale.DIFFERENCE,
                        first && main && choices.isEmpty(),
                        new Catalog.More(kind, choices, m.xUnit(), false, null, null, Map.of())));
            }
        }
        if (test.key().startsWith(RUNNER)) {
            metrics.addAll(SensorMetrics.of(test.name(), test.metrics().get(0).unit()));
        }
        return metrics;
    }
}
