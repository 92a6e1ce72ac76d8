package yarrowmark.server.catalog;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.security.Principal;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import yarrowmark.core.formula.SuiteTotal;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Scale;
import yarrowmark.server.platform.PlainLine;

/** Versions of suites: what they are compared with, what is computed from them. */
@RestController
@RequestMapping("/api")
class SuiteVersionController {
    record JoinBody(long into, @NotBlank @Size(max = 500) String reason) {}

    record FormulaBody(@NotNull @Size(max = 600) String formula) {}

    /** @param inputs the names that have to be told */
    record FormulaAnswer(List<String> inputs) {}

    /** @param main whether it takes part in overall rankings. @param inputs metric ids by the formula's names */
    record ComputedBody(
            @NotBlank @PlainLine @Size(max = 120) String name,
            @NotBlank @PlainLine @Size(max = 30) String unit,
            @NotNull Direction direction,
            @NotNull Scale scale,
            @NotNull TestGroup group,
            boolean main,
            @NotBlank @Size(max = 500) String formula,
            @NotNull @Size(max = 40) Map<String, Long> inputs) {}

    /** @param weights by metric id */
    record TotalBody(
            @NotNull SuiteTotal.Kind kind,
            @NotBlank @PlainLine @Size(max = 30) String unit,
            @NotEmpty @Size(max = 40) Map<Long, @NotNull Double> weights) {}

    /** @param weights by metric id of each part */
    record DeclaredBody(@NotNull SuiteTotal.Kind kind, @NotEmpty @Size(max = 40) Map<Long, @NotNull Double> weights) {}

    record RetireBody(boolean retired) {}

    private final SuiteVersions versions;
    private final ComputedMetrics computedMetrics;

    SuiteVersionController(SuiteVersions versions, ComputedMetrics computedMetrics) {
        this.versions = versions;
        this.computedMetrics = computedMetrics;
    }

    @GetMapping("/suite-versions")
    List<SuiteVersions.VersionRow> all() {
        return versions.all();
    }

    @PostMapping("/suite-versions/{id}/join")
    List<SuiteVersions.VersionRow> join(@PathVariable long id, @Valid @RequestBody JoinBody body, Principal who) {
        versions.join(id, body.into(), body.reason(), who.getName());
        return versions.all();
    }

    /** @param earlier whether it goes before the one that stands before it now; else after the next one */
    record MoveBody(boolean earlier) {}

    @PutMapping("/suite-versions/{id}/order")
    void move(@PathVariable long id, @RequestBody MoveBody body, Principal who) {
        versions.move(id, body.earlier(), who.getName());
    }

    @DeleteMapping("/suite-versions/{id}/join")
    List<SuiteVersions.VersionRow> part(@PathVariable long id, Principal who) {
        versions.part(id, who.getName());
        return versions.all();
    }

    /** Which inputs a formula needs. Nothing is stored. */
    @PostMapping("/formulas/read")
    FormulaAnswer read(@Valid @RequestBody FormulaBody body) {
        return new FormulaAnswer(ComputedMetrics.parsed(body.formula()).inputs().stream()
                .sorted()
                .toList());
    }

    /** @return the id of the test that was made */
    @PostMapping("/suite-versions/{id}/computed")
    long addComputed(@PathVariable long id, @Valid @RequestBody ComputedBody body, Principal who) {
        return computedMetrics.addComputed(
                id,
                new ComputedMetrics.Computed(
                        body.name(),
                        body.unit().strip(),
                        body.direction(),
                        body.scale(),
                        body.group(),
                        body.main(),
                        body.formula(),
                        body.inputs()),
                who.getName());
    }

    /** @return the id of the test that was made */
    @PostMapping("/suite-versions/{id}/total")
    long addTotal(@PathVariable long id, @Valid @RequestBody TotalBody body, Principal who) {
        return computedMetrics.addTotal(
                id, body.kind(), body.weights(), body.unit().strip(), who.getName());
    }

    /** Says that a number which is typed is the total of others. */
    @PutMapping("/metrics/{id}/total")
    void declare(@PathVariable long id, @Valid @RequestBody DeclaredBody body, Principal who) {
        computedMetrics.declareTotal(id, body.kind(), body.weights(), who.getName());
    }

    @DeleteMapping("/metrics/{id}/total")
    void undeclare(@PathVariable long id, Principal who) {
        computedMetrics.undeclareTotal(id, who.getName());
    }

    /** @param percent absent to take it back. @param source where it comes from, needed with it */
    record RepeatabilityBody(@Nullable Double percent, @Nullable @Size(max = 300) String source) {}

    /** How repeatable somebody says a test is. */
    @PutMapping("/tests/{id}/repeatability")
    void state(@PathVariable long id, @Valid @RequestBody RepeatabilityBody body, Principal who) {
        versions.state(id, body.percent(), body.source(), who.getName());
    }

    /** The same of every test of a suite version. */
    @PutMapping("/suite-versions/{id}/repeatability")
    void stateAll(@PathVariable long id, @Valid @RequestBody RepeatabilityBody body, Principal who) {
        versions.stateAll(id, body.percent(), body.source(), who.getName());
    }

    /** @param good from where on a value is good. @param poor from where on it is poor; neither: by thirds again */
    record LimitsBody(@Nullable Double good, @Nullable Double poor) {}

    /** From where on a value is good or poor, for report cards. */
    @PutMapping("/metrics/{id}/limits")
    void limit(@PathVariable long id, @Valid @RequestBody LimitsBody body, Principal who) {
        versions.limit(id, body.good(), body.poor(), who.getName());
    }

    @PostMapping("/tests/{id}/retired")
    void retire(@PathVariable long id, @RequestBody RetireBody body, Principal who) {
        versions.retire(id, body.retired(), who.getName());
    }
}
