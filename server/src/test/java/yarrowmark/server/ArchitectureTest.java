package yarrowmark.server;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.methods;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;
import static org.assertj.core.api.Assertions.assertThat;

import com.tngtech.archunit.core.domain.Dependency;
import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.domain.JavaMethod;
import com.tngtech.archunit.core.domain.JavaParameter;
import com.tngtech.archunit.core.domain.JavaType;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchCondition;
import com.tngtech.archunit.lang.ArchRule;
import com.tngtech.archunit.lang.ConditionEvents;
import com.tngtech.archunit.lang.SimpleConditionEvent;
import jakarta.persistence.Entity;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Which feature may use which, in code, in generics and in queries. docs/architecture.md shows the same picture. */
@AnalyzeClasses(packages = "yarrowmark.server", importOptions = ImportOption.DoNotIncludeTests.class)
class ArchitectureTest {
    private static final String ROOT = "yarrowmark.server.";
    private static final Path SOURCES = Path.of("src/main/java/yarrowmark/server");

    /** What a feature may use. Everybody may use platform. */
    private static final Map<String, Set<String>> USES = Map.ofEntries(
            Map.entry("platform", Set.of()),
            Map.entry("access", Set.of()),
            Map.entry("lan", Set.of()),
            Map.entry("lab", Set.of("ledger", "files")),
            Map.entry("files", Set.of()),
            Map.entry("catalog", Set.of()),
            Map.entry("shelf", Set.of("files", "catalog")),
            Map.entry("plan", Set.of("catalog")),
            Map.entry("ledger", Set.of("shelf", "catalog")),
            Map.entry("evidence", Set.of("ledger", "files")),
            Map.entry("reference", Set.of("shelf", "catalog")),
            Map.entry("rule", Set.of("ledger", "evidence", "catalog")),
            Map.entry("bench", Set.of("ledger", "plan", "shelf", "catalog")),
            Map.entry("standing", Set.of("ledger", "reference", "shelf", "catalog")),
            Map.entry("analysis", Set.of("ledger", "standing", "reference", "shelf", "catalog")),
            Map.entry("writeup", Set.of("ledger", "standing", "shelf", "catalog", "files")),
            Map.entry("site", Set.of("writeup", "standing", "shelf", "catalog", "files")),
            Map.entry("trend", Set.of("ledger", "shelf", "catalog")),
            Map.entry(
                    "demo",
                    Set.of(
                            "access",
                            "ledger",
                            "evidence",
                            "reference",
                            "rule",
                            "plan",
                            "shelf",
                            "catalog",
                            "writeup",
                            "files")));

    /** The same for the rooms of the ledger. */
    private static final Map<String, Set<String>> LEDGER_ROOMS = Map.of(
            "sample", Set.of(),
            "record", Set.of("sample"),
            "mark", Set.of("record", "sample"),
            "line", Set.of("mark", "record", "sample"),
            "sheet", Set.of("line", "record", "sample"),
            "exchange", Set.of("line", "record", "sample"),
            "table", Set.of("exchange"));

    /** The same for the rooms of the shelf. */
    private static final Map<String, Set<String>> SHELF_ROOMS =
            Map.of("model", Set.of(), "configuration", Set.of("model"), "search", Set.of("model"));

    /** The same for the rooms of the platform. */
    private static final Map<String, Set<String>> PLATFORM_ROOMS = Map.of(
            "change", Set.of(),
            "history", Set.of("change"),
            "health", Set.of("change"),
            "records", Set.of("health"),
            "http", Set.of("records", "health"));

    @ArchTest
    static final ArchRule featuresUseWhatTheyMay =
            classes().should(use(ROOT, USES, "platform")).because("docs/architecture.md says so");

    @ArchTest
    static final ArchRule roomsOfTheLedgerUseWhatTheyMay =
            classes().should(use(ROOT + "ledger.", LEDGER_ROOMS, "")).because("docs/architecture.md says so");

    @ArchTest
    static final ArchRule roomsOfTheShelfUseWhatTheyMay =
            classes().should(use(ROOT + "shelf.", SHELF_ROOMS, "")).because("docs/architecture.md says so");

    @ArchTest
    static final ArchRule roomsOfThePlatformUseWhatTheyMay =
            classes().should(use(ROOT + "platform.", PLATFORM_ROOMS, "")).because("docs/architecture.md says so");

    @ArchTest
    static final ArchRule noCycles =
            slices().matching("yarrowmark.server.(*)..").should().beFreeOfCycles();

    @ArchTest
    static final ArchRule entitiesStayInTheirFeature = classes()
            .that()
            .areAnnotatedWith(Entity.class)
            .should(new ArchCondition<JavaClass>("be used by their own feature alone") {
                @Override
                public void check(JavaClass entity, ConditionEvents events) {
                    for (Dependency use : entity.getDirectDependenciesToSelf()) {
                        if (!first(ROOT, use.getOriginClass()).equals(first(ROOT, entity))) {
                            events.add(SimpleConditionEvent.violated(use, use.getDescription()));
                        }
                    }
                }
            });

    @ArchTest
    static final ArchRule entitiesAreNeverAnswered = methods()
            .that()
            .areMetaAnnotatedWith(RequestMapping.class)
            .should(new ArchCondition<JavaMethod>("answer and take records, at every depth") {
                @Override
                public void check(JavaMethod method, ConditionEvents events) {
                    Set<JavaClass> shapes = new HashSet<>();
                    shape(method.getReturnType(), shapes);
                    for (JavaParameter parameter : method.getParameters()) {
                        shape(parameter.getType(), shapes);
                    }
                    shapes.stream()
                            .filter(c -> c.isAnnotatedWith(Entity.class))
                            .forEach(c -> events.add(SimpleConditionEvent.violated(
                                    method, method.getFullName() + " has the entity " + c.getSimpleName() + " in it")));
                }
            });

    @ArchTest
    static final ArchRule controllersArePrivate =
            noClasses().that().areAnnotatedWith(RestController.class).should().bePublic();

    /** A query reaches into another feature as a call does, though no compiler sees it. */
    @ArchTest
    static void queriesNameWhatTheirFeatureMayUse(JavaClasses all) throws IOException {
        Map<String, String> home = new HashMap<>();
        all.stream().filter(c -> c.isAnnotatedWith(Entity.class)).forEach(c -> {
            home.put(c.getSimpleName(), first(ROOT, c));
            home.put(snake(c.getSimpleName()), first(ROOT, c));
        });
        assertThat(home).containsEntry("Reading", "ledger").containsEntry("suite_version", "catalog");
        Set<String> wrong = new TreeSet<>();
        for (Path file : sources()) {
            String feature = SOURCES.relativize(file).getName(0).toString();
            Matcher named =
                    Pattern.compile("\\b(?:from|join|update|into) (\\w+)").matcher(Files.readString(file));
            while (named.find()) {
                String of = home.get(named.group(1));
                if (of != null && !of.equals(feature) && !mayUse(USES, feature, of, "platform")) {
                    wrong.add(file.getFileName() + " names " + named.group(1) + " of " + of);
                }
            }
        }
        assertThat(wrong).isEmpty();
    }

    private static ArchCondition<JavaClass> use(String root, Map<String, Set<String>> uses, String everybodys) {
        return new ArchCondition<>("use what " + root + " allows") {
            @Override
            public void check(JavaClass c, ConditionEvents events) {
                String from = first(root, c);
                for (Dependency use : c.getDirectDependenciesFromSelf()) {
                    String to = first(root, use.getTargetClass().getBaseComponentType());
                    if (!from.isEmpty() && !to.isEmpty() && !mayUse(uses, from, to, everybodys)) {
                        events.add(SimpleConditionEvent.violated(
                                use,
                                from + " may use " + uses.get(from) + ", not " + to + ": " + use.getDescription()));
                    }
                }
            }
        };
    }

    private static boolean mayUse(Map<String, Set<String>> uses, String from, String to, String everybodys) {
        assertThat(uses).as("a new feature says what it may use").containsKeys(from, to);
        return from.equals(to) || to.equals(everybodys) || uses.get(from).contains(to);
    }

    /** The package directly below the root; empty for a class that is in none. */
    private static String first(String root, JavaClass c) {
        String name = c.getPackageName();
        return name.startsWith(root) ? name.substring(root.length()).split("\\.")[0] : "";
    }

    /** Everything of ours that a type is made of: type arguments, fields, and theirs. */
    private static void shape(JavaType type, Set<JavaClass> seen) {
        for (JavaClass raw : type.getAllInvolvedRawTypes()) {
            JavaClass c = raw.getBaseComponentType();
            if (c.getPackageName().startsWith("yarrowmark.") && seen.add(c)) {
                c.getFields().forEach(f -> shape(f.getType(), seen));
            }
        }
    }

    private static String snake(String name) {
        return name.replaceAll("(?<=[a-z])(?=[A-Z])", "_").toLowerCase(java.util.Locale.ROOT);
    }

    private static List<Path> sources() throws IOException {
        try (Stream<Path> files = Files.walk(SOURCES)) {
            return files.filter(f -> f.toString().endsWith(".java")
                            && SOURCES.relativize(f).getNameCount() > 1)
                    .toList();
        }
    }
}
