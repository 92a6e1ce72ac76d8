package yarrowmark.runner.bench;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.security.SecureRandom;
import java.util.Base64;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;
import yarrowmark.runner.protocol.Api;

/**
 * What was measured and not sent yet, and where a round stands: files on the disk, each written in full and flushed before
 * anything else happens, so that a runner that is killed loses at most the run that it was in.
 */
public final class Outbox {
    private static final JsonMapper JSON = new JsonMapper();
    private static final String RUN = "run-";
    private static final String SEAT = "seat.json";
    private static final String SECRET = "secret.json";
    private static final int SECRET_BYTES = 32;
    private static final String BEGUN = "begun.json";
    private static final String ENDING = "ending.json";
    private static final String REFUSED = ".refused";

    /** The seat that this round has. */
    public record Seated(String address, String code, String token, @Nullable String shelf) {}

    /** @param finishedAt in ms since 1970 */
    record Kept(String key, long finishedAt, Api.Run run) {}

    record Begun(long testId, int runNumber, int attempt, long at) {}

    private final Path folder;

    public Outbox(Path folder) {
        this.folder = folder;
        try {
            Files.createDirectories(folder);
        } catch (IOException e) {
            throw new UncheckedIOException("Nothing can be kept in " + folder + ".", e);
        }
    }

    private void put(String name, Object what) {
        try {
            Path fresh = Files.createTempFile(folder, "new-", ".tmp");
            byte[] bytes = JSON.writeValueAsString(what).getBytes(StandardCharsets.UTF_8);
            try (FileChannel channel = FileChannel.open(fresh, StandardOpenOption.WRITE)) {
                ByteBuffer buffer = ByteBuffer.wrap(bytes);
                while (buffer.hasRemaining()) {
                    channel.write(buffer);
                }
                channel.force(true);
            }
            Files.move(fresh, folder.resolve(name), StandardCopyOption.ATOMIC_MOVE);
            flushFolder();
        } catch (IOException e) {
            throw new UncheckedIOException("What was measured cannot be kept in " + folder + ".", e);
        }
    }

    /** Where the system can: on some a folder cannot be opened, and there the move is flushed by itself. */
    private void flushFolder() {
        try (FileChannel channel = FileChannel.open(folder, StandardOpenOption.READ)) {
            channel.force(true);
        } catch (IOException e) {
            // Nothing that could be done about it.
        }
    }

    private <T> Optional<T> get(String name, Class<T> type) {
        try {
            return Optional.of(JSON.readValue(Files.readString(folder.resolve(name)), type));
        } catch (NoSuchFileException e) {
            return Optional.empty();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (JacksonException e) {
            // Another version's, or damaged: what cannot be read is not thrown away either.
            return Optional.empty();
        }
    }

    private void remove(String name) {
        try {
            Files.deleteIfExists(folder.resolve(name));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    public Optional<Seated> seated() {
        return get(SEAT, Seated.class);
    }

    /**
     * What this computer asks for its seat with, made the first time and kept before anybody is asked: with it the same code
     * gives the same seat again.
     */
    String secret() {
        return get(SECRET, String.class).orElseGet(() -> {
            byte[] bytes = new byte[SECRET_BYTES];
            new SecureRandom().nextBytes(bytes);
            String made = Base64.getUrlEncoder().withoutPadding().encodeToString(bytes);
            put(SECRET, made);
            return made;
        });
    }

    public void seat(Seated seated) {
        put(SEAT, seated);
    }

    void begin(Begun begun) {
        put(BEGUN, begun);
    }

    /** The run that was under way when a runner was killed. */
    Optional<Begun> begun() {
        return get(BEGUN, Begun.class);
    }

    /** Keeps a run, in place of the one that was begun. */
    void keep(Api.Run run) {
        Kept kept = new Kept(UUID.randomUUID().toString(), System.currentTimeMillis(), run);
        // In the order in which they were made; names sort like numbers of the same length.
        put(RUN + String.format("%06d", next()) + ".json", kept);
        remove(BEGUN);
    }

    private int next() {
        return files().stream()
                        .map(f -> f.getFileName().toString())
                        .mapToInt(n -> Integer.parseInt(n.substring(RUN.length(), RUN.length() + 6)))
                        .max()
                        .orElse(0)
                + 1;
    }

    private List<Path> files() {
        try (Stream<Path> all = Files.list(folder)) {
            return all.filter(f -> f.getFileName().toString().matches(RUN + "\\d{6}\\.json(\\.refused)?"))
                    .sorted()
                    .toList();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** The oldest first. */
    List<Kept> waiting() {
        return files().stream()
                .filter(f -> !f.toString().endsWith(REFUSED))
                .flatMap(f -> get(f.getFileName().toString(), Kept.class).stream())
                .toList();
    }

    private Optional<Path> fileOf(String key) {
        return files().stream()
                .filter(f -> get(f.getFileName().toString(), Kept.class)
                        .filter(k -> k.key().equals(key))
                        .isPresent())
                .findFirst();
    }

    void confirmed(String key) {
        fileOf(key).ifPresent(f -> remove(f.getFileName().toString()));
    }

    /** What the bench refuses stays here, and holds up no other. */
    void refuse(String key, String why) {
        fileOf(key).ifPresent(f -> {
            try {
                Files.move(f, f.resolveSibling(f.getFileName() + REFUSED), StandardCopyOption.ATOMIC_MOVE);
                Files.writeString(f.resolveSibling(f.getFileName() + REFUSED + ".why"), why);
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        });
    }

    /** Where all of it is kept. */
    public Path place() {
        return folder;
    }

    /** How many runs the bench did not take. */
    public long refused() {
        return files().stream().filter(f -> f.toString().endsWith(REFUSED)).count();
    }

    /** The round is over, and the bench is to be told so. */
    void ending(Api.Ending how) {
        put(ENDING, how);
    }

    Optional<Api.Ending> ending() {
        return get(ENDING, Api.Ending.class);
    }

    /** Everything was said: the place is free for another round. What was refused stays. */
    public void over() {
        remove(SEAT);
        remove(SECRET);
        remove(ENDING);
        remove(BEGUN);
        try {
            Files.deleteIfExists(folder);
        } catch (IOException e) {
            // Something refused is in it.
        }
    }
}
