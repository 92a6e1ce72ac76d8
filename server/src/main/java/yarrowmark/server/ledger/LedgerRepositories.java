package yarrowmark.server.ledger;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface SessionRepository extends JpaRepository<Session, Long> {
    List<Session> findByConfigurationIdOrderByStartedAtDesc(long configurationId);

    List<Session> findByConfigurationIdInOrderByStartedAtDesc(Collection<Long> configurationIds);
}

interface RunRepository extends JpaRepository<Run, Long> {
    List<Run> findBySessionIdInOrderById(Collection<Long> sessionIds);
}

interface ReadingRepository extends JpaRepository<Reading, Long> {
    @Query("select r from Reading r where r.runId in :runs order by r.id")
    List<Reading> findByRuns(Collection<Long> runs);

    /** What counts: readings of this metric on this configuration that are not set aside. */
    @Query("""
        select r from Reading r where r.configurationId = :configurationId and r.metricId = :metricId
        and not exists (select 1 from SetAside a where a.readingId = r.id and a.takenBackAt is null)""")
    List<Reading> findCounted(long configurationId, long metricId);
}

interface ReadingSamplesRepository extends JpaRepository<ReadingSamples, Long> {
}

interface SetAsideRepository extends JpaRepository<SetAside, Long> {
    Optional<SetAside> findByReadingIdAndTakenBackAtIsNull(long readingId);

    List<SetAside> findByReadingIdOrderById(long readingId);
}
