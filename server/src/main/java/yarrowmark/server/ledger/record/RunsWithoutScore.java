package yarrowmark.server.ledger.record;

import jakarta.persistence.EntityManager;
import java.util.Collection;
import java.util.HashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Runs that gave no score: why a configuration has none of a test. */
@Service
public class RunsWithoutScore {
    /** A test on a configuration. */
    public record Place(long configurationId, long testId) {}

    /** How the latest run of a test ended that gave no score. @param words of a person */
    public record Ended(RunState state, @Nullable Reason reason, @Nullable String words) {}

    private final EntityManager entities;

    RunsWithoutScore(EntityManager entities) {
        this.entities = entities;
    }

    /** The latest of each test on each of these configurations. */
    @Transactional(readOnly = true)
    public Map<Place, Ended> latest(Collection<Long> configurationIds) {
        Map<Place, Ended> latest = new HashMap<>();
        if (configurationIds.isEmpty()) {
            return latest;
        }
        entities.createQuery(
                        """
                select r.configurationId, r.testId, r.state, r.reason, r.reasonWords from Run r
                where r.configurationId in :ids and r.state <> OK order by r.finishedAt, r.id""",
                        Object[].class)
                .setParameter("ids", configurationIds)
                .getResultList()
                .forEach(r -> latest.put(
                        new Place((Long) r[0], (Long) r[1]), new Ended((RunState) r[2], (Reason) r[3], (String) r[4])));
        return latest;
    }
}
