package yarrowmark.server.platform.records;

import com.zaxxer.hikari.HikariDataSource;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.SQLTransientConnectionException;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.boot.jdbc.autoconfigure.DataSourceProperties;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/**
 * Connections to the records. One that is waited for in vain means one of two things: all are at work, and there will be
 * one, or the database is away, and whoever asks has to hear it soon.
 */
@Configuration
class RecordsPool {
    /** Times the pool's own patience, while all connections are at work. */
    private static final int TURNS = 5;

    static final class Patient extends HikariDataSource {
        @Override
        public Connection getConnection() throws SQLException {
            for (int turn = 1; ; turn++) {
                try {
                    return super.getConnection();
                } catch (SQLTransientConnectionException e) {
                    if (turn == TURNS || getHikariPoolMXBean().getActiveConnections() == 0) {
                        throw e;
                    }
                }
            }
        }
    }

    @Bean
    @ConfigurationProperties("spring.datasource.hikari")
    Patient dataSource(DataSourceProperties properties) {
        return properties.initializeDataSourceBuilder().type(Patient.class).build();
    }
}
