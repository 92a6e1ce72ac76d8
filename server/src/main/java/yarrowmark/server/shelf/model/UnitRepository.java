package yarrowmark.server.shelf.model;

import jakarta.persistence.QueryHint;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.EntityGraph;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;
import org.springframework.data.jpa.repository.QueryHints;

public interface UnitRepository extends JpaRepository<Unit, Long> {
    List<Unit> findByModelIdOrderById(long modelId);

    /** Without writing what is pending first: the question is whether it may be written. */
    @QueryHints(@QueryHint(name = "org.hibernate.flushMode", value = "COMMIT"))
    Optional<Unit> findByModelIdAndLabel(long modelId, String label);

    boolean existsByModelId(long modelId);

    @EntityGraph(attributePaths = "model.maker")
    @Query("select u from Unit u where u.dueBack <= :until and u.retiredAt is null order by u.dueBack, u.id")
    List<Unit> dueUntil(LocalDate until);
}
