package yarrowmark.server.plan;

import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;

interface PlanRepository extends JpaRepository<Plan, Long> {
    Optional<Plan> findByName(String name);

    List<Plan> findAllByOrderById();
}
