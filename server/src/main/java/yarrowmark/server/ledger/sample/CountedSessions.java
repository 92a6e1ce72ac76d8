package yarrowmark.server.ledger.sample;

import java.sql.Timestamp;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.LongPredicate;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.stats.Sample;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.change.Cached;
import yarrowmark.server.platform.change.Mirror;
import yarrowmark.server.platform.change.RecordsChanged;
import yarrowmark.server.platform.history.ChangeLog;
import yarrowmark.server.platform.records.Settings;

/**
 * Parts the sessions of a configuration into those that count by default and those that were measured under a condition of
 * the lab's list: with the screen recorded, on battery, with other work going on, or never finished. A session on battery is an unusual one
 * only where the same configuration was measured on mains as well: a phone has no other power.
 */
// Before whoever computes from what it takes: they must not ask it while it still knows what was.
@Service
@Order(Ordered.HIGHEST_PRECEDENCE)
public class CountedSessions implements Mirror {
    private static final String SETTING = "conditions.not-counted";
    /** An open session for which nothing came for so long is taken as left off. */
    private static final Duration LEFT_OFF_AFTER = Duration.ofHours(24);

    /**
     * A session that was stopped or left off before each of its tests had a run, and of which nobody said that it counts.
     *
     * @param measured tests that have a run
     * @param planned  tests that it was to have; null where that is not known
     */
    public record Unfinished(
            long session, long configurationId, Instant startedAt, int measured, @Nullable Integer planned) {}

    /** @param flags of the sessions that have any. @param notCounted sessions that do not count by default */
    private record Known(
            Map<Long, Set<SessionSelection>> flags,
            Set<Long> notCounted,
            Map<Long, Set<Long>> byConfiguration,
            List<Unfinished> unfinished,
            Set<SessionSelection> list) {}

    private final JdbcTemplate jdbc;
    private final Settings settings;
    private final ChangeLog changes;
    private final ApplicationEventPublisher events;
    private final Clock clock;
    private final Cached<Known> known = new Cached<>();

    CountedSessions(
            JdbcTemplate jdbc, Settings settings, ChangeLog changes, ApplicationEventPublisher events, Clock clock) {
        this.jdbc = jdbc;
        this.settings = settings;
        this.changes = changes;
        this.events = events;
        this.clock = clock;
    }

    /** Those sessions alone that are taken; a sample none of whose sessions is falls away. */
    List<Samples.SampleRow> of(List<Samples.SampleRow> rows, SessionSelection take) {
        if (take == SessionSelection.ALL) {
            return rows;
        }
        Known now = known();
        if (take == SessionSelection.USUAL && now.notCounted().isEmpty()) {
            return rows;
        }
        List<Samples.SampleRow> kept = new ArrayList<>(rows.size());
        for (Samples.SampleRow row : rows) {
            Sample sample = of(now, row.sample(), take);
            if (sample == row.sample()) {
                kept.add(row);
            } else if (sample != null) {
                kept.add(new Samples.SampleRow(row.configurationId(), row.metricId(), sample));
            }
        }
        return kept;
    }

    private static @Nullable Sample of(Known now, Sample sample, SessionSelection take) {
        List<Sample.OfSession> all = sample.sessions();
        List<Sample.OfSession> taken =
                all.stream().filter(s -> isTaken(now, s.session(), take)).toList();
        return taken.size() == all.size() ? sample : taken.isEmpty() ? null : Sample.of(taken);
    }

    private static boolean isTaken(Known now, long session, SessionSelection take) {
        return take == SessionSelection.USUAL
                ? !now.notCounted().contains(session)
                : now.flags().getOrDefault(session, Set.of()).contains(take);
    }

    /** Which sessions are taken, by their numbers. */
    @Transactional(readOnly = true)
    public LongPredicate taken(SessionSelection take) {
        if (take == SessionSelection.ALL) {
            return session -> true;
        }
        Known now = known();
        return session -> isTaken(now, session, take);
    }

    /** How many sessions of these configurations do not count by default. */
    @Transactional(readOnly = true)
    public int notCounted(Collection<Long> configurationIds) {
        Known now = known();
        return configurationIds.stream()
                .distinct()
                .mapToInt(id -> (int) now.byConfiguration().getOrDefault(id, Set.of()).stream()
                        .filter(now.notCounted()::contains)
                        .count())
                .sum();
    }

    /** Sessions that were never finished and do not count, the newest first; none where the lab counts them. */
    @Transactional(readOnly = true)
    public List<Unfinished> unfinished() {
        Known now = known();
        return now.list().contains(SessionSelection.UNFINISHED) ? now.unfinished() : List.of();
    }

    /** A session is left off by the passing of time, without any change of the records that would tell it. */
    @Scheduled(fixedDelayString = "PT10M", initialDelayString = "PT10M")
    @Transactional
    public void lookForLeftOff() {
        if (!readUnfinished().equals(known().unfinished())) {
            events.publishEvent((RecordsChanged) new ConditionsChanged());
        }
    }

    /** The conditions under which sessions do not count by default. */
    @Transactional(readOnly = true)
    public Set<SessionSelection> list() {
        return known().list();
    }

    @Transactional
    public void setList(Set<SessionSelection> conditions, String person) {
        conditions.stream().filter(t -> !t.isCondition()).findFirst().ifPresent(t -> {
            throw Problem.invalid("not-a-condition", "\"" + t + "\" is no condition that a session may have.");
        });
        String before = words(list());
        settings.put(
                SETTING,
                conditions.stream().sorted().map(SessionSelection::name).collect(Collectors.joining(",")));
        changes.note(person, "conditions", 0, "do not count by default", before, words(conditions));
        events.publishEvent((RecordsChanged) new ConditionsChanged());
    }

    private static String words(Set<SessionSelection> list) {
        return list.stream().sorted().map(SessionSelection::words).collect(Collectors.joining(", "));
    }

    private Known known() {
        return known.get(this::read);
    }

    private Known read() {
        Set<SessionSelection> list = settings.get(SETTING)
                .map(text -> Arrays.stream(text.split(","))
                        .filter(t -> !t.isBlank())
                        .map(SessionSelection::valueOf)
                        .collect(Collectors.toCollection(() -> EnumSet.noneOf(SessionSelection.class))))
                .orElseGet(() -> EnumSet.of(
                        SessionSelection.RECORDED,
                        SessionSelection.ON_BATTERY,
                        SessionSelection.OTHER_WORK,
                        SessionSelection.UNFINISHED));
        Map<Long, Set<SessionSelection>> flags = new HashMap<>();
        Map<Long, Set<Long>> byConfiguration = new HashMap<>();
        Map<Long, Long> onBattery = new HashMap<>();
        jdbc.query(
                "select id, configuration_id, on_mains, recording, other_work from session where on_mains = 0 or recording = 1 or other_work = 1",
                (java.sql.ResultSet row) -> {
                    Set<SessionSelection> own = EnumSet.noneOf(SessionSelection.class);
                    if (row.getObject(3) != null && !row.getBoolean(3)) {
                        own.add(SessionSelection.ON_BATTERY);
                        onBattery.put(row.getLong(1), row.getLong(2));
                    }
                    if (row.getBoolean(4)) {
                        own.add(SessionSelection.RECORDED);
                    }
                    if (row.getBoolean(5)) {
                        own.add(SessionSelection.OTHER_WORK);
                    }
                    flags.put(row.getLong(1), own);
                    byConfiguration
                            .computeIfAbsent(row.getLong(2), c -> new HashSet<>())
                            .add(row.getLong(1));
                });
        List<Unfinished> unfinished = readUnfinished();
        for (Unfinished u : unfinished) {
            flags.computeIfAbsent(u.session(), s -> EnumSet.noneOf(SessionSelection.class))
                    .add(SessionSelection.UNFINISHED);
            byConfiguration
                    .computeIfAbsent(u.configurationId(), c -> new HashSet<>())
                    .add(u.session());
        }
        Set<Long> alsoOnMains = onBattery.isEmpty()
                ? Set.of()
                : new HashSet<>(jdbc.queryForList(
                        "select distinct configuration_id from session where on_mains = 1", Long.class));
        Set<Long> notCounted = new HashSet<>();
        flags.forEach((session, own) -> own.stream()
                .filter(list::contains)
                .filter(t -> t != SessionSelection.ON_BATTERY || alsoOnMains.contains(onBattery.get(session)))
                .findAny()
                .ifPresent(t -> notCounted.add(session)));
        return new Known(flags, notCounted, byConfiguration, unfinished, list);
    }

    private List<Unfinished> readUnfinished() {
        return jdbc.query(
                """
                select s.id, s.configuration_id, s.started_at, count(distinct r.test_id) as measured, s.tests
                from session s join run r on r.session_id = s.id
                where s.state <> 'DONE' and s.counts = 0
                group by s.id, s.configuration_id, s.started_at, s.tests, s.state
                having (s.tests is null or measured < s.tests) and (s.state = 'STOPPED' or max(r.finished_at) < ?)
                order by s.started_at desc, s.id desc""",
                (row, n) -> new Unfinished(
                        row.getLong(1),
                        row.getLong(2),
                        row.getTimestamp(3).toInstant(),
                        row.getInt(4),
                        row.getObject(5, Integer.class)),
                Timestamp.from(clock.instant().minus(LEFT_OFF_AFTER)));
    }

    @Override
    public void note(RecordsChanged change) {
        // A run that comes late may be the one that was missing.
        if (change instanceof ConditionsChanged
                || change instanceof SamplesChanged samples
                        && known.now().stream()
                                .flatMap(k -> k.unfinished().stream())
                                .anyMatch(u -> u.configurationId() == samples.configurationId())) {
            known.forget();
        }
    }
}
