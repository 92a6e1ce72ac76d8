package yarrowmark.server.standing;

import static yarrowmark.server.platform.Require.require;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.compare.Materiality;
import yarrowmark.core.compare.Verdict;
import yarrowmark.core.standing.GenerationStep;
import yarrowmark.core.standing.Standing;
import yarrowmark.server.shelf.Population;
import yarrowmark.server.shelf.Population.Member;
import yarrowmark.server.shelf.Shelf;
import yarrowmark.server.shelf.ShelfPages;
import yarrowmark.server.shelf.configuration.ConfigurationRow;
import yarrowmark.server.shelf.model.ModelRow;

/** Models that follow one another in their makers' lines, and how large the steps between them are. */
@Service
class Generations {
    private static final double MATERIALITY = 0.03;

    /**
     * @param scope   what is ranked, in words
     * @param instead whether that is another scope than the usual one, because it has more of these models
     */
    record GenerationLines(List<GenerationLine> lines, String scope, boolean instead) {}

    /** From the oldest to the newest. A model that two others follow has two lines. */
    record GenerationLine(List<Generation> generations, @Nullable StepSize whole) {}

    /**
     * @param configuration the one of the model that stands in; absent where none is ranked here
     * @param missing       why none is; absent where one is
     * @param step          from the last one before it that is ranked
     */
    record Generation(
            long modelId,
            String maker,
            String model,
            @Nullable ConfigurationRow configuration,
            @Nullable String missing,
            @Nullable Double index,
            @Nullable StepSize step) {}

    /** @param ratio above 1 is better. @param words of the verdict */
    record StepSize(double ratio, double low, double high, Verdict verdict) {
        static StepSize of(GenerationStep s) {
            return new StepSize(s.ratio(), s.interval().low(), s.interval().high(), s.verdict());
        }
    }

    private final StandingsService standings;
    private final StandingsShaper shaper;
    private final StandingFilter entrants;
    private final Population population;
    private final Shelf shelf;
    private final ShelfPages pages;

    Generations(
            StandingsService standings,
            StandingsShaper shaper,
            StandingFilter entrants,
            Population population,
            Shelf shelf,
            ShelfPages pages) {
        this.standings = standings;
        this.shaper = shaper;
        this.entrants = entrants;
        this.population = population;
        this.shelf = shelf;
        this.pages = pages;
    }

    /**
     * Over what is asked for. Where nothing narrower is asked for than the tests in common use, and another scope ranks
     * more of the models in these lines, that one is taken: a line of one model says nothing.
     */
    @Transactional(readOnly = true)
    public GenerationLines of(StandingsAsk ask) {
        Ranked usual = standings.ranked(ask);
        usual.needsRatios("steps between generations");
        List<List<Named>> lines = lines();
        Ranked best = usual;
        if (ask.overCommonUse()) {
            int most = ranked(usual, lines);
            for (StandingsAsk other : wider(ask, usual)) {
                Ranked tried = standings.ranked(other);
                int now = ranked(tried, lines);
                if (now > most) {
                    most = now;
                    best = tried;
                }
            }
        }
        Ranked taken = best;
        Map<Long, Standing.Entry> standing = newest(taken);
        return new GenerationLines(
                lines.stream().map(line -> line(line, standing, taken)).toList(),
                shaper.scopeOf(taken),
                taken != usual);
    }

    private static List<StandingsAsk> wider(StandingsAsk ask, Ranked usual) {
        List<StandingsAsk> all = new ArrayList<>();
        usual.offers().forEach(o -> all.add(ask.over(o.key())));
        if (usual.common()) {
            all.add(ask.overEveryTest());
        }
        return all;
    }

    private static int ranked(Ranked ranked, List<List<Named>> lines) {
        Set<Long> models = newest(ranked).keySet();
        return (int) lines.stream()
                .flatMap(List::stream)
                .filter(m -> models.contains(m.modelId()))
                .count();
    }

    /** By model. The last one made wins: it is the newest of its model, as in a standing of the newest ones. */
    private static Map<Long, Standing.Entry> newest(Ranked ranked) {
        Map<Long, Standing.Entry> standing = new HashMap<>();
        Map<Long, Long> taken = new HashMap<>();
        for (Standing.Entry e : ranked.standing().entries()) {
            ConfigurationRow c = require(
                            ranked.chosen().members(), ranked.rows().get(e.row()))
                    .configuration();
            if (e.merit().isPresent() && c.id() > taken.getOrDefault(c.modelId(), 0L)) {
                taken.put(c.modelId(), c.id());
                standing.put(c.modelId(), e);
            }
        }
        return standing;
    }

    private record Named(long modelId, String maker, String model, List<Long> configurations) {}

    private List<List<Named>> lines() {
        Map<Long, List<Long>> configurations = new HashMap<>();
        Map<Long, Member> models = new HashMap<>();
        for (Member m : population.all()) {
            models.put(m.configuration().modelId(), m);
            configurations
                    .computeIfAbsent(m.configuration().modelId(), id -> new ArrayList<>())
                    .add(m.configuration().id());
        }
        Set<Long> followed = new HashSet<>();
        models.values().forEach(m -> {
            if (m.predecessorId() != null) {
                followed.add(m.predecessorId());
            }
        });
        return models.values().stream()
                .filter(m -> m.predecessorId() != null
                        && !followed.contains(m.configuration().modelId()))
                .sorted(Comparator.comparing((Member m) -> m.configuration().maker())
                        .thenComparing(m -> m.configuration().model()))
                .map(newest -> before(newest, models, configurations))
                .toList();
    }

    private List<Named> before(Member newest, Map<Long, Member> models, Map<Long, List<Long>> configurations) {
        List<Named> line = new ArrayList<>();
        Set<Long> seen = new HashSet<>();
        Long id = newest.configuration().modelId();
        while (id != null && seen.add(id)) {
            Member m = models.get(id);
            if (m == null) {
                // A model nobody has made a configuration of is on the shelf all the same.
                ModelRow row = pages.model(id).model();
                line.add(0, new Named(id, row.maker(), row.name(), List.of()));
                break;
            }
            line.add(
                    0,
                    new Named(
                            id,
                            m.configuration().maker(),
                            m.configuration().model(),
                            configurations.getOrDefault(id, List.of())));
            id = m.predecessorId();
        }
        return line;
    }

    private GenerationLine line(List<Named> line, Map<Long, Standing.Entry> standing, Ranked ranked) {
        List<Generation> generations = new ArrayList<>();
        Standing.Entry first = null;
        Standing.Entry before = null;
        for (Named m : line) {
            Standing.Entry e = standing.get(m.modelId());
            ConfigurationRow c = e == null
                    ? null
                    : require(ranked.chosen().members(), ranked.rows().get(e.row()))
                            .configuration();
            OptionalDouble index = e == null ? OptionalDouble.empty() : e.index();
            generations.add(new Generation(
                    m.modelId(),
                    m.maker(),
                    m.model(),
                    c,
                    e == null ? missing(m, ranked) : null,
                    index.isPresent() ? index.getAsDouble() : null,
                    e == null || before == null ? null : step(ranked, before, e)));
            first = first == null ? e : first;
            before = e == null ? before : e;
        }
        return new GenerationLine(
                generations, first == null || before == null || first == before ? null : step(ranked, first, before));
    }

    private String missing(Named model, Ranked ranked) {
        if (model.configurations().isEmpty()) {
            return "no configuration of it is on the shelf";
        }
        if (model.configurations().stream().anyMatch(ranked.rows()::contains)) {
            return "no chain of shared tests leads to the base";
        }
        return entrants.of(ranked.ask(), Set.copyOf(model.configurations()))
                        .members()
                        .isEmpty()
                ? "the filters leave it out"
                : "none of the tests ranked here was run on it";
    }

    private static StepSize step(Ranked ranked, Standing.Entry earlier, Standing.Entry later) {
        return StepSize.of(GenerationStep.between(ranked.standing(), earlier, later, new Materiality(MATERIALITY)));
    }
}
