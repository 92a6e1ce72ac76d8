package yarrowmark.e2e;

import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * How repeatable the built-in tests are on this machine: ten runs of each. Run by bin/bench. On a machine that others
 * disturb, many short runs find enough quiet moments; the longer ones of a plan repeat at least as well.
 * What may be another: yarrowmark.spread.runs, .timed (ms) and .tests (an expression over keys), as system properties in JAVA_TOOL_OPTIONS.
 */
public final class WorkloadSpread {
    /** Whether only to see that it works: the smallest size that goes through everything. */
    private static final boolean SMALLEST = Boolean.getBoolean("yarrowmark.smallest");

    private static final int RUNS = SMALLEST ? 2 : 10;
    private static final int TIMED_MS = SMALLEST ? 100 : 3_000;

    private WorkloadSpread() {}

    public static void main(String[] arguments) {
        System.out.printf(
                Locale.ROOT,
                "The machine itself: spread %.2f %% over %d seconds of one integer loop, no browser%n",
                ownSpread(),
                RUNS);
        int runs = Integer.getInteger("yarrowmark.spread.runs", RUNS);
        int timedMs = Integer.getInteger("yarrowmark.spread.timed", TIMED_MS);
        Pattern wanted = Pattern.compile(System.getProperty(
                "yarrowmark.spread.tests",
                SMALLEST ? "^weir-hash-one" : "^(?!endurance-|video-play-|network-|battery-)"));
        try (Program program = Program.start("demo", "spread");
                Canary canary = Canary.onEachProcessor();
                Browser reviewer = new Browser();
                Browser device = new Browser(900, 700)) {
            reviewer.signIntoDemo(program.address());
            long start = System.nanoTime();
            List<Rounds.Score> scores = new Rounds(program, reviewer)
                    .carryOut(device, key -> wanted.matcher(key).find(), runs, timedMs);
            System.out.printf(
                    Locale.ROOT,
                    "Spread over %d runs of %.1f s, headless Chromium, %d processors; %.0f s in all%n",
                    runs,
                    timedMs / 1000.0,
                    Runtime.getRuntime().availableProcessors(),
                    (System.nanoTime() - start) / 1e9);
            System.out.printf(
                    Locale.ROOT,
                    "The machine had its processors to itself %.0f %% of the time. A run counts as quiet where it had them all through.%n",
                    100 * canary.quietShare());
            Map<String, List<Rounds.Score>> byMetric = scores.stream()
                    .filter(s -> s.value() != null && s.value() > 0)
                    .collect(Collectors.groupingBy(Rounds.Score::metric, LinkedHashMap::new, Collectors.toList()));
            byMetric.values().stream()
                    .filter(of -> of.size() > 1
                            && (of.get(0).first() || of.get(0).metric().endsWith("from memory"))
                            && of.get(0).durationMs() > 0)
                    .forEach(of -> print(of, canary));
            scores.stream()
                    .filter(s -> !s.state().equals("OK"))
                    .forEach(s -> System.out.println("  " + s.test() + ": " + s.state() + ", " + s.words()));
        }
    }

    private static void print(List<Rounds.Score> runs, Canary canary) {
        List<Rounds.Score> quiet = runs.stream()
                .filter(r -> canary.quiet(r.finishedAt() - Math.round(r.durationMs()), r.finishedAt()))
                .toList();
        double duration =
                runs.stream().mapToDouble(Rounds.Score::durationMs).average().orElseThrow();
        double timed =
                runs.stream().mapToDouble(Rounds.Score::timedMs).average().orElseThrow();
        // Where a neighbour takes half of the processor for seconds, a run still has samples from between: how fast
        // these were is the test's own.
        List<Double> fastest = runs.stream()
                .map(r -> r.samples().stream()
                        .sorted(Comparator.reverseOrder())
                        .skip(r.samples().size() / 10)
                        .findFirst()
                        .orElse(r.value()))
                .toList();
        System.out.printf(
                Locale.ROOT,
                "  %-40s %12.2f %-14s spread %6.2f %%   of the fastest tenth %6.2f %%   quiet %2d of %2d: %s   %5.0f ms a run, %3.0f %% of it timed%n",
                runs.get(0).metric(),
                centre(values(runs)),
                runs.get(0).unit(),
                spread(values(runs)),
                spread(fastest),
                quiet.size(),
                runs.size(),
                quiet.size() < 3 ? "too few  " : String.format(Locale.ROOT, "%6.2f %%", spread(values(quiet))),
                duration,
                100 * timed / duration);
    }

    private static List<Double> values(List<Rounds.Score> runs) {
        return runs.stream().map(Rounds.Score::value).toList();
    }

    private static double centre(List<Double> values) {
        return Math.exp(values.stream().mapToDouble(Math::log).average().orElseThrow());
    }

    private static double spread(List<Double> values) {
        double mean = Math.log(centre(values));
        return 100
                * Math.expm1(Math.sqrt(values.stream()
                                .mapToDouble(v -> (Math.log(v) - mean) * (Math.log(v) - mean))
                                .sum()
                        / (values.size() - 1)));
    }

    /** A loop that needs one processor and no memory: what wanders here is the machine, not a test. */
    private static double ownSpread() {
        double[] logs = new double[RUNS];
        double mean = 0;
        long x = 1;
        for (int second = -1; second < RUNS; second++) {
            long start = System.nanoTime();
            long rounds = 0;
            while (System.nanoTime() - start < 1_000_000_000L) {
                for (int i = 0; i < 100_000; i++) {
                    x ^= x << 13;
                    x ^= x >>> 7;
                    x ^= x << 17;
                }
                rounds++;
            }
            // The first second warms up. The impossible value keeps the loop from being left out as useless.
            if (second >= 0) {
                logs[second] = Math.log(rounds) + (x == 0 ? 1 : 0);
                mean += logs[second] / RUNS;
            }
        }
        double squares = 0;
        for (double log : logs) {
            squares += (log - mean) * (log - mean);
        }
        return 100 * Math.expm1(Math.sqrt(squares / (RUNS - 1)));
    }
}
