package yarrowmark.server.analysis;

import static yarrowmark.server.platform.Require.require;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.compare.Bound;
import yarrowmark.core.compare.Materiality;
import yarrowmark.core.compare.PairComparison;
import yarrowmark.core.measure.Merit;
import yarrowmark.core.measure.Scale;
import yarrowmark.core.stats.Sample;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.ledger.mark.ReadingMarks.HeldSample;
import yarrowmark.server.ledger.sample.KnownNoise;
import yarrowmark.server.shelf.configuration.ConfigurationRow;

/** A test that the base has not run: a line all the same, on which the others are held against the first that has it. */
record WithoutBase(
        List<Long> others,
        Map<Long, ConfigurationRow> rows,
        long base,
        ComparedSamples.Table table,
        KnownNoise noises,
        Set<HeldSample> held,
        NotRun notRun,
        Materiality materiality) {

    Comparison.ComparedRow row(MetricRow m) {
        String reason = notRun.reason(base, m);
        List<Comparison.ComparedCell> cells = new ArrayList<>();
        for (long id : others) {
            Sample own = table.sample(id, m.id());
            if (own == null) {
                cells.add(notRun.cell(id, m).build());
                continue;
            }
            CellBuilder cell = Comparison.ComparedCell.measured(
                            Merit.toValue(noises.centre(own, m).merit(), m.direction(), m.scale()), own)
                    .out(reason);
            PairComparison pair = pair(id, m);
            if (pair != null && bound(id, m) == Bound.NONE) {
                cell.ratio(pair, m);
            } else if (pair != null) {
                cell.bound(bound(id, m), pair.ratio());
            }
            cells.add(cell.build());
        }
        return new Comparison.ComparedRow(m, null, 0, 0, false, noises.restsOn(m), against(m), cells);
    }

    /** To quote; empty where there is nothing to hold it against. */
    String sentence(long id, MetricRow m) {
        PairComparison pair = pair(id, m);
        return pair == null
                ? ""
                : ComparedSide.sentence(
                        m,
                        ComparedSide.name(require(rows, id)),
                        ComparedSide.name(require(rows, first(m))),
                        pair,
                        bound(id, m));
    }

    /** Position of the one that the others are held against. */
    private int against(MetricRow m) {
        for (int i = 0; i < others.size(); i++) {
            if (table.sample(others.get(i), m.id()) != null) {
                return i;
            }
        }
        return 0;
    }

    private long first(MetricRow m) {
        return others.get(against(m));
    }

    private @Nullable PairComparison pair(long id, MetricRow m) {
        long first = first(m);
        Sample own = table.sample(id, m.id());
        Sample there = table.sample(first, m.id());
        return id == first || own == null || there == null || m.scale() != Scale.RATIO
                ? null
                : PairComparison.of(own, there, noises.of(m), materiality);
    }

    private Bound bound(long id, MetricRow m) {
        return Bound.of(held.contains(new HeldSample(id, m.id())), held.contains(new HeldSample(first(m), m.id())));
    }
}
