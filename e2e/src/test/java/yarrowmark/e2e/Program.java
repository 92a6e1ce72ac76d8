package yarrowmark.e2e;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** The real program, started by the command a person would use, with records of its own below target/. */
final class Program implements AutoCloseable {
    private static final Path BIN = Path.of("..", "bin").toAbsolutePath().normalize();

    /** For a Java that lives for a minute or two: what the second compiler would gain costs more than it brings. */
    static final String SHORT_LIVED =
            "-XX:TieredStopAtLevel=1 -XX:-UseCodeCacheFlushing -XX:ReservedCodeCacheSize=240m";

    private static final Path RECORDS = Path.of("target", "records").toAbsolutePath();
    private static final Map<String, Program> SHARED = new HashMap<>();
    private static final Set<Program> RUNNING = ConcurrentHashMap.newKeySet();

    private final String command;
    private final Path records;
    private Map<String, String> environment = Map.of();
    private Process process;
    private String address;
    /** The one start whose classes are kept for the others. */
    private boolean keepsClasses;
    /** Others use it, too, so it ends with this JVM and not with one of them. */
    private boolean shared;

    private Program(String command, Path records) {
        this.command = command;
        this.records = records;
    }

    /**
     * Each has records of its own, copied from ones that were prepared once: making a database and the demo's records
     * takes longer than most tests.
     *
     * @param command "demo" or "start"
     */
    static Program start(String command, String recordsName) {
        if (Boolean.getBoolean("yarrowmark.smallest")) {
            return shared(command, "smallest-" + command);
        }
        return fresh(command, recordsName);
    }

    private static Program fresh(String command, String recordsName) {
        Path records = RECORDS.resolve(recordsName);
        deleteAll(records);
        copyAll(prepared(command), records);
        Program program = new Program(command, records);
        program.launch(List.of());
        return program;
    }

    /** With the records that are there. */
    static Program startIn(String command, Path records) {
        return startIn(command, records, Map.of(), List.of());
    }

    /** @param environment beside what it has anyway. @param more words behind the command */
    static Program startIn(String command, Path records, Map<String, String> environment, List<String> more) {
        Program program = new Program(command, records);
        program.environment = environment;
        program.launch(more);
        return program;
    }

    /** A demo that test classes share, for as long as this JVM lives. Each class finds what others made, too. */
    static Program sharedDemo(String recordsName) {
        return shared("demo", recordsName);
    }

    private static synchronized Program shared(String command, String recordsName) {
        return SHARED.computeIfAbsent(recordsName, name -> {
            Program program = fresh(command, name);
            program.shared = true;
            Runtime.getRuntime().addShutdownHook(new Thread(program::end));
            return program;
        });
    }

    /** Records as the command leaves them after its first start; those of an earlier run where the program is the same. */
    static synchronized Path prepared(String command) {
        Path records = RECORDS.resolve("prepared-" + command);
        Path madeBy = RECORDS.resolve("prepared-" + command + ".by");
        String program = programInWords();
        if (!Files.exists(madeBy) || !read(madeBy).equals(program)) {
            deleteAll(records);
            Program first = new Program(command, records);
            first.keepsClasses = true;
            first.launch(List.of());
            first.close();
            write(madeBy, program);
        }
        return records;
    }

    /** Another build of the program may make other records. */
    private static String programInWords() {
        try {
            Path jar = Path.of("..", "server", "target", "yarrowmark.jar");
            // A copy keeps its time, but not to the nanosecond.
            return Files.size(jar) + " bytes, of "
                    + Files.getLastModifiedTime(jar).toMillis();
        } catch (IOException e) {
            throw new UncheckedIOException("the program is not built", e);
        }
    }

    private static void write(Path file, String text) {
        try {
            Files.writeString(file, text);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    String address() {
        return address;
    }

    /** The program's own database: address, user, password. */
    String[] database() {
        return read(records.resolve(command).resolve("database.ready")).strip().split("\t");
    }

    /** Where its records are: what YARROWMARK_VAR says to the other commands of bin/. */
    Path records() {
        return records;
    }

    /** Kills the server without warning, as a lost machine would. The database goes with the command that started both. */
    void kill() {
        long server = Long.parseLong(
                read(records.resolve(command).resolve("server.pid")).strip());
        ProcessHandle.of(server).ifPresent(ProcessHandle::destroyForcibly);
        awaitEnd();
    }

    /** The program's Java. */
    ProcessHandle server() {
        return handle(records.resolve(command).resolve("server.pid"));
    }

    ProcessHandle databaseServer() {
        return handle(records.resolve(command).resolve("mariadb").resolve("pid"));
    }

    private static ProcessHandle handle(Path pid) {
        return ProcessHandle.of(Long.parseLong(read(pid).strip())).orElseThrow();
    }

    /** Kills the command that started everything, as a terminal that is closed without a word would. */
    void killCommand() {
        process.destroyForcibly();
        awaitEnd();
    }

    /** A second command on the same records. */
    Process sameAgain() throws IOException {
        ProcessBuilder again =
                new ProcessBuilder(BIN.resolve(command).toString(), "--no-build").redirectErrorStream(true);
        again.environment().put("YARROWMARK_VAR", records.toString());
        return again.start();
    }

    /** Starts again with the same records at the same address. */
    void startAgain() {
        launch(List.of("--port", address.replaceAll(".*:(\\d+)/?$", "$1")));
    }

    private void launch(List<String> more) {
        // One after the other: a port that two find free at the same moment is taken for the second.
        synchronized (RECORDS) {
            begin(more);
        }
    }

    private void begin(List<String> more) {
        List<String> words = Stream.concat(Stream.of(BIN.resolve(command).toString(), "--no-build"), more.stream())
                .toList();
        ProcessBuilder builder = new ProcessBuilder(words).redirectErrorStream(true);
        builder.environment().put("YARROWMARK_VAR", records.toString());
        builder.environment().putAll(environment);
        builder.environment().put("JAVA_TOOL_OPTIONS", SHORT_LIVED);
        builder.environment().put("YARROWMARK_KEEP_CLASSES", keepsClasses ? "yes" : "no");
        BlockingQueue<String> lines = new LinkedBlockingQueue<>();
        try {
            process = builder.start();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        Thread reader = new Thread(() -> {
            try (BufferedReader out =
                    new BufferedReader(new InputStreamReader(process.getInputStream(), StandardCharsets.UTF_8))) {
                out.lines().forEach(lines::add);
            } catch (IOException | UncheckedIOException e) {
                lines.add("its output ended: " + e.getMessage());
            }
        });
        reader.setDaemon(true);
        reader.start();
        StringBuilder said = new StringBuilder();
        try {
            for (String line = lines.poll(150, TimeUnit.SECONDS);
                    line != null;
                    line = lines.poll(150, TimeUnit.SECONDS)) {
                said.append(line).append('\n');
                if (line.startsWith("Yarrowmark is at ")) {
                    address = line.substring("Yarrowmark is at ".length()).strip();
                    RUNNING.add(this);
                    return;
                }
                if (line.startsWith("Yarrowmark cannot go on")) {
                    break;
                }
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        throw new IllegalStateException("bin/" + command + " did not start:\n" + said);
    }

    /** What every program that runs here has written so far. */
    static void keepLogs(Path folder) throws IOException {
        for (Program program : RUNNING) {
            Path log = program.records.resolve(program.command).resolve("server.log");
            if (Files.exists(log)) {
                Files.copy(
                        log,
                        folder.resolve(program.records.getFileName() + "-server.log"),
                        StandardCopyOption.REPLACE_EXISTING);
            }
        }
    }

    @Override
    public void close() {
        if (!shared) {
            end();
        }
    }

    private void end() {
        RUNNING.remove(this);
        process.destroy();
        awaitEnd();
    }

    private void awaitEnd() {
        Patience.until(() -> "bin/" + command + " did not end when it should", () -> !process.isAlive());
    }

    private static String read(Path file) {
        try {
            return Files.readString(file);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Also makes the folders above. */
    static void copyAll(Path from, Path to) {
        try (Stream<Path> files = Files.walk(from)) {
            Files.createDirectories(to.toAbsolutePath().getParent());
            for (Path file : files.collect(Collectors.toList())) {
                Files.copy(file, to.resolve(from.relativize(file).toString()), StandardCopyOption.COPY_ATTRIBUTES);
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    static void deleteAll(Path directory) {
        if (!Files.exists(directory)) {
            return;
        }
        try (Stream<Path> files = Files.walk(directory)) {
            for (Path file : files.sorted(java.util.Comparator.reverseOrder()).collect(Collectors.toList())) {
                Files.deleteIfExists(file);
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
