package yarrowmark.runner.offline;

import java.io.IOException;
import java.io.StringReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import org.jspecify.annotations.Nullable;

/**
 * The file of an offline plan while it is carried out. A runner that was ended in the middle leaves it, and the next one goes on
 * from there.
 *
 * @param bytes   up to the end of the last whole row
 * @param started when its first run's session was begun; absent where nothing was carried out
 */
record PartialFile(long bytes, @Nullable Instant started, Set<PartialFile.Done> done) {
    static final String ENDING = ".part";

    /** A run that has its rows. @param possible whether its test can be carried out here */
    record Done(Key test, int run, boolean possible) {}

    /** Where a test stands in the catalogue. */
    record Key(String suite, String version, String mode, String test) {}

    static Path of(Path file) {
        return file.resolveSibling(file.getFileName() + ENDING);
    }

    /** The newest that was begun beside a plan and not ended. @param begins of its name */
    static Optional<Path> beside(Path plan, String begins) throws IOException {
        Path folder = plan.toAbsolutePath().getParent();
        if (folder == null) {
            return Optional.empty();
        }
        try (Stream<Path> files = Files.list(folder)) {
            return files.filter(f -> f.getFileName().toString().startsWith(begins)
                            && f.getFileName().toString().endsWith(".csv" + ENDING))
                    .max((a, b) -> a.getFileName().compareTo(b.getFileName()))
                    .map(f -> f.resolveSibling(f.getFileName().toString().replaceAll("\\.part$", "")));
        }
    }

    /** @param head its first row has to be this one */
    static PartialFile read(Path part, List<String> head) throws IOException {
        if (!Files.exists(part)) {
            return new PartialFile(0, null, Set.of());
        }
        String whole = wholeRows(Files.readString(part, StandardCharsets.UTF_8));
        Set<Done> done = new HashSet<>();
        Instant started = null;
        try (CSVParser rows = CSVParser.parse(
                new StringReader(whole),
                CSVFormat.RFC4180
                        .builder()
                        .setHeader()
                        .setSkipHeaderRecord(true)
                        .get())) {
            if (!whole.isEmpty() && !rows.getHeaderNames().equals(head)) {
                throw new FileSystemException(
                        part.toString(),
                        null,
                        "it was begun with other facts or by another runner; move it away, or say another --out");
            }
            for (CSVRecord row : rows) {
                started = started == null ? Instant.parse(row.get("started")) : started;
                done.add(new Done(
                        new Key(row.get("suite"), row.get("version"), row.get("mode"), row.get("test")),
                        Integer.parseInt(row.get("run")),
                        !row.get("state").equals("could not run")));
            }
        } catch (IllegalArgumentException | java.time.DateTimeException e) {
            throw new FileSystemException(part.toString(), null, "it is no file of this runner; move it away");
        }
        return new PartialFile(whole.getBytes(StandardCharsets.UTF_8).length, started, done);
    }

    /** Without a last row that was cut off: an end of a row stands outside of quotes. */
    private static String wholeRows(String text) {
        for (int end = text.lastIndexOf("\r\n"); end >= 0; end = text.lastIndexOf("\r\n", end - 1)) {
            if (text.substring(0, end).chars().filter(c -> c == '"').count() % 2 == 0) {
                return text.substring(0, end + 2);
            }
        }
        return "";
    }

    boolean has(Key test, int run) {
        return done.contains(new Done(test, run, true))
                || done.stream().anyMatch(d -> d.test().equals(test) && !d.possible());
    }
}
