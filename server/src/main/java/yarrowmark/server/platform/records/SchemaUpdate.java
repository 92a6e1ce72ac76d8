package yarrowmark.server.platform.records;

import java.sql.Connection;
import java.sql.SQLException;
import java.util.Arrays;
import java.util.Comparator;
import javax.sql.DataSource;
import org.flywaydb.core.Flyway;
import org.flywaydb.core.api.MigrationInfo;
import org.flywaydb.core.api.MigrationVersion;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.flyway.autoconfigure.FlywayMigrationStrategy;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.datasource.SingleConnectionDataSource;
import org.springframework.stereotype.Component;
import yarrowmark.server.platform.health.DiskSpace;

/**
 * Brings the records to the form that this program knows. The database cannot take half an update back, so the records
 * are copied first, and a start after one that was cut off begins again from the copy.
 */
@Component
public class SchemaUpdate implements FlywayMigrationStrategy {
    private static final Logger LOG = LoggerFactory.getLogger(SchemaUpdate.class);

    /** The records were written by a newer program: what this one does not know it would read wrongly or lose. */
    public static final class RecordsAreNewer extends IllegalStateException {
        RecordsAreNewer(MigrationVersion theirs, MigrationVersion known) {
            super("These records were written by a newer Yarrowmark: they have form " + theirs
                    + ", and this program knows forms up to " + known + ".");
        }
    }

    private final DiskSpace disk;

    SchemaUpdate(DiskSpace disk) {
        this.disk = disk;
    }

    @Override
    public void migrate(Flyway flyway) {
        DataSource source = flyway.getConfiguration().getDataSource();
        try (Connection connection = source.getConnection()) {
            migrate(flyway, new SchemaCopy(new JdbcTemplate(new SingleConnectionDataSource(connection, true))));
        } catch (SQLException e) {
            throw new IllegalStateException("The database cannot be reached", e);
        }
    }

    private void migrate(Flyway flyway, SchemaCopy copy) {
        if (copy.isWhole()) {
            LOG.warn("An update of the records was cut off. They are put back as they were before it");
            copy.putBack();
        }
        MigrationInfo[] all = flyway.info().all();
        Arrays.stream(all)
                .filter(m -> m.getState().isApplied() && !m.getState().isResolved())
                .map(MigrationInfo::getVersion)
                .max(Comparator.naturalOrder())
                .ifPresent(theirs -> {
                    throw new RecordsAreNewer(
                            theirs,
                            Arrays.stream(all)
                                    .filter(m -> m.getState().isResolved())
                                    .map(MigrationInfo::getVersion)
                                    .max(Comparator.naturalOrder())
                                    .orElseThrow());
                });
        MigrationInfo[] pending = flyway.info().pending();
        if (pending.length == 0) {
            copy.throwAway();
            return;
        }
        disk.need(copy.size(), "a copy of the records, which is kept until their update is done");
        LOG.info(
                "The records are brought to form {}; a copy of them is kept until that is done",
                pending[pending.length - 1].getVersion());
        copy.make();
        flyway.migrate();
        copy.throwAway();
    }
}
