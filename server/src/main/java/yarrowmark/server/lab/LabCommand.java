package yarrowmark.server.lab;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.io.PrintStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.time.Clock;
import java.util.Map;
import javax.sql.DataSource;
import org.flywaydb.core.api.FlywayException;
import org.jspecify.annotations.Nullable;
import org.springframework.boot.logging.LoggingSystem;
import org.springframework.dao.DataAccessException;
import org.springframework.jdbc.datasource.DriverManagerDataSource;

/** What bin/export and bin/import call. It needs the records alone, and no server. */
public final class LabCommand {
    private LabCommand() {}

    /** @return whether the arguments ask for it */
    public static boolean isAskedFor(String... arguments) {
        return arguments.length == 2 && (arguments[0].equals("export") || arguments[0].equals("import"));
    }

    /**
     * @param server what starts one, to try out what was read
     * @return 0 where it was done, 1 where not; then nothing was changed
     */
    public static int run(Map<String, String> environment, Class<?> server, PrintStream says, String... arguments) {
        LoggingSystem.get(LabCommand.class.getClassLoader()).beforeInitialize();
        DataSource source = new DriverManagerDataSource(
                given(environment, "YARROWMARK_DB_URL"),
                given(environment, "YARROWMARK_DB_USER"),
                given(environment, "YARROWMARK_DB_PASSWORD"));
        Path file = Path.of(arguments[1]);
        try {
            long rows;
            if (arguments[0].equals("export")) {
                rows = write(source, file, Clock.systemUTC());
            } else {
                rows = new LabImport(source).read(file);
                LabStart.tryOut(environment, server);
            }
            says.println(rows + " rows");
            return 0;
        } catch (LabFault e) {
            says.println(e.getMessage());
        } catch (IOException e) {
            says.println(file + " could not be " + (arguments[0].equals("export") ? "written" : "read") + ": "
                    + e.getMessage());
        } catch (SQLException | DataAccessException | FlywayException e) {
            says.println("the records could not be reached, or ended in the middle: " + firstLine(e.getMessage()));
        }
        return 1;
    }

    static long write(DataSource source, Path file, Clock clock) throws IOException, SQLException {
        try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(file), 1 << 16);
                Connection connection = source.getConnection()) {
            return new LabExport(connection, clock.instant()).write(out);
        }
    }

    private static String given(Map<String, String> environment, String name) {
        String value = environment.get(name);
        if (value == null) {
            throw new IllegalArgumentException(name + " is not set");
        }
        return value;
    }

    private static String firstLine(@Nullable String text) {
        return text == null ? "no reason is given" : text.strip().split("\n", 2)[0];
    }
}
