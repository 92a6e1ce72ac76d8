package yarrowmark.server.demo;

import jakarta.persistence.EntityManager;
import java.math.BigDecimal;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.jspecify.annotations.Nullable;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.stereotype.Component;
import yarrowmark.server.access.DemoSignIn;
import yarrowmark.server.catalog.BuiltInSuites;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.ledger.record.Ledger;
import yarrowmark.server.ledger.record.NewReading;
import yarrowmark.server.ledger.record.NewRun;
import yarrowmark.server.ledger.record.NewSession;
import yarrowmark.server.ledger.record.ReadingCorrections;
import yarrowmark.server.ledger.record.Reason;
import yarrowmark.server.ledger.record.RunState;
import yarrowmark.server.ledger.record.SessionLifecycle;
import yarrowmark.server.ledger.record.SessionState;
import yarrowmark.server.shelf.Checklists;

/** A device's round on one day, as the demo makes it up. */
@Component
@ConditionalOnProperty("yarrowmark.demo")
class DemoSittings {
    private final Checklists checklists;
    private final Catalog catalog;
    private final BuiltInSuites builtIn;
    private final Ledger ledger;
    private final SessionLifecycle lifecycle;
    private final ReadingCorrections corrections;
    private final DemoRounds rounds;
    private final EntityManager entities;

    DemoSittings(
            Checklists checklists,
            Catalog catalog,
            BuiltInSuites builtIn,
            Ledger ledger,
            SessionLifecycle lifecycle,
            ReadingCorrections corrections,
            DemoRounds rounds,
            EntityManager entities) {
        this.checklists = checklists;
        this.catalog = catalog;
        this.builtIn = builtIn;
        this.ledger = ledger;
        this.lifecycle = lifecycle;
        this.corrections = corrections;
        this.rounds = rounds;
        this.entities = entities;
    }

    /** Outside tests by their suite, from when it is met first. */
    private final Map<String, List<Long>> outside = new HashMap<>();

    private static final double CHANGED_LIKING = 0.15;

    /** How much a day moves the logarithm of everything a device does. */
    private static final double DAY_NOISE = 0.004;

    /** A test with how it behaves, and the id it was stored under. */
    record Playable(long testId, String metric, DemoTests.Behaviour behaviour, boolean less, boolean own) {}

    /**
     * @param before how good it was at each test on the day before; null on the first day
     * @return how good it is at each test
     */
    double[] sitting(
            long configuration,
            DemoDevices.Device device,
            DemoDevices.Setup setup,
            int number,
            Instant start,
            Random random,
            double @Nullable [] before) {
        double moved = before == null ? 0 : DAY_NOISE * random.nextGaussian();
        boolean mains = "mains".equals(setup.facts().get("power.source"));
        long session = lifecycle.open(new NewSession(
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
        Random liking = new Random(DemoLoader.SEED ^ device.model().hashCode());
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
            corrections.setAside(
                    corrections.readingOf(stored.get(at)),
                    number == 3 ? "The screen was being recorded" : "An update was downloading",
                    DemoSignIn.NAME);
        }
        // A long list of stored things would be looked through again with every question.
        entities.flush();
        entities.clear();
        if (before == null && DemoRounds.DEVICES.contains(device.model())) {
            now = rounds.add(device, configuration, session, now);
        }
        lifecycle.end(session, SessionState.DONE, now);
        return owns;
    }

    /** The built-in tests and the outside ones this class of device can run. */
    List<Playable> tests(DemoDevices.Device device) {
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
