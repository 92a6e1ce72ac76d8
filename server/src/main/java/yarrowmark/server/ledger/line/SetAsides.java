package yarrowmark.server.ledger.line;

import jakarta.persistence.EntityManager;
import java.security.SecureRandom;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.ledger.line.LedgerConditions.Condition;
import yarrowmark.server.ledger.record.ComputedValues;
import yarrowmark.server.ledger.record.SessionRepository;
import yarrowmark.server.ledger.record.SetAside;
import yarrowmark.server.ledger.record.SetAsideRepository;
import yarrowmark.server.ledger.sample.Samples;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.history.ChangeLog;

/** Sets many readings aside at once, and takes that back at once. */
@Service
public class SetAsides {
    static final int MOST = 20_000;
    private static final int AT_ONCE = 5_000;
    private static final SecureRandom RANDOM = new SecureRandom();

    /** @param batch names what was set aside together, so that it can be taken back together */
    public record Done(long batch, int readings) {}

    private record Place(long readingId, long metricId, long configurationId, long sessionId) {}

    private final EntityManager entities;
    private final LedgerConditions conditions;
    private final SetAsideRepository asides;
    private final SessionRepository sessions;
    private final Samples samples;
    private final ComputedValues computed;
    private final Catalog catalog;
    private final ChangeLog changes;
    private final Clock clock;

    SetAsides(
            EntityManager entities,
            LedgerConditions conditions,
            SetAsideRepository asides,
            SessionRepository sessions,
            Samples samples,
            ComputedValues computed,
            Catalog catalog,
            ChangeLog changes,
            Clock clock) {
        this.entities = entities;
        this.conditions = conditions;
        this.asides = asides;
        this.sessions = sessions;
        this.samples = samples;
        this.computed = computed;
        this.catalog = catalog;
        this.changes = changes;
        this.clock = clock;
    }

    /** Of what the filter shows, everything that counts now. @param expected how many the person saw, so that nothing else is set aside */
    @Transactional
    Done setAside(LedgerFilter filter, int expected, String reason, String person) {
        Condition condition = conditions.of(filter).and("a.id is null");
        List<Long> ids = condition
                .bound(entities.createQuery(
                        "select rd.id from Run r join Reading rd on rd.runId = r.id left join SetAside a on a.readingId = rd.id and a.takenBackAt is null"
                                + condition.where(),
                        Long.class))
                .setMaxResults(MOST + 1)
                .getResultList();
        if (ids.size() > MOST) {
            throw Problem.invalid("too-many", "More than " + MOST + " readings count here. Narrow the ledger first.");
        }
        if (ids.isEmpty()) {
            throw Problem.invalid("none-counts", "None of these readings counts, so there is nothing to set aside.");
        }
        if (ids.size() != expected) {
            throw Problem.conflict(
                            "changed-meanwhile",
                            "The ledger changed: " + ids.size() + " readings count here now, not " + expected
                                    + ". Look again.")
                    .with("now", ids.size());
        }
        return set(ids, reason, person);
    }

    /** Of these sessions everything that counts, however much it is; nothing is no trouble. */
    @Transactional
    public Done setAsideSessions(Collection<Long> sessionIds, String reason, String person) {
        if (sessionIds.isEmpty()) {
            return new Done(0, 0);
        }
        List<Long> ids = entities.createQuery(
                        "select rd.id from Run r join Reading rd on rd.runId = r.id left join SetAside a on a.readingId = rd.id and a.takenBackAt is null where r.sessionId in :sessions and a.id is null order by rd.id",
                        Long.class)
                .setParameter("sessions", sessionIds)
                .getResultList();
        return ids.isEmpty() ? new Done(0, 0) : set(ids, reason, person);
    }

    private Done set(List<Long> ids, String reason, String person) {
        long batch = RANDOM.nextLong(1, 1L << 53);
        List<Place> places = locked(ids);
        Instant now = clock.instant();
        int set = 0;
        for (List<Long> some : parts(ids)) {
            // One that another person set aside while the lock was waited for is theirs.
            set += entities.createNativeQuery(
                            "insert into set_aside (reading_id, reason, person, at, batch) select rd.id, :reason, :person, :at, :batch from reading rd "
                                    + "where rd.id in (:ids) and not exists (select 1 from set_aside a where a.reading_id = rd.id and a.taken_back_at is null)")
                    .setParameter("ids", some)
                    .setParameter("reason", reason.strip())
                    .setParameter("person", person)
                    .setParameter("at", now)
                    .setParameter("batch", batch)
                    .executeUpdate();
        }
        refresh(places);
        changes.note(person, "ledger", batch, "set aside", null, set + " readings", reason.strip());
        return new Done(batch, set);
    }

    @Transactional
    public Done takeBack(long batch, String person) {
        List<SetAside> all = asides.findByBatchAndTakenBackAtIsNull(batch);
        if (all.isEmpty()) {
            throw Problem.conflict("nothing-to-take-back", "These readings count again already.");
        }
        List<Place> places = locked(all.stream().map(SetAside::readingId).toList());
        Instant now = clock.instant();
        all.forEach(a -> a.takeBack(person, now));
        entities.flush();
        refresh(places);
        changes.note(person, "ledger", batch, "set aside", places.size() + " readings", null);
        return new Done(batch, places.size());
    }

    private static List<List<Long>> parts(List<Long> ids) {
        List<List<Long>> parts = new ArrayList<>();
        for (int i = 0; i < ids.size(); i += AT_ONCE) {
            parts.add(ids.subList(i, Math.min(ids.size(), i + AT_ONCE)));
        }
        return parts;
    }

    /** Where these readings are once their configurations are locked: a merge may move them while the lock is waited for. */
    private List<Place> locked(List<Long> ids) {
        Set<Long> held = new TreeSet<>();
        while (true) {
            List<Place> places = places(ids);
            Set<Long> wanted =
                    new TreeSet<>(places.stream().map(Place::configurationId).toList());
            if (held.containsAll(wanted)) {
                return places;
            }
            wanted.stream().filter(held::add).forEach(samples::lock);
        }
    }

    private List<Place> places(List<Long> ids) {
        List<Place> places = new ArrayList<>();
        for (List<Long> some : parts(ids)) {
            places.addAll(entities.createQuery(
                            "select new yarrowmark.server.ledger.line.SetAsides$Place(rd.id, rd.metricId, rd.configurationId, r.sessionId) from Reading rd join Run r on r.id = rd.runId where rd.id in :ids order by rd.id",
                            Place.class)
                    .setParameter("ids", some)
                    .getResultList());
        }
        return places;
    }

    private void refresh(List<Place> places) {
        Map<Long, MetricRow> metrics = catalog.metrics().stream().collect(Collectors.toMap(MetricRow::id, m -> m));
        Map<Long, Set<Long>> samplesOf = new TreeMap<>();
        Map<Long, Set<Long>> metricsOf = new TreeMap<>();
        for (Place p : places) {
            samplesOf.computeIfAbsent(p.configurationId(), c -> new TreeSet<>()).add(p.metricId());
            metricsOf.computeIfAbsent(p.sessionId(), c -> new TreeSet<>()).add(p.metricId());
        }
        samplesOf.forEach((configuration, ids) ->
                samples.refreshAll(configuration, ids.stream().map(metrics::get).toList()));
        Instant now = clock.instant();
        metricsOf.forEach(
                (session, ids) -> computed.refresh(sessions.findById(session).orElseThrow(), ids, now));
    }
}
