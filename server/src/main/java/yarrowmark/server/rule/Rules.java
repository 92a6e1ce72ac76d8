package yarrowmark.server.rule;

import static yarrowmark.server.platform.Require.require;

import jakarta.persistence.EntityManager;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.measure.Kind;
import yarrowmark.core.rule.ScorePattern;
import yarrowmark.core.rule.ScoreReading;
import yarrowmark.core.rule.ShippedRules;
import yarrowmark.core.rule.UnitStep;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.TestGroup;
import yarrowmark.server.catalog.TestRow;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.history.ChangeLog;

/** The reading rules of suite versions. A rule is never changed: a better one takes its place. */
@Service
class Rules {
    /** @param occurrence 0 for each, −1 for the last, else a number from 1 */
    record PatternPart(
            String name,
            ScorePattern.Kind kind,
            String expression,
            String unit,
            int occurrence,
            @Nullable Long metricId) {
        ScorePattern pattern() {
            try {
                return new ScorePattern(name.strip(), kind, expression, unit.strip(), occurrence);
            } catch (IllegalArgumentException e) {
                throw Problem.invalid("not-a-pattern", Problem.words(e));
            }
        }
    }

    /**
     * What a pattern read, and what that is for its test.
     *
     * @param forTest in the test's unit; absent where the pattern has no test yet
     */
    record TriedScore(
            String pattern,
            int run,
            double value,
            String unit,
            double resolution,
            int line,
            String text,
            @Nullable Double forTest,
            @Nullable String testUnit) {}

    /** @param missed what was not found, or cannot be a score of its test, and why */
    record TriedRule(List<TriedScore> found, List<ScoreReading.MissedScore> missed) {}

    record RuleRow(
            long id, long suiteVersionId, List<PatternPart> patterns, String sample, String person, Instant madeAt) {}

    private final EntityManager entities;
    private final Catalog catalog;
    private final ChangeLog changes;
    private final Clock clock;

    Rules(EntityManager entities, Catalog catalog, ChangeLog changes, Clock clock) {
        this.entities = entities;
        this.catalog = catalog;
        this.changes = changes;
        this.clock = clock;
    }

    @Transactional(readOnly = true)
    List<RuleRow> all() {
        return entities
                .createQuery(
                        "select distinct r from ReadingRule r left join fetch r.parts where r.retiredAt is null order by r.id",
                        ReadingRule.class)
                .getResultList()
                .stream()
                .map(Rules::row)
                .toList();
    }

    @Transactional(readOnly = true)
    List<RuleRow> of(Collection<Long> suiteVersionIds) {
        return all().stream()
                .filter(r -> suiteVersionIds.contains(r.suiteVersionId()))
                .toList();
    }

    private static RuleRow row(ReadingRule r) {
        return new RuleRow(
                r.id(),
                r.suiteVersionId(),
                r.parts().stream()
                        .map(p -> new PatternPart(p.name, p.kind, p.expression, p.unit, p.occurrence, p.metricId))
                        .toList(),
                r.sample(),
                r.person(),
                r.madeAt());
    }

    /** What patterns find in a text. Nothing is stored. */
    static ScoreReading.Scores read(List<PatternPart> patterns, String text) {
        checkNames(patterns);
        try {
            return ScoreReading.read(patterns.stream().map(PatternPart::pattern).toList(), text);
        } catch (IllegalArgumentException e) {
            throw Problem.invalid("text-too-long", Problem.words(e));
        }
    }

    /** What patterns find in a text, and what is wrong with it for the tests they belong to. Nothing is stored. */
    @Transactional(readOnly = true)
    TriedRule tryOut(List<PatternPart> patterns, String text) {
        Map<Long, MetricRow> metrics =
                catalog.metrics().stream().collect(Collectors.toMap(MetricRow::id, m -> m, (a, b) -> a));
        ScoreReading.Scores outcome = read(patterns, text);
        List<TriedScore> found = new ArrayList<>();
        Map<String, ScoreReading.MissedScore> missed = new LinkedHashMap<>();
        outcome.missed().forEach(m -> missed.putIfAbsent(m.pattern(), m));
        Map<String, MetricRow> metricOf = new HashMap<>();
        for (PatternPart p : patterns) {
            MetricRow metric = p.metricId() == null ? null : metrics.get(p.metricId());
            if (metric != null) {
                metricOf.put(p.name().strip(), metric);
            }
        }
        for (ScoreReading.FoundScore f : outcome.found()) {
            MetricRow metric = metricOf.get(f.pattern());
            OptionalDouble factor = metric == null ? OptionalDouble.empty() : UnitStep.factor(f.unit(), metric.unit());
            if (metric != null && factor.isEmpty()) {
                missed.putIfAbsent(f.pattern(), new ScoreReading.MissedScore(f.pattern(), notIts(f.unit(), metric)));
            }
            found.add(new TriedScore(
                    f.pattern(),
                    f.run(),
                    f.value(),
                    f.unit(),
                    f.resolution(),
                    f.line(),
                    f.text(),
                    factor.isPresent() ? f.value() * factor.getAsDouble() : null,
                    metric == null ? null : metric.unit()));
        }
        return new TriedRule(found, List.copyOf(missed.values()));
    }

    private static String notIts(String unit, MetricRow metric) {
        return "This is in " + inWords(unit) + ", and " + metric.test() + " is measured in " + inWords(metric.unit())
                + "; the one does not turn into the other.";
    }

    private static String inWords(String unit) {
        return unit.equals("1") ? "points" : unit;
    }

    private static void checkNames(List<PatternPart> patterns) {
        Set<String> names = new HashSet<>();
        for (PatternPart p : patterns) {
            if (!names.add(p.name().strip())) {
                throw Problem.invalid(
                        "name-twice", "Two patterns are called \"" + p.name().strip() + "\". Give each its own name.");
            }
        }
    }

    /** @param sample the text it was made on: every pattern must find something there */
    @Transactional
    long make(long suiteVersionId, List<PatternPart> patterns, String sample, String person) {
        Map<Long, MetricRow> metrics = catalog.metrics().stream()
                .filter(m -> m.suiteVersionId() == suiteVersionId)
                .collect(Collectors.toMap(MetricRow::id, m -> m));
        if (metrics.isEmpty()) {
            throw Problem.notFound("suite version", suiteVersionId);
        }
        List<Problem.Refused> refused = new ArrayList<>();
        for (PatternPart p : patterns) {
            MetricRow metric = p.metricId() == null ? null : metrics.get(p.metricId());
            if (metric == null) {
                refused.add(new Problem.Refused(
                        p.name(),
                        "\"" + p.name() + "\" needs a test of this suite version that its number belongs to."));
            } else if (!metric.given()
                    || metric.kind().isSeries()
                    || metric.series() != null
                    || metric.kind() == Kind.CHECK
                    || metric.kind() == Kind.CHOICE) {
                refused.add(new Problem.Refused(p.name(), "\"" + metric.test() + "\" takes no number out of a text."));
            }
        }
        tryOut(patterns, sample)
                .missed()
                .forEach(m -> refused.add(new Problem.Refused(
                        m.pattern(),
                        "\"" + m.pattern() + "\" reads no score of its test in its own sample: " + m.reason())));
        if (!refused.isEmpty()) {
            throw Problem.refused("rule-refused", refused);
        }
        ReadingRule rule = new ReadingRule(
                suiteVersionId,
                patterns.stream()
                        .map(p -> new ReadingRule.Part(p.pattern(), require(p.metricId())))
                        .toList(),
                sample,
                person,
                clock.instant());
        entities.persist(rule);
        changes.note(
                person,
                "reading rule",
                rule.id(),
                ChangeLog.MADE,
                null,
                String.join(", ", patterns.stream().map(PatternPart::name).toList()));
        return rule.id();
    }

    @Transactional
    void retire(long id, String person) {
        ReadingRule rule = entities.find(ReadingRule.class, id);
        if (rule == null || rule.retired()) {
            throw Problem.notFound("reading rule", id);
        }
        rule.retire(clock.instant());
        changes.note(person, "reading rule", id, "retired", "in use", "retired");
    }

    /** Makes a suite of one's own for what a general-purpose tool prints: with a test for each number that the sample has. */
    @Transactional
    void makeSuite(String toolKey, String name, String version, String mode, String sample, String person) {
        ShippedRules.Tool tool = ShippedRules.all().stream()
                .filter(t -> t.key().equals(toolKey))
                .findFirst()
                .orElseThrow(() -> Problem.notFound("tool", toolKey));
        Set<String> found = new LinkedHashSet<>(
                read(tool.parts().stream().map(p -> part(p, null)).toList(), sample).found().stream()
                        .map(ScoreReading.FoundScore::pattern)
                        .toList());
        List<ShippedRules.Part> parts = tool.parts().stream()
                .filter(p -> found.contains(p.pattern().name()))
                .toList();
        if (parts.isEmpty()) {
            throw Problem.invalid(
                    "nothing-read",
                    "This is not what " + tool.name() + " prints: no number was recognised. Paste the output of: "
                            + tool.how());
        }
        List<Catalog.NewTest> tests = parts.stream()
                .map(p -> new Catalog.NewTest(
                        p.pattern().name().toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "-"),
                        p.pattern().name(),
                        "Read from " + tool.name(),
                        TestGroup.valueOf(p.group().toUpperCase(Locale.ROOT)),
                        List.of(new Catalog.NewMetric(
                                "value", p.pattern().name(), p.unit(), p.direction(), p.scale(), p.main()))))
                .toList();
        List<Long> ids = catalog.makeOwn(name, version, mode, tests, person);
        // The tests are read past what this transaction has in hand.
        entities.flush();
        entities.clear();
        Map<Long, TestRow> made = catalog.tests(ids).stream().collect(Collectors.toMap(TestRow::id, t -> t));
        List<PatternPart> patterns = new ArrayList<>();
        for (int i = 0; i < parts.size(); i++) {
            patterns.add(part(
                    parts.get(i), require(made, ids.get(i)).metrics().get(0).id()));
        }
        make(require(made, ids.get(0)).suiteVersionId(), patterns, sample, person);
    }

    private static PatternPart part(ShippedRules.Part p, @Nullable Long metricId) {
        return new PatternPart(
                p.pattern().name(),
                p.pattern().kind(),
                p.pattern().expression(),
                p.pattern().unit(),
                p.pattern().occurrence(),
                metricId);
    }
}
