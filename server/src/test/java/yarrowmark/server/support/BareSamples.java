package yarrowmark.server.support;

import org.springframework.jdbc.core.JdbcTemplate;

/** Reads rows of the table of samples and does nothing with them: what a question that needs them is held against. */
public final class BareSamples {
    private BareSamples() {}

    /**
     * @param where empty, or a condition with the word
     * @return how long it took, in ms
     */
    public static double read(JdbcTemplate jdbc, String where) {
        double[] sum = new double[1];
        long start = System.nanoTime();
        jdbc.query(
                "select configuration_id, metric_id, session_id, n, mean, sum_squares, resolution_variance from sample"
                        + where,
                ps -> {},
                (java.sql.ResultSet row) -> {
                    sum[0] += row.getLong(1)
                            + row.getLong(2)
                            + row.getLong(3)
                            + row.getInt(4)
                            + row.getDouble(5)
                            + row.getDouble(6)
                            + row.getDouble(7);
                });
        return (System.nanoTime() - start) / 1e6;
    }
}
