package yarrowmark.server.support;

import static yarrowmark.server.platform.Require.require;

import java.util.Map;
import java.util.UUID;
import javax.sql.DataSource;
import org.flywaydb.core.Flyway;
import org.flywaydb.core.api.configuration.FluentConfiguration;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.datasource.DriverManagerDataSource;

/** Databases of earlier versions, for what a migration does to records that are there. */
public final class Schemas {
    private final DriverManagerDataSource source;

    public Schemas() {
        TestDatabase database = TestDatabase.running();
        String name = "yarrowmark_old_" + UUID.randomUUID().toString().replace("-", "");
        new JdbcTemplate(new DriverManagerDataSource(database.url(), database.user(), database.password()))
                .execute("CREATE DATABASE " + name);
        this.source = new DriverManagerDataSource(
                database.url().replaceAll("/[^/]*$", "/" + name), database.user(), database.password());
    }

    public DataSource source() {
        return source;
    }

    /** What a command is told of where its records are. */
    public Map<String, String> environment() {
        return Map.of(
                "YARROWMARK_DB_URL", require(source.getUrl()),
                "YARROWMARK_DB_USER", require(source.getUsername()),
                "YARROWMARK_DB_PASSWORD", require(source.getPassword()));
    }

    public JdbcTemplate jdbc() {
        return new JdbcTemplate(source);
    }

    /** @param version up to which to migrate, or "latest" */
    public void migrate(String version) {
        FluentConfiguration configuration =
                Flyway.configure().dataSource(source).locations("classpath:db/migration");
        (version.equals("latest") ? configuration : configuration.target(version))
                .load()
                .migrate();
    }
}
