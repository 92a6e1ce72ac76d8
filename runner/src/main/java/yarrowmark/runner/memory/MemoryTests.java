package yarrowmark.runner.memory;

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

/** Bandwidth and latency over the size of what is worked on, on one thread and on all. */
public final class MemoryTests {
    private static final long SMALLEST = 16L << 10;
    /** Of one thread, or of all together. */
    private static final long LARGEST = 1L << 30;

    private static final double KIB = 1024;

    private MemoryTests() {}

    /** By their keys. */
    public static Map<String, NativeTest> all() {
        Map<String, NativeTest> tests = new LinkedHashMap<>();
        for (Flow flow : Flow.values()) {
            tests.put("native-memory-" + flow.key(), options -> sweep(flow, 1, options));
            if (flow != Flow.LATENCY) {
                tests.put("native-memory-" + flow.key() + "-all", options -> sweep(flow, options.threads(), options));
            }
        }
        tests.put("native-endurance-memory-copy", options -> {
            List<Long> sizes = sizes();
            long bytes = Math.max(4096, sizes.get(sizes.size() - 1) / options.threads());
            try (Together all = new Together(options.threads(), i -> Flow.COPY.over(bytes))) {
                return Endure.of(options.timedMs())
                        .run(all, Flow.COPY.perRound(bytes) / 1e9)
                        .with(List.of(), options.threads() + " threads");
            }
        });
        return tests;
    }

    /** Powers of two up to 1 GiB, or as much as half of what Java may have. */
    static List<Long> sizes() {
        long most = Math.min(LARGEST, Runtime.getRuntime().maxMemory() / 2);
        List<Long> sizes = new ArrayList<>();
        for (long size = SMALLEST; size <= most; size *= 2) {
            sizes.add(size);
        }
        return sizes;
    }

    private static Measurement sweep(Flow flow, int threads, NativeTest.Options options) throws Exception {
        List<Long> sizes = sizes().stream().filter(s -> s / threads >= 4096).toList();
        List<Measurement.Point> points = new ArrayList<>();
        double timed = 0;
        for (long size : sizes) {
            Measurement one = at(flow, size / threads, threads, options.timedMs() / sizes.size(), points.isEmpty());
            points.add(new Measurement.Point(size / KIB, flow == Flow.LATENCY ? 1 / one.value() : one.value()));
            timed += one.timedMs();
        }
        Measurement.Point far = points.get(points.size() - 1);
        String words = far.x() < LARGEST / KIB
                ? "Up to " + (long) (far.x() / KIB) + " MiB: Java has "
                        + (Runtime.getRuntime().maxMemory() >> 20) + " MiB"
                : threads > 1 ? threads + " threads" : null;
        return Measurement.ofCurve(points, timed, List.of(new Measurement.More("far", far.y(), 0)), words);
    }

    private static Measurement at(Flow flow, long bytes, int threads, double timedMs, boolean first) throws Exception {
        // In units of 10⁹ bytes a second; a step's time is what is known as latency, so steps are counted in 10⁹.
        double perRound = flow.perRound(bytes) / 1e9;
        double warmUp = first ? 1 / 4.0 : Measure.LATER_WARM_UP_SHARE;
        if (threads == 1) {
            return Measure.of(timedMs).run(flow.over(bytes), perRound, warmUp);
        }
        try (Together all = new Together(threads, i -> flow.over(bytes))) {
            Work work = all;
            return Measure.of(timedMs).run(work, perRound, warmUp);
        }
    }
}
