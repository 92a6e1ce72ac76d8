package yarrowmark.server.ledger.sample;

import java.util.ArrayList;
import java.util.List;
import org.springframework.jdbc.core.JdbcTemplate;
import yarrowmark.core.stats.Sample;
import yarrowmark.core.stats.SampleMoments;
import yarrowmark.server.ledger.sample.Samples.SampleRow;

/** Rows of the table of samples, those of one sample put together. */
final class SampleRows {
    private static final String COLUMNS =
            "select configuration_id, metric_id, session_id, n, mean, sum_squares, resolution_variance from sample";
    /** That of the table's key, so nothing is sorted. */
    private static final String ORDER = " order by configuration_id, metric_id, session_id";

    private final List<SampleRow> rows = new ArrayList<>();
    private final List<Sample.OfSession> sessions = new ArrayList<>();
    private long configuration;
    private long metric;

    private SampleRows() {}

    /** @param where empty, or a condition with the word */
    static List<SampleRow> read(JdbcTemplate jdbc, String where) {
        SampleRows read = new SampleRows();
        jdbc.query(COLUMNS + where + ORDER, (java.sql.ResultSet row) -> {
            read.add(
                    row.getLong(1),
                    row.getLong(2),
                    new Sample.OfSession(
                            row.getLong(3),
                            new SampleMoments(row.getInt(4), row.getDouble(5), row.getDouble(6), row.getDouble(7))));
        });
        read.close();
        return read.rows;
    }

    private void add(long configurationId, long metricId, Sample.OfSession session) {
        if (configurationId != configuration || metricId != metric) {
            close();
            configuration = configurationId;
            metric = metricId;
        }
        sessions.add(session);
    }

    private void close() {
        if (!sessions.isEmpty()) {
            rows.add(new SampleRow(configuration, metric, Sample.of(sessions)));
            sessions.clear();
        }
    }
}
