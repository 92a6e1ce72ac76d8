package yarrowmark.server.ledger.sample;

import static yarrowmark.server.platform.Sure.sure;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.measure.Scale;
import yarrowmark.core.stats.NoisePrior;
import yarrowmark.core.stats.SampleMoments;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.platform.Mirror;
import yarrowmark.server.platform.RecordsChanged;

/**
 * What all samples of a metric lend to each of them. Found anew once a sample of its suite version changed: reading every
 * sample for each question would make each question as slow as the ledger is long.
 */
@Service
public class LentNoise implements Mirror {
    private final SampleMirror samples;
    private final Map<Long, Optional<NoisePrior>> known = new ConcurrentHashMap<>();
    private final Map<Long, Long> versionOf = new ConcurrentHashMap<>();
    /** How often samples of a suite version changed; what was found meanwhile is not kept. */
    private final Map<Long, Long> changes = new ConcurrentHashMap<>();

    LentNoise(SampleMirror samples) {
        this.samples = samples;
    }

    /** @param all every metric there is: those of a suite version lend to one another where one alone has too few samples */
    @Transactional(readOnly = true)
    public Map<Long, Optional<NoisePrior>> of(Collection<MetricRow> metrics, Collection<MetricRow> all) {
        Map<Long, Optional<NoisePrior>> lent = new HashMap<>();
        List<MetricRow> missing = new ArrayList<>();
        for (MetricRow m : metrics) {
            Optional<NoisePrior> there = known.get(m.id());
            if (there == null) {
                missing.add(m);
            } else {
                lent.put(m.id(), there);
            }
        }
        if (!missing.isEmpty()) {
            lent.putAll(found(missing, all));
        }
        return lent;
    }

    private Map<Long, Optional<NoisePrior>> found(List<MetricRow> missing, Collection<MetricRow> all) {
        Set<Long> versions = missing.stream().map(MetricRow::suiteVersionId).collect(Collectors.toSet());
        Map<Long, Long> before = versions.stream().collect(Collectors.toMap(v -> v, v -> changes.getOrDefault(v, 0L)));
        Map<Long, MetricRow> near = all.stream()
                .filter(m -> versions.contains(m.suiteVersionId()))
                .collect(Collectors.toMap(MetricRow::id, m -> m));
        Map<Long, List<SampleMoments>> ofMetric = new HashMap<>();
        // Ratios and differences have noise of different kinds, so neither lends to the other.
        Map<Long, List<SampleMoments>> ofVersion = new HashMap<>();
        for (Samples.SampleRow row : samples.ofMetrics(near.keySet())) {
            MetricRow m = sure(near, row.metricId());
            ofMetric.computeIfAbsent(m.id(), id -> new ArrayList<>()).add(row.moments());
            if (m.scale() == Scale.RATIO) {
                ofVersion
                        .computeIfAbsent(m.suiteVersionId(), v -> new ArrayList<>())
                        .add(row.moments());
            }
        }
        Map<Long, Optional<NoisePrior>> found = new HashMap<>();
        for (MetricRow m : missing) {
            List<SampleMoments> own = ofMetric.getOrDefault(m.id(), List.of());
            found.put(
                    m.id(),
                    m.scale() == Scale.RATIO
                            ? NoisePrior.fitWithin(own, ofVersion.getOrDefault(m.suiteVersionId(), List.of()))
                            : NoisePrior.fit(own));
            versionOf.put(m.id(), m.suiteVersionId());
            known.put(m.id(), found.get(m.id()));
            if (!changes.getOrDefault(m.suiteVersionId(), 0L).equals(before.get(m.suiteVersionId()))) {
                known.remove(m.id());
            }
        }
        return found;
    }

    @Override
    public void note(RecordsChanged change) {
        if (change instanceof SamplesChanged samplesChanged) {
            changed(samplesChanged);
        }
    }

    private void changed(SamplesChanged event) {
        event.suiteVersions().forEach(v -> changes.merge(v, 1L, Long::sum));
        versionOf.forEach((metric, version) -> {
            if (event.suiteVersions().contains(version)) {
                known.remove(metric);
            }
        });
    }
}
