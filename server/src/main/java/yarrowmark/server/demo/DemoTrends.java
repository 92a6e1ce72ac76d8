package yarrowmark.server.demo;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.function.ToDoubleFunction;
import org.springframework.stereotype.Component;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Kind;
import yarrowmark.core.measure.Scale;
import yarrowmark.server.access.DemoSignIn;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.TestGroup;
import yarrowmark.server.ledger.record.Ledger;
import yarrowmark.server.ledger.record.NewReading;
import yarrowmark.server.ledger.record.NewRun;
import yarrowmark.server.ledger.record.NewSession;
import yarrowmark.server.ledger.record.Reason;
import yarrowmark.server.ledger.record.RunState;
import yarrowmark.server.ledger.record.SessionLifecycle;
import yarrowmark.server.ledger.record.SessionState;
import yarrowmark.server.shelf.Shelf;
import yarrowmark.server.shelf.configuration.Configurations;
import yarrowmark.server.shelf.configuration.FactSource;
import yarrowmark.server.shelf.configuration.GivenFact;

/**
 * What the demo's lab measured again and again: a unit under seven kernels, of which one slows a test down and the next
 * undoes that, and one brings a real jump; another unit on a ladder of power limits; and a reference device on fourteen
 * days, one of them bad.
 */
@Component
class DemoTrends {
    /** A test that can be carried out here. @param name by which steps say what they do to it */
    record Played(long testId, String metric, String name, DemoTests.Behaviour behaviour, boolean less) {}

    private static final long SEED = 77_120_311L;
    private static final LocalDate KERNELS = LocalDate.of(2026, 9, 21);
    private static final LocalDate LADDER = LocalDate.of(2026, 10, 5);
    private static final LocalDate REFERENCE = LocalDate.of(2026, 10, 1);
    private static final double DAY_NOISE = 0.004;
    private static final int REFERENCE_DAYS = 14;
    private static final int BAD_DAY = 9;
    private static final int REFERENCE_TESTS = 5;

    private final Shelf shelf;
    private final Configurations configurations;
    private final Catalog catalog;
    private final Ledger ledger;
    private final SessionLifecycle lifecycle;

    DemoTrends(Shelf shelf, Configurations configurations, Catalog catalog, Ledger ledger, SessionLifecycle lifecycle) {
        this.shelf = shelf;
        this.configurations = configurations;
        this.catalog = catalog;
        this.ledger = ledger;
        this.lifecycle = lifecycle;
    }

    /**
     * @param cob  the model whose second unit is measured step by step, and how it began
     * @param fell the one that stands beside the bench as a reference
     */
    void add(DemoDevices.Device cob, List<Played> ofCob, DemoDevices.Device fell, List<Played> ofFell) {
        long unit = shelf.addUnit(
                shelf.findModel(cob.maker(), cob.model()).orElseThrow(), "Long-term unit", DemoSignIn.NAME);
        DemoDevices.Setup start = cob.setups().get(0);
        Random random = new Random(SEED);
        kernels(unit, start, ofCob, random);
        ladder(
                shelf.addUnit(shelf.findModel(cob.maker(), cob.model()).orElseThrow(), "Power unit", DemoSignIn.NAME),
                start,
                ofCob,
                random);
        reference(fell, ofFell, random);
    }

    private record Kernel(String version, Map<String, String> also, Map<String, Double> effect) {}

    private void kernels(long unit, DemoDevices.Setup start, List<Played> tests, Random random) {
        List<Kernel> kernels = List.of(
                new Kernel("5.19", Map.of(), Map.of()),
                new Kernel("6.1", Map.of(), Map.of()),
                new Kernel("6.2", Map.of(), Map.of("Report export", 0.93)),
                new Kernel("6.4", Map.of("driver.graphics", "24.2"), Map.of("Report export", 1 / 0.93)),
                new Kernel("6.6", Map.of(), Map.of()),
                new Kernel(
                        "6.8", Map.of(), Map.of("Lantern valley, 1080 off screen", 1.14, "Random write, 4 KiB", 1.06)),
                new Kernel("6.12", Map.of(), Map.of()));
        Map<String, String> facts = new TreeMap<>(start.facts());
        facts.put("driver.graphics", "24.1");
        Map<String, Double> level = new TreeMap<>();
        for (int i = 0; i < kernels.size(); i++) {
            Kernel kernel = kernels.get(i);
            facts.put("os.kernel", kernel.version());
            facts.putAll(kernel.also());
            kernel.effect().forEach((test, times) -> level.merge(test, times, (a, b) -> a * b));
            long configuration =
                    configurations.configure(unit, given(facts), "kernel " + kernel.version(), DemoSignIn.NAME);
            boolean first = i == 0;
            sitting(
                    configuration,
                    "Kernel round",
                    at(KERNELS, i),
                    tests,
                    start.speed(),
                    t -> level.getOrDefault(t.name(), 1.0) * day(random),
                    first ? "Heron flight" : "",
                    random);
        }
    }

    private static final double[] WATTS = {6, 9, 12, 18, 24, 35};
    private static final double[] SPEED = {0.58, 0.76, 0.88, 0.99, 1.04, 1.05};

    private void ladder(long unit, DemoDevices.Setup start, List<Played> tests, Random random) {
        long stays = catalog.ensure(
                        "Saltmarsh checks",
                        "1",
                        List.of(new Catalog.NewTest(
                                "stays-up",
                                "Ten loops without a stop",
                                "Full load ten times over; it must neither stop nor restart.",
                                TestGroup.BODY,
                                List.of(new Catalog.NewMetric(
                                        "value",
                                        "Ten loops without a stop",
                                        "",
                                        Direction.MORE_IS_BETTER,
                                        Scale.DIFFERENCE,
                                        false,
                                        Catalog.More.of(Kind.CHECK))))))
                .get(0);
        Map<String, String> facts = new TreeMap<>(start.facts());
        facts.put("driver.graphics", "24.2");
        for (int i = 0; i < WATTS.length; i++) {
            double watts = WATTS[i];
            double speed = SPEED[i];
            facts.put("power.sustained_limit", Double.toString(watts));
            long configuration = configurations.configure(
                    unit, given(facts), "power limit " + Math.round(watts) + " W", DemoSignIn.NAME);
            List<NewRun> more = new ArrayList<>();
            for (int run = 1; run <= 3; run++) {
                more.add(new NewRun(
                        stays,
                        run,
                        1,
                        RunState.OK,
                        null,
                        null,
                        0,
                        at(LADDER, i).plus(Duration.ofHours(2)),
                        List.of(new NewReading("value", watts > 30 && run == 2 ? 0 : 1, 0, List.of())),
                        DemoSignIn.NAME));
            }
            DemoDevices.Speed s = start.speed();
            sitting(
                    configuration,
                    "Power ladder",
                    at(LADDER, i),
                    tests,
                    s.times(speed, 0.7 + 0.3 * speed, watts / 28 * 1.25),
                    t -> day(random),
                    "",
                    random,
                    more);
        }
    }

    private void reference(DemoDevices.Device fell, List<Played> tests, Random random) {
        DemoDevices.Setup setup = fell.setups().get(0);
        long unit = shelf.firstUnit(shelf.findModel(fell.maker(), fell.model()).orElseThrow(), DemoSignIn.NAME);
        long configuration = configurations.find(unit, setup.facts()).orElseThrow();
        for (int day = 0; day < REFERENCE_DAYS; day++) {
            double moved = day(random) * (day == BAD_DAY ? 0.93 : 1);
            sitting(
                    configuration,
                    "Reference round",
                    at(REFERENCE, day * 2),
                    tests.subList(0, REFERENCE_TESTS),
                    setup.speed(),
                    t -> moved,
                    "",
                    random);
        }
    }

    private static double day(Random random) {
        return Math.exp(DAY_NOISE * random.nextGaussian());
    }

    private static Instant at(LocalDate first, int days) {
        return first.plusDays(days).atTime(10, 5).toInstant(ZoneOffset.UTC);
    }

    /** As a lab would have them: rooms and power are typed, the rest a device tells by itself. */
    static List<GivenFact> given(Map<String, String> facts) {
        return facts.entrySet().stream()
                .map(f -> new GivenFact(
                        f.getKey(),
                        f.getValue(),
                        f.getKey().startsWith("room.") || f.getKey().startsWith("power.")
                                ? FactSource.TYPED
                                : FactSource.DETECTED))
                .toList();
    }

    private void sitting(
            long configuration,
            String plan,
            Instant start,
            List<Played> tests,
            DemoDevices.Speed speed,
            ToDoubleFunction<Played> effect,
            String cannot,
            Random random) {
        sitting(configuration, plan, start, tests, speed, effect, cannot, random, List.of());
    }

    /** @param cannot name of a test that does not run there. @param more runs that were carried out by hand */
    private void sitting(
            long configuration,
            String plan,
            Instant start,
            List<Played> tests,
            DemoDevices.Speed speed,
            ToDoubleFunction<Played> effect,
            String cannot,
            Random random,
            List<NewRun> more) {
        long session = lifecycle.open(
                new NewSession(configuration, plan, 3, 3_000, true, null, start, List.of(), DemoSignIn.NAME));
        Instant now = start;
        List<NewRun> runs = new ArrayList<>();
        // What a device likes more than others is its own, and the same on every day.
        Random liking = new Random(SEED);
        for (Played test : tests) {
            double own = Math.exp(test.behaviour().taste() * 0.3 * liking.nextGaussian()) * effect.applyAsDouble(test);
            if (test.name().equals(cannot)) {
                runs.add(new NewRun(
                        test.testId(),
                        1,
                        1,
                        RunState.COULD_NOT_RUN,
                        Reason.NOT_SUPPORTED,
                        "no driver for this kernel",
                        0,
                        now,
                        List.of()));
                continue;
            }
            for (int run = 1; run <= 3; run++) {
                now = now.plusSeconds(45);
                double merit = test.behaviour().speed().applyAsDouble(speed)
                        * own
                        * Math.exp(test.behaviour().noise() * random.nextGaussian());
                double level = test.behaviour().level();
                double step = test.behaviour().resolution();
                double value = Math.max(step, Math.round((test.less() ? level / merit : level * merit) / step) * step);
                runs.add(new NewRun(
                        test.testId(),
                        run,
                        1,
                        RunState.OK,
                        null,
                        null,
                        6_200,
                        now,
                        List.of(new NewReading(test.metric(), value, step, List.of()))));
            }
        }
        runs.addAll(more);
        ledger.recordAll(session, runs);
        lifecycle.end(session, SessionState.DONE, now);
    }
}
