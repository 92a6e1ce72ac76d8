package yarrowmark.server.ledger.record;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

public interface SetAsideRepository extends JpaRepository<SetAside, Long> {
    Optional<SetAside> findByReadingIdAndTakenBackAtIsNull(long readingId);

    /** Which of these readings are out of the count. */
    @Query("select a.readingId from SetAside a where a.readingId in :readingIds and a.takenBackAt is null")
    List<Long> findOpen(Collection<Long> readingIds);

    List<SetAside> findByReadingIdOrderById(long readingId);

    List<SetAside> findByBatchAndTakenBackAtIsNull(long batch);
}
