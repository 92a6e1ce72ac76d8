package yarrowmark.server.analysis;

import static yarrowmark.server.platform.Require.require;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.formula.TotalContributions;
import yarrowmark.core.formula.TotalShape;
import yarrowmark.core.measure.Merit;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.ledger.sample.Samples;
import yarrowmark.server.platform.Problem;

/**
 * Suites' own totals of two configurations, recomputed from the parts that both have. A suite that is not complete has no
 * total of its own; what stands in for it here is labelled as ours.
 */
@Service
class SuiteTotals {
    /**
     * @param parts        of the total, in its order
     * @param baseStated   the total of the base as the suite computes it; absent where it is not complete
     * @param base         recomputed from the parts that are used
     * @param ratio        of the recomputed ones, better above 1
     * @param label        what the recomputed ones are; absent where they are made of every part, as the suite's own
     * @param how          how the contributions were found
     */
    record ComparedTotal(
            long metricId,
            String name,
            String suite,
            String version,
            String unit,
            List<TotalPart> parts,
            @Nullable Double baseStated,
            @Nullable Double stated,
            double base,
            double total,
            double ratio,
            int used,
            @Nullable String label,
            TotalContributions.How how) {}

    /**
     * @param takenOut     by whoever asks
     * @param contribution to the difference of the recomputed totals, in the total's unit; absent where it is not used
     */
    record TotalPart(
            long metricId,
            String test,
            String unit,
            @Nullable Double base,
            @Nullable Double value,
            boolean takenOut,
            @Nullable Double contribution) {}

    private final Catalog catalog;
    private final Samples samples;

    SuiteTotals(Catalog catalog, Samples samples) {
        this.catalog = catalog;
        this.samples = samples;
    }

    /** @param without metrics of parts that are taken out of every total */
    @Transactional(readOnly = true)
    public List<ComparedTotal> of(long base, long other, Collection<Long> without) {
        Map<Long, MetricRow> metrics = catalog.metricsInUse().stream().collect(Collectors.toMap(MetricRow::id, m -> m));
        Map<Long, Map<Long, Double>> values = new HashMap<>();
        for (Samples.SampleRow row : samples.ofConfigurations(List.of(base, other))) {
            MetricRow m = metrics.get(row.metricId());
            if (m != null) {
                values.computeIfAbsent(row.configurationId(), c -> new HashMap<>())
                        .put(m.id(), Merit.toValue(row.sample().mean(), m.direction(), m.scale()));
            }
        }
        without.stream().filter(id -> !metrics.containsKey(id)).findFirst().ifPresent(id -> {
            throw Problem.notFound("metric", id);
        });
        Map<Long, Double> ofBase = values.getOrDefault(base, Map.of());
        Map<Long, Double> ofOther = values.getOrDefault(other, Map.of());
        List<ComparedTotal> totals = new ArrayList<>();
        for (MetricRow m : metrics.values().stream()
                .filter(m -> m.formula() != null)
                .sorted(Comparator.comparingLong(MetricRow::id))
                .toList()) {
            // A formula over one part is a conversion, not a total.
            TotalShape.read(require(m.formula()))
                    .filter(s -> s.parts().size() > 1 && m.facts().isEmpty())
                    .flatMap(s -> total(m, s, metrics, ofBase, ofOther, without))
                    .ifPresent(totals::add);
        }
        return totals;
    }

    private static Optional<ComparedTotal> total(
            MetricRow m,
            TotalShape shape,
            Map<Long, MetricRow> metrics,
            Map<Long, Double> base,
            Map<Long, Double> other,
            Collection<Long> without) {
        Optional<TotalShape.Recomputed> found = shape.recompute(inputs(m, base, without), inputs(m, other, without));
        if (found.isEmpty()) {
            return Optional.empty();
        }
        TotalShape.Recomputed r = found.get();
        Map<String, Double> contributions = new HashMap<>();
        for (int i = 0; i < r.used().size(); i++) {
            contributions.put(r.used().get(i), r.contributions().parts().get(i));
        }
        List<TotalPart> parts = shape.parts().stream()
                .map(p -> {
                    MetricRow part = metrics.get(m.inputs().get(p.input()));
                    return part == null
                            ? null
                            : new TotalPart(
                                    part.id(),
                                    part.name(),
                                    part.unit(),
                                    base.get(part.id()),
                                    other.get(part.id()),
                                    without.contains(part.id()),
                                    contributions.get(p.input()));
                })
                .filter(Objects::nonNull)
                .toList();
        int all = shape.parts().size();
        String label = r.used().size() == all
                ? null
                : "Recomputed by Yarrowmark from " + r.used().size() + " of " + all
                        + " parts; not the suite's own total.";
        double ratio = m.direction().sign() > 0 ? r.total() / r.base() : r.base() / r.total();
        return Optional.of(new ComparedTotal(
                m.id(),
                m.name(),
                m.suite(),
                m.version(),
                m.unit(),
                parts,
                base.get(m.id()),
                other.get(m.id()),
                r.base(),
                r.total(),
                ratio,
                r.used().size(),
                label,
                r.contributions().how()));
    }

    private static Map<String, Double> inputs(MetricRow m, Map<Long, Double> values, Collection<Long> without) {
        Map<String, Double> inputs = new HashMap<>();
        m.inputs().forEach((name, id) -> {
            if (values.containsKey(id) && !without.contains(id) && values.get(id) > 0) {
                inputs.put(name, values.get(id));
            }
        });
        return inputs;
    }
}
