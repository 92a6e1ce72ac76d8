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
}

interface ComparabilityGroupRepository extends JpaRepository<ComparabilityGroup, Long> {
}

interface TestDefinitionRepository extends JpaRepository<TestDefinition, Long> {
    @EntityGraph(attributePaths = {"suiteVersion.suite", "metrics"})
    @Query("select t from TestDefinition t order by t.testGroup, t.suiteVersion.suite.name, t.position")
    List<TestDefinition> findAllInOrder();

    @EntityGraph(attributePaths = {"suiteVersion.suite", "metrics"})
    List<TestDefinition> findByIdIn(Collection<Long> ids);

    List<TestDefinition> findBySuiteVersionIdOrderByPosition(long suiteVersionId);
}

interface PurposeRepository extends JpaRepository<Purpose, Long> {
    Optional<Purpose> findByName(String name);

    List<Purpose> findAllByOrderById();
}
