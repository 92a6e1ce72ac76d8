package yarrowmark.server.trend;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Service;
import yarrowmark.core.compare.Verdict;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.change.Revision;
import yarrowmark.server.platform.change.UntilChanged;

/** Which devices moved, along what they vary in most: what Trends opens with. */
@Service
class TellingTrends {
    /** Those measured last. More would take seconds, for a list whose end nobody reads. */
    private static final int LOOKED_AT = 40;

    private static final String MEASURED_MORE_THAN_ONCE =
            """
        select u.model_id from session s join configuration c on c.id = s.configuration_id join unit u on u.id = c.unit_id
        where c.retired_at is null and c.merged_into is null
        group by u.model_id having count(distinct c.id) > 1 or count(distinct date(s.started_at)) > 1
        order by max(s.started_at) desc limit """
                    + " " + LOOKED_AT;

    /**
     * One device's overall along its steps.
     *
     * @param along       what the steps differ in, in words
     * @param points      of the overall, better above 1
     * @param firstToLast absent where the last step shares no tests with the first
     * @param step        the largest that is clear after correction; absent where none is
     */
    record TellingTrend(
            long modelId,
            String maker,
            String model,
            Trends.Along along,
            List<Trends.OverallPoint> points,
            Trends.@Nullable ComparedPart firstToLast,
            @Nullable ToldStep step) {
        private static final Comparator<TellingTrend> MOST_TELLING = Comparator.<TellingTrend>comparingInt(
                        t -> t.clear() ? 0 : t.step != null ? 1 : 2)
                .thenComparing(Comparator.comparingDouble(TellingTrend::size).reversed());

        private boolean clear() {
            return firstToLast != null
                    && (firstToLast.verdict().isClear()
                            || firstToLast.verdict() == Verdict.PROBABLY_GAIN
                            || firstToLast.verdict() == Verdict.PROBABLY_LOSS);
        }

        private double size() {
            return Math.max(
                    firstToLast == null ? 0 : Math.abs(Math.log(firstToLast.ratio())),
                    step == null ? 0 : Math.abs(Math.log(step.ratio())));
        }
    }

    /** @param from and to as the steps are labelled. @param size in words */
    record ToldStep(String from, String to, double ratio, String size) {}

    private final JdbcTemplate jdbc;
    private final TrendService trends;
    private final UntilChanged<String, List<TellingTrend>> kept;

    TellingTrends(JdbcTemplate jdbc, TrendService trends, Revision revision) {
        this.jdbc = jdbc;
        this.trends = trends;
        this.kept = new UntilChanged<>(revision, 1);
    }

    /** The most telling first: clear from first to last, then with a clear step, each by its size. */
    List<TellingTrend> all() {
        return kept.get("all", () -> jdbc.queryForList(MEASURED_MORE_THAN_ONCE, Long.class).stream()
                .flatMap(model -> of(model).stream())
                .sorted(TellingTrend.MOST_TELLING)
                .toList());
    }

    private Optional<TellingTrend> of(long model) {
        Trends found;
        try {
            found = trends.of(new TrendAsk(model, null, null, null, null, null, null, null, null, null));
        } catch (Problem nothingVaries) {
            return Optional.empty();
        }
        Trends.OverallPart overall = found.overall();
        return overall == null || overall.points().size() < 2
                ? Optional.empty()
                : Optional.of(new TellingTrend(
                        model,
                        found.maker(),
                        found.model(),
                        found.along(),
                        overall.points(),
                        overall.firstToLast(),
                        overall.steps().stream()
                                .filter(Trends.ChangeOfStep::marked)
                                .max(Comparator.comparingDouble(s -> Math.abs(Math.log(s.ratio()))))
                                .map(s -> new ToldStep(
                                        found.steps().get(s.from()).label(),
                                        found.steps().get(s.to()).label(),
                                        s.ratio(),
                                        s.size()))
                                .orElse(null)));
    }
}
