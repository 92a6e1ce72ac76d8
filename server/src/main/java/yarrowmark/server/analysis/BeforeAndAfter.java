package yarrowmark.server.analysis;

import static yarrowmark.server.platform.Require.require;

import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.compare.Verdict;
import yarrowmark.server.platform.change.Revision;
import yarrowmark.server.platform.change.UntilChanged;
import yarrowmark.server.shelf.ShelfPages;
import yarrowmark.server.shelf.configuration.ConfigurationRow;

/** Proposes what to compare: a configuration and the one it was made from. */
@Service
class BeforeAndAfter {
    private static final int MOST = 24;
    /** A unit that is measured step by step would otherwise leave no room for the others; its steps are a trend. */
    private static final int OF_ONE_UNIT = 3;

    /** What the change came to over all tests that count. @param size in words, such as "12.4 % better" */
    record Outcome(double ratio, double low, double high, Verdict verdict, String size, int tests) {
        static @Nullable Outcome of(Comparison.@Nullable Overall overall) {
            return overall == null
                    ? null
                    : new Outcome(
                            overall.ratio(),
                            overall.low(),
                            overall.high(),
                            overall.verdict(),
                            overall.size(),
                            overall.shared());
        }
    }

    /** @param shared metrics that both have. @param outcome absent where none of them counts */
    record Pair(ConfigurationRow before, ConfigurationRow after, int shared, @Nullable Outcome outcome) {}

    private record Found(long before, long after, int shared) {}

    private final JdbcTemplate jdbc;
    private final ShelfPages shelf;
    private final ComparisonService comparisons;
    private final UntilChanged<String, List<Pair>> kept;

    BeforeAndAfter(JdbcTemplate jdbc, ShelfPages shelf, ComparisonService comparisons, Revision revision) {
        this.kept = new UntilChanged<>(revision, 1);
        this.comparisons = comparisons;
        this.jdbc = jdbc;
        this.shelf = shelf;
    }

    /** The latest made first. */
    @Transactional(readOnly = true)
    public List<Pair> all() {
        return kept.get("all", this::read);
    }

    private List<Pair> read() {
        List<Found> found = jdbc.query(
                "select before_id, after_id, shared from (select p.id before_id, c.id after_id, count(distinct s.metric_id) shared, c.created_at, row_number() over (partition by c.unit_id order by c.created_at desc, c.id desc) at from configuration c join configuration p on p.id = c.parent_id join sample s on s.configuration_id = c.id "
                        + "join sample b on b.configuration_id = p.id and b.metric_id = s.metric_id where c.retired_at is null and p.retired_at is null group by p.id, c.id, c.unit_id, c.created_at) pairs where at <= "
                        + OF_ONE_UNIT + " order by created_at desc, after_id desc limit " + MOST,
                (row, i) -> new Found(row.getLong(1), row.getLong(2), row.getInt(3)));
        Map<Long, ConfigurationRow> rows = shelf
                .configurations(found.stream()
                        .flatMap(f -> Stream.of(f.before(), f.after()))
                        .collect(Collectors.toSet()))
                .stream()
                .collect(Collectors.toMap(ConfigurationRow::id, c -> c));
        return found.stream()
                .map(f -> new Pair(
                        require(rows, f.before()),
                        require(rows, f.after()),
                        f.shared(),
                        Outcome.of(comparisons.overall(f.before(), f.after()))))
                .toList();
    }
}
