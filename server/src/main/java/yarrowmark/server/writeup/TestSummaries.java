package yarrowmark.server.writeup;

import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.springframework.jdbc.core.namedparam.NamedParameterJdbcTemplate;
import org.springframework.stereotype.Service;

/** What tests do, in a sentence each, for readers who never saw them. */
@Service
class TestSummaries {
    private final NamedParameterJdbcTemplate jdbc;

    TestSummaries(NamedParameterJdbcTemplate jdbc) {
        this.jdbc = jdbc;
    }

    /** Of the metrics that are shown, by metric; a test that nobody described is left out. */
    Map<Long, Frozen.TestSaid> of(Collection<Frozen.Shown> shown) {
        List<Long> metrics = shown.stream()
                .map(Frozen.Shown::metrics)
                .filter(Objects::nonNull)
                .flatMap(List::stream)
                .distinct()
                .toList();
        Map<Long, Frozen.TestSaid> said = new HashMap<>();
        if (!metrics.isEmpty()) {
            jdbc.query(
                    "select x.id, t.name, t.summary from metric x join test t on t.id = x.test_id where x.id in (:ids) and t.summary <> ''",
                    Map.of("ids", metrics),
                    row -> {
                        said.put(row.getLong(1), new Frozen.TestSaid(row.getString(2), row.getString(3)));
                    });
        }
        return said;
    }
}
