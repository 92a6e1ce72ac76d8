package yarrowmark.server.standing;

import static yarrowmark.server.platform.Require.require;

import java.time.Duration;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.choice.AlikeTests;
import yarrowmark.core.choice.TestChoice;
import yarrowmark.core.plan.PlanTime;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.ledger.record.RunDurations;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.change.Revision;
import yarrowmark.server.platform.change.UntilChanged;
import yarrowmark.server.shelf.configuration.ConfigurationRow;

/** Which tests of a standing are worth their time, where there is less of it than all of them need. */
@Service
class HoursAtHand {
    private static final int KEPT = 30;
    private static final double MINUTE_MS = 60_000;
    /** Above so many configurations × tests², what is said of a device not seen yet would take too long while somebody waits. */
    private static final long MOST_FOR_UNSEEN = 120_000;

    private static final int MOST_TURNED = 12;
    /** Of a run of a built-in test that was never carried out. */
    private static final Duration TIMED = Duration.ofSeconds(3);

    /**
     * @param atHand  minutes
     * @param pauseMs before each run
     * @param must    tests that are taken whatever they tell
     * @param never   tests that are not taken
     */
    record Asked(double atHand, int runs, int pauseMs, Set<Long> must, Set<Long> never) {}

    /**
     * @param nothing why nothing can be said; everything else is empty then
     * @param path    every test, in the order in which they tell most per minute
     * @param chosen  those that fit, in that order
     * @param turned  the first of the pairs that these put the other way round. @param turnedInAll how many there are
     * @param unseen  absent where it would take too long
     */
    record Hours(
            @Nullable String nothing,
            int configurations,
            int pairs,
            boolean rough,
            List<WorthStep> path,
            List<WorthStep> chosen,
            List<TurnedPair> turned,
            int turnedInAll,
            List<LeftOutTest> left,
            @Nullable UnseenPart unseen,
            List<SameTests> same) {
        static Hours nothing(String why, int configurations) {
            return new Hours(
                    why, configurations, 0, false, List.of(), List.of(), List.of(), 0, List.of(), null, List.of());
        }
    }

    /** @param minutes of it alone. @param until minutes of all so far. @param agree pairs in the same order, equal ones half */
    record WorthStep(
            long testId,
            String test,
            String suite,
            double minutes,
            boolean guessed,
            double until,
            double surely,
            double agree) {}

    record TurnedPair(ConfigurationRow better, ConfigurationRow worse) {}

    /** @param follows the kept test that ranks most like it; absent where none can be held against it */
    record LeftOutTest(
            long testId, String test, double minutes, @Nullable String follows, @Nullable Double correlation) {}

    record UnseenPart(double mean, double low, double high) {}

    record SameTests(String test, String other, double correlation, int configurations) {}

    private record Question(StandingsAsk ask, Asked asked) {}

    private record Timed(long id, String name, String suite, double minutes, boolean guessed) {}

    private final StandingsService standings;
    private final RunDurations durations;
    private final UntilChanged<Question, Hours> kept;

    HoursAtHand(StandingsService standings, RunDurations durations, Revision revision) {
        this.standings = standings;
        this.durations = durations;
        this.kept = new UntilChanged<>(revision, KEPT);
    }

    @Transactional(readOnly = true)
    public Hours of(StandingsAsk ask, Asked asked) {
        return kept.get(new Question(ask, asked), () -> of(standings.ranked(ask), ask, asked));
    }

    private Hours of(Ranked ranked, StandingsAsk ask, Asked asked) {
        List<Timed> tests = tests(ranked, ask, asked);
        Map<Long, Integer> place = new LinkedHashMap<>();
        tests.forEach(t -> place.put(t.id(), place.size()));
        int[] testOf = ranked.metrics().stream()
                .mapToInt(m -> require(place, m.testId()))
                .toArray();
        Optional<TestChoice> found = TestChoice.of(ranked.grid(), ranked.weights(), testOf);
        if (found.isEmpty()) {
            return Hours.nothing(
                    "Nothing can be said yet: it needs " + TestChoice.FEWEST
                            + " configurations that have most of these tests, and two of them clearly apart.",
                    ranked.rows().size());
        }
        TestChoice choice = found.get();
        BitSet must = places(asked.must(), place);
        BitSet never = places(asked.never(), place);
        if (must.intersects(never)) {
            throw Problem.invalid("must-and-never", "A test cannot be taken for certain and left out for certain.");
        }
        double[] minutes = tests.stream().mapToDouble(Timed::minutes).toArray();
        TestChoice.Ask within = new TestChoice.Ask(minutes, asked.atHand(), must, never);
        List<TestChoice.Step> chosen = choice.path(within);
        List<Integer> taken = chosen.stream().map(TestChoice.Step::test).toList();
        BitSet in = new BitSet();
        taken.forEach(in::set);
        AlikeTests alike = choice.alike();
        var turned = choice.turned(in);
        boolean quick = (long) choice.configurations() * tests.size() * tests.size() <= MOST_FOR_UNSEEN;
        return new Hours(
                null,
                choice.configurations(),
                choice.clearPairs().size(),
                choice.configurations() < TestChoice.ROUGH_BELOW,
                parts(choice.path(new TestChoice.Ask(minutes, Double.MAX_VALUE, must, never)), tests),
                parts(chosen, tests),
                turned.stream()
                        .limit(MOST_TURNED)
                        .map(p -> new TurnedPair(configuration(ranked, p.better()), configuration(ranked, p.worse())))
                        .toList(),
                turned.size(),
                left(tests, in, taken, alike),
                quick ? unseen(choice.unseen(within)) : null,
                same(tests, alike));
    }

    /** In the order of their first numbers. */
    private List<Timed> tests(Ranked ranked, StandingsAsk ask, Asked asked) {
        Map<Long, MetricRow> first = new LinkedHashMap<>();
        ranked.metrics().forEach(m -> first.putIfAbsent(m.testId(), m));
        var deviceClass = ask.deviceClass() == null || ask.deviceClass().size() != 1
                ? null
                : ask.deviceClass().iterator().next();
        Map<Long, RunDurations.Known> known = durations.of(first.keySet(), deviceClass);
        List<Timed> tests = new ArrayList<>();
        first.forEach((id, m) -> {
            RunDurations.Known k = known.get(id);
            double run = k == null ? PlanTime.guessedRunMs(m.builtIn(), TIMED) : k.ms();
            tests.add(
                    new Timed(id, m.test(), m.suite(), asked.runs() * (run + asked.pauseMs()) / MINUTE_MS, k == null));
        });
        return tests;
    }

    private static BitSet places(Set<Long> tests, Map<Long, Integer> place) {
        BitSet in = new BitSet();
        // A test that the standing does not know any more is none that could be taken.
        tests.stream().filter(place::containsKey).forEach(t -> in.set(require(place, t)));
        return in;
    }

    private static List<WorthStep> parts(List<TestChoice.Step> steps, List<Timed> tests) {
        return steps.stream()
                .map(s -> {
                    Timed t = tests.get(s.test());
                    return new WorthStep(
                            t.id(),
                            t.name(),
                            t.suite(),
                            t.minutes(),
                            t.guessed(),
                            s.minutes(),
                            s.told().surely(),
                            s.told().same());
                })
                .toList();
    }

    private static ConfigurationRow configuration(Ranked ranked, int row) {
        return require(ranked.chosen().members(), ranked.rows().get(row)).configuration();
    }

    private static List<LeftOutTest> left(List<Timed> tests, BitSet in, List<Integer> taken, AlikeTests alike) {
        List<LeftOutTest> left = new ArrayList<>();
        for (int t = 0; t < tests.size(); t++) {
            if (!in.get(t)) {
                Optional<AlikeTests.Alike> nearest = alike.nearest(t, taken);
                left.add(new LeftOutTest(
                        tests.get(t).id(),
                        tests.get(t).name(),
                        tests.get(t).minutes(),
                        nearest.map(a -> tests.get(a.other()).name()).orElse(null),
                        nearest.map(AlikeTests.Alike::correlation).orElse(null)));
            }
        }
        return left;
    }

    private static @Nullable UnseenPart unseen(TestChoice.Unseen unseen) {
        return Double.isNaN(unseen.mean()) ? null : new UnseenPart(unseen.mean(), unseen.low(), unseen.high());
    }

    private static List<SameTests> same(List<Timed> tests, AlikeTests alike) {
        List<SameTests> same = new ArrayList<>();
        for (int a = 0; a < tests.size(); a++) {
            for (int b = a + 1; b < tests.size(); b++) {
                alike.of(a, b)
                        .filter(AlikeTests.Alike::isTheSame)
                        .ifPresent(s -> same.add(new SameTests(
                                tests.get(s.test()).name(),
                                tests.get(s.other()).name(),
                                s.correlation(),
                                s.configurations())));
            }
        }
        return same;
    }
}
