package yarrowmark.server.catalog;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.security.Principal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import yarrowmark.core.entry.TestLines;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Kind;
import yarrowmark.core.measure.Scale;
import yarrowmark.server.platform.PlainLine;
import yarrowmark.server.platform.Problem;

/** Suites of the reviewer's own, made from a list with one test a line. */
@RestController
@RequestMapping("/api/suites")
class OwnSuiteController {
    record ListBody(@NotNull @Size(max = 100_000) String text, @NotNull TestGroup group) {}

    /** @param choices of an ordered list, from worst to best. @param xUnit of a curve. @param main whether it takes part in overall rankings. @param further whether it is a further number of the test before it */
    record ListedTest(
            int line,
            String name,
            String unit,
            Direction direction,
            Scale scale,
            TestGroup group,
            Kind kind,
            List<String> choices,
            @Nullable String xUnit,
            boolean capped,
            boolean main,
            boolean further) {}

    record RefusedLine(int line, String text, String reason) {}

    record ListAnswer(List<ListedTest> tests, List<RefusedLine> refused) {}

    /** @param group of the lines that name none */
    record SuiteBody(
            @NotBlank @PlainLine @Size(max = 120) String name,
            @NotBlank @PlainLine @Size(max = 40) String version,
            @Nullable @Size(max = 120) String mode,
            @NotNull TestGroup group,
            @NotNull @Size(max = 100_000) String text) {}

    private final Catalog catalog;

    OwnSuiteController(Catalog catalog) {
        this.catalog = catalog;
    }

    /** How a list would be read. Nothing is stored. */
    @PostMapping("/read")
    ListAnswer read(@Valid @RequestBody ListBody body) {
        TestLines.Lines lines = TestLines.read(body.text());
        List<ListedTest> tests = new ArrayList<>();
        List<RefusedLine> refused = new ArrayList<>(lines.refused().stream()
                .map(r -> new RefusedLine(r.number(), r.text(), r.reason()))
                .toList());
        for (TestLines.Line l : lines.read()) {
            Optional<TestGroup> group = l.group().isEmpty()
                    ? Optional.of(body.group())
                    : group(l.group().get());
            if (group.isPresent()) {
                tests.add(new ListedTest(
                        l.number(),
                        l.name(),
                        l.unit(),
                        l.direction(),
                        l.scale(),
                        group.get(),
                        l.kind(),
                        l.choices(),
                        l.xUnit().isEmpty() ? null : l.xUnit(),
                        l.capped(),
                        l.main(),
                        l.further()));
            } else {
                refused.add(new RefusedLine(
                        l.number(),
                        l.name(),
                        "\"" + l.group().get() + "\" is no group of tests. There are: "
                                + String.join(
                                        ", ",
                                        Arrays.stream(TestGroup.values())
                                                .map(g -> g.name().toLowerCase(Locale.ROOT))
                                                .toList())
                                + "."));
            }
        }
        refused.sort(java.util.Comparator.comparingInt(RefusedLine::line));
        return new ListAnswer(tests, refused);
    }

    /** @return the ids of its tests, in order */
    @PostMapping
    List<Long> make(@Valid @RequestBody SuiteBody body, Principal who) {
        ListAnswer list = read(new ListBody(body.text(), body.group()));
        if (!list.refused().isEmpty()) {
            throw Problem.refused(
                    "lines-refused",
                    list.refused().stream()
                            .map(r -> new Problem.Refused("line " + r.line(), "Line " + r.line() + ": " + r.reason()))
                            .toList());
        }
        if (list.tests().isEmpty()) {
            throw Problem.invalid(
                    "no-tests",
                    "A suite needs at least one test. Write one a line, such as \"Sequential read, MB/s, more\".");
        }
        List<Catalog.NewTest> tests = new ArrayList<>();
        for (ListedTest t : list.tests()) {
            if (t.further()) {
                Catalog.NewTest of = tests.remove(tests.size() - 1);
                List<Catalog.NewMetric> metrics = new ArrayList<>(of.metrics());
                metrics.add(new Catalog.NewMetric(
                        "further-" + metrics.size(),
                        of.name() + ", " + t.name(),
                        t.unit(),
                        t.direction(),
                        t.scale(),
                        false,
                        Catalog.More.of(t.kind())));
                tests.add(new Catalog.NewTest(of.key(), of.name(), "", of.group(), metrics));
            } else {
                tests.add(new Catalog.NewTest(key(t.name(), t.line()), t.name(), "", t.group(), metrics(t)));
            }
        }
        return catalog.makeOwn(
                body.name().strip(),
                body.version().strip(),
                body.mode() == null ? "" : body.mode().strip(),
                tests,
                who.getName());
    }

    /** One metric, or for many points one for each of their numbers. */
    private static List<Catalog.NewMetric> metrics(ListedTest t) {
        if (!t.kind().isSeries()) {
            return List.of(new Catalog.NewMetric(
                    "value",
                    t.name(),
                    t.unit(),
                    t.direction(),
                    t.scale(),
                    t.main(),
                    new Catalog.More(t.kind(), t.choices(), null, t.capped(), null, null, Map.of())));
        }
        return SeriesMetrics.of(t.name(), t.unit(), t.xUnit(), t.kind(), t.direction(), t.main(), t.capped());
    }

    private static Optional<TestGroup> group(String typed) {
        String plain = typed.strip().toLowerCase(Locale.ROOT);
        return Arrays.stream(TestGroup.values())
                .filter(g -> g.name().toLowerCase(Locale.ROOT).startsWith(plain)
                        || plain.startsWith(g.name().toLowerCase(Locale.ROOT)))
                .findFirst();
    }

    /** Stable inside its version, and unlike any other there, because names differ by line. */
    private static String key(String name, int line) {
        String plain =
                name.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "-").replaceAll("^-|-$", "");
        return (plain.length() > 60 ? plain.substring(0, 60) : plain) + "-" + line;
    }
}
