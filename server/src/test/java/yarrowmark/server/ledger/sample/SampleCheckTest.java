package yarrowmark.server.ledger.sample;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.jdbc.core.JdbcTemplate;
import yarrowmark.server.support.Lab;
import yarrowmark.server.support.ServerTest;

@ServerTest
class SampleCheckTest {
    @LocalServerPort
    private int port;

    @Autowired
    private SampleCheck check;

    @Autowired
    private JdbcTemplate jdbc;

    @Test
    void whatIsWrongIsFoundAndMadeAnew() {
        Lab lab = new Lab(port)
                .suite("Ebb, MB/s, more\nFlow, s, less\nStill, pts, more")
                .session(3)
                .typed(0, "10", "11", "12")
                .typed(1, "3.1", "3.2", "3.0")
                .typed(2, "5", "6", "7");
        assertThat(check.rebuild().checked()).isPositive();
        assertThat(check.check().sound()).isTrue();
        String here = "select configuration_id from session where id = " + lab.session();
        jdbc.update("delete from sample where metric_id = ?", lab.metric(0));
        jdbc.update("update sample set mean = mean + 0.001 where metric_id = ?", lab.metric(1));
        jdbc.update("delete from sample where metric_id = ?", lab.metric(2));
        jdbc.update(
                "insert into sample (configuration_id, metric_id, session_id, n, mean, sum_squares, resolution_variance) values (("
                        + here + "), ?, ?, 2, 1, 0, 0)",
                lab.metric(2),
                lab.session());
        jdbc.update(
                "insert into set_aside (reading_id, reason, person, at) select r.id, 'test', 'wren', utc_timestamp(3) from reading r where r.metric_id = ?",
                lab.metric(2));
        SampleCheck.Report report = check.rebuild();
        assertThat(report.missing()).isEqualTo(1);
        assertThat(report.different()).isEqualTo(1);
        assertThat(report.left()).isEqualTo(1);
        assertThat(check.check().sound()).isTrue();
        assertThat(jdbc.queryForObject("select count(*) from sample where metric_id = ?", Long.class, lab.metric(2)))
                .isZero();
    }
}
