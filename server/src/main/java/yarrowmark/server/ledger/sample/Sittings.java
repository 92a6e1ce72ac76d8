package yarrowmark.server.ledger.sample;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.springframework.jdbc.core.JdbcTemplate;
import yarrowmark.core.stats.Sample;
import yarrowmark.core.stats.SampleMoments;

/**
 * Which sessions of a configuration are one sitting: where the later one begins within four hours of the earlier one's end.
 * Two sittings of one afternoon say nothing about days, so for noise they count as one. Source: section 11 of the method.
 */
final class Sittings {
    private static final Duration SAME = Duration.ofHours(4);

    private final JdbcTemplate jdbc;
    /** By configuration, for sessions that continue an earlier one, the first of their sitting. */
    private volatile Map<Long, Map<Long, Long>> byConfiguration = Map.of();

    Sittings(JdbcTemplate jdbc) {
        this.jdbc = jdbc;
    }

    private record Session(long id, Instant start, Instant end) {}

    /** @param where empty, or a condition with the word. @param stale the configurations it names */
    void read(String where, Collection<Long> stale) {
        Map<Long, List<Session>> sessions = new HashMap<>();
        jdbc.query(
                "select id, configuration_id, started_at, coalesce(ended_at, started_at) from session" + where
                        + " order by configuration_id, started_at, id",
                (java.sql.ResultSet row) -> {
                    sessions.computeIfAbsent(row.getLong(2), c -> new ArrayList<>())
                            .add(new Session(
                                    row.getLong(1),
                                    row.getTimestamp(3).toInstant(),
                                    row.getTimestamp(4).toInstant()));
                });
        Map<Long, Map<Long, Long>> now = stale.isEmpty() ? new HashMap<>() : new HashMap<>(byConfiguration);
        stale.forEach(now::remove);
        sessions.forEach((configuration, own) -> {
            Map<Long, Long> joined = firstOfSitting(own);
            if (!joined.isEmpty()) {
                now.put(configuration, joined);
            }
        });
        byConfiguration = now;
    }

    /** None of these has a second session. */
    void forget(Collection<Long> configurations) {
        Map<Long, Map<Long, Long>> now = new HashMap<>(byConfiguration);
        configurations.forEach(now::remove);
        byConfiguration = now;
    }

    private static Map<Long, Long> firstOfSitting(List<Session> own) {
        Map<Long, Long> joined = new HashMap<>();
        long first = own.get(0).id();
        Instant end = own.get(0).end();
        for (Session s : own.subList(1, own.size())) {
            if (s.start().isAfter(end.plus(SAME))) {
                first = s.id();
            } else {
                joined.put(s.id(), first);
            }
            end = s.end().isAfter(end) ? s.end() : end;
        }
        return joined;
    }

    /** The same samples, with the sessions of one sitting as one. */
    List<Samples.SampleRow> joined(List<Samples.SampleRow> rows) {
        Map<Long, Map<Long, Long>> all = byConfiguration;
        if (all.isEmpty()) {
            return rows;
        }
        List<Samples.SampleRow> found = new ArrayList<>(rows.size());
        for (Samples.SampleRow row : rows) {
            Map<Long, Long> joined = all.get(row.configurationId());
            found.add(
                    joined == null || row.sample().sessions().stream().noneMatch(s -> joined.containsKey(s.session()))
                            ? row
                            : new Samples.SampleRow(
                                    row.configurationId(), row.metricId(), joined(row.sample(), joined)));
        }
        return found;
    }

    private static Sample joined(Sample sample, Map<Long, Long> joined) {
        Map<Long, SampleMoments> sittings = new TreeMap<>();
        for (Sample.OfSession s : sample.sessions()) {
            sittings.merge(joined.getOrDefault(s.session(), s.session()), s.moments(), SampleMoments::pooled);
        }
        return Sample.of(sittings.entrySet().stream()
                .map(e -> new Sample.OfSession(e.getKey(), e.getValue()))
                .toList());
    }
}
