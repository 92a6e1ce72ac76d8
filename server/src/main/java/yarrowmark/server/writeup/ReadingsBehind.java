package yarrowmark.server.writeup;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import org.springframework.jdbc.core.namedparam.NamedParameterJdbcTemplate;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.JsonNode;

/**
 * The single readings of whoever a write-up speaks of, as they counted when it was published: so that anybody can compute
 * again what it says.
 */
@Service
class ReadingsBehind {
    static final List<String> COLUMNS = List.of(
            "device",
            "unit",
            "configuration",
            "suite",
            "version",
            "mode",
            "test",
            "metric",
            "measure unit",
            "direction",
            "scale",
            "session",
            "run",
            "attempt",
            "value",
            "resolution");

    /** More would be a ledger and no write-up; the figures' own tables are complete in any case. */
    private static final int MOST = 20_000;

    private final NamedParameterJdbcTemplate jdbc;

    ReadingsBehind(NamedParameterJdbcTemplate jdbc) {
        this.jdbc = jdbc;
    }

    @Transactional(readOnly = true)
    public List<List<String>> of(List<JsonNode> bodies) {
        Set<Long> configurations = new TreeSet<>();
        bodies.forEach(body -> Named.in(body, configurations));
        List<List<String>> rows = new ArrayList<>();
        if (configurations.isEmpty()) {
            return rows;
        }
        jdbc.query(
                "select concat(k.name, ' ', m.name), u.label, c.name, s.name, v.version, v.mode, t.name, x.name, x.unit, x.direction, x.scale, date_format(e.started_at, '%Y-%m-%dT%H:%i:%sZ'), r.run_number, r.attempt, g.value, g.resolution"
                        + " from reading g join run r on r.id = g.run_id join session e on e.id = r.session_id join metric x on x.id = g.metric_id join test t on t.id = x.test_id join suite_version v on v.id = t.suite_version_id join suite s on s.id = v.suite_id join configuration c on c.id = g.configuration_id join unit u on u.id = c.unit_id join model m on m.id = u.model_id join maker k on k.id = m.maker_id"
                        + " where g.configuration_id in (:ids) and not exists (select 1 from set_aside a where a.reading_id = g.id and a.taken_back_at is null)"
                        + " order by g.configuration_id, x.id, e.started_at, r.run_number, r.attempt limit "
                        + MOST,
                Map.of("ids", configurations),
                row -> {
                    List<String> line = new ArrayList<>();
                    for (int i = 1; i <= COLUMNS.size(); i++) {
                        line.add(i < COLUMNS.size() - 1 ? row.getString(i) : Double.toString(row.getDouble(i)));
                    }
                    rows.add(line);
                });
        return rows;
    }
}
