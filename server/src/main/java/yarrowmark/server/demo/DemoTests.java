package yarrowmark.server.demo;

import java.util.List;
import java.util.Set;
import java.util.function.ToDoubleFunction;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Scale;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.TestGroup;
import yarrowmark.server.demo.DemoDevices.Speed;
import yarrowmark.server.shelf.model.DeviceClass;

/** The invented outside suites of the demo, and how each test answers to a device's speeds. */
final class DemoTests {
    /**
     * @param level      score of the Larkspur Slate 11
     * @param noise      standard deviation of ln x from run to run
     * @param resolution smallest step the score is read in
     * @param speed      how much better than the Slate 11
     * @param taste      how much devices differ on it beyond their speed, as a standard deviation of ln x
     */
    record Behaviour(double level, double noise, double resolution, double taste, ToDoubleFunction<Speed> speed) {}

    record Suite(
            String name,
            String version,
            List<Catalog.NewTest> tests,
            List<Behaviour> behaviours,
            Set<DeviceClass> without) {}

    private static final Direction MORE = Direction.MORE_IS_BETTER;
    private static final Direction LESS = Direction.LESS_IS_BETTER;

    private DemoTests() {}

    /** How the five built-in tests behave, in their order. */
    static final List<Behaviour> BUILT_IN = List.of(
            new Behaviour(388, 0.006, 0.01, 0.02, Speed::one),
            new Behaviour(1540, 0.009, 0.1, 0.04, Speed::all),
            new Behaviour(142, 0.008, 0.01, 0.05, s -> Math.sqrt(s.one() * s.memory())),
            new Behaviour(94, 0.016, 0.1, 0.05, Speed::browser),
            new Behaviour(61, 0.019, 0.1, 0.08, s -> Math.sqrt(s.browser() * Math.sqrt(s.graphics()))));

    static List<Suite> outside() {
        Set<DeviceClass> hand = Set.of(DeviceClass.PHONE, DeviceClass.TABLET);
        return List.of(
                new Suite(
                        "Sluice",
                        "2",
                        List.of(test(
                                "copy",
                                "Sluice copy",
                                TestGroup.MEMORY,
                                "Copies large blocks of memory.",
                                "GB/s",
                                MORE,
                                true)),
                        List.of(new Behaviour(21.4, 0.011, 0.1, 0.05, Speed::memory)),
                        Set.of()),
                new Suite(
                        "Reedbed Scenes",
                        "1.4",
                        List.of(
                                test(
                                        "lantern",
                                        "Lantern valley, 1080 off screen",
                                        TestGroup.GRAPHICS,
                                        "A lit valley, drawn off screen.",
                                        "fps",
                                        MORE,
                                        true),
                                test(
                                        "heron",
                                        "Heron flight",
                                        TestGroup.GRAPHICS,
                                        "Twelve thousand herons.",
                                        "fps",
                                        MORE,
                                        true)),
                        List.of(
                                new Behaviour(41.2, 0.009, 0.1, 0.07, Speed::graphics),
                                new Behaviour(52.6, 0.013, 0.1, 0.1, Speed::graphics)),
                        Set.of(DeviceClass.BOARD)),
                new Suite(
                        "Tidegauge Storage",
                        "2.1",
                        List.of(
                                test(
                                        "sequential-read",
                                        "Sequential read, 1 MiB",
                                        TestGroup.STORAGE,
                                        "Reads a large file from end to end.",
                                        "MB/s",
                                        MORE,
                                        true),
                                test(
                                        "random-write",
                                        "Random write, 4 KiB",
                                        TestGroup.STORAGE,
                                        "Writes small blocks all over a file.",
                                        "MB/s",
                                        MORE,
                                        true)),
                        List.of(
                                new Behaviour(1310, 0.012, 1, 0.1, Speed::storage),
                                new Behaviour(52, 0.035, 0.1, 0.18, s -> Math.pow(s.storage(), 0.7))),
                        Set.of(DeviceClass.PHONE)),
                new Suite(
                        "Kelpline Desk",
                        "3",
                        List.of(
                                test(
                                        "recount",
                                        "Quadrat recount",
                                        TestGroup.EVERYDAY,
                                        "Recalculates a large survey table.",
                                        "s",
                                        LESS,
                                        true),
                                test(
                                        "report",
                                        "Report export",
                                        TestGroup.EVERYDAY,
                                        "Exports a report of 180 pages.",
                                        "s",
                                        LESS,
                                        true)),
                        List.of(
                                new Behaviour(96.2, 0.014, 0.1, 0.05, s -> Math.sqrt(s.one() * s.all())),
                                new Behaviour(64, 0.018, 1, 0.07, Speed::one)),
                        hand),
                new Suite(
                        "Saltmarsh by hand",
                        "1",
                        List.of(
                                test(
                                        "full-power",
                                        "Power under full load",
                                        TestGroup.BODY,
                                        "Read from the meter after ten minutes.",
                                        "W",
                                        LESS,
                                        true),
                                test(
                                        "surface",
                                        "Surface temperature",
                                        TestGroup.BODY,
                                        "Warmest spot of the case after ten minutes.",
                                        "°C",
                                        LESS,
                                        false)),
                        List.of(
                                new Behaviour(11, 0.02, 0.1, 0.02, s -> 11 / s.watts()),
                                new Behaviour(38, 0.015, 0.5, 0.06, s -> Math.pow(11 / s.watts(), 0.08))),
                        Set.of(DeviceClass.DESKTOP)));
    }

    private static Catalog.NewTest test(
            String key, String name, TestGroup group, String summary, String unit, Direction direction, boolean ratio) {
        return new Catalog.NewTest(
                key,
                name,
                summary,
                group,
                List.of(new Catalog.NewMetric(
                        "value", name, unit, direction, ratio ? Scale.RATIO : Scale.DIFFERENCE, ratio)));
    }
}
