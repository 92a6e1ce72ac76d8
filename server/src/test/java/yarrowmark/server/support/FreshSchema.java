package yarrowmark.server.support;

import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import org.springframework.boot.test.util.TestPropertyValues;
import org.springframework.context.ApplicationContextInitializer;
import org.springframework.context.ConfigurableApplicationContext;

/** Empties the test database before a server starts on it, so that it begins with nothing. */
final class FreshSchema implements ApplicationContextInitializer<ConfigurableApplicationContext> {
    @Override
    public void initialize(ConfigurableApplicationContext context) {
        TestDatabase database = TestDatabase.running();
        try (Connection connection = DriverManager.getConnection(database.url(), database.user(), database.password());
             Statement statement = connection.createStatement()) {
            statement.execute("DROP DATABASE yarrowmark");
            statement.execute("CREATE DATABASE yarrowmark");
        } catch (SQLException e) {
            throw new IllegalStateException("the test database could not be emptied", e);
        }
        TestPropertyValues.of("YARROWMARK_DB_URL=" + database.url(), "YARROWMARK_DB_USER=" + database.user(),
            "YARROWMARK_DB_PASSWORD=" + database.password(), "YARROWMARK_VAR=target/test-var",
            "server.servlet.session.persistent=false").applyTo(context);
    }
}
