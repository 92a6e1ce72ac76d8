package yarrowmark.server.ledger;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import org.hibernate.annotations.Immutable;

/** One value of one metric in one run. Never updated, never deleted. */
@Entity
@Immutable
class Reading {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private long runId;
    private long metricId;
    /** Also in the run; kept here so that a sample is found by one index. */
    private long configurationId;

    private double value;
    private double resolution;
    /** The reading it stands for; that one is set aside. */
    private Long correctsId;

    protected Reading() {}

    Reading(long runId, long metricId, long configurationId, double value, double resolution, Long correctsId) {
        this.correctsId = correctsId;
        this.runId = runId;
        this.metricId = metricId;
        this.configurationId = configurationId;
        this.value = value;
        this.resolution = resolution;
    }

    Long id() {
        return id;
    }

    long runId() {
        return runId;
    }

    long metricId() {
        return metricId;
    }

    long configurationId() {
        return configurationId;
    }

    double value() {
        return value;
    }

    double resolution() {
        return resolution;
    }

    Long correctsId() {
        return correctsId;
    }
}
