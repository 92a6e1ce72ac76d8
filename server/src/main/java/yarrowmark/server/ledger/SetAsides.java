package yarrowmark.server.ledger;

import jakarta.persistence.EntityManager;
import jakarta.persistence.TypedQuery;
import java.security.SecureRandom;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
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
import yarrowmark.server.platform.ChangeLog;
import yarrowmark.server.platform.Problem;

/** Sets many readings aside at once, and takes that back at once. */
@Service
class SetAsides {
    static final int MOST = 20_000;
    private static final int AT_ONCE = 5_000;
    private static final SecureRandom RANDOM = new SecureRandom();

    /** @param batch names what was set aside together, so that it can be taken back together */
    record Done(long batch, int readings) { }

    private record Place(long readingId, long metricId, long configurationId, long sessionId) { }

    private final EntityManager entities;
    private final LedgerConditions conditions;
    private final SetAsideRepository asides;
    private final SessionRepository sessions;
    private final Samples samples;
    private final ComputedValues computed;
    private final Catalog catalog;
    private final ChangeLog changes;
    private final Clock clock;

    SetAsides(EntityManager entities, LedgerConditions conditions, SetAsideRepository asides, SessionRepository sessions, Samples samples, ComputedValues computed, Catalog catalog, ChangeLog changes, Clock clock) {
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
        Map<String, Object> values = new LinkedHashMap<>();
        String where = conditions.where(filter, values);
        TypedQuery<Long> query = entities.createQuery("select rd.id from Run r join Reading rd on rd.runId = r.id left join SetAside a on a.readingId = rd.id and a.takenBackAt is null"
            + (where.isEmpty() ? " where " : where + " and ") + "a.id is null", Long.class);
        values.forEach(query::setParameter);
        List<Long> ids = query.setMaxResults(MOST + 1).getResultList();
        if (ids.size() > MOST) {
            throw Problem.invalid("too-many", "More than " + MOST + " readings count here. Narrow the ledger first.");
        }
        if (ids.isEmpty()) {
            throw Problem.invalid("none-counts", "None of these readings counts, so there is nothing to set aside.");
        }
        if (ids.size() != expected) {
            throw Problem.conflict("changed-meanwhile", "The ledger changed: " + ids.size() + " readings count here now, not " + expected + ". Look again.").with("now", ids.size());
        }
        long batch = RANDOM.nextLong(1, 1L << 53);
        List<Place> places = locked(ids);
        Instant now = clock.instant();
        for (Place p : places) {
            // One that another person set aside while the lock was waited for is theirs.
            entities.createNativeQuery("insert into set_aside (reading_id, reason, person, at, batch) select :id, :reason, :person, :at, :batch from dual "
                    + "where not exists (select 1 from set_aside where reading_id = :id and taken_back_at is null)")
                .setParameter("id", p.readingId()).setParameter("reason", reason.strip()).setParameter("person", person).setParameter("at", now).setParameter("batch", batch).executeUpdate();
        }
        refresh(places);
        changes.note(person, "ledger", batch, "set aside", null, places.size() + " readings", reason.strip());
        return new Done(batch, places.size());
    }

    @Transactional
    Done takeBack(long batch, String person) {
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

    private List<Place> locked(Collection<Long> ids) {
        List<Place> places = new ArrayList<>();
        List<Long> all = List.copyOf(ids);
        for (int i = 0; i < all.size(); i += AT_ONCE) {
            places.addAll(entities.createQuery("select new yarrowmark.server.ledger.SetAsides$Place(rd.id, rd.metricId, rd.configurationId, r.sessionId) from Reading rd join Run r on r.id = rd.runId where rd.id in :ids order by rd.id", Place.class)
                .setParameter("ids", all.subList(i, Math.min(all.size(), i + AT_ONCE))).getResultList());
        }
        new TreeSet<>(places.stream().map(Place::configurationId).toList()).forEach(samples::lock);
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
        samplesOf.forEach((configuration, ids) -> ids.forEach(m -> samples.refresh(configuration, metrics.get(m))));
        Instant now = clock.instant();
        metricsOf.forEach((session, ids) -> computed.refresh(sessions.findById(session).orElseThrow(), ids, now));
    }
}
