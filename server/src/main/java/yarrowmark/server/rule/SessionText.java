package yarrowmark.server.rule;

import static yarrowmark.server.platform.Require.require;

import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.util.ArrayList;
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
import yarrowmark.server.ledger.record.RunState;
import yarrowmark.server.platform.Problem;

/** Takes the scores of a session out of a pasted text, by the rules of its suites. The text stays as evidence. */
@Service
class SessionText {
    private static final int MOST_RUNS = 30;

    /** One value that would be stored. @param line in the text, from 1; 0 where it has none */
    record Taken(
            long testId, String test, int run, double value, double resolution, String unit, int line, String text) {}

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
                            runs.get(f.run() - 1),
                            f.value() * factor.getAsDouble(),
                            f.resolution() * factor.getAsDouble(),
                            metric.unit(),
                            f.line(),
                            f.text()));
                }
            }
        }
        return new TextAnswer(known.size(), taken, refused, missed);
    }

    /** Stores what {@link #look} shows, and the text beside it. */
    @Transactional
    TextAnswer take(long sessionId, String text, String person) {
        TextAnswer answer = look(sessionId, text);
        if (answer.taken().isEmpty()) {
            throw Problem.invalid("nothing-read", "No score of this session was found in the text.");
        }
        Map<Long, TestRow> tests =
                catalog
                        .tests(answer.taken().stream()
                                .map(Taken::testId)
                                .distinct()
                                .toList())
                        .stream()
                        .collect(Collectors.toMap(TestRow::id, t -> t));
        for (Taken t : answer.taken()) {
            ledger.record(
                    sessionId,
                    new Ledger.NewRun(
                            t.testId(),
                            t.run(),
                            1,
                            RunState.OK,
                            null,
                            null,
                            0,
                            clock.instant(),
                            List.of(new Ledger.NewReading(
                                    require(tests, t.testId()).metrics().get(0).key(),
                                    t.value(),
                                    t.resolution(),
                                    List.of())),
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
