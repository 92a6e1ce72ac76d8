package yarrowmark.server.plan;

import jakarta.persistence.CollectionTable;
import jakarta.persistence.Column;
import jakarta.persistence.ElementCollection;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.JoinColumn;
import jakarta.persistence.OrderColumn;
import java.util.ArrayList;
import java.util.List;

@Entity
class Plan {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;
    private String name;
    private int runs;
    private int timedMs;
    private int pauseMs;
    @ElementCollection
    @CollectionTable(name = "plan_item", joinColumns = @JoinColumn(name = "plan_id"))
    @OrderColumn(name = "position")
    @Column(name = "test_id")
    private List<Long> testIds = new ArrayList<>();

    protected Plan() {
    }

    Plan(String name, int runs, int timedMs, int pauseMs, List<Long> testIds) {
        this.name = name;
        this.runs = runs;
        this.timedMs = timedMs;
        this.pauseMs = pauseMs;
        this.testIds.addAll(testIds);
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

    List<Long> testIds() {
        return testIds;
    }
}
