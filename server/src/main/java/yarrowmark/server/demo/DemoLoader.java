package yarrowmark.server.demo;

import static yarrowmark.server.platform.Require.require;

import jakarta.persistence.EntityManager;
import java.math.BigDecimal;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.access.DemoSignIn;
import yarrowmark.server.access.People;
import yarrowmark.server.catalog.BuiltInSuites;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.Purposes;
import yarrowmark.server.catalog.TestGroup;
import yarrowmark.server.catalog.TestRow;
import yarrowmark.server.ledger.record.Ledger;
import yarrowmark.server.ledger.record.NewReading;
import yarrowmark.server.ledger.record.NewRun;
import yarrowmark.server.ledger.record.NewSession;
import yarrowmark.server.ledger.record.Reason;
import yarrowmark.server.ledger.record.RunState;
import yarrowmark.server.ledger.record.SessionState;
import yarrowmark.server.platform.StartupTask;
import yarrowmark.server.platform.records.Settings;
import yarrowmark.server.shelf.Checklists;
import yarrowmark.server.shelf.Claims;
import yarrowmark.server.shelf.Configurations;
import yarrowmark.server.shelf.GivenFact;
import yarrowmark.server.shelf.Shelf;

/** Fills an empty demo shelf once, all or nothing: the same seed, the same shelf. */
@Component
@ConditionalOnProperty("yarrowmark.demo")
class DemoLoader implements StartupTask {
    private static final Logger LOG = LoggerFactory.getLogger(DemoLoader.class);
    private static final String LOADED = "demo.loaded";
    private static final long SEED = 20_260_401;
    private static final LocalDate FIRST_DAY = LocalDate.of(2026, 4, 1);

    private final People people;
    private final Shelf shelf;
    private final Claims claims;
    private final Clock clock;
    private final Checklists checklists;
    private final Configurations configurations;
    private final Catalog catalog;
    private final Purposes purposes;
    private final BuiltInSuites builtIn;
    private final Ledger ledger;
    private final DemoPlans plans;
    private final DemoWriteUps writeUps;
    private final DemoTrends trends;
    private final DemoRounds rounds;
    private final Settings settings;
    private final EntityManager entities;

    DemoLoader(
            People people,
            Shelf shelf,
            Claims claims,
            Clock clock,
            Checklists checklists,
            Configurations configurations,
            Catalog catalog,
            Purposes purposes,
            BuiltInSuites builtIn,
            Ledger ledger,
            DemoPlans plans,
            DemoWriteUps writeUps,
            DemoTrends trends,
            DemoRounds rounds,
            Settings settings,
            EntityManager entities) {
        this.plans = plans;
        this.writeUps = writeUps;
        this.trends = trends;
        this.rounds = rounds;
        this.people = people;
        this.shelf = shelf;
        this.claims = claims;
        this.clock = clock;
        this.checklists = checklists;
        this.configurations = configurations;
        this.catalog = catalog;
        this.purposes = purposes;
        this.builtIn = builtIn;
        this.ledger = ledger;
        this.settings = settings;
        this.entities = entities;
    }

    /** Outside tests by their suite, from when it is met first. */
    private final Map<String, List<Long>> outside = new HashMap<>();

    private static final double CHANGED_LIKING = 0.15;
    /** Every so many configurations were measured on a second day. */
    private static final int SECOND_DAYS = 6;
    /** How much a day moves the logarithm of everything a device does. */
    private static final double DAY_NOISE = 0.004;

    /** A test with how it behaves, and the id it was stored under. */
    private record Playable(long testId, String metric, DemoTests.Behaviour behaviour, boolean less, boolean own) {}

    @Override
    public int getPhase() {
        return 30;
    }

    @Override
    @Transactional
    public void start() {
        if (settings.get(LOADED).isPresent()) {
            return;
        }
        LOG.info("Loading the demo shelf");
        people.makeOwner(DemoSignIn.NAME, DemoSignIn.PASSWORD, "Saltmarsh Kit Review");
        purposes.ensure(
                "field survey work",
                Map.of(
                        TestGroup.PROCESSOR,
                        2.0,
                        TestGroup.GRAPHICS,
                        1.0,
                        TestGroup.STORAGE,
                        1.0,
                        TestGroup.BROWSER,
                        2.0,
                        TestGroup.BODY,
                        2.0));
        Random random = new Random(SEED);
        int number = 0;
        List<Runnable> again = new ArrayList<>();
        for (DemoDevices.Device device : DemoDevices.all()) {
            long model = shelf.make(
                    new Shelf.ModelFacts(
                            device.maker(),
                            device.model(),
                            device.deviceClass(),
                            BigDecimal.valueOf(device.price()),
                            "EUR",
                            LocalDate.parse(device.released())),
                    DemoSignIn.NAME);
            long unit = shelf.firstUnit(model, DemoSignIn.NAME);
            describe(device, model, unit);
            for (DemoDevices.Setup setup : device.setups()) {
                List<GivenFact> facts = DemoTrends.given(setup.facts());
                long configuration = configurations.configure(unit, facts, setup.name(), DemoSignIn.NAME);
                if (setup != device.setups().get(0)) {
                    configurations.test(configuration, underTest(device.setups().get(0), setup), DemoSignIn.NAME);
                }
                int at = number++;
                double[] own = sitting(configuration, device, setup, at, day(at), random, null);
                if (at % SECOND_DAYS == 0) {
                    again.add(() -> sitting(
                            configuration,
                            device,
                            setup,
                            at,
                            day(at).plus(Duration.ofDays(3)),
                            new Random(SEED + at),
                            own));
                }
            }
        }
        // After everything else, so that all the rest is what it is without them.
        again.forEach(Runnable::run);
        trends.add(device("Cob mini"), played("Cob mini"), device("Fell"), played("Fell"));
        entities.flush();
        entities.clear();
        lines();
        plans.add();
        writeUps.add();
        settings.put(LOADED, "1");
        LOG.info("The demo shelf has {} configurations", number);
    }

    private static DemoDevices.Device device(String model) {
        return DemoDevices.all().stream()
                .filter(d -> d.model().equals(model))
                .findFirst()
                .orElseThrow();
    }

    private List<DemoTrends.Played> played(String model) {
        Map<Long, String> names = catalog.tests().stream().collect(Collectors.toMap(TestRow::id, TestRow::name));
        return tests(device(model)).stream()
                .map(t -> new DemoTrends.Played(
                        t.testId(), t.metric(), require(names, t.testId()), t.behaviour(), t.less()))
                .toList();
    }

    /** A new firmware is what a lab sets out to test; whatever came with it is what also changed. */
    private static Set<String> underTest(DemoDevices.Setup before, DemoDevices.Setup after) {
        Set<String> changed = after.facts().keySet().stream()
                .filter(key ->
                        !require(after.facts(), key).equals(before.facts().get(key)))
                .collect(Collectors.toSet());
        return changed.contains("firmware.version") ? Set.of("firmware.version") : changed;
    }

    /** Which models follow which, and how far their reviews are. */
    private void lines() {
        for (DemoDevices.Device device : DemoDevices.all()) {
            long model = shelf.findModel(device.maker(), device.model()).orElseThrow();
            Map.of("predecessor", DemoNotes.FOLLOWS, "review", DemoNotes.REVIEWS, "weight", DemoNotes.WEIGHTS)
                    .forEach((field, of) -> {
                        if (of.containsKey(device.model())) {
                            shelf.changeModel(model, field, null, of.get(device.model()), DemoSignIn.NAME);
                        }
                    });
        }
    }

    /** What the lab noted about a model and its unit, where it noted anything. */
    private void describe(DemoDevices.Device device, long model, long unit) {
        DemoNotes.Note note = DemoNotes.of(device.model());
        note.fields().forEach((field, text) -> shelf.changeModel(model, field, null, text, DemoSignIn.NAME));
        note.unit().forEach((field, text) -> shelf.changeUnit(unit, field, null, text, DemoSignIn.NAME));
        note.daysLeft()
                .ifPresent(days -> shelf.changeUnit(
                        unit,
                        "dueBack",
                        null,
                        LocalDate.now(clock).plusDays(days).toString(),
                        DemoSignIn.NAME));
        // The tests a claim may be about exist from the first device that runs them.
        tests(device);
        for (DemoNotes.Promise promise : note.claims()) {
            Long metric = promise.test() == null
                    ? null
                    : catalog.metrics().stream()
                            .filter(m -> m.test().equals(promise.test()))
                            .findFirst()
                            .map(MetricRow::id)
                            .orElseThrow();
            claims.add(model, promise.factKey(), metric, promise.text(), promise.source(), DemoSignIn.NAME);
        }
    }

    private static Instant day(int number) {
        return FIRST_DAY.plusDays(number * 7L).atTime(9, 10).toInstant(ZoneOffset.UTC);
    }

    /**
     * @param before how good it was at each test on the day before; null on the first day
     * @return how good it is at each test
     */
    private double[] sitting(
            long configuration,
            DemoDevices.Device device,
            DemoDevices.Setup setup,
            int number,
            Instant start,
            Random random,
            double @Nullable [] before) {
        double moved = before == null ? 0 : DAY_NOISE * random.nextGaussian();
        boolean mains = "mains".equals(setup.facts().get("power.source"));
        long session = ledger.open(new NewSession(
                configuration,
                "Field round",
                3,
                3_000,
                mains,
                mains ? null : 0.83,
                start,
                checklists.items(device.deviceClass()).stream()
                        .map(text -> new Ledger.Check(text, number != 3 || !text.contains("records")))
                        .toList(),
                DemoSignIn.NAME));
        Instant now = start;
        List<Playable> tests = tests(device);
        List<NewRun> all = new ArrayList<>();
        List<Integer> aside = new ArrayList<>();
        // What a device likes more than others stays mostly the same in all its configurations.
        Random liking = new Random(SEED ^ device.model().hashCode());
        double[] owns = new double[tests.size()];
        for (int t = 0; t < tests.size(); t++) {
            Playable test = tests.get(t);
            int runs = 3 + (random.nextInt(6) == 0 ? 2 : 0);
            double speed = test.behaviour().speed().applyAsDouble(setup.speed());
            double own = before == null
                    ? Math.exp(
                            test.behaviour().taste() * (liking.nextGaussian() + CHANGED_LIKING * random.nextGaussian()))
                    : before[t] * Math.exp(moved + DAY_NOISE / 2 * random.nextGaussian());
            owns[t] = own;
            for (int run = 1; run <= runs; run++) {
                now = now.plusSeconds(40 + random.nextInt(30));
                double noise = Math.exp(test.behaviour().noise() * random.nextGaussian());
                if (random.nextInt(90) == 0) {
                    all.add(failed(test, run, now, random));
                    continue;
                }
                double merit = speed * own * noise;
                double value = rounded(
                        test.less()
                                ? test.behaviour().level() / merit
                                : test.behaviour().level() * merit,
                        test.behaviour().resolution());
                // Two readings that a reviewer would not count: something else was running.
                boolean disturbed = before == null && run == 2 && (number == 3 && t == 1 || number == 12 && t == 3);
                if (disturbed) {
                    aside.add(all.size());
                }
                all.add(new NewRun(
                        test.testId(),
                        run,
                        1,
                        RunState.OK,
                        null,
                        null,
                        6_000 + random.nextInt(900),
                        now,
                        List.of(new NewReading(
                                test.metric(),
                                disturbed ? value * 0.71 : value,
                                test.behaviour().resolution(),
                                test.own()
                                        ? samples(disturbed ? value * 0.71 : value, test.behaviour(), random)
                                        : List.of()))));
            }
        }
        List<Long> stored = ledger.recordAll(session, all);
        for (int at : aside) {
            ledger.setAside(
                    ledger.readingOf(stored.get(at)),
                    number == 3 ? "The screen was being recorded" : "An update was downloading",
                    DemoSignIn.NAME);
        }
        // A long list of stored things would be looked through again with every question.
        entities.flush();
        entities.clear();
        if (before == null && DemoRounds.DEVICES.contains(device.model())) {
            now = rounds.add(device, configuration, session, now);
        }
        ledger.end(session, SessionState.DONE, now);
        return owns;
    }

    /** The built-in tests and the outside ones this class of device can run. */
    private List<Playable> tests(DemoDevices.Device device) {
        List<Playable> tests = new ArrayList<>();
        List<Long> own = builtIn.firstRound();
        for (int i = 0; i < own.size(); i++) {
            tests.add(new Playable(own.get(i), BuiltInSuites.RATE, DemoTests.BUILT_IN.get(i), false, true));
        }
        for (DemoTests.Suite suite : DemoTests.outside()) {
            List<Long> ids =
                    outside.computeIfAbsent(suite.name(), name -> catalog.ensure(name, suite.version(), suite.tests()));
            if (!suite.without().contains(device.deviceClass())) {
                for (int i = 0; i < ids.size(); i++) {
                    Catalog.NewMetric metric = suite.tests().get(i).metrics().get(0);
                    tests.add(new Playable(
                            ids.get(i),
                            metric.key(),
                            suite.behaviours().get(i),
                            metric.direction().sign() < 0,
                            false));
                }
            }
        }
        return tests;
    }

    private static NewRun failed(Playable test, int run, Instant now, Random random) {
        return random.nextBoolean()
                ? new NewRun(
                        test.testId(),
                        run,
                        1,
                        RunState.FAILED,
                        Reason.ERROR,
                        "The test closed before it showed a score",
                        2_100,
                        now,
                        List.of())
                : new NewRun(
                        test.testId(),
                        run,
                        1,
                        RunState.STOPPED,
                        Reason.HIDDEN,
                        "The screen slept at 0:41",
                        4_100,
                        now,
                        List.of());
    }

    private static List<Double> samples(double value, DemoTests.Behaviour behaviour, Random random) {
        List<Double> samples = new ArrayList<>();
        for (int i = 0; i < 11; i++) {
            samples.add(value * Math.exp(behaviour.noise() * random.nextGaussian()));
        }
        return samples;
    }

    private static double rounded(double value, double step) {
        return Math.max(
                step,
                BigDecimal.valueOf(Math.round(value / step))
                        .multiply(BigDecimal.valueOf(step))
                        .doubleValue());
    }
}
