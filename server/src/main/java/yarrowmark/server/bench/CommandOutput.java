package yarrowmark.server.bench;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalDouble;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.rule.ScoreReading;
import yarrowmark.core.rule.UnitStep;
import yarrowmark.server.catalog.TestRow;
import yarrowmark.server.catalog.TimedCommand;
import yarrowmark.server.ledger.record.Ledger;
import yarrowmark.server.ledger.record.Reason;
import yarrowmark.server.ledger.record.RunState;

/** Takes the score of a timed command out of what it printed, where it is not its time. */
final class CommandOutput {
    private CommandOutput() {}

    static Ledger.NewRun completed(@Nullable TestRow test, Ledger.NewRun run) {
        TimedCommand.Output output =
                test == null || test.command() == null ? null : test.command().output();
        if (output == null || run.state() != RunState.OK) {
            return run;
        }
        String printed = run.beside() == null || run.beside().output() == null
                ? ""
                : run.beside().output();
        ScoreReading.Scores scores = ScoreReading.read(List.of(output.pattern()), printed);
        if (scores.found().isEmpty()) {
            return failed(
                    run,
                    scores.missed().isEmpty()
                            ? "It printed no score."
                            : scores.missed().get(0).reason());
        }
        ScoreReading.FoundScore found = scores.found().get(0);
        OptionalDouble factor = UnitStep.factor(found.unit(), output.unit());
        if (factor.isEmpty() || !(found.value() > 0)) {
            return failed(run, "\"" + found.text() + "\" is no value above 0 in " + output.unit() + ".");
        }
        List<Ledger.NewReading> readings = new ArrayList<>();
        readings.add(new Ledger.NewReading(
                TimedCommand.VALUE,
                found.value() * factor.getAsDouble(),
                found.resolution() * factor.getAsDouble(),
                List.of()));
        readings.addAll(run.readings());
        return run.withReadings(readings);
    }

    private static Ledger.NewRun failed(Ledger.NewRun run, String words) {
        return new Ledger.NewRun(
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
