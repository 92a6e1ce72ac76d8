package yarrowmark.server.ledger.sheet;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.compare.Materiality;
import yarrowmark.core.entry.LikelySlip;
import yarrowmark.core.entry.ScorePreview;
import yarrowmark.core.entry.ScoreText;
import yarrowmark.core.measure.Measured;
import yarrowmark.core.measure.Scale;
import yarrowmark.core.stats.EnoughRuns;
import yarrowmark.core.stats.Noise;
import yarrowmark.core.stats.SampleMoments;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.TestRow;
import yarrowmark.server.ledger.record.Reading;
import yarrowmark.server.ledger.record.ReadingRepository;
import yarrowmark.server.ledger.record.Run;
import yarrowmark.server.ledger.record.RunState;
import yarrowmark.server.ledger.record.SessionRepository;
import yarrowmark.server.ledger.sample.NoisePriorCache;
import yarrowmark.server.ledger.sample.Samples;
import yarrowmark.server.platform.Problem;

/** What a typed score would say, before it is stored. */
@Service
class ScoreLook {
    private final ScoreSheet sheets;
    private final ReadingRepository readings;
    private final Samples samples;
    private final NoisePriorCache lent;
    private final Catalog catalog;
    private final SessionRepository sessions;

    ScoreLook(
            ScoreSheet sheets,
            ReadingRepository readings,
            Samples samples,
            NoisePriorCache lent,
            Catalog catalog,
            SessionRepository sessions) {
        this.sheets = sheets;
        this.readings = readings;
        this.samples = samples;
        this.lent = lent;
        this.catalog = catalog;
        this.sessions = sessions;
    }

    /** @param would what the value would be without the slip, in the metric's unit; for FAR the median of the others */
    record DoubtPart(LikelySlip.Kind kind, double would) {}

    /**
     * How a typed text is understood, before it is stored.
     *
     * @param ran       for a run without a value: whether it began and failed
     * @param perOthers value over the mean of the other runs; absent where there are none
     * @param moreRuns  with this one, how many more runs would make the mean known within what matters; absent where it cannot be told
     * @param place     where the value would stand alone among the configurations that have this metric
     */
    record Look(
            @Nullable Double value,
            @Nullable Double resolution,
            @Nullable Boolean ran,
            @Nullable String words,
            @Nullable String reason,
            @Nullable Double perOthers,
            List<DoubtPart> doubts,
            @Nullable Integer place,
            @Nullable Integer of,
            @Nullable Integer moreRuns) {}

    @Transactional(readOnly = true)
    Look look(long sessionId, long testId, int runNumber, String text) {
        long configuration = sessions.findById(sessionId)
                .orElseThrow(() -> Problem.notFound("session", sessionId))
                .configurationId();
        TestRow test = sheets.test(testId);
        MetricRow metric = ScoreSheet.main(test);
        EnteredScore entered = EnteredScore.of(test, text);
        ScoreText.Said said = entered.read().said();
        if (entered.refused() != null) {
            return new Look(null, null, null, null, entered.refused(), null, List.of(), null, null, null);
        }
        if (said instanceof ScoreText.NotUnderstood not) {
            return new Look(null, null, null, null, not.reason(), null, List.of(), null, null, null);
        }
        if (said instanceof ScoreText.NoValue none) {
            return new Look(null, null, none.ran(), none.words(), null, null, List.of(), null, null, null);
        }
        ScoreText.Value v = (ScoreText.Value) said;
        double[] merits = samples.ofMetrics(List.of(metric.id())).stream()
                .filter(s -> s.configurationId() != configuration)
                .mapToDouble(s -> s.sample().mean())
                .toArray();
        ScorePreview look = ScorePreview.of(
                v.value(),
                metric.unit(),
                metric.direction(),
                metric.scale(),
                others(sessionId, testId, runNumber, metric),
                merits);
        OptionalDouble perOthers = look.perOthers();
        boolean placed = look.place().isPresent();
        return new Look(
                v.value(),
                v.resolution(),
                null,
                null,
                metric.unusable(v.value()),
                perOthers.isPresent() ? perOthers.getAsDouble() : null,
                look.doubts().stream()
                        .map(d -> new DoubtPart(d.kind(), d.would()))
                        .toList(),
                placed ? look.place().getAsInt() : null,
                placed ? look.of() : null,
                moreRuns(metric, v, others(sessionId, testId, runNumber, metric)));
    }

    /** "One more run would tell": held against what usually matters, with the noise that the metric lends. */
    @Nullable
    Integer moreRuns(MetricRow metric, ScoreText.Value typed, double[] others) {
        if (metric.scale() != Scale.RATIO || metric.unusable(typed.value()) != null || others.length == 0) {
            return null;
        }
        List<Measured> all = new ArrayList<>();
        all.add(new Measured(typed.value(), typed.resolution()));
        for (double other : others) {
            // What was typed before was typed on the same instrument.
            all.add(new Measured(other, typed.resolution()));
        }
        SampleMoments session = SampleMoments.of(all, metric.direction(), metric.scale());
        Noise noise = lent.of(List.of(metric), catalog.metrics()).of(metric);
        return new EnoughRuns(3, ScoreEntry.MOST_RUNS, 100 * Materiality.USUAL.share(), noise.runs())
                .more(session)
                .orElse(null);
    }

    /** Values of the other runs of this session that count as done. */
    double[] others(long sessionId, long testId, int runNumber, MetricRow metric) {
        List<Long> ids = sheets.latest(sessionId).getOrDefault(testId, Map.of()).values().stream()
                .filter(r -> r.runNumber() != runNumber && r.state() == RunState.OK)
                .map(Run::id)
                .toList();
        return ids.isEmpty()
                ? new double[0]
                : readings.findByRuns(ids).stream()
                        .filter(r -> r.metricId() == metric.id())
                        .mapToDouble(Reading::value)
                        .toArray();
    }
}
