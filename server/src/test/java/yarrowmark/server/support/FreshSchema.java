package yarrowmark.server.support;

import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.concurrent.atomic.AtomicInteger;
import org.springframework.boot.test.util.TestPropertyValues;
import org.springframework.context.ApplicationContextInitializer;
import org.springframework.context.ConfigurableApplicationContext;

/** Gives each server that a test starts an empty database of its own: several may be up at the same time. */
public final class FreshSchema implements ApplicationContextInitializer<ConfigurableApplicationContext> {
    private static final AtomicInteger COUNT = new AtomicInteger();

    @Override
    public void initialize(ConfigurableApplicationContext context) {
        TestDatabase database = TestDatabase.running();
        String name = "yarrowmark_test_" + COUNT.incrementAndGet();
        try (Connection connection = DriverManager.getConnection(database.url(), database.user(), database.password());
                Statement statement = connection.createStatement()) {
            // An earlier run may have left its tables, which refer to each other in a circle.
            statement.execute("SET foreign_key_checks = 0");
            statement.execute("CREATE OR REPLACE DATABASE " + name);
            statement.execute("DROP DATABASE IF EXISTS " + name + "_before");
        } catch (SQLException e) {
            throw new IllegalStateException("the test database could not be made", e);
        }
        TestPropertyValues.of(
                        "YARROWMARK_DB_URL=" + database.url().replaceAll("/[^/]*$", "/" + name),
                        "YARROWMARK_DB_USER=" + database.user(),
                        "YARROWMARK_DB_PASSWORD=" + database.password(),
                        "YARROWMARK_VAR=target/test-var-" + TestDatabase.fork())
                .applyTo(context);
    }
}
