package yarrowmark.server.bench;

import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.measure.Measured;
import yarrowmark.core.stats.EnoughRuns;
import yarrowmark.server.bench.DeviceMessages.DeviceTest;
import yarrowmark.server.bench.DeviceMessages.DoneRun;
import yarrowmark.server.bench.DeviceMessages.RunBody;
import yarrowmark.server.catalog.TestRow;
import yarrowmark.server.ledger.record.Ledger;
import yarrowmark.server.ledger.record.RunState;
import yarrowmark.server.plan.PlanItem;
import yarrowmark.server.plan.PlanRow;

/** The bench's answers in the words of the device's page. */
final class DeviceAnswers {
    private DeviceAnswers() {}

    static Ledger.@Nullable RunAttachments beside(RunBody body) {
        return body.output() == null && body.tracks() == null
                ? null
                : new Ledger.RunAttachments(
                        body.output(),
                        body.tracks() == null
                                ? List.of()
                                : body.tracks().stream()
                                        .map(t ->
                                                new Ledger.Track(t.kind(), t.name(), t.unit(), t.stepMs(), t.values()))
                                        .toList());
    }

    static DoneRun done(Ledger.RunPart r, Map<Integer, Measured> values) {
        Measured m = r.state() == RunState.OK ? values.get(r.runNumber()) : null;
        return new DoneRun(
                r.testId(),
                r.runNumber(),
                r.attempt(),
                r.state(),
                m == null ? null : m.value(),
                m == null ? null : m.resolution());
    }

    static DeviceTest test(TestRow t, Seat s, PlanRow plan, @Nullable List<EnoughRuns.Limit> enough) {
        PlanItem item = plan.items().stream()
                .filter(i -> i.testId() == t.id())
                .findFirst()
                .orElseThrow();
        return new DeviceTest(
                t.id(),
                t.key(),
                t.name(),
                item.todo() == null ? t.summary() : item.todo(),
                t.metrics().get(0).key(),
                t.byItself() ? plan.most(item, s.runs()) : item.runs() == null ? s.runs() : item.runs(),
                item.pauseMs() == null ? s.pauseMs() : item.pauseMs(),
                item.pauseUntil(),
                item.allowedMs(),
                !t.byItself(),
                t.builtIn() ? item.timedMs() : null,
                enough,
                t.command());
    }
}
