package yarrowmark.server.ledger.record;

import java.util.List;
import org.springframework.data.jpa.repository.JpaRepository;

public interface RunTrackRepository extends JpaRepository<RunTrack, Long> {
    List<RunTrack> findByRunIdOrderById(long runId);
}
