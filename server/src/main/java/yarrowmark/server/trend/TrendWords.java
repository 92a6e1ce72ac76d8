package yarrowmark.server.trend;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import yarrowmark.core.compare.DifferenceText;
import yarrowmark.core.compare.PairComparison;
import yarrowmark.core.compare.Verdict;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Merit;
import yarrowmark.core.stats.Centre;
import yarrowmark.core.stats.Sample;
import yarrowmark.core.trend.OverallLine;
import yarrowmark.core.trend.TrendLine;
import yarrowmark.core.trend.TrendMetric;
import yarrowmark.core.trend.TrendStep;
import yarrowmark.server.catalog.MetricRow;

/** Brings what the core found along the steps into the shape and the words in which it is shown. */
final class TrendWords {
    Trends.LinePart line(MetricRow m, TrendMetric metric, TrendLine line, List<Trends.RangePart> ranges) {
        List<Trends.PointPart> points = new ArrayList<>();
        for (TrendLine.Point p : line.points()) {
            Sample sample = metric.samples().get(p.step());
            if (sample == null) {
                continue;
            }
            Optional<PairComparison.Interval> interval = p.toFirst().map(PairComparison::interval);
            points.add(new Trends.PointPart(
                    p.step(),
                    Merit.toValue(Centre.of(sample, metric.noise()).merit(), m.direction()),
                    sample.n(),
                    sample.sessions().size(),
                    Math.exp(p.merit()),
                    interval.map(PairComparison.Interval::low).orElse(null),
                    interval.map(PairComparison.Interval::high).orElse(null),
                    metric.held().contains(p.step())));
        }
        return new Trends.LinePart(
                m,
                metric.weight(),
                points,
                steps(line.steps(), m.direction(), m.whatIsLess()),
                line.firstToLast()
                        .map(c -> compared(c.ratio(), c.interval(), c.verdict(), m.direction(), m.whatIsLess()))
                        .orElse(null),
                line.slope()
                        .map(s -> new Trends.SlopePart(
                                Math.exp(s.perStep()),
                                s.interval().map(i -> Math.exp(i.low())).orElse(null),
                                s.interval().map(i -> Math.exp(i.high())).orElse(null)))
                        .orElse(null),
                line.changes().stream()
                        .map(c -> new Trends.LevelPart(
                                c.before(), c.after(), Math.exp(c.size()), Math.exp(c.low()), Math.exp(c.high())))
                        .toList(),
                ranges);
    }

    Trends.OverallPart overall(OverallLine line) {
        return new Trends.OverallPart(
                line.points().stream()
                        .map(p -> new Trends.OverallPoint(
                                p.step(),
                                Math.exp(p.merit()),
                                p.interval().low(),
                                p.interval().high(),
                                p.coverage()))
                        .toList(),
                steps(line.steps(), Direction.MORE_IS_BETTER, Optional.empty()),
                line.firstToLast()
                        .map(g -> compared(
                                g.ratio(), g.interval(), g.verdict(), Direction.MORE_IS_BETTER, Optional.empty()))
                        .orElse(null),
                line.apart(),
                line.days().words());
    }

    private static List<Trends.ChangeOfStep> steps(
            List<TrendStep> steps, Direction direction, Optional<String> whatIsLess) {
        return steps.stream()
                .map(s -> new Trends.ChangeOfStep(
                        s.from(),
                        s.to(),
                        s.ratio(),
                        s.interval().low(),
                        s.interval().high(),
                        s.verdict(),
                        s.corrected(),
                        s.share(),
                        s.unmeasured(),
                        s.marked(),
                        DifferenceText.brief(s.ratio(), direction, whatIsLess)))
                .toList();
    }

    private static Trends.ComparedPart compared(
            double ratio,
            PairComparison.Interval interval,
            Verdict verdict,
            Direction direction,
            Optional<String> whatIsLess) {
        return new Trends.ComparedPart(
                ratio, interval.low(), interval.high(), verdict, DifferenceText.brief(ratio, direction, whatIsLess));
    }
}
