package yarrowmark.server.analysis;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.springframework.stereotype.Service;
import yarrowmark.core.stats.SampleMoments;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.ledger.Samples;
import yarrowmark.server.ledger.Samples.SampleRow;

/** Samples with joined comparability groups taken for one: metrics of joined versions are the same column. */
@Service
class ComparedSamples {
    /** @param metrics each once, the oldest of those that are compared. @param samples under the ids of these */
    record Compared(List<MetricRow> metrics, List<SampleRow> samples) { }

    private final Catalog catalog;
    private final Samples samples;

    ComparedSamples(Catalog catalog, Samples samples) {
        this.catalog = catalog;
        this.samples = samples;
    }

    /** @param metrics some metrics; those that are compared with them are added where {@code all} has them */
    Compared of(List<MetricRow> metrics, List<MetricRow> all) {
        Map<Long, Long> oldest = catalog.comparable(all);
        Set<Long> wanted = new HashSet<>(metrics.stream().map(m -> oldest.get(m.id())).toList());
        List<Long> members = all.stream().map(MetricRow::id).filter(id -> wanted.contains(oldest.get(id))).toList();
        Map<List<Long>, SampleMoments> pooled = new LinkedHashMap<>();
        for (SampleRow row : samples.ofMetrics(members)) {
            pooled.merge(List.of(row.configurationId(), oldest.get(row.metricId())), row.moments(), SampleMoments::pooled);
        }
        List<SampleRow> rows = new ArrayList<>();
        pooled.forEach((place, moments) -> rows.add(new SampleRow(place.get(0), place.get(1), moments)));
        return new Compared(all.stream().filter(m -> wanted.contains(m.id())).toList(), rows);
    }
}
