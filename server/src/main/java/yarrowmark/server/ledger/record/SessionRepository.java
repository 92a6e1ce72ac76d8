package yarrowmark.server.ledger.record;

import java.util.Collection;
import java.util.List;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

public interface SessionRepository extends JpaRepository<Session, Long> {
    List<Session> findByConfigurationIdOrderByStartedAtDesc(long configurationId);

    List<Session> findByConfigurationIdInOrderByStartedAtDesc(Collection<Long> configurationIds);

    /** Sessions with a run that was completed. */
    @Query(
            "select s from Session s where s.configurationId in :configurationIds and exists (select 1 from Run r where r.sessionId = s.id and r.state = yarrowmark.server.ledger.record.RunState.OK) order by s.id")
    List<Session> findMeasured(Collection<Long> configurationIds);

    /** Plan, configuration and start of each session with a completed run. */
    @Query(
            "select s.planName, s.configurationId, s.startedAt from Session s where s.planName in :plans and exists (select 1 from Run r where r.sessionId = s.id and r.state = yarrowmark.server.ledger.record.RunState.OK)")
    List<Object[]> findMeasuredDays(Collection<String> plans);

    /** Configuration, and whether a session with a completed run was on mains, where somebody said. */
    @Query(
            "select distinct s.configurationId, s.onMains from Session s where s.onMains is not null and exists (select 1 from Run r where r.sessionId = s.id and r.state = yarrowmark.server.ledger.record.RunState.OK)")
    List<Object[]> findPower();
}
