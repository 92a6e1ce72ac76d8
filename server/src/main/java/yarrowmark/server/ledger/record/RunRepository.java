package yarrowmark.server.ledger.record;

import jakarta.persistence.QueryHint;
import java.util.Collection;
import java.util.List;
import org.hibernate.jpa.HibernateHints;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.QueryHints;

public interface RunRepository extends JpaRepository<Run, Long> {
    List<Run> findBySessionIdInOrderById(Collection<Long> sessionIds);

    /** Runs are written as soon as they are made, so this need not look through everything else that is to be written. */
    @QueryHints(@QueryHint(name = HibernateHints.HINT_FLUSH_MODE, value = "COMMIT"))
    List<Run> findBySessionIdAndTestIdAndRunNumber(long sessionId, long testId, int runNumber);
}
