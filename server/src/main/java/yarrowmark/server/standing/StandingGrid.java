package yarrowmark.server.standing;

import static yarrowmark.server.platform.Require.require;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.standing.MeritGrid;
import yarrowmark.core.stats.Centre;
import yarrowmark.core.stats.Noise;
import yarrowmark.core.stats.Sample;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.ledger.sample.KnownNoise;
import yarrowmark.server.ledger.sample.Samples.SampleRow;

/**
 * Samples as a grid of configurations × metrics. Noise is borrowed from every configuration tested, also from those
 * that are not ranked.
 */
final class StandingGrid {
    private final List<MetricRow> metrics;
    private final List<Long> configurations;
    private final Map<Long, Integer> rowOf = new HashMap<>();
    private final Map<Long, Integer> columnOf = new HashMap<>();
    /** By row and column; null where there is none. */
    private final @Nullable Sample[][] cells;

    private final @Nullable Centre[][] centres;
    private final MeritGrid merits;

    /**
     * @param candidates metrics that may become columns
     * @param samples    of these metrics, those of a configuration one after the other
     * @param noise      what all samples of a metric lend to each
     * @param rows       configurations that become rows where they have a sample
     */
    StandingGrid(List<MetricRow> candidates, List<SampleRow> samples, KnownNoise noise, Set<Long> rows) {
        // Ids of metrics are small numbers, and a hundred thousand look-ups are worth an array.
        int[] candidate = new int
                [1
                        + Math.toIntExact(candidates.stream()
                                .mapToLong(MetricRow::id)
                                .max()
                                .orElse(0))];
        Arrays.fill(candidate, -1);
        for (int i = 0; i < candidates.size(); i++) {
            candidate[(int) candidates.get(i).id()] = i;
        }
        boolean[] seen = new boolean[candidates.size()];
        List<SampleRow> used = new ArrayList<>(samples.size());
        long before = -1;
        boolean in = false;
        for (SampleRow s : samples) {
            if (s.configurationId() != before) {
                before = s.configurationId();
                in = rows.contains(before);
                if (in) {
                    rowOf.putIfAbsent(before, 0);
                }
            }
            if (in && s.metricId() < candidate.length && candidate[(int) s.metricId()] >= 0) {
                seen[candidate[(int) s.metricId()]] = true;
                used.add(s);
            }
        }
        configurations = rowOf.keySet().stream().sorted().toList();
        for (int r = 0; r < configurations.size(); r++) {
            rowOf.put(configurations.get(r), r);
        }
        metrics = candidates.stream().filter(m -> seen[candidate[(int) m.id()]]).toList();
        List<Noise> lent = new ArrayList<>();
        for (int j = 0; j < metrics.size(); j++) {
            columnOf.put(metrics.get(j).id(), j);
            candidate[(int) metrics.get(j).id()] = j;
            lent.add(noise.of(metrics.get(j)));
        }
        cells = new Sample[configurations.size()][metrics.size()];
        centres = new Centre[configurations.size()][metrics.size()];
        MeritGrid.Builder builder = MeritGrid.builder(Math.max(1, configurations.size()), Math.max(1, metrics.size()));
        for (int j = 0; j < metrics.size(); j++) {
            builder.day(j, noise.day(metrics.get(j)));
        }
        before = -1;
        int r = -1;
        for (SampleRow s : used) {
            if (s.configurationId() != before) {
                before = s.configurationId();
                r = require(rowOf, before);
            }
            int j = candidate[(int) s.metricId()];
            cells[r][j] = s.sample();
            centres[r][j] = Centre.of(s.sample(), lent.get(j));
            builder.cell(r, j, centres[r][j]);
        }
        merits = builder.build();
    }

    /** Metrics that at least one row has, in catalogue order. */
    List<MetricRow> metrics() {
        return metrics;
    }

    /** Rows, in the order they were made. */
    List<Long> configurations() {
        return configurations;
    }

    /** −1 where it is not among them. */
    int row(long configurationId) {
        return rowOf.getOrDefault(configurationId, -1);
    }

    @Nullable
    Sample sample(int row, long metricId) {
        Integer column = columnOf.get(metricId);
        return column == null ? null : cells[row][column];
    }

    /** How good that sample is, and how sure. */
    @Nullable
    Centre centre(int row, long metricId) {
        Integer column = columnOf.get(metricId);
        return column == null ? null : centres[row][column];
    }

    /** Columns as {@link #metrics()}. */
    MeritGrid merits() {
        return merits;
    }
}
