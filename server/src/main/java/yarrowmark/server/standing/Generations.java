package yarrowmark.server.standing;

import static yarrowmark.server.platform.Sure.sure;

import java.util.ArrayList;
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
import yarrowmark.server.shelf.ConfigurationRow;
import yarrowmark.server.shelf.Population;
import yarrowmark.server.shelf.Population.Member;

/** Models that follow one another in their makers' lines, and how large the steps between them are. */
@Service
class Generations {
    private static final double MATERIALITY = 0.03;

    /** From the oldest to the newest. A model that two others follow has two lines. */
    record GenerationLine(List<Generation> generations, @Nullable StepSize whole) {}

    /**
     * @param configuration the one of the model that stands in; absent where none is ranked here
     * @param step          from the last one before it that is ranked
     */
    record Generation(
            long modelId,
            String maker,
            String model,
            @Nullable ConfigurationRow configuration,
            @Nullable Double index,
            @Nullable StepSize step) {}

    /** @param ratio above 1 is better. @param words of the verdict */
    record StepSize(double ratio, double low, double high, Verdict verdict) {
        static StepSize of(GenerationStep s) {
            return new StepSize(s.ratio(), s.interval().low(), s.interval().high(), s.verdict());
        }
    }

    private final StandingsService standings;
    private final Population population;

    Generations(StandingsService standings, Population population) {
        this.standings = standings;
        this.population = population;
    }

    @Transactional(readOnly = true)
    public List<GenerationLine> of(StandingsAsk ask) {
        Ranked ranked = standings.ranked(ask);
        Map<Long, Member> models = new HashMap<>();
        // The last one made wins: it is the newest of its model, as in a standing of the newest ones.
        Map<Long, Standing.Entry> standing = new HashMap<>();
        Map<Long, Long> taken = new HashMap<>();
        population.all().forEach(m -> models.put(m.configuration().modelId(), m));
        for (Standing.Entry e : ranked.standing().entries()) {
            ConfigurationRow c =
                    sure(ranked.chosen().members(), ranked.rows().get(e.row())).configuration();
            if (e.merit().isPresent() && c.id() > taken.getOrDefault(c.modelId(), 0L)) {
                taken.put(c.modelId(), c.id());
                standing.put(c.modelId(), e);
            }
        }
        Set<Long> followed = new HashSet<>();
        models.values().forEach(m -> {
            if (m.predecessorId() != null) {
                followed.add(m.predecessorId());
            }
        });
        List<GenerationLine> lines = new ArrayList<>();
        models.values().stream()
                .filter(m -> m.predecessorId() != null
                        && !followed.contains(m.configuration().modelId()))
                .sorted(java.util.Comparator.comparing(
                                (Member m) -> m.configuration().maker())
                        .thenComparing(m -> m.configuration().model()))
                .forEach(newest -> lines.add(line(newest, models, standing, ranked)));
        return lines;
    }

    private static GenerationLine line(
            Member newest, Map<Long, Member> models, Map<Long, Standing.Entry> standing, Ranked ranked) {
        List<Member> line = new ArrayList<>();
        Set<Long> seen = new HashSet<>();
        for (Member at = newest;
                at != null && seen.add(at.configuration().modelId());
                at = at.predecessorId() == null ? null : models.get(at.predecessorId())) {
            line.add(0, at);
        }
        List<Generation> generations = new ArrayList<>();
        Standing.Entry first = null;
        Standing.Entry before = null;
        for (Member m : line) {
            Standing.Entry e = standing.get(m.configuration().modelId());
            ConfigurationRow c = e == null
                    ? null
                    : sure(ranked.chosen().members(), ranked.rows().get(e.row()))
                            .configuration();
            OptionalDouble index = e == null ? OptionalDouble.empty() : e.index();
            generations.add(new Generation(
                    m.configuration().modelId(),
                    m.configuration().maker(),
                    m.configuration().model(),
                    c,
                    index.isPresent() ? index.getAsDouble() : null,
                    e == null || before == null ? null : step(ranked, before, e)));
            first = first == null ? e : first;
            before = e == null ? before : e;
        }
        return new GenerationLine(
                generations, first == null || before == null || first == before ? null : step(ranked, first, before));
    }

    private static StepSize step(Ranked ranked, Standing.Entry earlier, Standing.Entry later) {
        return StepSize.of(GenerationStep.between(ranked.standing(), earlier, later, new Materiality(MATERIALITY)));
    }
}
