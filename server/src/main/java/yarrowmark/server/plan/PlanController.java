package yarrowmark.server.plan;

import java.time.Duration;
import java.util.List;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import yarrowmark.core.plan.PlanTime;

@RestController
@RequestMapping("/api/plans")
class PlanController {
    /** @param wholeMs all tests, all runs and the pauses between them, in ms, on one device */
    record Estimate(long wholeMs) { }

    private final Plans plans;

    PlanController(Plans plans) {
        this.plans = plans;
    }

    @GetMapping
    List<PlanRow> plans() {
        return plans.all();
    }

    @GetMapping("/{id}/estimate")
    Estimate estimate(@PathVariable long id, @RequestParam @Min(1) @Max(50) int runs, @RequestParam @Min(0) @Max(60_000) int timedMs,
                      @RequestParam @Min(0) @Max(600_000) int pauseMs) {
        PlanTime time = new PlanTime(plans.plan(id).testIds().size(), runs, Duration.ofMillis(timedMs), Duration.ofMillis(pauseMs));
        return new Estimate(time.whole().toMillis());
    }
}
