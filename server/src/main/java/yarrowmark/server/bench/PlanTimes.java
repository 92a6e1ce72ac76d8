package yarrowmark.server.bench;

import static yarrowmark.server.platform.Require.require;

import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import yarrowmark.core.plan.PlanEstimate;
import yarrowmark.core.plan.PlanTime;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.TestRow;
import yarrowmark.server.ledger.record.RunDurations;
import yarrowmark.server.plan.PlanItem;
import yarrowmark.server.plan.PlanRow;
import yarrowmark.server.plan.Plans;
import yarrowmark.server.shelf.model.DeviceClass;

/** How long a plan takes, from what the ledger knows of each test on this class of device. */
@RestController
@RequestMapping("/api/plans")
class PlanTimes {
    /** How long it takes to cool to a temperature is not known before. */
    private static final double COOL_UNTIL_MS = 180_000;

    /** @param runMs one run, in ms. @param known runs behind it; 0 where it is a guess */
    record TestTime(long testId, double runMs, long known) {}

    /** @param wholeMs on one device, in ms. @param mustMs without what is only nice to have */
    record TimeAnswer(long wholeMs, long mustMs, int guessed, List<TestTime> tests) {}

    private final Plans plans;
    private final Catalog catalog;
    private final RunDurations durations;

    PlanTimes(Plans plans, Catalog catalog, RunDurations durations) {
        this.plans = plans;
        this.catalog = catalog;
        this.durations = durations;
    }

    /** Runs of self-running tests are timed for another while here than they were; what the ledger knows is scaled to it. */
    @GetMapping("/{id}/time")
    TimeAnswer time(
            @PathVariable long id,
            @RequestParam(required = false) @Nullable DeviceClass deviceClass,
            @RequestParam(required = false) @Nullable @Min(1) @Max(50) Integer runs,
            @RequestParam(required = false) @Nullable @Min(0) @Max(60_000) Integer timedMs,
            @RequestParam(required = false) @Nullable @Min(0) @Max(3_600_000) Integer pauseMs) {
        PlanRow plan = plans.plan(id);
        List<Long> ids = plan.items().stream().map(PlanItem::testId).toList();
        Map<Long, TestRow> tests = catalog.tests(ids).stream().collect(Collectors.toMap(TestRow::id, t -> t));
        Map<Long, RunDurations.Known> known = durations.of(ids, deviceClass);
        double guess = PlanTime.guessedRunMs(Duration.ofMillis(timedMs == null ? plan.timedMs() : timedMs));
        List<TestTime> times = new ArrayList<>();
        List<PlanEstimate.Item> items = new ArrayList<>();
        for (PlanItem item : plan.items()) {
            RunDurations.Known k = known.get(item.testId());
            TestRow test = require(tests, item.testId());
            boolean byItself = test.byItself();
            Double own = ownGuess(test.key());
            double runMs = own != null
                    ? k == null ? own : k.ms()
                    : byItself && item.timedMs() != null
                            ? PlanTime.guessedRunMs(Duration.ofMillis(item.timedMs()))
                            : byItself && timedMs != null && timedMs != plan.timedMs()
                                    ? guess
                                    : k != null ? k.ms() : byItself ? guess : PlanTime.GUESSED_BY_HAND_MS;
            times.add(new TestTime(item.testId(), runMs, k == null ? 0 : k.runs()));
            double pause = item.pauseUntil() != null
                    ? COOL_UNTIL_MS
                    : item.pauseMs() != null ? item.pauseMs() : pauseMs == null ? plan.pauseMs() : pauseMs;
            items.add(new PlanEstimate.Item(
                    item.runs() != null ? item.runs() : runs == null ? plan.runs() : runs,
                    runMs,
                    pause,
                    !item.nice(),
                    k == null));
        }
        PlanEstimate estimate = PlanEstimate.of(items);
        return new TimeAnswer(estimate.wholeMs(), estimate.mustMs(), estimate.guessed(), times);
    }

    /** What the timed part says nothing about. */
    private static @Nullable Double ownGuess(String key) {
        return key.startsWith("battery-")
                ? Double.valueOf(PlanTime.GUESSED_BATTERY_MS)
                : key.equals("network-walk") ? PlanTime.GUESSED_WALK_MS : null;
    }
}
