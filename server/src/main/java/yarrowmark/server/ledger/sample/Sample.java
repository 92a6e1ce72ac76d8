package yarrowmark.server.ledger.sample;

import jakarta.persistence.Embeddable;
import jakarta.persistence.EmbeddedId;
import jakarta.persistence.Entity;
import java.io.Serializable;
import java.util.Objects;
import yarrowmark.core.stats.SampleMoments;

/** The moments of all counted readings of one metric on one configuration. */
@Entity
class Sample {
    @Embeddable
    static class Key implements Serializable {
        private static final long serialVersionUID = 1;
        private long configurationId;
        private long metricId;

        protected Key() {}

        Key(long configurationId, long metricId) {
            this.configurationId = configurationId;
            this.metricId = metricId;
        }

        @Override
        public boolean equals(Object other) {
            return other instanceof Key k && k.configurationId == configurationId && k.metricId == metricId;
        }

        @Override
        public int hashCode() {
            return Objects.hash(configurationId, metricId);
        }
    }

    @EmbeddedId
    private Key key;

    private int n;
    private double mean;
    private double sumSquares;
    private double resolutionVariance;

    protected Sample() {}

    Sample(Key key, SampleMoments moments) {
        this.key = key;
        this.n = moments.n();
        this.mean = moments.mean();
        this.sumSquares = moments.sumSquares();
        this.resolutionVariance = moments.resolutionVariance();
    }
}
