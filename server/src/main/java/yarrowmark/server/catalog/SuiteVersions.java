package yarrowmark.server.catalog;

import static yarrowmark.server.platform.Require.require;

import jakarta.persistence.EntityManager;
import java.time.Clock;
import java.time.Instant;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.measure.Kind;
import yarrowmark.core.standing.RatingLimits;
import yarrowmark.core.stats.UsualSpread;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.history.ChangeLog;

/**
 * What may still be done to a suite version that has scores: computed values are added, tests are retired, and its
 * comparability group is joined with another. None of it changes what a stored score means.
 */
@Service
public class SuiteVersions {
    /** @param into the version whose scores these are held against */
    record Joined(long into, String intoName, String reason, String person, Instant at) {}

    /** @param joined absent where its scores stand alone, or where others were joined into it */
    record VersionRow(long id, String suite, String version, boolean builtIn, int tests, @Nullable Joined joined) {}

    private final SuiteVersionRepository versions;
    private final ComparabilityGroupRepository groups;
    private final TestDefinitionRepository tests;
    private final Catalog catalog;
    private final ChangeLog changes;
    private final EntityManager entities;
    private final Clock clock;

    SuiteVersions(
            SuiteVersionRepository versions,
            ComparabilityGroupRepository groups,
            TestDefinitionRepository tests,
            Catalog catalog,
            ChangeLog changes,
            EntityManager entities,
            Clock clock) {
        this.versions = versions;
        this.groups = groups;
        this.tests = tests;
        this.catalog = catalog;
        this.changes = changes;
        this.entities = entities;
        this.clock = clock;
    }

    @Transactional(readOnly = true)
    List<VersionRow> all() {
        Map<Long, Long> counts =
                catalog.tests().stream().collect(Collectors.groupingBy(TestRow::suiteVersionId, Collectors.counting()));
        Map<Long, ComparabilityGroup> joined = groups.findByJoinedIntoIsNotNull().stream()
                .collect(Collectors.toMap(g -> g.suiteVersion().id(), g -> g));
        return versions.findAllInOrder().stream()
                .map(v -> {
                    ComparabilityGroup g = joined.get(v.id());
                    return new VersionRow(
                            v.id(),
                            v.suite().name(),
                            v.version(),
                            v.suite().builtIn(),
                            counts.getOrDefault(v.id(), 0L).intValue(),
                            g == null
                                    ? null
                                    : new Joined(
                                            require(g.joinedInto())
                                                    .suiteVersion()
                                                    .id(),
                                            named(require(g.joinedInto()).suiteVersion()),
                                            require(g.joinedReason()),
                                            require(g.joinedBy()),
                                            require(g.joinedAt())));
                })
                .toList();
    }

    /** Moves a version one place among those of its suite, where its number does not say when it came out. */
    @Transactional
    void move(long versionId, boolean earlier, String person) {
        SuiteVersion version = version(versionId);
        if (VersionsInOrder.move(version, versions.findOfSuite(version.suite().id()), earlier)) {
            changes.note(
                    person, "suite version", versionId, "order", null, earlier ? "one earlier" : "one later", "moved");
        }
    }

    /** From now on scores of the one are compared with those of the other, test by test where name, unit and direction agree. */
    @Transactional
    void join(long versionId, long intoId, String reason, String person) {
        ComparabilityGroup group = group(versionId);
        ComparabilityGroup into = group(intoId);
        if (group.root().id().equals(into.root().id())) {
            throw Problem.conflict(
                    "joined-already",
                    named(version(versionId)) + " and " + named(version(intoId)) + " are compared already.");
        }
        Set<String> here = names(versionId);
        if (names(intoId).stream().noneMatch(here::contains)) {
            throw Problem.invalid(
                    "nothing-in-common",
                    named(version(versionId)) + " and " + named(version(intoId))
                            + " have no test of the same name, unit and direction, so nothing would be compared.");
        }
        // The end of this chain is joined, so that whatever was joined here before comes along.
        ComparabilityGroup end = group.root();
        end.join(into.root(), reason.strip(), person, clock.instant());
        changes.note(
                person,
                "suite version",
                end.suiteVersion().id(),
                "compared with",
                null,
                named(into.root().suiteVersion()),
                reason.strip());
    }

    @Transactional
    void part(long versionId, String person) {
        ComparabilityGroup group = group(versionId);
        if (group.joinedInto() == null) {
            throw Problem.conflict("not-joined", named(version(versionId)) + " was not joined with another version.");
        }
        changes.note(
                person,
                "suite version",
                versionId,
                "compared with",
                named(group.joinedInto().suiteVersion()),
                null);
        group.part();
    }

    Set<String> names(long versionId) {
        Set<String> names = new HashSet<>();
        tests.findBySuiteVersionIdOrderByPosition(versionId).forEach(t -> t.metrics()
                .forEach(m -> names.add(
                        t.name().toLowerCase(Locale.ROOT) + "|" + m.series() + "|" + m.unit() + "|" + m.direction())));
        return names;
    }

    /** Its scores stay in the ledger; it is no longer offered, computed or ranked. */
    @Transactional
    void retire(long testId, boolean retired, String person) {
        TestDefinition test = tests.findById(testId).orElseThrow(() -> Problem.notFound("test", testId));
        if (test.suiteVersion().suite().builtIn()) {
            throw Problem.conflict("built-in-suite", "\"" + test.name() + "\" is built in and cannot be retired.");
        }
        if (retired != (test.retiredAt() != null)) {
            test.retire(retired ? clock.instant() : null);
            changes.note(
                    person,
                    "suite version",
                    test.suiteVersion().id(),
                    "retired",
                    retired ? null : test.name(),
                    retired ? test.name() : null);
        }
    }

    /** Says it of every test of a suite version. */
    @Transactional
    void stateAll(long versionId, @Nullable Double percent, @Nullable String source, String person) {
        if (!versions.existsById(versionId)) {
            throw Problem.notFound("suite version", versionId);
        }
        tests.findBySuiteVersionIdOrderByPosition(versionId).forEach(test -> state(test, percent, source, person));
    }

    /** Says how repeatable a test is, or takes that back: it lends noise where nothing better is known. */
    @Transactional
    void state(long testId, @Nullable Double percent, @Nullable String source, String person) {
        state(tests.findById(testId).orElseThrow(() -> Problem.notFound("test", testId)), percent, source, person);
    }

    private void state(TestDefinition test, @Nullable Double percent, @Nullable String source, String person) {
        String from = source == null ? "" : source.strip();
        if (percent != null) {
            try {
                new UsualSpread(percent);
            } catch (IllegalArgumentException e) {
                throw Problem.invalid(
                        "not-a-repeatability", "A repeatability is 0.0001 to 1000 %, not " + percent + " %.");
            }
            if (from.isEmpty()) {
                throw Problem.invalid(
                        "no-source",
                        "Say where the repeatability comes from: who measured it, or which page states it.");
            }
        }
        String before = words(test.repeatability(), test.repeatabilitySource());
        test.state(percent, percent == null ? null : from);
        changes.note(
                person,
                "suite version",
                test.suiteVersion().id(),
                "repeatability of " + test.name(),
                before,
                words(test.repeatability(), test.repeatabilitySource()));
    }

    static @Nullable String words(@Nullable Double percent, @Nullable String source) {
        return percent == null ? null : percent + " % (" + source + ")";
    }

    /** Says from where on a value is good, and from where on poor; without both, thirds say it again. */
    @Transactional
    void limit(long metricId, @Nullable Double good, @Nullable Double poor, String person) {
        Metric metric = entities.find(Metric.class, metricId);
        if (metric == null) {
            throw Problem.notFound("metric", metricId);
        }
        if ((good == null) != (poor == null)) {
            throw Problem.invalid("one-limit", "Both limits are needed: from where on good, and from where on poor.");
        }
        RatingLimits before = metric.limits();
        RatingLimits now = good == null || poor == null ? null : limits(metric, good, poor);
        metric.limit(now);
        changes.note(
                person,
                "suite version",
                metric.test().suiteVersion().id(),
                "limits of " + metric.name(),
                words(before, metric.unit()),
                words(now, metric.unit()));
    }

    private static RatingLimits limits(Metric metric, double good, double poor) {
        if (metric.kind() == Kind.CHECK || metric.kind() == Kind.CHOICE) {
            throw Problem.invalid("no-limits", metric.name() + " has no number that a limit could be set on.");
        }
        try {
            return new RatingLimits(metric.direction(), good, poor);
        } catch (IllegalArgumentException e) {
            throw Problem.invalid("not-limits", "The limits of " + metric.name() + ": " + Problem.words(e) + ".");
        }
    }

    static @Nullable String words(@Nullable RatingLimits limits, String unit) {
        return limits == null ? null : "good from " + limits.good() + ", poor from " + limits.poor() + " " + unit;
    }

    SuiteVersion version(long id) {
        return versions.findById(id).orElseThrow(() -> Problem.notFound("suite version", id));
    }

    ComparabilityGroup group(long versionId) {
        return groups.findBySuiteVersionId(versionId).orElseThrow(() -> Problem.notFound("suite version", versionId));
    }

    static String named(SuiteVersion v) {
        return v.suite().name() + " " + v.version();
    }
}
