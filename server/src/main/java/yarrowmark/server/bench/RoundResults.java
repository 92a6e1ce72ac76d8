package yarrowmark.server.bench;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import yarrowmark.core.measure.Kind;
import yarrowmark.core.measure.Measured;
import yarrowmark.core.measure.Merit;
import yarrowmark.core.measure.Scale;
import yarrowmark.core.stats.SampleSummary;
import yarrowmark.core.trend.UsualRange;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.TestRow;
import yarrowmark.server.ledger.record.Ledger;
import yarrowmark.server.ledger.record.LedgerSessions;
import yarrowmark.server.ledger.sample.KnownNoise;
import yarrowmark.server.ledger.sample.NoisePriorCache;
import yarrowmark.server.ledger.sample.Samples;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.shelf.ClassPlaces;

/** What a round measured, as soon as it is over: for the bench, and for whoever holds the device. */
@Service
class RoundResults {
    /**
     * The centre of a test's runs in this session alone.
     *
     * @param spreadPercent of the runs; absent for one run, and where values have no ratio
     * @param usual         in which range it usually lies, where the same configuration was measured on other days often
     *                      enough to know
     */
    record RoundScore(
            long testId,
            String test,
            double value,
            double resolution,
            String unit,
            Kind kind,
            List<String> choices,
            int runs,
            @Nullable Double spreadPercent,
            @Nullable UsualPart usual) {}

    /** In the metric's unit. @param outside whether this session left the range that all the others tell */
    record UsualPart(double low, double high, boolean outside) {}

    /** @param place among its class, by all that is known of it; absent where it has none */
    record RoundAnswer(List<RoundScore> scores, ClassPlaces.@Nullable ClassPlace place) {}

    private final Ledger ledger;
    private final LedgerSessions sessions;
    private final DeviceWork work;
    private final ClassPlaces places;
    private final Catalog catalog;
    private final Samples samples;
    private final NoisePriorCache lent;

    RoundResults(
            Ledger ledger,
            LedgerSessions sessions,
            DeviceWork work,
            ClassPlaces places,
            Catalog catalog,
            Samples samples,
            NoisePriorCache lent) {
        this.catalog = catalog;
        this.samples = samples;
        this.lent = lent;
        this.ledger = ledger;
        this.sessions = sessions;
        this.work = work;
        this.places = places;
    }

    /** Each question by itself: that nobody of a class has a place yet must not undo the others. */
    RoundAnswer of(long seatId) {
        DeviceWork.Work round = work.work(seatId);
        Long session = round.seat().sessionId();
        if (session == null) {
            throw Problem.conflict("not-started", "This device has not begun a session yet.");
        }
        List<MetricRow> metrics = round.tests().stream()
                .map(TestRow::metrics)
                .filter(m -> !m.isEmpty())
                .map(RoundResults::standing)
                .toList();
        Map<Long, Map<Integer, Measured>> measured =
                ledger.measured(session, metrics.stream().map(MetricRow::id).toList());
        Long configuration = sessions.configurations(List.of(session)).get(session);
        Map<Long, UsualPart> usual = configuration == null ? Map.of() : usual(configuration, session, metrics);
        List<RoundScore> scores = new ArrayList<>();
        for (MetricRow m : metrics) {
            Map<Integer, Measured> runs = measured.get(m.id());
            if (runs != null && !runs.isEmpty()) {
                scores.add(score(m, List.copyOf(runs.values()), usual.get(m.id())));
            }
        }
        return new RoundAnswer(
                scores, configuration == null ? null : places.of(configuration).orElse(null));
    }

    /** The metric that a test stands with in rankings; of one that has none, its first. */
    private static MetricRow standing(List<MetricRow> of) {
        return of.stream().filter(MetricRow::main).findFirst().orElse(of.get(0));
    }

    /** Where this session's means usually lie, as told by the other sessions of the configuration. */
    private Map<Long, UsualPart> usual(long configuration, long session, List<MetricRow> metrics) {
        Map<Long, MetricRow> ratios =
                metrics.stream().filter(m -> m.scale() == Scale.RATIO).collect(Collectors.toMap(MetricRow::id, m -> m));
        KnownNoise noise = lent.of(ratios.values(), catalog.metrics());
        Map<Long, UsualPart> usual = new HashMap<>();
        for (Samples.SampleRow row : samples.ofConfigurations(List.of(configuration))) {
            MetricRow m = ratios.get(row.metricId());
            if (m != null) {
                UsualRange.of(row.sample(), noise.of(m)).stream()
                        .filter(r -> r.session() == session)
                        .forEach(r -> usual.put(m.id(), part(r, m)));
            }
        }
        return usual;
    }

    private static UsualPart part(UsualRange r, MetricRow m) {
        double one = Merit.toValue(r.low(), m.direction());
        double other = Merit.toValue(r.high(), m.direction());
        return new UsualPart(Math.min(one, other), Math.max(one, other), r.isOutside());
    }

    private static RoundScore score(MetricRow m, List<Measured> runs, @Nullable UsualPart usual) {
        SampleSummary s = SampleSummary.of(runs, m.scale());
        return new RoundScore(
                m.testId(),
                m.test(),
                s.centre(),
                runs.stream().mapToDouble(Measured::resolution).max().orElse(0),
                m.unit(),
                m.kind(),
                m.choices(),
                s.n(),
                s.spreadPercent().isPresent() ? s.spreadPercent().getAsDouble() : null,
                usual);
    }
}
