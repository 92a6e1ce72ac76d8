package yarrowmark.server.plan;

import jakarta.persistence.CollectionTable;
import jakarta.persistence.ElementCollection;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.JoinColumn;
import jakarta.persistence.OrderColumn;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

@Entity
class Plan {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private String name;
    /** The name while the plan is in use: the records hold that only one has it. */
    private @Nullable String usedName;

    private int runs;
    private int timedMs;
    private int pauseMs;
    private boolean stopOnFailure;
    /** Null: the tests come in the order of the items. */
    private @Nullable Long shuffleSeed;

    private boolean coolByProbe;
    private @Nullable Integer mostRuns;
    private @Nullable Double knownWithin;
    private @Nullable Integer days;
    /** Null for the plan that is there from the start. */
    private @Nullable String madeBy;

    private @Nullable Instant retiredAt;

    @ElementCollection
    @CollectionTable(name = "plan_item", joinColumns = @JoinColumn(name = "plan_id"))
    @OrderColumn(name = "position")
    private List<PlanItem> items = new ArrayList<>();

    protected Plan() {}

    Plan(Plans.NewPlan plan, @Nullable String madeBy) {
        this.name = plan.name();
        this.usedName = plan.name();
        this.runs = plan.runs();
        this.timedMs = plan.timedMs();
        this.pauseMs = plan.pauseMs();
        this.stopOnFailure = plan.stopOnFailure();
        this.shuffleSeed = plan.shuffleSeed();
        this.coolByProbe = plan.coolByProbe();
        this.mostRuns = plan.mostRuns();
        this.knownWithin = plan.knownWithin();
        this.days = plan.days();
        this.items.addAll(plan.items());
        this.madeBy = madeBy;
    }

    void retire(@Nullable Instant at) {
        this.retiredAt = at;
        this.usedName = at == null ? name : null;
    }

    Long id() {
        return id;
    }

    String name() {
        return name;
    }

    int runs() {
        return runs;
    }

    int timedMs() {
        return timedMs;
    }

    int pauseMs() {
        return pauseMs;
    }

    boolean stopOnFailure() {
        return stopOnFailure;
    }

    @Nullable
    Long shuffleSeed() {
        return shuffleSeed;
    }

    boolean coolByProbe() {
        return coolByProbe;
    }

    @Nullable
    Integer mostRuns() {
        return mostRuns;
    }

    @Nullable
    Double knownWithin() {
        return knownWithin;
    }

    @Nullable
    Integer days() {
        return days;
    }

    @Nullable
    String madeBy() {
        return madeBy;
    }

    @Nullable
    Instant retiredAt() {
        return retiredAt;
    }

    List<PlanItem> items() {
        return items;
    }
}
