package yarrowmark.server.standing;

import static yarrowmark.server.platform.Require.require;

import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.standing.Standing;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.shelf.ClassPlaces;
import yarrowmark.server.shelf.Population;
import yarrowmark.server.shelf.model.DeviceClass;

/** Places in one test, for other views. */
@Service
public class StandingPlaces implements ClassPlaces {
    /** Those that are placed, in order. */
    public record Placed(long configurationId, String configuration, int order, int best, int worst) {}

    private final StandingsService standings;

    private final Population population;

    StandingPlaces(StandingsService standings, Population population) {
        this.standings = standings;
        this.population = population;
    }

    /** Among its class, over the tests in common use there. */
    @Override
    public Optional<ClassPlace> of(long configurationId) {
        DeviceClass deviceClass = population.all().stream()
                .filter(m -> m.configuration().id() == configurationId)
                .map(m -> m.configuration().deviceClass())
                .findFirst()
                .orElse(null);
        if (deviceClass == null) {
            return Optional.empty();
        }
        Standings shown;
        try {
            shown = standings.shown(StandingsAsk.ofClass(deviceClass));
        } catch (Problem nothingYet) {
            // Nobody of the class has a score that counts: then there is no place either.
            return Optional.empty();
        }
        return shown.rows().stream()
                .filter(r -> r.configuration().id() == configurationId && r.placeBest() != null)
                .findFirst()
                .map(r -> new ClassPlace(
                        require(r.order()),
                        require(r.placeBest()),
                        require(r.placeWorst()),
                        shown.placed(),
                        deviceClass,
                        shown.scope()));
    }

    /** Whoever is in a standing, the best first; those without a place after them. */
    @Transactional(readOnly = true)
    public List<Long> configurations(StandingsAsk ask) {
        Ranked ranked = standings.ranked(ask);
        return ranked.standing().entries().stream()
                .map(e -> ranked.rows().get(e.row()))
                .toList();
    }

    @Transactional(readOnly = true)
    public List<Placed> inMetric(long metricId) {
        Ranked ranked = standings.ranked(StandingsAsk.ofMetric(metricId));
        CensoredPlaces places = new CensoredPlaces(ranked);
        return ranked.standing().entries().stream()
                .filter(e -> e.status() == Standing.Status.PLACED)
                .map(e -> {
                    long id = ranked.rows().get(e.row());
                    return new Placed(
                            id,
                            require(ranked.chosen().members(), id)
                                    .configuration()
                                    .name(),
                            require(places.order(e)),
                            require(places.best(e)),
                            require(places.worst(e)));
                })
                .toList();
    }
}
