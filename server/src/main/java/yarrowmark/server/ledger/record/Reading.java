package yarrowmark.server.ledger.record;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import org.hibernate.annotations.Immutable;
import org.jspecify.annotations.Nullable;

/** One value of one metric in one run. Never updated, never deleted. */
@Entity
@Immutable
public class Reading {
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
    private @Nullable Long correctsId;

    protected Reading() {}

    Reading(
            long runId,
            long metricId,
            long configurationId,
            double value,
            double resolution,
            @Nullable Long correctsId) {
        this.correctsId = correctsId;
        this.runId = runId;
        this.metricId = metricId;
        this.configurationId = configurationId;
        this.value = value;
        this.resolution = resolution;
    }

    public Long id() {
        return id;
    }

    public long runId() {
        return runId;
    }

    public long metricId() {
        return metricId;
    }

    public long configurationId() {
        return configurationId;
    }

    public double value() {
        return value;
    }

    public double resolution() {
        return resolution;
    }

    public @Nullable Long correctsId() {
        return correctsId;
    }
}
