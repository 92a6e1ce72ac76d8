package yarrowmark.server.ledger.record;

import java.util.Collection;
import java.util.List;
import org.springframework.data.jpa.repository.JpaRepository;

public interface RunRepository extends JpaRepository<Run, Long> {
    List<Run> findBySessionIdInOrderById(Collection<Long> sessionIds);

    List<Run> findBySessionIdAndTestIdAndRunNumber(long sessionId, long testId, int runNumber);
}
