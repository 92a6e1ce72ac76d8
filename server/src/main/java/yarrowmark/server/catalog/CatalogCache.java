package yarrowmark.server.catalog;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.platform.change.Cached;
import yarrowmark.server.platform.change.ChangeFeed;
import yarrowmark.server.platform.change.Mirror;
import yarrowmark.server.platform.change.RecordsChanged;

/**
 * The catalogue as it was committed last, in memory: every delivered run and every question needs it, and reading it took
 * a third of the time of a delivery and most of the time of many a question. Whoever changes the catalogue in the same
 * transaction asks {@link Catalog} itself, which reads where a transaction may write.
 */
@Component
public class CatalogCache implements Mirror {
    /**
     * @param tests      by group, suite and position
     * @param metrics    in the order of their tests
     * @param inUse      those of tests that were not retired
     * @param computed   from others, each after those it is computed from
     * @param joins      comparability groups, and the group that each was joined into
     * @param groupOf    each test's comparability group
     * @param outdated   suite versions that a newer one of the same suite and mode has taken the place of
     */
    record Known(
            List<TestRow> tests,
            Map<Long, TestRow> byId,
            List<MetricRow> metrics,
            List<MetricRow> inUse,
            List<MetricRow> computed,
            Map<Long, Long> joins,
            Map<Long, Long> groupOf,
            Set<Long> outdated) {}

    private final TestDefinitionRepository tests;
    private final SuiteVersionRepository versions;
    private final ComparabilityGroupRepository comparability;
    private final ChangeFeed feed;
    private final Cached<Known> known = new Cached<>();

    CatalogCache(
            TestDefinitionRepository tests,
            SuiteVersionRepository versions,
            ComparabilityGroupRepository comparability,
            ChangeFeed feed) {
        this.tests = tests;
        this.versions = versions;
        this.comparability = comparability;
        this.feed = feed;
    }

    /** Those of these ids that there are. */
    @Transactional(readOnly = true)
    public List<TestRow> tests(Collection<Long> ids) {
        Known now = now();
        List<TestRow> found = new ArrayList<>();
        for (long id : ids) {
            TestRow test = now.byId.get(id);
            if (test == null) {
                // Made in this very transaction, or nowhere.
                return tests.findByIdIn(ids).stream().map(TestRow::of).toList();
            }
            found.add(test);
        }
        return found;
    }

    /** Metrics that are computed from others, each after those it is computed from. */
    @Transactional(readOnly = true)
    public List<MetricRow> computed() {
        return now().computed;
    }

    /** The caller has a transaction. */
    Known now() {
        return known.get(this::read, () -> !feed.changedHere(CatalogWatch.CatalogChanged.class));
    }

    private Known read() {
        List<TestRow> all = inOrder(tests);
        Map<Long, TestRow> byId = new LinkedHashMap<>();
        all.forEach(t -> byId.put(t.id(), t));
        List<TestRow> inUse = all.stream().filter(t -> !t.retired()).toList();
        return new Known(
                all,
                byId,
                metrics(all),
                metrics(inUse),
                inUse.stream()
                        .filter(t -> t.metrics().stream().anyMatch(m -> !m.given()))
                        .flatMap(t -> t.metrics().stream())
                        .sorted(Comparator.comparingLong(MetricRow::id))
                        .toList(),
                pairs(comparability.findJoins()),
                pairs(tests.findGroups()),
                outdated(versions.findAllInOrder()));
    }

    static List<TestRow> inOrder(TestDefinitionRepository tests) {
        return tests.findAllInOrder().stream()
                .map(TestRow::of)
                .sorted(Comparator.comparing(TestRow::group))
                .toList();
    }

    static List<MetricRow> metrics(List<TestRow> tests) {
        return tests.stream().flatMap(t -> t.metrics().stream()).toList();
    }

    static Map<Long, Long> pairs(List<Object[]> rows) {
        return rows.stream().collect(Collectors.toMap(r -> (Long) r[0], r -> (Long) r[1]));
    }

    /** @param all in their order, so that the last one of a suite and mode stays */
    static Set<Long> outdated(List<SuiteVersion> all) {
        Map<List<Object>, Long> newest = new HashMap<>();
        all.forEach(v -> newest.put(List.of(v.suite().id(), v.mode()), v.id()));
        return all.stream()
                .filter(v -> !v.id().equals(newest.get(List.of(v.suite().id(), v.mode()))))
                .map(SuiteVersion::id)
                .collect(Collectors.toSet());
    }

    @Override
    public void note(RecordsChanged change) {
        if (change instanceof CatalogWatch.CatalogChanged) {
            known.forget();
        }
    }
}
