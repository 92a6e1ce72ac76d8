package yarrowmark.server.trend;

import java.time.LocalDate;
import java.util.List;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.compare.Verdict;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.TestGroup;
import yarrowmark.server.shelf.configuration.ConfigurationRow;

/**
 * A trend as it is shown. Steps are counted from 0.
 *
 * @param unit       only this one, where one was asked for
 * @param units      how many units of the model the steps come from
 * @param offered    along what else, those that vary most first
 * @param from       steps from which the trend can be counted, also those that are left out
 * @param materiality smallest difference that matters, in per cent
 * @param lines      tests that are compared by ratios, in catalogue order
 * @param sides      tests that are compared by differences: each in its own unit
 * @param overall    absent where no test has weight at two steps
 * @param groups     each group of tests with its own overall, where there are several
 * @param unknown    configurations of which the fact is not known
 * @param looks      steps that were tested in all lines together
 */
record Trends(
        long modelId,
        String maker,
        String model,
        @Nullable Long unitId,
        @Nullable String unit,
        int units,
        Along along,
        List<Along> offered,
        List<FromPart> from,
        String purpose,
        double materiality,
        List<StepPart> steps,
        List<LinePart> lines,
        List<SidePart> sides,
        @Nullable OverallPart overall,
        List<GroupPart> groups,
        @Nullable LadderPart ladder,
        List<GapPart> gaps,
        List<ConfigurationRow> unknown,
        int looks) {

    /** How steps follow one another. */
    enum Order {
        VERSION,
        QUANTITY,
        DATE
    }

    /** @param key of the fact, or "date". @param unit of a quantity's values as they are drawn. @param steps how many there are */
    record Along(String key, String label, Order order, String unit, int steps) {}

    /** @param key of the step. @param what tells it from another of the same label */
    record FromPart(String key, String label, String configuration) {}

    /** @param tests that are in it */
    record GroupPart(TestGroup group, int tests, OverallPart overall) {}

    /**
     * @param x              the quantity, or the day counted from 1970; absent for versions
     * @param configurations measured there; several where they have the same facts
     * @param unit           its label
     * @param changed        facts that differ from the step before, besides the one along which the steps go
     * @param events         what somebody pinned to it
     */
    record StepPart(
            String key,
            String label,
            @Nullable Double x,
            List<ConfigurationRow> configurations,
            String unit,
            List<ChangePart> changed,
            LocalDate first,
            LocalDate last,
            int sessions,
            List<EventPart> events) {}

    record ChangePart(String key, String label, @Nullable String before, @Nullable String after) {}

    record EventPart(long id, String words, String person) {}

    /**
     * @param weight in the overall, 0 to 1
     * @param slope  ratio for each step, by the median of all pairs
     */
    record LinePart(
            MetricRow metric,
            double weight,
            List<PointPart> points,
            List<ChangeOfStep> steps,
            @Nullable ComparedPart firstToLast,
            @Nullable SlopePart slope,
            List<LevelPart> levels,
            List<RangePart> ranges) {}

    /**
     * @param value in the metric's unit
     * @param ratio to the first that has it, better above 1; low and high absent for the first itself
     * @param held  whether a display holds it: the device is at least as good, and the overall leaves it out
     */
    record PointPart(
            int step,
            double value,
            int runs,
            int sessions,
            double ratio,
            @Nullable Double low,
            @Nullable Double high,
            boolean held) {}

    /** @param p corrected for all steps of the line. @param share of first to last, in per cent. @param assumed whether it rests on a spread that nobody measured. @param marked clear after correction, and large enough to matter. @param size in words */
    record ChangeOfStep(
            int from,
            int to,
            double ratio,
            double low,
            double high,
            Verdict verdict,
            double p,
            double share,
            boolean unmeasured,
            boolean marked,
            String size) {}

    record ComparedPart(double ratio, double low, double high, Verdict verdict, String size) {}

    record SlopePart(double perStep, @Nullable Double low, @Nullable Double high) {}

    /** The level changed between two steps. */
    record LevelPart(int before, int after, double ratio, double low, double high) {}

    /** Where a step's value is expected, by all the others, of a configuration that is measured again and again. */
    record RangePart(int step, double low, double high, boolean outside) {}

    record SidePart(MetricRow metric, List<SidePoint> points) {}

    record SidePoint(int step, double value, int runs) {}

    /** @param apart steps that no chain of shared tests links to the first. @param days what intervals rest on about other days */
    record OverallPart(
            List<OverallPoint> points,
            List<ChangeOfStep> steps,
            @Nullable ComparedPart firstToLast,
            List<Integer> apart,
            String days) {}

    record OverallPoint(int step, double ratio, double low, double high, double coverage) {}

    /**
     * @param best    ratio to the first of the best so far, by step
     * @param knee    step after which none brings as much as matters
     * @param gains   what each step brought
     * @param perWatt absent where no test says what power was drawn
     */
    record LadderPart(
            List<@Nullable Double> best, @Nullable Integer knee, List<GainPart> gains, @Nullable PerWattPart perWatt) {}

    /** @param percent more than at the step before. @param perUnit percent for each unit of the quantity */
    record GainPart(int from, int to, double percent, double perUnit) {}

    /** @param power name of what says how much was drawn. @param ratios of work for each watt to the first, by step */
    record PerWattPart(String power, List<@Nullable Double> ratios) {}

    /** Why a test has no result at a step, where that is known. */
    record GapPart(int step, long metricId, String words) {}
}
