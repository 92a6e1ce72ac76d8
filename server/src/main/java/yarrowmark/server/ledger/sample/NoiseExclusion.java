package yarrowmark.server.ledger.sample;

import java.util.Collection;
import java.util.Set;
import yarrowmark.server.catalog.MetricRow;

/** Which samples say nothing about noise: a display that holds a rate makes it look far steadier than the device is. */
public interface NoiseExclusion {
    /** A sample by its place. */
    record Place(long configurationId, long metricId) {}

    Set<Place> among(Collection<MetricRow> metrics);
}
