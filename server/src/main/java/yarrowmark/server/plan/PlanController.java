package yarrowmark.server.plan;

import jakarta.validation.Valid;
import jakarta.validation.constraints.DecimalMax;
import jakarta.validation.constraints.DecimalMin;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.security.Principal;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import yarrowmark.server.platform.PlainLine;

@RestController
@RequestMapping("/api/plans")
class PlanController {
    /** @param timedMs least timed part of a run, in ms. @param pauseMs between runs, in ms */
    record PlanBody(
            @NotBlank @PlainLine @Size(max = 120) String name,
            @Min(1) @Max(30) int runs,
            @Min(0) @Max(60_000) int timedMs,
            @Min(0) @Max(3_600_000) int pauseMs,
            boolean stopOnFailure,
            @Nullable Long shuffleSeed,
            @Nullable Boolean coolByProbe,
            @Nullable @Min(3) @Max(30) Integer mostRuns,
            @Nullable @DecimalMin("0.1") @DecimalMax("20") Double knownWithin,
            @Nullable @Min(2) @Max(30) Integer days,
            @NotEmpty @Size(max = 200) List<@Valid @NotNull PlanItem> items) {
        Plans.NewPlan plan() {
            return new Plans.NewPlan(
                    name.strip(),
                    runs,
                    timedMs,
                    pauseMs,
                    stopOnFailure,
                    shuffleSeed,
                    Boolean.TRUE.equals(coolByProbe),
                    mostRuns,
                    knownWithin,
                    days,
                    items);
        }
    }

    private final Plans plans;

    PlanController(Plans plans) {
        this.plans = plans;
    }

    @GetMapping
    List<PlanRow> plans() {
        return plans.all();
    }

    @PostMapping
    PlanRow make(@Valid @RequestBody PlanBody body, Principal who) {
        return plans.make(body.plan(), who.getName());
    }

    /** The answer has another id: what is at the bench goes on with the plan it began with. */
    @PutMapping("/{id}")
    PlanRow change(@PathVariable long id, @Valid @RequestBody PlanBody body, Principal who) {
        return plans.change(id, body.plan(), who.getName());
    }

    @DeleteMapping("/{id}")
    void retire(@PathVariable long id, Principal who) {
        plans.retire(id, who.getName());
    }
}
