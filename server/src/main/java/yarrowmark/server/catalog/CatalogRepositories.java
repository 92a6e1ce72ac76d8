package yarrowmark.server.catalog;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.EntityGraph;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface SuiteRepository extends JpaRepository<Suite, Long> {
    Optional<Suite> findByName(String name);
}

interface SuiteVersionRepository extends JpaRepository<SuiteVersion, Long> {
    Optional<SuiteVersion> findBySuiteNameAndVersionAndMode(String suite, String version, String mode);

    @EntityGraph(attributePaths = "suite")
    @Query("select v from SuiteVersion v order by v.suite.name, v.position, v.id")
    List<SuiteVersion> findAllInOrder();

    @Query("select v from SuiteVersion v where v.suite.id = :suiteId order by v.position, v.id")
    List<SuiteVersion> findOfSuite(long suiteId);
}

interface ComparabilityGroupRepository extends JpaRepository<ComparabilityGroup, Long> {
    Optional<ComparabilityGroup> findBySuiteVersionId(long suiteVersionId);

    List<ComparabilityGroup> findByJoinedIntoIsNotNull();

    /** Group and the group it was joined into. */
    @Query("select g.id, g.joinedInto.id from ComparabilityGroup g where g.joinedInto is not null")
    List<Object[]> findJoins();
}

interface TestDefinitionRepository extends JpaRepository<TestDefinition, Long> {
    @EntityGraph(attributePaths = {"suiteVersion.suite", "metrics", "metrics.inputs", "metrics.facts"})
    @Query("select t from TestDefinition t order by t.testGroup, t.suiteVersion.suite.name, t.position")
    List<TestDefinition> findAllInOrder();

    @EntityGraph(attributePaths = {"suiteVersion.suite", "metrics", "metrics.inputs", "metrics.facts"})
    List<TestDefinition> findByIdIn(Collection<Long> ids);

    /** Test and its comparability group. */
    @Query("select t.id, t.comparabilityGroup.id from TestDefinition t")
    List<Object[]> findGroups();

    /** Ids of the tests whose value the server computes. */
    @Query(
            "select t.id from TestDefinition t where t.retiredAt is null and exists (select 1 from Metric m where m.test = t and m.formula is not null)")
    List<Long> findComputed();

    List<TestDefinition> findBySuiteVersionIdOrderByPosition(long suiteVersionId);
}

interface PurposeRepository extends JpaRepository<Purpose, Long> {
    Optional<Purpose> findByName(String name);

    List<Purpose> findByRetiredAtIsNullOrderById();
}
