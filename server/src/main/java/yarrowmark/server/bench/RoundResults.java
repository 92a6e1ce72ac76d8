package yarrowmark.server.bench;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import yarrowmark.core.measure.Kind;
import yarrowmark.core.measure.Measured;
import yarrowmark.core.stats.SampleSummary;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.TestRow;
import yarrowmark.server.ledger.record.Ledger;
import yarrowmark.server.ledger.record.LedgerSessions;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.shelf.ClassPlaces;

/** What a round measured, as soon as it is over: for the bench, and for whoever holds the device. */
@Service
class RoundResults {
    /**
     * The centre of a test's runs in this session alone.
     *
     * @param spreadPercent of the runs; absent for one run, and where values have no ratio
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
            @Nullable Double spreadPercent) {}

    /** @param place among its class, by all that is known of it; absent where it has none */
    record RoundAnswer(List<RoundScore> scores, ClassPlaces.@Nullable ClassPlace place) {}

    private final Ledger ledger;
    private final LedgerSessions sessions;
    private final DeviceWork work;
    private final ClassPlaces places;

    RoundResults(Ledger ledger, LedgerSessions sessions, DeviceWork work, ClassPlaces places) {
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
                .map(m -> m.get(0))
                .toList();
        Map<Long, Map<Integer, Measured>> measured =
                ledger.measured(session, metrics.stream().map(MetricRow::id).toList());
        List<RoundScore> scores = new ArrayList<>();
        for (MetricRow m : metrics) {
            Map<Integer, Measured> runs = measured.get(m.id());
            if (runs != null && !runs.isEmpty()) {
                scores.add(score(m, List.copyOf(runs.values())));
            }
        }
        Long configuration = sessions.configurations(List.of(session)).get(session);
        return new RoundAnswer(
                scores, configuration == null ? null : places.of(configuration).orElse(null));
    }

    private static RoundScore score(MetricRow m, List<Measured> runs) {
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
                s.spreadPercent().isPresent() ? s.spreadPercent().getAsDouble() : null);
    }
}
