package yarrowmark.server.support;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;

/** A real MariaDB of our own for all tests of this JVM. It ends when the JVM's end closes its standard input. */
final class TestDatabase {
    private static final TestDatabase RUNNING = start();

    private final String url;
    private final String user;
    private final String password;
    /** Kept so that the pipe that keeps the database alive is not collected. */
    private final Process process;

    private TestDatabase(String[] parts, Process process) {
        this.url = parts[0];
        this.user = parts[1];
        this.password = parts[2];
        this.process = process;
    }

    /** Which of the JVMs that test side by side this is: what they write to disk must not meet. */
    static String fork() {
        return System.getProperty("yarrowmark.fork", "1");
    }

    static TestDatabase running() {
        if (!RUNNING.process.isAlive()) {
            throw new IllegalStateException("the test database ended");
        }
        return RUNNING;
    }

    private static TestDatabase start() {
        try {
            Path directory = Files.createDirectories(Path.of("target", "test-database-" + fork()));
            Process process = new ProcessBuilder(
                            Path.of("..", "bin", "lib", "database").toString(),
                            directory.toString(),
                            "--innodb-flush-log-at-trx-commit=0",
                            "--skip-innodb-doublewrite")
                    .redirectError(ProcessBuilder.Redirect.INHERIT)
                    .start();
            String line = new BufferedReader(new InputStreamReader(process.getInputStream(), StandardCharsets.UTF_8))
                    .readLine();
            if (line == null) {
                throw new IllegalStateException("bin/lib/database did not start; its message is above");
            }
            return new TestDatabase(line.split("\t"), process);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    String url() {
        return url;
    }

    String user() {
        return user;
    }

    String password() {
        return password;
    }
}
