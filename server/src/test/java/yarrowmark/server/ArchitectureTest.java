package yarrowmark.server;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noMethods;
import static com.tngtech.archunit.library.Architectures.layeredArchitecture;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.base.DescribedPredicate;
import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;
import jakarta.persistence.Entity;
import org.springframework.web.bind.annotation.RestController;

/** Which feature may use which. docs/architecture.md shows the same picture. */
@AnalyzeClasses(packages = "yarrowmark.server", importOptions = ImportOption.DoNotIncludeTests.class)
class ArchitectureTest {
    @ArchTest
    static final ArchRule features = layeredArchitecture()
            .consideringOnlyDependenciesInLayers()
            .layer("platform")
            .definedBy("yarrowmark.server.platform..")
            .layer("access")
            .definedBy("yarrowmark.server.access..")
            .layer("files")
            .definedBy("yarrowmark.server.files..")
            .layer("shelf")
            .definedBy("yarrowmark.server.shelf..")
            .layer("catalog")
            .definedBy("yarrowmark.server.catalog..")
            .layer("plan")
            .definedBy("yarrowmark.server.plan..")
            .layer("ledger")
            .definedBy("yarrowmark.server.ledger..")
            .layer("evidence")
            .definedBy("yarrowmark.server.evidence..")
            .layer("reference")
            .definedBy("yarrowmark.server.reference..")
            .layer("rule")
            .definedBy("yarrowmark.server.rule..")
            .layer("bench")
            .definedBy("yarrowmark.server.bench..")
            .layer("analysis")
            .definedBy("yarrowmark.server.analysis..")
            .layer("standing")
            .definedBy("yarrowmark.server.standing..")
            .layer("lan")
            .definedBy("yarrowmark.server.lan..")
            .layer("demo")
            .definedBy("yarrowmark.server.demo..")
            .whereLayer("lan")
            .mayNotBeAccessedByAnyLayer()
            .whereLayer("demo")
            .mayNotBeAccessedByAnyLayer()
            .whereLayer("analysis")
            .mayNotBeAccessedByAnyLayer()
            .whereLayer("bench")
            .mayNotBeAccessedByAnyLayer()
            .whereLayer("access")
            .mayOnlyBeAccessedByLayers("demo")
            .whereLayer("standing")
            .mayOnlyBeAccessedByLayers("analysis")
            .whereLayer("ledger")
            .mayOnlyBeAccessedByLayers("evidence", "rule", "bench", "analysis", "standing", "demo")
            .whereLayer("evidence")
            .mayOnlyBeAccessedByLayers("rule", "demo")
            .whereLayer("reference")
            .mayOnlyBeAccessedByLayers("standing", "demo")
            .whereLayer("rule")
            .mayOnlyBeAccessedByLayers("demo")
            .whereLayer("plan")
            .mayOnlyBeAccessedByLayers("bench", "demo")
            .whereLayer("shelf")
            .mayOnlyBeAccessedByLayers("ledger", "reference", "bench", "analysis", "standing", "demo")
            .whereLayer("files")
            .mayOnlyBeAccessedByLayers("shelf", "evidence")
            .whereLayer("catalog")
            .mayOnlyBeAccessedByLayers(
                    "shelf", "plan", "ledger", "reference", "rule", "bench", "analysis", "standing", "demo");

    @ArchTest
    static final ArchRule noCycles =
            slices().matching("yarrowmark.server.(*)..").should().beFreeOfCycles();

    @ArchTest
    static final ArchRule entitiesStayInside = noMethods()
            .that()
            .areDeclaredInClassesThat()
            .areAnnotatedWith(RestController.class)
            .should()
            .haveRawReturnType(
                    DescribedPredicate.describe("an entity", (JavaClass c) -> c.isAnnotatedWith(Entity.class)))
            .because("an endpoint answers with a record whose shape is deliberate");

    @ArchTest
    static final ArchRule entitiesArePrivate =
            classes().that().areAnnotatedWith(Entity.class).should().notBePublic();

    @ArchTest
    static final ArchRule controllersArePrivate =
            noClasses().that().areAnnotatedWith(RestController.class).should().bePublic();
}
