package yarrowmark.server.access;

import java.time.Instant;
import java.util.List;
import org.springframework.data.jpa.repository.JpaRepository;

interface SignedPlaceRepository extends JpaRepository<SignedPlace, Long> {
    List<SignedPlace> findByEndedAtIsNullAndStartedAtAfter(Instant start);

    List<SignedPlace> findByPersonIdAndEndedAtIsNullOrderByLastAtDesc(long personId);
}
