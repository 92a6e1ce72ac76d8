package yarrowmark.server.standing;

import static yarrowmark.server.platform.Sure.sure;

import java.util.List;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.standing.Standing;

/** Places in one test, for other views. */
@Service
public class StandingPlaces {
    /** Those that are placed, in order. */
    public record Placed(long configurationId, String configuration, int best, int worst) {}

    private final StandingsService standings;

    StandingPlaces(StandingsService standings) {
        this.standings = standings;
    }

    @Transactional(readOnly = true)
    public List<Placed> inMetric(long metricId) {
        Ranked ranked = standings.ranked(StandingsAsk.ofMetric(metricId));
        HeldPlaces places = new HeldPlaces(ranked);
        return ranked.standing().entries().stream()
                .filter(e -> e.status() == Standing.Status.PLACED)
                .map(e -> {
                    long id = ranked.rows().get(e.row());
                    return new Placed(
                            id,
                            sure(ranked.chosen().members(), id).configuration().name(),
                            sure(places.best(e)),
                            sure(places.worst(e)));
                })
                .toList();
    }
}
