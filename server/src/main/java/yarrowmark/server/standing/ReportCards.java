package yarrowmark.server.standing;

import static yarrowmark.server.platform.Require.require;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import yarrowmark.core.measure.Kind;
import yarrowmark.core.measure.Merit;
import yarrowmark.core.standing.Extremes;
import yarrowmark.core.standing.MeritGrid;
import yarrowmark.core.standing.Ranking;
import yarrowmark.core.standing.Rating;
import yarrowmark.core.standing.RatingLimits;
import yarrowmark.core.standing.Reference;
import yarrowmark.core.standing.Standing;
import yarrowmark.core.stats.Centre;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.ledger.mark.ReadingMarks.HeldSample;
import yarrowmark.server.ledger.record.RunsWithoutScore;
import yarrowmark.server.ledger.sample.SampleCache;
import yarrowmark.server.ledger.sample.Samples.SampleRow;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.shelf.Population;
import yarrowmark.server.shelf.Population.Member;
import yarrowmark.server.shelf.configuration.ConfigurationRow;

/** Where one configuration stands among those of a question, in each test that it ran and over all of them. */
@Service
class ReportCards {
    private static final int EXTREMES = 5;
    /** More marks than these cannot be told apart on a line. */
    private static final int MOST_MARKS = 120;

    private final StandingsService standings;
    private final StandingsShaper shaper;
    private final PooledSamples pooled;
    private final Catalog catalog;
    private final SampleCache samples;
    private final RunsWithoutScore withoutScore;
    private final Population population;

    ReportCards(
            StandingsService standings,
            StandingsShaper shaper,
            PooledSamples pooled,
            Catalog catalog,
            SampleCache samples,
            RunsWithoutScore withoutScore,
            Population population) {
        this.standings = standings;
        this.shaper = shaper;
        this.pooled = pooled;
        this.catalog = catalog;
        this.samples = samples;
        this.withoutScore = withoutScore;
        this.population = population;
    }

    /**
     * Not one transaction: a refusal that is caught here would end it for everything that follows.
     *
     * @param ask who the others are, which tests and sessions, and the purpose of the place over all
     */
    public ReportCard of(long configurationId, StandingsAsk ask) {
        if (ask.per() != null) {
            throw Problem.invalid(
                    "divided", "A report card shows values as they were measured. Leave out what they are divided by.");
        }
        Map<Long, Member> all = population.all().stream()
                .collect(Collectors.toMap(m -> m.configuration().id(), m -> m));
        Member own = all.get(configurationId);
        if (own == null) {
            throw Problem.notFound("configuration", configurationId);
        }
        Optional<Ranked> ranked = ranked(ask);
        Set<Long> rows = ranked.map(r -> (Set<Long>) new HashSet<>(r.rows())).orElseGet(HashSet::new);
        rows.add(configurationId);
        List<ReportCard.CardRow> tests = tests(configurationId, ask, rows);
        double[] beaten = tests.stream()
                .mapToDouble(t -> t.place() == null ? Double.NaN : beaten(t.place()))
                .toArray();
        Extremes extremes = Extremes.of(beaten, EXTREMES);
        ReportCard.CardPlace place =
                ranked.map(r -> overall(r, configurationId)).orElse(null);
        return new ReportCard(
                own.configuration(),
                rows.size() - 1,
                ranked.map(Ranked::purpose).orElse(null),
                ranked.map(shaper::scopeOf).orElse(null),
                place,
                place != null ? null : noPlace(ranked.orElse(null), configurationId),
                forerunner(own, all, ask, ranked.map(Ranked::rows).orElse(List.of())),
                tests,
                extremes.best(),
                extremes.worst());
    }

    /** Empty where nobody that is asked for has a score. */
    private Optional<Ranked> ranked(StandingsAsk ask) {
        try {
            return Optional.of(standings.ranked(ask));
        } catch (Problem e) {
            if (Set.of("nothing-tested", "no-weight").contains(e.code())) {
                return Optional.empty();
            }
            throw e;
        }
    }

    private List<ReportCard.CardRow> tests(long configurationId, StandingsAsk ask, Set<Long> rows) {
        List<MetricRow> wanted =
                catalog.metricsInUse().stream().filter(ask::asksFor).toList();
        Set<Long> measured = samples.ofConfigurations(List.of(configurationId), ask.taken()).stream()
                .map(SampleRow::metricId)
                .collect(Collectors.toSet());
        List<MetricRow> own =
                wanted.stream().filter(m -> measured.contains(m.id())).toList();
        PooledSamples.Pooled of = pooled.each(own, ask.taken());
        StandingGrid grid = new StandingGrid(of.metrics(), of.samples(), of.noise(), rows);
        Map<RunsWithoutScore.Place, RunsWithoutScore.Ended> ended = withoutScore.latest(List.of(configurationId));
        Map<Long, Long> oldest = catalog.comparable(catalog.metricsInUse());
        List<ReportCard.CardRow> found = new ArrayList<>();
        Set<Long> seen = new HashSet<>();
        for (MetricRow m : wanted) {
            RunsWithoutScore.Ended end = ended.get(new RunsWithoutScore.Place(configurationId, m.testId()));
            if (measured.contains(m.id())) {
                // Versions that are compared with each other are one column, told once.
                long column = require(oldest, m.id());
                if (seen.add(column)) {
                    found.add(row(configurationId, m, column, grid, of));
                }
            } else if (end != null && m.main()) {
                found.add(new ReportCard.CardRow(m, null, false, 0, false, null, null, List.of(), end));
            }
        }
        return found;
    }

    private static ReportCard.CardRow row(
            long configurationId, MetricRow m, long column, StandingGrid grid, PooledSamples.Pooled of) {
        int own = grid.row(configurationId);
        Centre centre = require(grid.centre(own, column));
        double value = Merit.toValue(centre.merit(), m.direction(), m.scale());
        int runs = require(grid.sample(own, column)).n();
        boolean held = of.held().contains(new HeldSample(configurationId, m.id()));
        RatingLimits limits = m.limits();
        Rating byLimits = limits == null ? null : limits.of(value);
        if (m.kind() == Kind.CHECK || m.kind() == Kind.CHOICE) {
            return new ReportCard.CardRow(m, value, held, runs, centre.unmeasured(), null, byLimits, List.of(), null);
        }
        int j = IntStream.range(0, grid.metrics().size())
                .filter(i -> grid.metrics().get(i).id() == column)
                .findFirst()
                .orElseThrow();
        MeritGrid alone = grid.merits().columns(j);
        Standing standing = Ranking.of(alone, new double[] {1}, Reference.row(own));
        CensoredPlaces places = new CensoredPlaces(standing, r -> of.held()
                .contains(new HeldSample(grid.configurations().get(r), m.id())));
        Standing.Entry entry = standing.entries().stream()
                .filter(e -> e.row() == own)
                .findFirst()
                .orElseThrow();
        ReportCard.CardPlace place = place(entry, places, standing);
        Rating rating =
                byLimits != null ? byLimits : entry.third().map(Rating::of).orElse(null);
        return new ReportCard.CardRow(
                m,
                value,
                held,
                runs,
                centre.unmeasured(),
                // A place alone says nothing.
                place == null || place.of() < 2 ? null : place,
                rating,
                others(standing, own),
                null);
    }

    private static ReportCard.@Nullable CardPlace place(
            Standing.Entry entry, CensoredPlaces places, Standing standing) {
        Integer order = places.order(entry);
        return order == null
                ? null
                : new ReportCard.CardPlace(
                        order,
                        require(places.best(entry)),
                        require(places.worst(entry)),
                        (int) standing.entries().stream()
                                .filter(e -> e.status() == Standing.Status.PLACED)
                                .count(),
                        entry.percentile().isPresent() ? entry.percentile().getAsDouble() : null);
    }

    private static List<Double> others(Standing standing, int own) {
        List<Double> merits = standing.entries().stream()
                .filter(e -> e.row() != own && e.merit().isPresent())
                .map(e -> e.merit().getAsDouble())
                .toList();
        int n = merits.size();
        return n <= MOST_MARKS
                ? merits
                : IntStream.range(0, MOST_MARKS)
                        .mapToObj(i -> merits.get((int) ((long) i * (n - 1) / (MOST_MARKS - 1))))
                        .toList();
    }

    private static double beaten(ReportCard.CardPlace place) {
        return place.percentile() != null
                ? place.percentile()
                : (place.of() - place.order()) / (double) (place.of() - 1);
    }

    private static ReportCard.@Nullable CardPlace overall(Ranked ranked, long configurationId) {
        CensoredPlaces places = new CensoredPlaces(ranked);
        return ranked.standing().entries().stream()
                .filter(e -> ranked.rows().get(e.row()) == configurationId)
                .map(e -> place(e, places, ranked.standing()))
                .filter(Objects::nonNull)
                .findFirst()
                .orElse(null);
    }

    private static String noPlace(@Nullable Ranked ranked, long configurationId) {
        if (ranked == null) {
            return "nobody that is asked for has a score that counts";
        }
        int row = ranked.row(configurationId);
        if (row < 0) {
            return ranked.chosen().members().containsKey(configurationId)
                    ? "it has run none of these tests"
                    : "it is not among those that are asked for";
        }
        return ranked.standing().entries().stream()
                        .anyMatch(e -> e.row() == row && e.status() == Standing.Status.PROVISIONAL)
                ? "it has run too few of these tests"
                : "no chain of shared tests leads from it to the others";
    }

    /** Of the model it follows: the newest that is ranked here, else the newest that has any score. */
    private @Nullable ConfigurationRow forerunner(
            Member own, Map<Long, Member> all, StandingsAsk ask, List<Long> ranked) {
        if (own.predecessorId() == null) {
            return null;
        }
        List<Long> ids = all.values().stream()
                .map(Member::configuration)
                .filter(c -> c.modelId() == own.predecessorId())
                .map(ConfigurationRow::id)
                .toList();
        Set<Long> in = new HashSet<>(ranked);
        Set<Long> measured = samples.ofConfigurations(ids, ask.taken()).stream()
                .map(SampleRow::configurationId)
                .collect(Collectors.toSet());
        return ids.stream()
                .filter(measured::contains)
                .max(Comparator.comparing((Long id) -> in.contains(id)).thenComparing(id -> id))
                .map(id -> require(all, id).configuration())
                .orElse(null);
    }
}
