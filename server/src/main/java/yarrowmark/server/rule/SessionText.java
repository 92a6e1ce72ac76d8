package yarrowmark.server.rule;

import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.measure.Scale;
import yarrowmark.core.rule.ScoreReading;
import yarrowmark.core.rule.UnitStep;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.TestRow;
import yarrowmark.server.evidence.EvidenceShelf;
import yarrowmark.server.ledger.record.Ledger;
import yarrowmark.server.ledger.record.LedgerSessions;
import yarrowmark.server.ledger.record.NewReading;
import yarrowmark.server.ledger.record.NewRun;
import yarrowmark.server.ledger.record.RunState;
import yarrowmark.server.platform.Problem;

/** Takes the scores of a session out of a pasted text, by the rules of its suites. The text stays as evidence. */
@Service
class SessionText {
    private static final int MOST_RUNS = 30;

    /** One value that would be stored. @param name of its metric. @param line in the text, from 1; 0 where it has none */
    record Taken(
            long testId,
            String test,
            String metric,
            String name,
            int run,
            double value,
            double resolution,
            String unit,
            int line,
            String text) {}

    private record Place(long testId, int run) {}

    /** @param refused numbers that were found and cannot be taken, and why. @param missed what rules looked for and did not find */
    record TextAnswer(int rules, List<Taken> taken, List<String> refused, List<ScoreReading.MissedScore> missed) {}

    private final Rules rules;
    private final Catalog catalog;
    private final Ledger ledger;
    private final LedgerSessions sessions;
    private final EvidenceShelf evidence;
    private final Clock clock;

    SessionText(
            Rules rules, Catalog catalog, Ledger ledger, LedgerSessions sessions, EvidenceShelf evidence, Clock clock) {
        this.rules = rules;
        this.catalog = catalog;
        this.ledger = ledger;
        this.sessions = sessions;
        this.evidence = evidence;
        this.clock = clock;
    }

    /** What would be stored, each in the next free runs of its test. Nothing is stored. */
    @Transactional(readOnly = true)
    TextAnswer look(long sessionId, String text) {
        List<TestRow> tests = catalog.tests(sessions.testsByHand(sessionId));
        List<Rules.RuleRow> known =
                rules.of(tests.stream().map(TestRow::suiteVersionId).collect(Collectors.toSet()));
        Map<Long, MetricRow> metrics =
                tests.stream().flatMap(t -> t.metrics().stream()).collect(Collectors.toMap(MetricRow::id, m -> m));
        Map<Long, List<Integer>> free = free(sessionId, tests);
        List<Taken> taken = new ArrayList<>();
        List<String> refused = new ArrayList<>();
        List<ScoreReading.MissedScore> missed = new ArrayList<>();
        for (Rules.RuleRow rule : known) {
            ScoreReading.Scores outcome = Rules.read(rule.patterns(), text);
            if (!outcome.anything() && known.size() > 1) {
                continue;
            }
            missed.addAll(outcome.missed());
            Map<String, Long> metricOf = rule.patterns().stream()
                    .collect(Collectors.toMap(p -> p.name().strip(), Rules.PatternPart::metricId));
            for (ScoreReading.FoundScore f : outcome.found()) {
                MetricRow metric = metrics.get(metricOf.get(f.pattern()));
                if (metric == null) {
                    refused.add("\"" + f.pattern() + "\" is no test of this session.");
                    continue;
                }
                OptionalDouble factor = UnitStep.factor(f.unit(), metric.unit());
                List<Integer> runs = free.getOrDefault(metric.testId(), List.of());
                if (factor.isEmpty()) {
                    refused.add("\"" + f.text() + "\" is in " + f.unit() + ", and " + metric.test() + " is measured in "
                            + metric.unit() + ".");
                } else if (metric.scale() == Scale.RATIO && !(f.value() > 0)) {
                    refused.add("\"" + f.text() + "\" for " + metric.test() + " is not above 0.");
                } else if (f.run() > runs.size()) {
                    refused.add("There is no free run for " + metric.test() + " " + f.text() + ".");
                } else {
                    taken.add(new Taken(
                            metric.testId(),
                            metric.test(),
                            metric.key(),
                            metric.name(),
                            runs.get(f.run() - 1),
                            f.value() * factor.getAsDouble(),
                            f.resolution() * factor.getAsDouble(),
                            metric.unit(),
                            f.line(),
                            f.text()));
                }
            }
        }
        return new TextAnswer(known.size(), whole(taken, metrics.values(), refused), refused, missed);
    }

    /** Stores what {@link #look} shows, and the text beside it. */
    @Transactional
    TextAnswer take(long sessionId, String text, String person) {
        TextAnswer answer = look(sessionId, text);
        if (answer.taken().isEmpty()) {
            throw Problem.invalid("nothing-read", "No score of this session was found in the text.");
        }
        for (Map.Entry<Place, List<Taken>> run : byRun(answer.taken()).entrySet()) {
            ledger.record(
                    sessionId,
                    new NewRun(
                            run.getKey().testId(),
                            run.getKey().run(),
                            1,
                            RunState.OK,
                            null,
                            null,
                            0,
                            clock.instant(),
                            run.getValue().stream()
                                    .map(t -> new NewReading(t.metric(), t.value(), t.resolution(), List.of()))
                                    .toList(),
                            person));
        }
        evidence.keep(
                sessionId,
                null,
                "pasted text, " + answer.taken().size() + " scores.txt",
                text.getBytes(StandardCharsets.UTF_8),
                person);
        return answer;
    }

    /** Several numbers of one test are one run. */
    private static Map<Place, List<Taken>> byRun(List<Taken> taken) {
        return taken.stream()
                .collect(Collectors.groupingBy(
                        t -> new Place(t.testId(), t.run()), LinkedHashMap::new, Collectors.toList()));
    }

    /** Without runs that lack the number that stands for their test: a low needs its average. */
    private static List<Taken> whole(List<Taken> taken, Collection<MetricRow> metrics, List<String> refused) {
        List<Taken> whole = new ArrayList<>(taken);
        byRun(taken).forEach((place, of) -> metrics.stream()
                .filter(m -> m.testId() == place.testId() && m.main())
                .filter(m -> of.stream().noneMatch(t -> t.metric().equals(m.key())))
                .findFirst()
                .ifPresent(m -> {
                    whole.removeAll(of);
                    refused.add("Run " + place.run() + " of " + m.test() + " has no value of " + m.name() + ".");
                }));
        return whole;
    }

    /** For each test the runs that have nothing yet, in order. */
    private Map<Long, List<Integer>> free(long sessionId, List<TestRow> tests) {
        Map<Long, Set<Integer>> done = new HashMap<>();
        ledger.runs(List.of(sessionId)).forEach(r -> done.computeIfAbsent(r.testId(), t -> new TreeSet<>())
                .add(r.runNumber()));
        Map<Long, List<Integer>> free = new LinkedHashMap<>();
        for (TestRow test : tests) {
            List<Integer> runs = new ArrayList<>();
            for (int run = 1; run <= MOST_RUNS; run++) {
                if (!done.getOrDefault(test.id(), Set.of()).contains(run)) {
                    runs.add(run);
                }
            }
            free.put(test.id(), runs);
        }
        return free;
    }
}
