package yarrowmark.server.shelf;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.springframework.data.domain.Page;
import org.springframework.data.domain.Pageable;
import org.springframework.data.jpa.repository.EntityGraph;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface MakerRepository extends JpaRepository<Maker, Long> {
    Optional<Maker> findByName(String name);

    List<Maker> findAllByOrderByName();
}

interface ModelRepository extends JpaRepository<Model, Long> {
    /** Models whose maker and name together hold the words, in shelf order. */
    @EntityGraph(attributePaths = "maker")
    @Query("""
        select m from Model m where (:words = '' or concat(m.maker.name, ' ', m.name) like concat('%', :words, '%') escape '!')
        and m.deviceClass in :classes order by m.maker.name, m.name""")
    Page<Model> search(String words, Collection<DeviceClass> classes, Pageable page);

    @EntityGraph(attributePaths = "maker")
    Optional<Model> findWithMakerById(long id);

    boolean existsByMakerAndName(Maker maker, String name);
}

interface UnitRepository extends JpaRepository<Unit, Long> {
    List<Unit> findByModelIdOrderById(long modelId);

    boolean existsByModelIdAndLabel(long modelId, String label);
}

interface ConfigurationRepository extends JpaRepository<Configuration, Long> {
    Optional<Configuration> findByUnitIdAndFingerprint(long unitId, String fingerprint);

    Optional<Configuration> findFirstByUnitIdOrderByIdDesc(long unitId);

    List<Configuration> findByUnitModelIdOrderById(long modelId);

    @EntityGraph(attributePaths = {"unit.model.maker", "parent", "facts"})
    Optional<Configuration> findWithFactsById(long id);

    @EntityGraph(attributePaths = "unit.model.maker")
    List<Configuration> findWithModelByIdIn(Collection<Long> ids);

    /** How many configurations each of these models has. */
    @Query("select c.unit.model.id, count(c) from Configuration c where c.unit.model.id in :models group by c.unit.model.id")
    List<Object[]> countByModel(Collection<Long> models);

    @EntityGraph(attributePaths = "unit.model.maker")
    @Query("""
        select c from Configuration c
        where concat(c.unit.model.maker.name, ' ', c.unit.model.name, ' ', c.name) like concat('%', :words, '%') escape '!'
        order by c.unit.model.maker.name, c.unit.model.name, c.id""")
    List<Configuration> search(String words, Pageable page);
}
