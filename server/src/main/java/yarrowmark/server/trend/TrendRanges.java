package yarrowmark.server.trend;

import static yarrowmark.server.platform.Require.require;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import yarrowmark.core.measure.Merit;
import yarrowmark.core.stats.Sample;
import yarrowmark.core.trend.TrendMetric;
import yarrowmark.core.trend.UsualRange;
import yarrowmark.server.catalog.MetricRow;

/** Along the date: where a configuration that is measured again and again was expected, and on which day it left that. */
final class TrendRanges {
    private TrendRanges() {}

    /** One for each step at most: of several sessions of a day, one that left its range before one that did not. */
    static List<Trends.RangePart> of(Trends.Along along, List<TrendSteps.Step> steps, MetricRow m, TrendMetric metric) {
        if (along.order() != Trends.Order.DATE) {
            return List.of();
        }
        Map<Long, Integer> stepOf = new HashMap<>();
        Map<Long, Sample> again = new LinkedHashMap<>();
        for (int i = 0; i < steps.size(); i++) {
            Sample sample = metric.samples().get(i);
            if (sample != null) {
                again.merge(steps.get(i).configurations().get(0).id(), sample, Sample::joined);
                for (Sample.OfSession s : sample.sessions()) {
                    stepOf.put(s.session(), i);
                }
            }
        }
        Map<Integer, Trends.RangePart> byStep = new TreeMap<>();
        for (Sample all : again.values()) {
            List<UsualRange> ranges = new ArrayList<>(UsualRange.of(all, metric.noise()));
            ranges.sort(Comparator.comparing(UsualRange::isOutside).reversed());
            for (UsualRange r : ranges) {
                int step = require(stepOf, r.session());
                byStep.putIfAbsent(step, part(step, r, m));
            }
        }
        return List.copyOf(byStep.values());
    }

    private static Trends.RangePart part(int step, UsualRange r, MetricRow m) {
        double one = Merit.toValue(r.low(), m.direction());
        double other = Merit.toValue(r.high(), m.direction());
        return new Trends.RangePart(step, Math.min(one, other), Math.max(one, other), r.isOutside());
    }
}
