package yarrowmark.server.plan;

import java.time.Clock;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.catalog.BuiltInSuites;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.TestRow;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.StartupTask;
import yarrowmark.server.platform.history.ChangeLog;

/** The plans of this shelf. */
@Service
public class Plans implements StartupTask {
    public static final String FIRST_ROUND = "First round";
    private static final int RUNS = 3;
    private static final int TIMED_MS = 3_000;
    private static final int PAUSE_MS = 5_000;

    /** See {@link PlanRow}. */
    public record NewPlan(
            String name,
            int runs,
            int timedMs,
            int pauseMs,
            boolean stopOnFailure,
            @Nullable Long shuffleSeed,
            boolean coolByProbe,
            @Nullable Integer mostRuns,
            @Nullable Double knownWithin,
            @Nullable Integer days,
            List<PlanItem> items) {
        public NewPlan(String name, int runs, int timedMs, int pauseMs, boolean stopOnFailure, List<PlanItem> items) {
            this(name, runs, timedMs, pauseMs, stopOnFailure, null, false, null, null, null, items);
        }
    }

    private final PlanRepository plans;
    private final BuiltInSuites builtIn;
    private final Catalog catalog;
    private final ChangeLog changes;
    private final Clock clock;

    Plans(PlanRepository plans, BuiltInSuites builtIn, Catalog catalog, ChangeLog changes, Clock clock) {
        this.plans = plans;
        this.builtIn = builtIn;
        this.catalog = catalog;
        this.changes = changes;
        this.clock = clock;
    }

    @Override
    public int getPhase() {
        return 20;
    }

    @Override
    @Transactional
    public void start() {
        ensure(new NewPlan(FIRST_ROUND, RUNS, TIMED_MS, PAUSE_MS, false, items(builtIn.firstRound())));
        List<PlanItem> everything = items(builtIn.everything());
        ensure(new NewPlan("Everything, short", 2, 1_000, 0, false, everything));
        ensure(new NewPlan("Everything, normal", 3, 3_000, 1_000, false, everything));
        ensure(new NewPlan("Everything, long", 5, 6_000, 5_000, false, everything));
    }

    private static List<PlanItem> items(List<Long> tests) {
        return tests.stream().map(PlanItem::of).toList();
    }

    /** A plan that is there from the start. One whose tests changed with a new version of a suite takes the old one's place. */
    private void ensure(NewPlan wanted) {
        Plan there = plans.findFirstByNameAndRetiredAtIsNull(wanted.name()).orElse(null);
        if (there != null
                && (there.madeBy() != null || PlanRow.of(there).items().equals(wanted.items()))) {
            return;
        }
        if (there != null) {
            there.retire(clock.instant());
            plans.flush();
        }
        plans.save(new Plan(wanted, null));
    }

    @Transactional(readOnly = true)
    public List<PlanRow> all() {
        return plans.findByRetiredAtIsNullOrderById().stream().map(PlanRow::of).toList();
    }

    /** Also plans that were retired: whoever carries one out goes on with it. */
    @Transactional(readOnly = true)
    public List<PlanRow> plans(Collection<Long> ids) {
        return ids.isEmpty()
                ? List.of()
                : plans.findByIdIn(ids).stream().map(PlanRow::of).toList();
    }

    @Transactional(readOnly = true)
    public PlanRow plan(long id) {
        return plans.findById(id).map(PlanRow::of).orElseThrow(() -> Problem.notFound("plan", id));
    }

    @Transactional
    public PlanRow make(NewPlan plan, String person) {
        check(plan);
        if (plans.findFirstByNameAndRetiredAtIsNull(plan.name()).isPresent()) {
            throw taken(plan.name());
        }
        Plan made;
        try {
            made = plans.saveAndFlush(new Plan(plan, person));
        } catch (DataIntegrityViolationException e) {
            // Somebody else made one of that name in this very moment.
            throw taken(plan.name());
        }
        changes.note(person, "plan", made.id(), ChangeLog.MADE, null, plan.name());
        return PlanRow.of(made);
    }

    private static Problem taken(String name) {
        return Problem.conflict("plan-exists", "There is a plan \"" + name + "\" already. Choose another name.");
    }

    /** The changed plan takes the place of the one before, which stays for the devices that carry it out. */
    @Transactional
    public PlanRow change(long id, NewPlan plan, String person) {
        retire(id, person);
        plans.flush();
        return make(plan, person);
    }

    @Transactional
    public void retire(long id, String person) {
        Plan plan =
                plans.findById(id).filter(p -> p.retiredAt() == null).orElseThrow(() -> Problem.notFound("plan", id));
        if (plan.madeBy() == null) {
            throw Problem.conflict(
                    "built-in-plan",
                    "\"" + plan.name() + "\" is there from the start and stays as it is. Copy it and change the copy.");
        }
        plan.retire(clock.instant());
        changes.note(person, "plan", id, "retired", null, plan.name());
    }

    private void check(NewPlan plan) {
        if ((plan.knownWithin() == null) != (plan.mostRuns() == null)) {
            throw Problem.invalid(
                    "half-an-aim",
                    "Runs until the mean is known need both: within how many per cent, and how many runs at most.");
        }
        if (plan.mostRuns() != null && (plan.runs() < 3 || plan.mostRuns() < plan.runs())) {
            throw Problem.invalid(
                    "not-enough-runs",
                    "As many runs as it takes are at least 3, and at most no fewer: not " + plan.runs() + " to "
                            + plan.mostRuns() + ".");
        }
        Map<Long, TestRow> known = catalog
                .tests(plan.items().stream().map(PlanItem::testId).toList())
                .stream()
                .collect(Collectors.toMap(TestRow::id, t -> t));
        Set<Long> seen = new HashSet<>();
        for (PlanItem item : plan.items()) {
            TestRow test = known.get(item.testId());
            if (test == null || test.retired()) {
                throw Problem.invalid(
                        "unknown-test",
                        "Test " + item.testId() + " is not in the catalogue any more. Take it out of the plan.");
            }
            if (!test.given()) {
                throw Problem.invalid(
                        "computed", test.name() + " is computed from other tests; nobody carries it out.");
            }
            if (!seen.add(item.testId())) {
                throw Problem.invalid("twice", test.name() + " is in the plan twice. Give it more runs instead.");
            }
        }
        if (plan.items().stream().allMatch(PlanItem::nice)) {
            throw Problem.invalid("nothing-must", "A plan needs at least one test that it must have.");
        }
    }
}
