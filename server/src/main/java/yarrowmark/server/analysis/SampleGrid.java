package yarrowmark.server.analysis;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;
import java.util.stream.Collectors;
import yarrowmark.core.standing.MeritGrid;
import yarrowmark.core.stats.NoisePrior;
import yarrowmark.core.stats.SampleMoments;
import yarrowmark.core.stats.WorkingVariance;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.ledger.Samples.SampleRow;

/**
 * Samples as a grid of configurations × metrics. Noise is borrowed from every configuration tested, also from those
 * that are not ranked.
 */
final class SampleGrid {
    private final List<MetricRow> metrics;
    private final List<Long> configurations;
    private final Map<Long, Map<Long, SampleMoments>> byConfiguration = new LinkedHashMap<>();
    private final Map<Long, Optional<NoisePrior>> priors = new HashMap<>();

    /**
     * @param samples  of these metrics, on any configuration
     * @param included which configurations become rows
     */
    SampleGrid(List<MetricRow> candidates, List<SampleRow> samples, java.util.function.LongPredicate included) {
        Map<Long, List<SampleMoments>> ofMetric = samples.stream()
            .collect(Collectors.groupingBy(SampleRow::metricId, Collectors.mapping(SampleRow::moments, Collectors.toList())));
        Map<Long, List<SampleMoments>> ofVersion = new HashMap<>();
        for (MetricRow m : candidates) {
            ofVersion.computeIfAbsent(m.suiteVersionId(), v -> new ArrayList<>()).addAll(ofMetric.getOrDefault(m.id(), List.of()));
        }
        for (MetricRow m : candidates) {
            priors.put(m.id(), NoisePrior.fitWithin(ofMetric.getOrDefault(m.id(), List.of()), ofVersion.get(m.suiteVersionId())));
        }
        TreeSet<Long> present = new TreeSet<>();
        for (SampleRow s : samples) {
            if (included.test(s.configurationId())) {
                byConfiguration.computeIfAbsent(s.configurationId(), c -> new HashMap<>()).put(s.metricId(), s.moments());
                present.add(s.metricId());
            }
        }
        metrics = candidates.stream().filter(m -> present.contains(m.id())).toList();
        configurations = byConfiguration.keySet().stream().sorted().toList();
    }

    /** Metrics that at least one row has, in catalogue order. */
    List<MetricRow> metrics() {
        return metrics;
    }

    /** Rows, in the order they were made. */
    List<Long> configurations() {
        return configurations;
    }

    SampleMoments sample(long configurationId, long metricId) {
        return byConfiguration.get(configurationId).get(metricId);
    }

    boolean has(long configurationId, long metricId) {
        return byConfiguration.get(configurationId).containsKey(metricId);
    }

    /** The core's grid for some of the metrics; columns in the given order, rows as {@link #configurations()}. */
    MeritGrid grid(List<MetricRow> columns) {
        MeritGrid.Builder builder = MeritGrid.builder(configurations.size(), columns.size());
        for (int r = 0; r < configurations.size(); r++) {
            Map<Long, SampleMoments> row = byConfiguration.get(configurations.get(r));
            for (int c = 0; c < columns.size(); c++) {
                SampleMoments sample = row.get(columns.get(c).id());
                if (sample == null) {
                    continue;
                }
                Optional<WorkingVariance> noise = NoisePrior.workingVariance(sample, priors.get(columns.get(c).id()));
                if (noise.isPresent()) {
                    builder.cell(r, c, sample.mean(), noise.get().variance() / sample.n());
                } else {
                    builder.cellOfUnknownNoise(r, c, sample.mean());
                }
            }
        }
        return builder.build();
    }
}
