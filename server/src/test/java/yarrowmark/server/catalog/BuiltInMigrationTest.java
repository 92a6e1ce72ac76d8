package yarrowmark.server.catalog;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.springframework.jdbc.core.JdbcTemplate;
import yarrowmark.server.support.Schemas;

/** The first five built-in tests keep their ids, and so their scores, when they move into the suites they belong to. */
class BuiltInMigrationTest {
    @Test
    void testsMoveAndKeepTheirScores() {
        Schemas schemas = new Schemas();
        schemas.migrate("6");
        JdbcTemplate jdbc = schemas.jdbc();
        jdbc.update("insert into suite (id, name, built_in) values (1, 'Yarrow round', 1), (2, 'Causeway', 0)");
        jdbc.update("insert into suite_version (id, suite_id, version) values (1, 1, '1'), (2, 2, '1')");
        jdbc.update("insert into comparability_group (id, suite_version_id) values (1, 1), (2, 2)");
        List<String> keys =
                List.of("weir-hash-one", "weir-hash-all", "map-tile-crush", "species-list", "transect-sketch");
        for (int i = 0; i < keys.size(); i++) {
            jdbc.update(
                    "insert into test (id, suite_version_id, comparability_group_id, test_key, name, summary, test_group, position) values (?, 1, 1, ?, ?, '', 'PROCESSOR', ?)",
                    i + 1,
                    keys.get(i),
                    keys.get(i),
                    i);
        }
        jdbc.update(
                "insert into test (id, suite_version_id, comparability_group_id, test_key, name, summary, test_group, position) values (9, 2, 2, 'species-list', 'own', '', 'BROWSER', 0)");
        schemas.migrate("latest");
        List<Map<String, Object>> tests = jdbc.queryForList(
                "select t.id, s.name suite, g.suite_version_id = v.id own_group, t.position from test t join suite_version v on v.id = t.suite_version_id "
                        + "join suite s on s.id = v.suite_id join comparability_group g on g.id = t.comparability_group_id order by t.id");
        assertThat(tests)
                .extracting(t -> t.get("id") + " " + t.get("suite") + " " + t.get("position"))
                .containsExactly(
                        "1 Yarrow processor 0",
                        "2 Yarrow processor 1",
                        "3 Yarrow processor 2",
                        "4 Yarrow browser 0",
                        "5 Yarrow browser 1",
                        "9 Causeway 0");
        assertThat(tests).allMatch(t -> ((Number) t.get("own_group")).intValue() == 1);
    }

    @Test
    void aShelfThatNeverHadThemGetsNothing() {
        Schemas schemas = new Schemas();
        schemas.migrate("latest");
        assertThat(schemas.jdbc().queryForObject("select count(*) from suite", Long.class))
                .isZero();
    }
}
