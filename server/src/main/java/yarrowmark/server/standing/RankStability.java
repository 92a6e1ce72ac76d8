package yarrowmark.server.standing;

import java.util.ArrayList;
import java.util.List;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.standing.RankFirmness;
import yarrowmark.core.standing.Standing;
import yarrowmark.server.platform.change.Revision;
import yarrowmark.server.platform.change.UntilChanged;

/** How firm the first places are, should the purpose weigh a little otherwise. */
@Service
class RankStability {
    private static final int SHOWN = 5;
    private static final int KEPT = 100;

    /**
     * @param first         the first five, each with the share of weightings in which it comes first
     * @param others        the share in which none of them does
     * @param weightings    how many were drawn
     * @param concentration of the Dirichlet distribution around the purpose: larger is nearer to it
     * @param over          what was weighed at random: groups, suites or tests
     */
    record Firmness(List<FirstShare> first, double others, int weightings, double concentration, PartOf.Kind over) {}

    record FirstShare(long configurationId, double share) {}

    private final StandingsService standings;
    private final UntilChanged<StandingsAsk, Firmness> kept;

    RankStability(StandingsService standings, Revision revision) {
        this.standings = standings;
        this.kept = new UntilChanged<>(revision, KEPT);
    }

    @Transactional(readOnly = true)
    public Firmness of(StandingsAsk ask) {
        return kept.get(ask, () -> of(standings.ranked(ask)));
    }

    static Firmness of(Ranked ranked) {
        List<PartOf> parts = ranked.parts();
        int[] part = new int[ranked.weights().length];
        for (int p = 0; p < parts.size(); p++) {
            for (int column : parts.get(p).columns()) {
                part[column] = p;
            }
        }
        RankFirmness firmness = RankFirmness.of(ranked.grid(), ranked.weights(), part, ranked.reference());
        double[] shares = firmness.shares();
        List<FirstShare> first = new ArrayList<>();
        double others = 1;
        for (Standing.Entry e : ranked.standing().entries()) {
            if (first.size() < SHOWN && e.status() == Standing.Status.PLACED) {
                first.add(new FirstShare(ranked.rows().get(e.row()), shares[e.row()]));
                others -= shares[e.row()];
            }
        }
        return new Firmness(
                first,
                Math.max(0, others),
                firmness.weightings(),
                firmness.concentration(),
                parts.get(0).kind());
    }
}
