package yarrowmark.core.coverage;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import yarrowmark.core.compare.Materiality;
import yarrowmark.core.trend.TrendLines;
import yarrowmark.core.trend.TrendMetric;
import yarrowmark.core.trend.TrendStep;

/**
 * Trends along which nothing changes: each step is one of the first devices of a made-up lab, all of them truly equal, measured
 * on a day of its own; the others lend their noise, as those of a real shelf do. Whatever is marked in such a plot is wrong.
 *
 * @param plots   that were drawn
 * @param stepped in how many of them a step was marked, in any line or in the overall
 * @param changed in how many a change of the level was found
 * @param any     in how many there was either
 */
record FlatTrends(int plots, int stepped, int changed, int any) {

    /** @param steps as many of the lab's devices, at least one */
    static FlatTrends of(World.Setting setting, int steps, Materiality materiality, int plots, long seed) {
        int stepped = 0;
        int changed = 0;
        int any = 0;
        for (int p = 0; p < plots; p++) {
            World world = new World(setting, seed + p);
            List<TrendMetric> metrics = new ArrayList<>();
            for (int j = 0; j < setting.tests(); j++) {
                metrics.add(new TrendMetric(
                        Arrays.asList(world.samples[j]).subList(0, steps),
                        world.noise.get(j),
                        world.day,
                        1.0 / setting.tests()));
            }
            TrendLines drawn = TrendLines.of(metrics, List.of(metrics), materiality);
            boolean step =
                    drawn.lines().stream().flatMap(l -> l.steps().stream()).anyMatch(TrendStep::marked)
                            || drawn.overalls().stream()
                                    .flatMap(o -> o.stream())
                                    .flatMap(o -> o.steps().stream())
                                    .anyMatch(TrendStep::marked);
            boolean change = drawn.lines().stream().anyMatch(l -> !l.changes().isEmpty());
            stepped += step ? 1 : 0;
            changed += change ? 1 : 0;
            any += step || change ? 1 : 0;
        }
        return new FlatTrends(plots, stepped, changed, any);
    }
}
