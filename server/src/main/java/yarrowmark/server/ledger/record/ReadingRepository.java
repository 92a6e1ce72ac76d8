package yarrowmark.server.ledger.record;

import java.util.Collection;
import java.util.List;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

public interface ReadingRepository extends JpaRepository<Reading, Long> {
    /** The readings that stand for this one. */
    List<Reading> findByCorrectsIdOrderById(long readingId);

    /** What counts of a session, of these metrics. */
    @Query(
            """
        select new yarrowmark.server.ledger.record.ComputedValues$Input(rd.id, rd.metricId, r.runNumber, rd.value, rd.resolution) from Reading rd join Run r on r.id = rd.runId
        where r.sessionId = :sessionId and rd.metricId in :metrics
        and not exists (select 1 from SetAside a where a.readingId = rd.id and a.takenBackAt is null) order by rd.id""")
    List<ComputedValues.Input> findCountedInSession(long sessionId, Collection<Long> metrics);

    @Query("select r from Reading r where r.runId in :runs order by r.id")
    List<Reading> findByRuns(Collection<Long> runs);
}
