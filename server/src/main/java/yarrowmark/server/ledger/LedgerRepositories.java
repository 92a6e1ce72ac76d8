package yarrowmark.server.ledger;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface SessionRepository extends JpaRepository<Session, Long> {
    List<Session> findByConfigurationIdOrderByStartedAtDesc(long configurationId);

    List<Session> findByConfigurationIdInOrderByStartedAtDesc(Collection<Long> configurationIds);

    /** Sessions with a run that was completed. */
    @Query(
            "select s from Session s where s.configurationId in :configurationIds and exists (select 1 from Run r where r.sessionId = s.id and r.state = yarrowmark.server.ledger.RunState.OK) order by s.id")
    List<Session> findMeasured(Collection<Long> configurationIds);

    /** Configuration, and whether a session with a completed run was on mains, where somebody said. */
    @Query(
            "select distinct s.configurationId, s.onMains from Session s where s.onMains is not null and exists (select 1 from Run r where r.sessionId = s.id and r.state = yarrowmark.server.ledger.RunState.OK)")
    List<Object[]> findPower();
}

interface RunRepository extends JpaRepository<Run, Long> {
    List<Run> findBySessionIdInOrderById(Collection<Long> sessionIds);

    List<Run> findBySessionIdAndTestIdAndRunNumber(long sessionId, long testId, int runNumber);
}

interface ReadingRepository extends JpaRepository<Reading, Long> {
    /** The readings that stand for this one. */
    List<Reading> findByCorrectsIdOrderById(long readingId);

    /** What counts of a session, of these metrics. */
    @Query(
            """
        select new yarrowmark.server.ledger.ComputedValues$Input(rd.id, rd.metricId, r.runNumber, rd.value, rd.resolution) from Reading rd join Run r on r.id = rd.runId
        where r.sessionId = :sessionId and rd.metricId in :metrics
        and not exists (select 1 from SetAside a where a.readingId = rd.id and a.takenBackAt is null) order by rd.id""")
    List<ComputedValues.Input> findCountedInSession(long sessionId, Collection<Long> metrics);

    @Query("select r from Reading r where r.runId in :runs order by r.id")
    List<Reading> findByRuns(Collection<Long> runs);

    /** What counts: readings of this metric on this configuration that are not set aside. */
    @Query(
            """
        select r from Reading r where r.configurationId = :configurationId and r.metricId = :metricId
        and not exists (select 1 from SetAside a where a.readingId = r.id and a.takenBackAt is null)""")
    List<Reading> findCounted(long configurationId, long metricId);
}

interface ReadingSamplesRepository extends JpaRepository<ReadingSamples, Long> {}

interface MarkOverruleRepository extends JpaRepository<MarkOverrule, Long> {
    List<MarkOverrule> findByTakenBackAtIsNull();

    List<MarkOverrule> findByConfigurationIdAndMetricIdAndTakenBackAtIsNull(long configurationId, long metricId);
}

interface SetAsideRepository extends JpaRepository<SetAside, Long> {
    Optional<SetAside> findByReadingIdAndTakenBackAtIsNull(long readingId);

    /** Which of these readings are out of the count. */
    @Query("select a.readingId from SetAside a where a.readingId in :readingIds and a.takenBackAt is null")
    List<Long> findOpen(Collection<Long> readingIds);

    List<SetAside> findByReadingIdOrderById(long readingId);

    List<SetAside> findByBatchAndTakenBackAtIsNull(long batch);
}
