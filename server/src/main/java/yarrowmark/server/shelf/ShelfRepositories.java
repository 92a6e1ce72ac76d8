package yarrowmark.server.shelf;

import jakarta.persistence.QueryHint;
import java.time.LocalDate;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.EntityGraph;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;
import org.springframework.data.jpa.repository.QueryHints;

interface MakerRepository extends JpaRepository<Maker, Long> {
    Optional<Maker> findByName(String name);

    List<Maker> findAllByOrderByName();
}

interface ModelRepository extends JpaRepository<Model, Long> {
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

interface UnitRepository extends JpaRepository<Unit, Long> {
    List<Unit> findByModelIdOrderById(long modelId);

    /** Without writing what is pending first: the question is whether it may be written. */
    @QueryHints(@QueryHint(name = "org.hibernate.flushMode", value = "COMMIT"))
    Optional<Unit> findByModelIdAndLabel(long modelId, String label);

    boolean existsByModelId(long modelId);

    @EntityGraph(attributePaths = "model.maker")
    @Query("select u from Unit u where u.dueBack <= :until and u.retiredAt is null order by u.dueBack, u.id")
    List<Unit> dueUntil(LocalDate until);
}

interface ClaimRepository extends JpaRepository<Claim, Long> {
    List<Claim> findByModelIdOrderById(long modelId);
}

interface CorrectionRepository extends JpaRepository<FactCorrection, Long> {
    List<FactCorrection> findByConfigurationIdOrderById(long configurationId);
}

interface ConfigurationRepository extends JpaRepository<Configuration, Long> {
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
