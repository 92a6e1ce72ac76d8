package yarrowmark.runner.kernel;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import yarrowmark.runner.NativeTest;
import yarrowmark.runner.measure.Endure;
import yarrowmark.runner.measure.Measure;
import yarrowmark.runner.measure.Measurement;
import yarrowmark.runner.measure.Together;
import yarrowmark.runner.measure.Work;

/** The processor: each kernel on one thread and on all of them, and one over the number of threads. */
public final class ProcessorTests {
    private static final KernelFacts SCALED = KernelFacts.WEIR_HASH;
    /** One that heats by whole numbers, and one by fractions. */
    private static final List<KernelFacts> ENDURED = List.of(KernelFacts.WEIR_HASH, KernelFacts.PLOT_MATRIX);

    private ProcessorTests() {}

    /** By their keys. */
    public static Map<String, NativeTest> all() {
        Map<String, NativeTest> tests = new LinkedHashMap<>();
        for (KernelFacts facts : KernelFacts.values()) {
            tests.put("native-" + facts.key() + "-one", options -> {
                Kernel kernel = facts.prepared();
                Measurement measured =
                        Measure.of(options.timedMs()).run(n -> facts.rounds(kernel, n), facts.perRound());
                facts.checkLast(kernel);
                return measured;
            });
            tests.put("native-" + facts.key() + "-all", options -> {
                Measurement measured = together(facts, options.threads(), options.timedMs(), false);
                return measured.with(
                        List.of(new Measurement.More(
                                "per-thread",
                                measured.value() / options.threads(),
                                measured.resolution() / options.threads())),
                        options.threads() + " threads");
            });
        }
        tests.put("native-threads", ProcessorTests::overThreads);
        for (KernelFacts facts : ENDURED) {
            tests.put("native-endurance-" + facts.key(), options -> {
                try (Together all = all(facts, options.threads())) {
                    return Endure.of(options.timedMs())
                            .run(all, facts.perRound())
                            .with(List.of(), options.threads() + " threads");
                }
            });
        }
        return tests;
    }

    private static Together all(KernelFacts facts, int threads) throws Exception {
        return new Together(threads, i -> {
            Kernel kernel = facts.prepared();
            return n -> facts.rounds(kernel, n);
        });
    }

    private static Measurement together(KernelFacts facts, int threads, double timedMs, boolean warm) throws Exception {
        try (Together all = all(facts, threads)) {
            Work work = all;
            return warm
                    ? Measure.of(timedMs).run(work, facts.perRound(), Measure.LATER_WARM_UP_SHARE)
                    : Measure.of(timedMs).run(work, facts.perRound());
        }
    }

    /** Speed over the number of threads; the efficiency is that of all of them against as many times one. */
    private static Measurement overThreads(NativeTest.Options options) throws Exception {
        List<Integer> counts = counts(options.threads());
        List<Measurement.Point> points = new ArrayList<>();
        double timed = 0;
        for (int threads : counts) {
            Measurement one = together(SCALED, threads, options.timedMs() / counts.size(), !points.isEmpty());
            points.add(new Measurement.Point(threads, one.value()));
            timed += one.timedMs();
        }
        Measurement.Point last = points.get(points.size() - 1);
        double efficiency = 100 * last.y() / (last.x() * points.get(0).y());
        return Measurement.ofCurve(
                points,
                timed,
                List.of(new Measurement.More("efficiency", efficiency, 0)),
                options.threads() + " threads");
    }

    /** Each of few, and so that each is a half more than the one before where there are many. */
    static List<Integer> counts(int most) {
        List<Integer> counts = new ArrayList<>();
        for (int n = 1; n < most; n = Math.max(n + 1, n < 8 ? n + 1 : n * 3 / 2)) {
            counts.add(n);
        }
        counts.add(most);
        return counts;
    }
}
