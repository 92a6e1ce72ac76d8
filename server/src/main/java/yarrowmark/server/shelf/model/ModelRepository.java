package yarrowmark.server.shelf.model;

import jakarta.persistence.QueryHint;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.EntityGraph;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;
import org.springframework.data.jpa.repository.QueryHints;

public interface ModelRepository extends JpaRepository<Model, Long> {
    @EntityGraph(attributePaths = "maker")
    Optional<Model> findWithMakerById(long id);

    @EntityGraph(attributePaths = "maker")
    List<Model> findWithMakerByIdIn(Collection<Long> ids);

    @EntityGraph(attributePaths = "maker")
    List<Model> findAllWithMakerByOrderById();

    /** By name alone, or by maker and name. */
    @EntityGraph(attributePaths = "maker")
    @QueryHints(@QueryHint(name = "org.hibernate.flushMode", value = "COMMIT"))
    @Query("select m from Model m where m.name = :name or concat(m.maker.name, ' ', m.name) = :name order by m.id")
    List<Model> findNamed(String name);

    /** Without writing what is pending first: the question is whether it may be written. */
    @QueryHints(@QueryHint(name = "org.hibernate.flushMode", value = "COMMIT"))
    Optional<Model> findByMakerAndName(Maker maker, String name);
}
