package yarrowmark.server.catalog;

import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicLong;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.platform.ChangeFeed;
import yarrowmark.server.platform.Mirror;
import yarrowmark.server.platform.RecordsChanged;

/**
 * The catalogue as it was committed last, in memory: every delivered run asks for its test and for what is computed from
 * it, and reading that took a third of the time of a delivery. Whoever changes the catalogue in the same transaction asks
 * {@link Catalog} itself.
 */
@Component
public class KnownTests implements Mirror {
    private record Known(long change, Map<Long, TestRow> tests, List<MetricRow> computed) {}

    private final Catalog catalog;
    private final ChangeFeed feed;
    private final AtomicLong changes = new AtomicLong();
    private volatile @Nullable Known known;

    KnownTests(Catalog catalog, ChangeFeed feed) {
        this.catalog = catalog;
        this.feed = feed;
    }

    /** Those of these ids that there are. */
    @Transactional(readOnly = true)
    public List<TestRow> tests(Collection<Long> ids) {
        Known now = now();
        List<TestRow> found = new ArrayList<>();
        for (long id : ids) {
            TestRow test = now.tests.get(id);
            if (test == null) {
                // Made in this very transaction, or nowhere.
                return catalog.tests(ids);
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

    private Known now() {
        Known there = known;
        if (there != null && there.change == changes.get()) {
            return there;
        }
        long change = changes.get();
        Map<Long, TestRow> tests = new LinkedHashMap<>();
        catalog.tests().forEach(t -> tests.put(t.id(), t));
        // What is read before a change is committed is of before it, and is not kept for after it.
        Known made = new Known(change, tests, List.copyOf(catalog.computed()));
        // What this transaction itself put in may yet be rolled back.
        if (!feed.changedHere(CatalogWatch.CatalogChanged.class)) {
            known = made;
        }
        return made;
    }

    @Override
    public void note(RecordsChanged change) {
        if (change instanceof CatalogWatch.CatalogChanged) {
            changes.incrementAndGet();
        }
    }
}
