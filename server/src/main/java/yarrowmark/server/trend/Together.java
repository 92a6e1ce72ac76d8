package yarrowmark.server.trend;

import java.util.List;
import org.jspecify.annotations.Nullable;
import yarrowmark.server.catalog.MetricRow;

/**
 * Several units or models along the same fact. Steps are counted from 0; each line is counted from its own first step.
 *
 * @param materiality smallest difference that matters, in per cent
 * @param metric      the one test that was asked for; absent for the overall
 * @param tests       names of those in the overall: what every line has
 * @param notShared   how many tests some line lacks
 * @param lines       the one that was asked for first, then those beside it
 * @param partings    one for each line but the first
 */
record Together(
        Trends.Along along,
        String purpose,
        double materiality,
        @Nullable MetricRow metric,
        List<String> tests,
        int notShared,
        List<CommonStep> steps,
        List<DeviceLine> lines,
        List<PartingPart> partings) {

    record CommonStep(String label, @Nullable Double x) {}

    /**
     * @param unit   only this one of the model's
     * @param pooled whether several configurations stand at one step
     */
    record DeviceLine(
            long modelId,
            String maker,
            String model,
            @Nullable Long unitId,
            @Nullable String unit,
            boolean pooled,
            List<DevicePoint> points) {}

    /** @param ratio to the first of this line, better above 1 */
    record DevicePoint(int step, double ratio, double low, double high) {}

    /**
     * How a line stands to the first one, counted from the first step that both have.
     *
     * @param line   its place among the lines
     * @param common how many steps both have
     * @param from   the first of them
     * @param apart  where it is told first that they are not together any more; absent where it never is
     * @param last   at the last common step
     */
    record PartingPart(
            int line, int common, @Nullable Integer from, @Nullable ApartPart apart, @Nullable ApartPart last) {}

    /** @param ratio of this line to the first, better above 1. @param size in words. @param p corrected for every common step */
    record ApartPart(int step, double ratio, double low, double high, double p, boolean told, String size) {}
}
