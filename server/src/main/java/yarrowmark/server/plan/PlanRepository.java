package yarrowmark.server.plan;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.EntityGraph;
import org.springframework.data.jpa.repository.JpaRepository;

interface PlanRepository extends JpaRepository<Plan, Long> {
    Optional<Plan> findFirstByNameAndRetiredAtIsNull(String name);

    @EntityGraph(attributePaths = "items")
    List<Plan> findByRetiredAtIsNullOrderById();

    @EntityGraph(attributePaths = "items")
    List<Plan> findByIdIn(Collection<Long> ids);
}
