package yarrowmark.server.analysis;

import static yarrowmark.server.platform.Require.require;

import java.time.LocalDate;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.compare.OneValue;
import yarrowmark.core.measure.Kind;
import yarrowmark.core.stats.Sample;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.ledger.mark.ReadingMarks;
import yarrowmark.server.ledger.record.RunsWithoutScore;
import yarrowmark.server.ledger.sample.KnownNoise;
import yarrowmark.server.ledger.sample.NoisePriorCache;
import yarrowmark.server.ledger.sample.SampleCache;
import yarrowmark.server.ledger.sample.SessionSelection;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.shelf.ShelfPages;
import yarrowmark.server.shelf.configuration.ConfigurationRow;
import yarrowmark.server.standing.StandingPlaces;
import yarrowmark.server.standing.StandingsAsk;

/** What configurations scored, each for itself: the values that a bar or a number in a text stands for. */
@Service
class Values {
    static final int MOST_CONFIGURATIONS = 60;
    static final int MOST_METRICS = 200;
    private static final int MOST_IN_CHARTS = 300;
    private static final int A_THIRD = 3;

    /**
     * @param value      absent where there is none
     * @param low        lower end of its 95 % interval; absent where nothing is known of it
     * @param unmeasured whether the interval rests on a stated or usual spread, which nobody measured here
     * @param atLeast    whether a display held it
     * @param why        there is none
     */
    record OneOf(
            @Nullable Double value,
            @Nullable Double low,
            @Nullable Double high,
            int runs,
            int sessions,
            boolean unmeasured,
            boolean atLeast,
            @Nullable String why,
            RunsWithoutScore.@Nullable Ended ended) {}

    /** @param values one for each metric, in their order */
    record ValuesOf(ConfigurationRow configuration, List<OneOf> values) {}

    /** A score that somebody else published; beside own ones, never among them. */
    record PublishedValue(
            long modelId,
            long metricId,
            double value,
            String source,
            @Nullable LocalDate publishedOn,
            @Nullable Integer results) {}

    /** @param gone configurations that are not there any more: retired ones are */
    record AskedValues(List<MetricRow> metrics, List<ValuesOf> rows, List<PublishedValue> published, List<Long> gone) {}

    private final Catalog catalog;
    private final ShelfPages shelf;
    private final ComparedSamples samples;
    private final NoisePriorCache lent;
    private final ReadingMarks marks;
    private final RunsWithoutScore withoutScore;
    private final PublishedValues published;
    private final StandingPlaces places;
    private final SampleCache kept;

    Values(
            Catalog catalog,
            ShelfPages shelf,
            ComparedSamples samples,
            NoisePriorCache lent,
            ReadingMarks marks,
            RunsWithoutScore withoutScore,
            PublishedValues published,
            StandingPlaces places,
            SampleCache kept) {
        this.places = places;
        this.kept = kept;
        this.catalog = catalog;
        this.shelf = shelf;
        this.samples = samples;
        this.lent = lent;
        this.marks = marks;
        this.withoutScore = withoutScore;
        this.published = published;
    }

    /**
     * Of whoever is in a standing: a chart for each test that is asked for and that several of them, and at least a third, have.
     * Values are as measured, whatever the standing divides them by.
     */
    @Transactional(readOnly = true)
    public AskedValues of(StandingsAsk ask) {
        List<Long> ids = places.configurations(ask);
        List<Long> some = ids.size() > MOST_IN_CHARTS ? ids.subList(0, MOST_IN_CHARTS) : ids;
        Map<Long, Long> having = new HashMap<>();
        kept.ofConfigurations(some, ask.taken()).forEach(s -> having.merge(s.metricId(), 1L, Long::sum));
        long least = Math.max(Math.min(2, some.size()), (some.size() + A_THIRD - 1) / A_THIRD);
        List<Long> metrics = catalog.metricsInUse().stream()
                .filter(ask::asksFor)
                .filter(m -> m.kind() != Kind.CHECK && m.kind() != Kind.CHOICE)
                .map(MetricRow::id)
                .filter(id -> ask.oneMetric() || having.getOrDefault(id, 0L) >= least)
                .limit(MOST_METRICS)
                .toList();
        return metrics.isEmpty()
                ? new AskedValues(List.of(), List.of(), List.of(), List.of())
                : of(new LinkedHashSet<>(some), metrics, ask.taken());
    }

    /** @param metricIds in the order they are wanted; empty for whatever these were measured with */
    @Transactional(readOnly = true)
    public AskedValues of(List<Long> configurationIds, Collection<Long> metricIds) {
        Set<Long> ids = new LinkedHashSet<>(configurationIds);
        if (ids.isEmpty() || ids.size() > MOST_CONFIGURATIONS) {
            throw Problem.invalid(
                    "how-many", "Ask for one to " + MOST_CONFIGURATIONS + " configurations, not " + ids.size() + ".");
        }
        return of(ids, metricIds, SessionSelection.USUAL);
    }

    private AskedValues of(Set<Long> ids, Collection<Long> metricIds, SessionSelection take) {
        Map<Long, ConfigurationRow> rows =
                shelf.configurations(ids).stream().collect(Collectors.toMap(ConfigurationRow::id, c -> c));
        List<MetricRow> all = catalog.metricsInUse();
        Set<Long> asked = Set.copyOf(metricIds);
        List<MetricRow> wanted = all.stream()
                .filter(m -> asked.isEmpty() || asked.contains(m.id()))
                .toList();
        ComparedSamples.Table table = samples.table(rows.keySet(), wanted, all, null, take, -1, take);
        List<MetricRow> shown = asked.isEmpty()
                ? table.metrics().stream().limit(MOST_METRICS).toList()
                : metricIds.stream()
                        .distinct()
                        .flatMap(id -> wanted.stream().filter(m -> m.id() == id))
                        .toList();
        Set<ReadingMarks.HeldSample> held = marks.held(shown);
        KnownNoise noises = lent.of(shown, all);
        NotRun notRun = new NotRun(rows, withoutScore.latest(rows.keySet()), table.measured());
        Map<Long, Long> oldest = catalog.comparable(all);
        List<ValuesOf> of = ids.stream()
                .filter(rows::containsKey)
                .map(id -> new ValuesOf(
                        require(rows, id),
                        shown.stream()
                                .map(m -> one(id, m, table, require(oldest, m.id()), held, noises, notRun))
                                .toList()))
                .toList();
        return new AskedValues(
                shown,
                of,
                published.of(shown, rows.values()),
                ids.stream().filter(id -> !rows.containsKey(id)).toList());
    }

    private static OneOf one(
            long configuration,
            MetricRow m,
            ComparedSamples.Table table,
            long column,
            Set<ReadingMarks.HeldSample> held,
            KnownNoise noises,
            NotRun notRun) {
        Sample sample = table.sample(configuration, column);
        if (sample == null) {
            Comparison.ComparedCell none = notRun.cell(configuration, m).build();
            return new OneOf(null, null, null, 0, 0, false, false, none.outReason(), none.ended());
        }
        OneValue value = OneValue.of(sample, noises.of(m), m.direction(), m.scale());
        return new OneOf(
                value.value(),
                Double.isNaN(value.low()) ? null : value.low(),
                Double.isNaN(value.high()) ? null : value.high(),
                sample.n(),
                sample.sessions().size(),
                value.unmeasured(),
                held.contains(new ReadingMarks.HeldSample(configuration, m.id())),
                null,
                null);
    }
}
