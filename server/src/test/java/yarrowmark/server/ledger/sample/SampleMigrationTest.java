package yarrowmark.server.ledger.sample;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.springframework.jdbc.core.JdbcTemplate;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Measured;
import yarrowmark.core.measure.Scale;
import yarrowmark.core.stats.SampleMoments;
import yarrowmark.server.support.Schemas;

/** Samples of a shelf from before they were kept by session are made anew in SQL, and are what core computes. */
class SampleMigrationTest {
    private final JdbcTemplate jdbc;
    private final Schemas schemas = new Schemas();
    private long readings;

    SampleMigrationTest() {
        schemas.migrate("15");
        jdbc = schemas.jdbc();
        jdbc.update("insert into maker (id, name) values (1, 'Larkspur')");
        jdbc.update(
                "insert into model (id, maker_id, name, device_class, version) values (1, 1, 'Wader', 'LAPTOP', 0)");
        jdbc.update("insert into unit (id, model_id, label) values (1, 1, 'Unit 1')");
        jdbc.update(
                "insert into configuration (id, unit_id, name, fingerprint, created_at) values (1, 1, 'as sold', 'f', '2026-01-01')");
        jdbc.update("insert into suite (id, name, built_in) values (1, 'Causeway', 0)");
        jdbc.update("insert into suite_version (id, suite_id, version) values (1, 1, '1')");
        jdbc.update("insert into comparability_group (id, suite_version_id) values (1, 1)");
        for (int s = 1; s <= 2; s++) {
            jdbc.update(
                    "insert into session (id, configuration_id, plan_name, runs, timed_ms, state, started_at) values (?, 1, 'Bulk', 5, 0, 'DONE', '2026-01-01')",
                    s);
        }
    }

    private void metric(long id, Direction direction, Scale scale) {
        jdbc.update(
                "insert into test (id, suite_version_id, comparability_group_id, test_key, name, summary, test_group, position) values (?, 1, 1, ?, ?, '', 'STORAGE', ?)",
                id,
                "t" + id,
                "Test " + id,
                id);
        jdbc.update(
                "insert into metric (id, test_id, metric_key, name, unit, direction, scale, main) values (?, ?, 'm', 'm', 's', ?, ?, 1)",
                id,
                id,
                direction.name(),
                scale.name());
    }

    private void reading(long metric, long session, double value, double resolution) {
        readings++;
        jdbc.update(
                "insert into run (id, session_id, test_id, configuration_id, run_number, attempt, state, duration_ms, finished_at) values (?, ?, ?, 1, ?, 1, 'OK', 1, '2026-01-01')",
                readings,
                session,
                metric,
                readings);
        jdbc.update(
                "insert into reading (id, run_id, metric_id, configuration_id, value, resolution) values (?, ?, ?, 1, ?, ?)",
                readings,
                readings,
                metric,
                value,
                resolution);
    }

    private List<SampleMoments> migrated() {
        schemas.migrate("latest");
        return jdbc.query(
                "select n, mean, sum_squares, resolution_variance from sample order by metric_id, session_id",
                (row, i) -> new SampleMoments(row.getInt(1), row.getDouble(2), row.getDouble(3), row.getDouble(4)));
    }

    @Test
    void everyKindOfMetricIsWhatCoreComputesSessionBySession() {
        Random random = new Random(16);
        List<SampleMoments> expected = new ArrayList<>();
        long id = 1;
        for (Direction direction : Direction.values()) {
            for (Scale scale : Scale.values()) {
                metric(id, direction, scale);
                for (long session = 1; session <= 2; session++) {
                    List<Measured> taken = new ArrayList<>();
                    for (int run = 0; run < 1 + 4 * (session - 1); run++) {
                        double value = (scale == Scale.RATIO ? 1e6 : -40) * (1 + 0.001 * random.nextGaussian());
                        taken.add(new Measured(value, 0.5));
                        reading(id, session, value, 0.5);
                    }
                    expected.add(SampleMoments.of(taken, direction, scale));
                }
                id++;
            }
        }
        List<SampleMoments> migrated = migrated();
        assertThat(migrated).hasSameSizeAs(expected);
        for (int i = 0; i < expected.size(); i++) {
            SampleMoments right = expected.get(i);
            assertThat(migrated.get(i).n()).isEqualTo(right.n());
            assertThat(migrated.get(i).mean()).isCloseTo(right.mean(), within(1e-12 * Math.abs(right.mean())));
            assertThat(migrated.get(i).sumSquares())
                    .isCloseTo(right.sumSquares(), within(1e-9 * Math.max(1e-6, right.sumSquares())));
            assertThat(migrated.get(i).resolutionVariance())
                    .isCloseTo(right.resolutionVariance(), within(1e-12 * right.resolutionVariance()));
        }
    }

    @Test
    void whatIsSetAsideIsNotInItAndWhatWasTakenBackIs() {
        metric(1, Direction.MORE_IS_BETTER, Scale.RATIO);
        for (int i = 0; i < 3; i++) {
            reading(1, 1, 100 + i, 1);
        }
        reading(1, 2, 50, 1);
        for (long[] aside : new long[][] {{2, 1}, {3, 0}, {4, 0}}) {
            jdbc.update(
                    "insert into set_aside (reading_id, reason, person, at, taken_back_at) values (?, 'other work', 'wren', '2026-01-02', if(? = 1, '2026-01-03', null))",
                    aside[0],
                    aside[1]);
        }
        assertThat(migrated())
                .as("a session of which nothing is left has no row")
                .singleElement()
                .satisfies(m -> {
                    assertThat(m.n()).isEqualTo(2);
                    assertThat(m.mean()).isCloseTo((Math.log(100) + Math.log(101)) / 2, within(1e-12));
                });
    }
}
