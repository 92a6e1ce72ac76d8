package yarrowmark.core;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;

@AnalyzeClasses(packages = "yarrowmark.core", importOptions = ImportOption.DoNotIncludeTests.class)
class ArchitectureTest {
    @ArchTest
    static final ArchRule coreKnowsNoFramework = noClasses()
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage(
                    "org.springframework..",
                    "tools.jackson..",
                    "com.fasterxml..",
                    "jakarta..",
                    "javax.sql..",
                    "java.sql..",
                    "java.net..",
                    "org.hibernate..",
                    "yarrowmark.server..")
            .because("the calculations are tested and used on their own");

    @ArchTest
    static final ArchRule noCycles =
            slices().matching("yarrowmark.core.(*)..").should().beFreeOfCycles();
}
