package yarrowmark.server.analysis;

import static yarrowmark.server.platform.Require.require;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import yarrowmark.core.measure.Scale;
import yarrowmark.core.stats.Sample;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.ledger.sample.SampleCache;
import yarrowmark.server.ledger.sample.Samples;
import yarrowmark.server.ledger.sample.SessionSelection;

/** The samples that a comparison is made of. */
@Service
class ComparedSamples {
    private final Catalog catalog;
    private final SampleCache samples;

    ComparedSamples(Catalog catalog, SampleCache samples) {
        this.catalog = catalog;
        this.samples = samples;
    }

    /**
     * @param metrics  that one of those compared has, in catalogue order
     * @param cells    by configuration and metric
     * @param ofBase   by metric
     * @param measured every metric that a configuration has a result of, also where it is not asked for
     */
    record Table(
            List<MetricRow> metrics,
            Map<Long, Map<Long, Sample>> cells,
            Map<Long, Sample> ofBase,
            Map<Long, List<MetricRow>> measured) {
        @Nullable
        Sample base(long metricId) {
            return ofBase.get(metricId);
        }

        @Nullable
        Sample sample(long configurationId, long metricId) {
            return cells.getOrDefault(configurationId, Map.of()).get(metricId);
        }
    }

    /** Samples by configuration and metric, those of joined comparability groups as one, divided by the quantity where there is one. */
    Table table(
            Set<Long> ids,
            List<MetricRow> wanted,
            List<MetricRow> all,
            Quantities.@Nullable Known quantity,
            SessionSelection take,
            long base,
            SessionSelection baseTake) {
        Map<Long, Long> oldest = catalog.comparable(all);
        Map<Long, MetricRow> byId = all.stream().collect(Collectors.toMap(MetricRow::id, Function.identity()));
        Set<Long> columns = wanted.stream().map(m -> oldest.get(m.id())).collect(Collectors.toSet());
        Map<Long, Map<Long, Sample>> cells = new HashMap<>();
        Map<Long, List<MetricRow>> measured = new HashMap<>();
        Set<Long> present = new LinkedHashSet<>();
        for (Samples.SampleRow row : samples.ofConfigurations(ids, take)) {
            Long column = oldest.get(row.metricId());
            if (column == null) {
                continue;
            }
            measured.computeIfAbsent(row.configurationId(), c -> new ArrayList<>())
                    .add(require(byId, row.metricId()));
            if (columns.contains(column)) {
                cells.computeIfAbsent(row.configurationId(), c -> new HashMap<>())
                        .merge(column, divided(row, require(byId, column), quantity), Sample::joined);
                present.add(column);
            }
        }
        Map<Long, Sample> ofBase = cells.getOrDefault(base, Map.of());
        if (take != baseTake) {
            ofBase = new HashMap<>();
            for (Samples.SampleRow row : samples.ofConfigurations(Set.of(base), baseTake)) {
                Long column = oldest.get(row.metricId());
                if (column != null && columns.contains(column)) {
                    ofBase.merge(column, divided(row, require(byId, column), quantity), Sample::joined);
                    present.add(column);
                }
            }
        }
        return new Table(all.stream().filter(m -> present.contains(m.id())).toList(), cells, ofBase, measured);
    }

    private static Sample divided(Samples.SampleRow row, MetricRow m, Quantities.@Nullable Known quantity) {
        return quantity == null || m.scale() != Scale.RATIO
                ? row.sample()
                : row.sample().per(quantity.value(row.configurationId()));
    }
}
