package yarrowmark.core.trend;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.stats.Noise;
import yarrowmark.core.stats.Sample;
import yarrowmark.core.stats.SharedDay;

/**
 * One metric along the steps.
 *
 * @param samples one for each step, in order; null where it was not run there
 * @param noise   of the metric
 * @param day     how far a day moves the tests of its suite together
 * @param weight  in the overall, 0 or more
 * @param held    steps at which a display holds the result, so the device may be better: shown, in no overall, never marked
 */
public record TrendMetric(
        List<@Nullable Sample> samples, Noise noise, SharedDay day, double weight, Set<Integer> held) {
    public TrendMetric {
        samples = Collections.unmodifiableList(new ArrayList<>(samples));
        held = Set.copyOf(held);
    }

    public TrendMetric(List<@Nullable Sample> samples, Noise noise, SharedDay day, double weight) {
        this(samples, noise, day, weight, Set.of());
    }
}
