package yarrowmark.server.shelf;

import java.util.List;
import org.springframework.data.jpa.repository.JpaRepository;

interface ClaimRepository extends JpaRepository<Claim, Long> {
    List<Claim> findByModelIdOrderById(long modelId);
}
