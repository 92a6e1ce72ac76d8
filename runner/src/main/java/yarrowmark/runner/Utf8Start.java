package yarrowmark.runner;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.OptionalInt;
import org.jspecify.annotations.Nullable;

/**
 * Where the system names no language, Java takes file names for ASCII, and a path with an "ü" cannot be opened. The runner is
 * then started once more, with the same bytes as its arguments and file names taken for UTF-8.
 */
final class Utf8Start {
    private static final String TRIED = "YARROW_UTF8";
    private static final Path ARGUMENTS = Path.of("/proc/self/cmdline");

    private Utf8Start() {}

    /** @return how that other start ended; empty where none is needed, or none can be made */
    static OptionalInt again() {
        String names = System.getProperty("sun.jnu.encoding", "UTF-8");
        if (names.equalsIgnoreCase("UTF-8") || System.getenv(TRIED) != null || !Files.isReadable(ARGUMENTS)) {
            return OptionalInt.empty();
        }
        Path file = null;
        try {
            byte[] arguments = Files.readAllBytes(ARGUMENTS);
            if (isAscii(arguments) && isAscii(System.getProperty("user.dir", "").getBytes(StandardCharsets.UTF_8))) {
                return OptionalInt.empty();
            }
            file = Files.createTempFile("yarrow-runner", ".args");
            Files.write(file, quoted(arguments));
            ProcessBuilder builder = new ProcessBuilder(
                            Path.of(System.getProperty("java.home"), "bin", "java")
                                    .toString(),
                            "@" + file)
                    .inheritIO();
            builder.environment().put("LC_ALL", "C.UTF-8");
            builder.environment().put(TRIED, "1");
            Process process = builder.start();
            // Whoever ends this one means the other one.
            Runtime.getRuntime().addShutdownHook(new Thread(process::destroy));
            return OptionalInt.of(process.waitFor());
        } catch (IOException e) {
            // It goes on as it is, and says which path it cannot read.
            return OptionalInt.empty();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return OptionalInt.empty();
        } finally {
            remove(file);
        }
    }

    private static void remove(@Nullable Path file) {
        try {
            if (file != null) {
                Files.deleteIfExists(file);
            }
        } catch (IOException e) {
            // A few bytes among the temporary files.
        }
    }

    static boolean isAscii(byte[] bytes) {
        for (byte b : bytes) {
            if (b < 0) {
                return false;
            }
        }
        return true;
    }

    /** All but the first, which is Java itself, as a file of arguments has them: in quotes, byte for byte. @param ended each with a 0 */
    static byte[] quoted(byte[] ended) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        boolean first = true;
        boolean open = false;
        for (byte b : ended) {
            if (b == 0) {
                if (!first) {
                    out.writeBytes(open ? new byte[] {'"', '\n'} : new byte[] {'"', '"', '\n'});
                }
                first = false;
                open = false;
                continue;
            }
            if (first) {
                continue;
            }
            if (!open) {
                out.write('"');
                open = true;
            }
            switch (b) {
                case '\\', '"' -> out.writeBytes(new byte[] {'\\', b});
                case '\n' -> out.writeBytes(new byte[] {'\\', 'n'});
                case '\r' -> out.writeBytes(new byte[] {'\\', 'r'});
                case '\t' -> out.writeBytes(new byte[] {'\\', 't'});
                default -> out.write(b);
            }
        }
        return out.toByteArray();
    }
}
