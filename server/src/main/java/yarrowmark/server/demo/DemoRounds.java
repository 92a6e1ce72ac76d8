package yarrowmark.server.demo;

import jakarta.persistence.EntityManager;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.function.Predicate;
import org.springframework.stereotype.Component;
import yarrowmark.core.calibration.Calibration;
import yarrowmark.core.measure.Direction;
import yarrowmark.server.access.DemoSignIn;
import yarrowmark.server.catalog.BuiltInSuites;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.TestRow;
import yarrowmark.server.demo.DemoDevices.Speed;
import yarrowmark.server.ledger.record.Ledger;
import yarrowmark.server.ledger.record.NewReading;
import yarrowmark.server.ledger.record.NewRun;
import yarrowmark.server.ledger.record.NewSession;
import yarrowmark.server.ledger.record.RunState;
import yarrowmark.server.ledger.record.SessionLifecycle;
import yarrowmark.server.ledger.record.SessionState;
import yarrowmark.server.shelf.model.DeviceClass;

/** A few of the demo's devices went through every suite that comes with the program: browser, runner, network and battery. */
@Component
class DemoRounds {
    /** Which ones: each of a class of its own, so that places in the others are those of the common tests. */
    static final List<String> DEVICES = List.of("Wayfarer", "Ridge", "Beacon");

    private static final long SEED = 77;
    private static final int RUNS = 2;
    private static final long A_DAY = 86_400;
    private static final int POINTS = 40;
    private static final int SIZES = 15;
    private static final int FRAMES = 600;
    private static final double NOISE = 0.012;
    /** What a test that the calibration table does not know comes to, by its unit. */
    private static final Map<String, Double> LEVELS = Map.ofEntries(
            Map.entry("fps", 58.0),
            Map.entry("ms", 6.2),
            Map.entry("Mbit/s", 240.0),
            Map.entry("MB/s", 900.0),
            Map.entry("GB/s", 9.0),
            Map.entry("ops/s", 18_000.0),
            Map.entry("files/s", 4_100.0),
            Map.entry("flushes/s", 310.0),
            Map.entry("µs", 85.0),
            Map.entry("ns", 96.0),
            Map.entry("W", 4.6),
            Map.entry("%", 92.0));

    /** Numbers that are found in the points of loops and of a battery's levels. */
    private static final Set<String> FOUND =
            Set.of("sustained", "onset", "per-hour", "hours-20", "hours-end", "minutes-80", "minutes-full");

    private final BuiltInSuites builtIn;
    private final Catalog catalog;
    private final Ledger ledger;
    private final SessionLifecycle lifecycle;
    private final EntityManager entities;
    private final Map<String, Double> known = Calibration.load(1).values();

    DemoRounds(
            BuiltInSuites builtIn, Catalog catalog, Ledger ledger, SessionLifecycle lifecycle, EntityManager entities) {
        this.builtIn = builtIn;
        this.catalog = catalog;
        this.ledger = ledger;
        this.lifecycle = lifecycle;
        this.entities = entities;
    }

    /**
     * What the first round has not: in the same session what a browser carries out, and in one of its own what takes a day.
     *
     * @return when the session ended
     */
    Instant add(DemoDevices.Device device, long configuration, long session, Instant start) {
        List<Long> before = builtIn.firstRound();
        List<TestRow> tests = catalog.tests().stream()
                .filter(t -> t.builtIn() && !t.retired() && t.given() && !before.contains(t.id()))
                .toList();
        Speed speed = device.setups().get(0).speed();
        Random random = new Random(SEED ^ device.model().hashCode());
        boolean hand = device.deviceClass() == DeviceClass.PHONE || device.deviceClass() == DeviceClass.TABLET;
        Predicate<TestRow> byRunner = t -> t.key().startsWith("native-");
        Predicate<TestRow> byBattery = t -> t.key().startsWith("battery-");
        Instant end = carriedOut(session, start, tests, byRunner.or(byBattery).negate(), speed, random);
        Instant next = start.plusSeconds(A_DAY);
        long apart = lifecycle.open(new NewSession(
                configuration,
                hand ? "Battery day" : "By the runner",
                hand ? 1 : RUNS,
                3_000,
                !hand,
                hand ? 1.0 : null,
                next,
                List.of(),
                DemoSignIn.NAME));
        lifecycle.end(
                apart, SessionState.DONE, carriedOut(apart, next, tests, hand ? byBattery : byRunner, speed, random));
        return end;
    }

    private Instant carriedOut(
            long session, Instant start, List<TestRow> tests, Predicate<TestRow> which, Speed speed, Random random) {
        Instant now = start;
        List<NewRun> runs = new ArrayList<>();
        for (TestRow test : tests) {
            if (!which.test(test)) {
                continue;
            }
            for (int run = 1; run <= (isLong(test) ? 1 : RUNS); run++) {
                now = now.plusSeconds(isLong(test) ? 1_500 : 25);
                List<NewReading> readings = test.metrics().stream()
                        .filter(m ->
                                m.given() && (m.series() == null || m.kind().isSeries()) && !FOUND.contains(m.key()))
                        .map(m -> reading(test, m, speed, random))
                        .toList();
                runs.add(new NewRun(
                        test.id(), run, 1, RunState.OK, null, null, isLong(test) ? 1_400_000 : 9_000, now, readings));
            }
        }
        ledger.recordAll(session, runs);
        entities.flush();
        entities.clear();
        return now;
    }

    private static boolean isLong(TestRow test) {
        return test.key().contains("endurance-") || test.key().startsWith("battery-");
    }

    private NewReading reading(TestRow test, MetricRow metric, Speed speed, Random random) {
        double noise = Math.exp(NOISE * random.nextGaussian());
        double merit = ability(test, speed) * noise;
        double level = level(test, metric);
        double value = metric.direction() == Direction.LESS_IS_BETTER ? level / merit : level * merit;
        return switch (metric.kind()) {
            case CHOICE ->
                new NewReading(
                        metric.key(), Math.max(1, metric.choices().size() - (merit < 0.5 ? 2 : 1)), 1, List.of());
            case CURVE -> new NewReading(metric.key(), value, 0, curve(test, metric, value));
            case FRAME_TIMES -> new NewReading(metric.key(), value, 0, frames(random));
            default -> new NewReading(metric.key(), rounded(value), 0, List.of());
        };
    }

    private static double ability(TestRow test, Speed speed) {
        return switch (test.group()) {
            case PROCESSOR -> test.key().contains("all") ? speed.all() : speed.one();
            case MEMORY -> speed.memory();
            case GRAPHICS -> speed.graphics();
            case STORAGE -> speed.storage();
            case BROWSER -> speed.browser();
            default -> 1;
        };
    }

    private double level(TestRow test, MetricRow metric) {
        String plain = test.key().replaceFirst("^(native|endurance)-", "").replaceFirst("^endurance-", "");
        Double of = metric.main() ? known.getOrDefault(test.key(), known.get(plain)) : null;
        return of != null ? of : LEVELS.getOrDefault(metric.unit(), 100.0);
    }

    /** x and y by turns: over sizes something falls, over time it gets warm, and a battery runs down. */
    private static List<Double> curve(TestRow test, MetricRow metric, double value) {
        List<Double> points = new ArrayList<>();
        boolean charging = test.key().endsWith("charge");
        if ("By".equals(metric.xUnit())) {
            for (int i = 0; i < SIZES; i++) {
                points.add(4096 * Math.pow(2, i));
                double near = metric.direction() == Direction.LESS_IS_BETTER ? 1 / 12.0 : 4;
                points.add(rounded(value * Math.pow(near, i < 4 ? 1 : i < 9 ? 0.5 : 0)));
            }
            return points;
        }
        for (int i = 0; i < POINTS; i++) {
            points.add(
                    "h".equals(metric.xUnit())
                            ? 0.15 * (i + 1)
                            : "min".equals(metric.xUnit()) ? 8.0 * (i + 1) : 15.0 * (i + 1));
            points.add(
                    "%".equals(metric.unit())
                            ? Math.round(charging ? Math.min(100, 12 + 2.4 * i) : 99 - 2.1 * i)
                            : rounded(value * (0.84 + 0.16 * Math.exp(-i / 9.0))));
        }
        return points;
    }

    private static List<Double> frames(Random random) {
        List<Double> times = new ArrayList<>();
        for (int i = 0; i < FRAMES; i++) {
            times.add(i % 97 == 60 ? 33.4 : 16.7 + 0.3 * Math.abs(random.nextGaussian()));
        }
        return times;
    }

    private static double rounded(double value) {
        double step = Math.pow(10, Math.floor(Math.log10(value)) - 3);
        return Math.round(value / step) * step;
    }
}
