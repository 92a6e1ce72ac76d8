package yarrowmark.server.ledger.sample;

import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.stats.Sample;
import yarrowmark.core.stats.SampleMoments;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.MetricRow;

/** Holds the table of samples against the readings it is made from, and makes anew what differs. */
@Service
public class SampleCheck {
    /** Sums in another order differ in their last digits. */
    private static final double ROUNDING = 1e-9;

    /**
     * @param checked   samples that should be there
     * @param missing   of them, are not
     * @param different are there with other numbers
     * @param left      are there, although nothing that counts is behind them
     */
    public record Report(long checked, long missing, long different, long left) {
        public boolean sound() {
            return missing + different + left == 0;
        }

        String words() {
            return checked + " samples checked against their readings: "
                    + (sound()
                            ? "all are sound."
                            : missing + " missing, " + different + " different, " + left + " without readings.");
        }
    }

    private final JdbcTemplate jdbc;
    private final Catalog catalog;
    private final Samples samples;

    SampleCheck(JdbcTemplate jdbc, Catalog catalog, Samples samples) {
        this.jdbc = jdbc;
        this.catalog = catalog;
        this.samples = samples;
    }

    @Transactional(readOnly = true)
    public Report check() {
        return look(new HashMap<>());
    }

    /** @return how it was before */
    @Transactional
    public Report rebuild() {
        Map<Long, Set<Long>> wrong = new HashMap<>();
        Report before = look(wrong);
        Map<Long, MetricRow> metrics =
                catalog.metrics().stream().collect(Collectors.toMap(MetricRow::id, Function.identity()));
        wrong.forEach((configuration, ids) -> {
            samples.lock(configuration);
            samples.refreshAll(configuration, ids.stream().map(metrics::get).toList());
        });
        return before;
    }

    private Report look(Map<Long, Set<Long>> wrong) {
        Map<Long, MetricRow> metrics =
                catalog.metrics().stream().collect(Collectors.toMap(MetricRow::id, Function.identity()));
        long[] counts = new long[4];
        for (long configuration : jdbc.queryForList(
                "select configuration_id from reading union select configuration_id from sample", Long.class)) {
            Map<Long, Sample> stored = SampleRows.read(jdbc, " where configuration_id = " + configuration).stream()
                    .collect(Collectors.toMap(Samples.SampleRow::metricId, Samples.SampleRow::sample));
            Map<Long, Sample> should = samples.made(configuration, metrics);
            Set<Long> all = new HashSet<>(stored.keySet());
            all.addAll(should.keySet());
            for (long metric : all) {
                Sample is = stored.get(metric);
                Sample right = should.get(metric);
                counts[0] += right == null ? 0 : 1;
                int what = right == null ? 3 : is == null ? 1 : same(is, right) ? 0 : 2;
                if (what > 0) {
                    counts[what]++;
                    wrong.computeIfAbsent(configuration, c -> new HashSet<>()).add(metric);
                }
            }
        }
        return new Report(counts[0], counts[1], counts[2], counts[3]);
    }

    private static boolean same(Sample a, Sample b) {
        if (a.sessions().size() != b.sessions().size()) {
            return false;
        }
        for (int i = 0; i < a.sessions().size(); i++) {
            if (a.sessions().get(i).session() != b.sessions().get(i).session()
                    || !same(a.sessions().get(i).moments(), b.sessions().get(i).moments())) {
                return false;
            }
        }
        return true;
    }

    private static boolean same(SampleMoments a, SampleMoments b) {
        return a.n() == b.n()
                && near(a.mean(), b.mean())
                && near(a.sumSquares(), b.sumSquares())
                && near(a.resolutionVariance(), b.resolutionVariance());
    }

    private static boolean near(double a, double b) {
        return Math.abs(a - b) <= ROUNDING * Math.max(1, Math.max(Math.abs(a), Math.abs(b)));
    }
}
