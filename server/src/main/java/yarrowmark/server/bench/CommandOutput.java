package yarrowmark.server.bench;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.rule.PrintedScore;
import yarrowmark.server.catalog.TestRow;
import yarrowmark.server.catalog.TimedCommand;
import yarrowmark.server.ledger.record.NewReading;
import yarrowmark.server.ledger.record.NewRun;
import yarrowmark.server.ledger.record.Reason;
import yarrowmark.server.ledger.record.RunState;

/** Takes the score of a timed command out of what it printed, where it is not its time. */
final class CommandOutput {
    private CommandOutput() {}

    static NewRun completed(@Nullable TestRow test, NewRun run) {
        TimedCommand.Output output =
                test == null || test.command() == null ? null : test.command().output();
        if (output == null || run.state() != RunState.OK) {
            return run;
        }
        String printed = run.beside() == null || run.beside().output() == null
                ? ""
                : run.beside().output();
        PrintedScore score = PrintedScore.of(output.pattern(), printed);
        if (score instanceof PrintedScore.None none) {
            return failed(run, none.reason());
        }
        PrintedScore.Score found = (PrintedScore.Score) score;
        List<NewReading> readings = new ArrayList<>();
        readings.add(new NewReading(TimedCommand.VALUE, found.value(), found.resolution(), List.of()));
        readings.addAll(run.readings());
        return run.withReadings(readings);
    }

    private static NewRun failed(NewRun run, String words) {
        return new NewRun(
                run.testId(),
                run.runNumber(),
                run.attempt(),
                RunState.FAILED,
                Reason.WRONG_ANSWER,
                words,
                run.durationMs(),
                run.finishedAt(),
                List.of(),
                run.person(),
                run.disturbed(),
                run.timedMs(),
                run.beside());
    }
}
