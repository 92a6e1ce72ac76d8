package yarrowmark.server.analysis;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.factor.FactorWords;
import yarrowmark.core.factor.TwoFactors;
import yarrowmark.core.measure.Merit;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.shelf.configuration.ConfigurationRow;

/** The grid of two factors in rows, and what each factor does in every block of four. */
final class FactorRows {
    private static final int MOST_BLOCKS = 20;

    private FactorRows() {}

    static List<FactorGrid.FactorRow> rows(
            FactorGrid.FactorChoice first,
            FactorGrid.FactorChoice second,
            List<List<ConfigurationRow>> cells,
            List<TwoFactors.@Nullable Cell> merits,
            @Nullable MetricRow metric) {
        Double origin = merits.stream()
                .filter(Objects::nonNull)
                .map(TwoFactors.Cell::mean)
                .findFirst()
                .orElse(null);
        int width = second.levels().size();
        List<FactorGrid.FactorRow> rows = new ArrayList<>();
        for (int a = 0; a < first.levels().size(); a++) {
            List<List<ConfigurationRow>> line = cells.subList(a * width, (a + 1) * width);
            Long from = line.stream()
                    .filter(c -> !c.isEmpty())
                    .map(c -> c.get(0).id())
                    .findFirst()
                    .orElse(null);
            List<FactorGrid.FactorCell> shown = new ArrayList<>();
            for (int b = 0; b < width; b++) {
                TwoFactors.Cell merit = merits.get(a * width + b);
                boolean empty = line.get(b).isEmpty();
                shown.add(new FactorGrid.FactorCell(
                        empty ? null : line.get(b).get(0),
                        Math.max(0, line.get(b).size() - 1),
                        merit == null || metric == null ? null : Merit.toValue(merit.mean(), metric.direction()),
                        merit == null || origin == null ? null : Math.exp(merit.mean() - origin),
                        empty ? from : null));
            }
            rows.add(new FactorGrid.FactorRow(first.levels().get(a), shown));
        }
        return rows;
    }

    static List<FactorGrid.FactorBlock> blocks(
            FactorGrid.FactorChoice first, FactorGrid.FactorChoice second, List<TwoFactors.@Nullable Cell> merits) {
        List<FactorGrid.FactorBlock> blocks = new ArrayList<>();
        List<String> as = first.levels();
        List<String> bs = second.levels();
        for (int a1 = 0; a1 < as.size(); a1++) {
            for (int a2 = a1 + 1; a2 < as.size(); a2++) {
                for (int b1 = 0; b1 < bs.size(); b1++) {
                    for (int b2 = b1 + 1; b2 < bs.size() && blocks.size() < MOST_BLOCKS; b2++) {
                        TwoFactors.Cell a1b1 = merits.get(a1 * bs.size() + b1);
                        TwoFactors.Cell a2b1 = merits.get(a2 * bs.size() + b1);
                        TwoFactors.Cell a1b2 = merits.get(a1 * bs.size() + b2);
                        TwoFactors.Cell a2b2 = merits.get(a2 * bs.size() + b2);
                        if (a1b1 != null && a2b1 != null && a1b2 != null && a2b2 != null) {
                            TwoFactors t = TwoFactors.of(a1b1, a2b1, a1b2, a2b2);
                            blocks.add(new FactorGrid.FactorBlock(
                                    as.get(a1),
                                    as.get(a2),
                                    bs.get(b1),
                                    bs.get(b2),
                                    effect(
                                            t.first(),
                                            t.firstTurns()
                                                    ? FactorWords.turned(
                                                            t.firstAlone(),
                                                            as.get(a1),
                                                            as.get(a2),
                                                            bs.get(b1),
                                                            bs.get(b2))
                                                    : FactorWords.effect(t.first(), as.get(a1), as.get(a2))),
                                    effect(
                                            t.second(),
                                            t.secondTurns()
                                                    ? FactorWords.turned(
                                                            t.secondAlone(),
                                                            bs.get(b1),
                                                            bs.get(b2),
                                                            as.get(a1),
                                                            as.get(a2))
                                                    : FactorWords.effect(t.second(), bs.get(b1), bs.get(b2))),
                                    t.firstTurns() || t.secondTurns(),
                                    effect(
                                            t.interaction(),
                                            FactorWords.interaction(
                                                    t.interaction(), bs.get(b1), bs.get(b2), as.get(a2), as.get(a1)))));
                        }
                    }
                }
            }
        }
        return blocks;
    }

    private static FactorGrid.FactorEffect effect(TwoFactors.Effect e, String words) {
        return new FactorGrid.FactorEffect(
                e.ratio(), e.interval().low(), e.interval().high(), words);
    }
}
