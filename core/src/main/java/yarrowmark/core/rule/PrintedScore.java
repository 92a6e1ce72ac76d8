package yarrowmark.core.rule;

import java.util.List;
import java.util.OptionalDouble;

/** The score of a command that stands in what it printed, in the unit of its test. */
public sealed interface PrintedScore {
    /** @param resolution the step of its last digit, in the same unit */
    record Score(double value, double resolution) implements PrintedScore {}

    /** @param reason a sentence */
    record None(String reason) implements PrintedScore {}

    /** @param printed whatever came to an end of it; the last place that fits is taken */
    static PrintedScore of(ScorePattern pattern, String printed) {
        ScoreReading.Scores scores = ScoreReading.read(List.of(pattern), printed);
        if (scores.found().isEmpty()) {
            return new None(
                    scores.missed().isEmpty()
                            ? "It printed no score."
                            : scores.missed().get(0).reason());
        }
        ScoreReading.FoundScore found = scores.found().get(0);
        OptionalDouble factor = UnitStep.factor(found.unit(), pattern.unit());
        return factor.isEmpty() || !(found.value() > 0)
                ? new None("\"" + found.text() + "\" is no value above 0 in " + pattern.unit() + ".")
                : new Score(found.value() * factor.getAsDouble(), found.resolution() * factor.getAsDouble());
    }
}
