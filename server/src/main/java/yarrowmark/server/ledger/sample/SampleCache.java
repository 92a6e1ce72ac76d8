package yarrowmark.server.ledger.sample;

import static yarrowmark.server.platform.Require.require;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.ledger.sample.Samples.SampleRow;
import yarrowmark.server.platform.change.Mirror;
import yarrowmark.server.platform.change.RecordsChanged;

/**
 * The table of samples as it was committed last, in memory: a standing needs all of it, and reading a hundred thousand rows
 * takes longer than everything else that a standing does. Once a configuration's samples change, its rows are read anew,
 * and no others. What is not committed yet is not seen.
 */
@Service
public class SampleCache implements Mirror {
    /** From so many on, everything is read anew at once. */
    private static final int MANY = 500;

    /** Samples of a configuration; the metrics once more by themselves, so that looking for some of them touches nothing else. */
    private record Own(int[] metrics, SampleRow[] rows) {}

    private final JdbcTemplate jdbc;
    private final CountedSessions taken;
    private final Set<Long> changed = new HashSet<>();
    private @Nullable TreeMap<Long, Own> byConfiguration;
    private final Sittings sittings;

    SampleCache(JdbcTemplate jdbc, CountedSessions taken) {
        this.taken = taken;
        this.jdbc = jdbc;
        this.sittings = new Sittings(jdbc);
    }

    /** Every sample of these metrics, of the sessions that count by default, by configuration in the order they were made. */
    @Transactional(readOnly = true)
    public List<SampleRow> ofMetrics(Collection<Long> metricIds) {
        return ofMetrics(metricIds, SessionSelection.USUAL);
    }

    @Transactional(readOnly = true)
    public List<SampleRow> ofMetrics(Collection<Long> metricIds, SessionSelection take) {
        BitSet wanted = new BitSet();
        metricIds.forEach(id -> wanted.set(Math.toIntExact(id)));
        List<SampleRow> rows = new ArrayList<>();
        for (Own own : current()) {
            for (int i = 0; i < own.metrics.length; i++) {
                if (wanted.get(own.metrics[i])) {
                    rows.add(own.rows[i]);
                }
            }
        }
        return sittings.joined(taken.of(rows, take));
    }

    /** Every sample of these configurations, by configuration in the order they were made. */
    @Transactional(readOnly = true)
    public List<SampleRow> ofConfigurations(Collection<Long> configurationIds, SessionSelection take) {
        List<SampleRow> rows = new ArrayList<>();
        for (Own own : current(configurationIds)) {
            rows.addAll(List.of(own.rows));
        }
        return sittings.joined(taken.of(rows, take));
    }

    /** Metrics that anything has a sample of. */
    @Transactional(readOnly = true)
    public Set<Long> measured() {
        BitSet seen = new BitSet();
        for (Own own : current()) {
            for (int metric : own.metrics) {
                seen.set(metric);
            }
        }
        return seen.stream().mapToObj(id -> (long) id).collect(Collectors.toSet());
    }

    private synchronized List<Own> current() {
        return List.copyOf(refreshed().values());
    }

    private synchronized List<Own> current(Collection<Long> configurationIds) {
        TreeMap<Long, Own> all = refreshed();
        return configurationIds.stream()
                .distinct()
                .sorted()
                .filter(all::containsKey)
                .map(id -> require(all, id))
                .toList();
    }

    /** What is in memory, brought up to date. The caller holds the lock. */
    private TreeMap<Long, Own> refreshed() {
        Set<Long> stale;
        synchronized (changed) {
            stale = Set.copyOf(changed);
            changed.clear();
        }
        try {
            if (byConfiguration == null || stale.size() >= MANY) {
                byConfiguration = new TreeMap<>(read(""));
                sittings.read("", List.of());
            } else if (!stale.isEmpty()) {
                String where = " where configuration_id in ("
                        + stale.stream().map(String::valueOf).collect(Collectors.joining(",")) + ")";
                Map<Long, Own> read = read(where);
                if (read.values().stream().anyMatch(SampleCache::hasSeveralSessions)) {
                    sittings.read(where, stale);
                } else {
                    sittings.forget(stale);
                }
                for (Long id : stale) {
                    if (read.containsKey(id)) {
                        byConfiguration.put(id, read.get(id));
                    } else {
                        byConfiguration.remove(id);
                    }
                }
            }
        } catch (RuntimeException e) {
            // Whatever was not read is read next time.
            byConfiguration = null;
            throw e;
        }
        return require(byConfiguration);
    }

    private static boolean hasSeveralSessions(Own own) {
        return Arrays.stream(own.rows).anyMatch(r -> r.sample().sessions().size() > 1);
    }

    private Map<Long, Own> read(String where) {
        Map<Long, List<SampleRow>> rows = new HashMap<>();
        SampleRows.read(jdbc, where).forEach(row -> rows.computeIfAbsent(row.configurationId(), c -> new ArrayList<>())
                .add(row));
        Map<Long, Own> own = new HashMap<>();
        rows.forEach((id, list) -> own.put(
                id,
                new Own(
                        list.stream()
                                .mapToInt(r -> Math.toIntExact(r.metricId()))
                                .toArray(),
                        list.toArray(SampleRow[]::new))));
        return own;
    }

    @Override
    public void note(RecordsChanged change) {
        if (change instanceof SamplesChanged samples) {
            synchronized (changed) {
                changed.add(samples.configurationId());
            }
        }
    }
}
