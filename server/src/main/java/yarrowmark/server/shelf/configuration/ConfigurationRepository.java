package yarrowmark.server.shelf.configuration;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.EntityGraph;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

public interface ConfigurationRepository extends JpaRepository<Configuration, Long> {
    List<Configuration> findByUnitIdAndFingerprintOrderByIdDesc(long unitId, String fingerprint);

    Optional<Configuration> findFirstByUnitIdAndRetiredAtIsNullOrderByIdDesc(long unitId);

    List<Configuration> findFirst20ByUnitIdAndRetiredAtIsNullOrderByIdDesc(long unitId);

    @Query(
            "select c from Configuration c where c.unit.id = :unitId and c.name = :name and c.retiredAt is null and c.mergedInto is null order by c.id")
    List<Configuration> findSoCalled(long unitId, String name);

    List<Configuration> findByUnitModelIdOrderById(long modelId);

    boolean existsByUnitId(long unitId);

    boolean existsByParentId(long parentId);

    boolean existsByMergedInto(long id);

    @EntityGraph(attributePaths = {"unit.model.maker", "parent", "facts"})
    Optional<Configuration> findWithFactsById(long id);

    @EntityGraph(attributePaths = {"unit.model.maker", "facts"})
    List<Configuration> findWithFactsByIdIn(Collection<Long> ids);

    @EntityGraph(attributePaths = "unit.model.maker")
    List<Configuration> findWithModelByIdIn(Collection<Long> ids);

    /** How many configurations each of these models has. */
    @Query(
            "select c.unit.model.id, count(c) from Configuration c where c.unit.model.id in :models and c.mergedInto is null group by c.unit.model.id")
    List<Object[]> countByModel(Collection<Long> models);

    /** Configurations that share unit and facts with another one. */
    @EntityGraph(attributePaths = "unit.model.maker")
    @Query(
            """
        select c from Configuration c where c.mergedInto is null and exists (select 1 from Configuration o
        where o.unit = c.unit and o.fingerprint = c.fingerprint and o.id <> c.id and o.mergedInto is null) order by c.unit.id, c.fingerprint, c.id""")
    List<Configuration> twins();

    @Query("select c.id, c.mergedInto from Configuration c where c.mergedInto is not null")
    List<Object[]> mergedAway();

    @EntityGraph(attributePaths = "unit.model.maker")
    @Query(
            "select c from Configuration c where c.fingerprint = :fingerprint and c.unit.model.id = :model and c.id <> :id and c.mergedInto is null order by c.id")
    List<Configuration> sameFacts(String fingerprint, long model, long id);
}
