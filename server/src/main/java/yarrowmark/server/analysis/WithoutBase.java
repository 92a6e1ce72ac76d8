package yarrowmark.server.analysis;

import static yarrowmark.server.platform.Sure.sure;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import yarrowmark.core.compare.Bound;
import yarrowmark.core.compare.Materiality;
import yarrowmark.core.compare.PairComparison;
import yarrowmark.core.compare.SizeInWords;
import yarrowmark.core.measure.Merit;
import yarrowmark.core.measure.Scale;
import yarrowmark.core.stats.Sample;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.ledger.mark.ReadingMarks.HeldSample;
import yarrowmark.server.shelf.ConfigurationRow;

/** A test that the base has not run: a line all the same, on which the others are held against the first that has it. */
final class WithoutBase {
    private WithoutBase() {}

    static Comparison.ComparedRow row(
            MetricRow m,
            List<Long> others,
            Map<Long, ConfigurationRow> rows,
            ConfigurationRow base,
            ComparedSamples.Table table,
            ComparisonService.Noises noises,
            Set<HeldSample> held,
            NotRun notRun,
            Materiality materiality) {
        String reason = notRun.reason(base.id(), m);
        int against = -1;
        List<Comparison.ComparedCell> cells = new ArrayList<>();
        for (int i = 0; i < others.size(); i++) {
            Sample own = table.sample(others.get(i), m.id());
            if (own == null) {
                cells.add(notRun.cell(others.get(i), m).build());
                continue;
            }
            CellBuilder cell = Comparison.ComparedCell.measured(
                            Merit.toValue(noises.centre(own, m).merit(), m.direction(), m.scale()), own)
                    .out(reason);
            if (against < 0) {
                against = i;
            } else if (m.scale() == Scale.RATIO) {
                long first = others.get(against);
                Sample there = java.util.Objects.requireNonNull(table.sample(first, m.id()));
                PairComparison pair = PairComparison.of(own, there, noises.of(m), materiality);
                Bound bound = Bound.of(
                        held.contains(new HeldSample(others.get(i), m.id())),
                        held.contains(new HeldSample(first, m.id())));
                if (bound == Bound.NONE) {
                    cell.ratio(pair, SizeInWords.brief(pair.ratio(), m.direction(), m.whatIsLess()))
                            .sentence(SizeInWords.sentence(
                                    m.test(),
                                    ComparedSide.name(sure(rows, others.get(i))),
                                    ComparedSide.name(sure(rows, first)),
                                    pair,
                                    m.direction(),
                                    m.whatIsLess()));
                } else {
                    cell.bound(bound, pair.ratio());
                }
            }
            cells.add(cell.build());
        }
        return new Comparison.ComparedRow(m, null, 0, 0, false, noises.stated(m), Math.max(0, against), cells);
    }
}
