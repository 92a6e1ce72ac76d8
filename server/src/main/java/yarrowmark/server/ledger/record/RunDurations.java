package yarrowmark.server.ledger.record;

import jakarta.persistence.EntityManager;
import java.util.Collection;
import java.util.HashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.shelf.model.DeviceClass;

/** How long runs took, as far as the ledger knows. */
@Service
public class RunDurations {
    /** @param ms mean of one run, in ms. @param runs behind it */
    public record Known(double ms, long runs) {}

    private static final String FROM_RUNS =
            """
        select r.testId, avg(r.durationMs), count(r) from Run r where r.testId in :tests and r.durationMs > 0 and r.state = OK""";
    /** A stopped time is as long as the run was. */
    private static final String FROM_TIMES =
            """
        select r.testId, avg(rd.value * case x.unit when 'ms' then 1 when 'min' then 60000 when 'h' then 3600000 else 1000 end), count(r)
        from Run r join Reading rd on rd.runId = r.id join Metric x on x.id = rd.metricId
        where r.testId in :tests and r.durationMs = 0 and x.kind = DURATION and x.unit in ('ms', 's', 'min', 'h')""";

    private static final String OF_CLASS =
            " and r.configurationId in (select c.id from Configuration c where c.unit.model.deviceClass = :class)";

    private final EntityManager entities;

    RunDurations(EntityManager entities) {
        this.entities = entities;
    }

    /** By test, on devices of this class; on any class where {@code null}. A test that nothing is known of is not in it. */
    @Transactional(readOnly = true)
    public Map<Long, Known> of(Collection<Long> testIds, @Nullable DeviceClass deviceClass) {
        Map<Long, Known> known = new HashMap<>();
        if (testIds.isEmpty()) {
            return known;
        }
        for (String from : new String[] {FROM_TIMES, FROM_RUNS}) {
            var query = entities.createQuery(
                            from + (deviceClass == null ? "" : OF_CLASS) + " group by r.testId", Object[].class)
                    .setParameter("tests", testIds);
            if (deviceClass != null) {
                query.setParameter("class", deviceClass);
            }
            query.getResultList()
                    .forEach(r -> known.put((Long) r[0], new Known(((Number) r[1]).doubleValue(), (Long) r[2])));
        }
        return known;
    }
}
