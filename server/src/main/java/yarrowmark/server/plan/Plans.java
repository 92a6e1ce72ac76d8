package yarrowmark.server.plan;

import java.util.List;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.catalog.BuiltInSuite;
import yarrowmark.server.platform.BeforeOpening;
import yarrowmark.server.platform.Problem;

/** The plans of this shelf. */
@Service
public class Plans implements BeforeOpening {
    public static final String FIRST_ROUND = "First round";
    private static final int RUNS = 3;
    private static final int TIMED_MS = 3_000;
    private static final int PAUSE_MS = 5_000;

    private final PlanRepository plans;
    private final BuiltInSuite builtIn;

    Plans(PlanRepository plans, BuiltInSuite builtIn) {
        this.plans = plans;
        this.builtIn = builtIn;
    }

    @Override
    public int getPhase() {
        return 20;
    }

    @Override
    @Transactional
    public void start() {
        if (plans.findByName(FIRST_ROUND).isEmpty()) {
            plans.save(new Plan(FIRST_ROUND, RUNS, TIMED_MS, PAUSE_MS, builtIn.ensure()));
        }
    }

    @Transactional(readOnly = true)
    public List<PlanRow> all() {
        return plans.findAllByOrderById().stream().map(PlanRow::of).toList();
    }

    @Transactional(readOnly = true)
    public PlanRow plan(long id) {
        return plans.findById(id).map(PlanRow::of).orElseThrow(() -> Problem.notFound("plan", id));
    }
}
