package yarrowmark.server.ledger.exchange;

import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.function.Function;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.stereotype.Service;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.health.DiskSpace;
import yarrowmark.server.platform.records.RecordsTrouble;

/** Imports under way, one after the other. Kept in memory: what a restart cuts off was not stored. */
@Service
public class ImportJobs {
    private static final Logger LOG = LoggerFactory.getLogger(ImportJobs.class);
    private static final int MOST_KEPT = 20;
    private static final int MOST_WAITING = 5;

    /**
     * @param done    of {@code of}, rows, runs or configurations, by step
     * @param outcome present once it is done well
     * @param problem present once it has failed or was cancelled, in words; its code beside it
     */
    public record ImportState(
            String id,
            ImportProgress.Step step,
            int done,
            int of,
            LedgerImport.@Nullable ImportOutcome outcome,
            @Nullable String code,
            @Nullable String problem) {}

    private static final class Job {
        private final String person;
        private final ImportProgress progress = new ImportProgress();
        private volatile LedgerImport.@Nullable ImportOutcome outcome;
        private volatile @Nullable Problem problem;

        Job(String person) {
            this.person = person;
        }

        boolean isOver() {
            return outcome != null || problem != null;
        }
    }

    private final LedgerImport imports;
    private final DiskSpace disk;
    private final ExecutorService worker = Executors.newSingleThreadExecutor(r -> new Thread(r, "import"));
    private final Map<String, Job> jobs = new LinkedHashMap<>();

    /** Where files wait for their turn. */
    private final Path folder;

    @Autowired
    ImportJobs(LedgerImport imports, DiskSpace disk) {
        this(imports, disk, Path.of(System.getProperty("java.io.tmpdir")));
    }

    ImportJobs(LedgerImport imports, DiskSpace disk, Path folder) {
        this.disk = disk;
        this.imports = imports;
        this.folder = folder;
    }

    /** @param store whether the file is stored, or only looked at */
    ImportState begin(byte[] file, boolean make, boolean store, String person) {
        String id = UUID.randomUUID().toString();
        Job job = waiting(id, person);
        // On the disk until its turn comes: files that only wait take no memory.
        Path waiting;
        try {
            waiting = waiting(file);
        } catch (Problem noRoom) {
            // Its place is free again for whoever tries once there is room.
            synchronized (jobs) {
                jobs.remove(id);
            }
            throw noRoom;
        }
        worker.execute(() -> run(job, () -> {
            byte[] bytes = taken(waiting);
            return store
                    ? imports.store(bytes, make, person, job.progress)
                    : imports.preview(bytes, make, job.progress);
        }));
        return state(id, job);
    }

    /** Rows that were understood already: what is left is to store them. */
    public ImportState begin(Function<ImportProgress, LedgerImport.ImportOutcome> work, String person) {
        String id = UUID.randomUUID().toString();
        Job job = waiting(id, person);
        worker.execute(() -> run(job, () -> work.apply(job.progress)));
        return state(id, job);
    }

    private Job waiting(String id, String person) {
        Job job = new Job(person);
        synchronized (jobs) {
            if (jobs.values().stream().filter(j -> !j.isOver()).count() >= MOST_WAITING) {
                throw Problem.conflict(
                        "imports-waiting", "Several files are being read already. Wait until one of them is done.");
            }
            jobs.put(id, job);
            jobs.entrySet().stream()
                    .filter(e -> e.getValue().isOver())
                    .limit(Math.max(0, jobs.size() - MOST_KEPT))
                    .map(Map.Entry::getKey)
                    .toList()
                    .forEach(jobs::remove);
        }
        return job;
    }

    private Path waiting(byte[] file) {
        @Nullable Path waiting = null;
        try {
            waiting = Files.createTempFile(folder, "yarrowmark-import", ".csv");
            waiting.toFile().deleteOnExit();
            return Files.write(waiting, file);
        } catch (IOException e) {
            if (waiting != null) {
                // A part of it must not take the room that is missing.
                waiting.toFile().delete();
            }
            throw Problem.conflict("no-room", "There is no room on the disk to keep the file until it is read.");
        }
    }

    private static byte[] taken(Path waiting) {
        try {
            byte[] bytes = Files.readAllBytes(waiting);
            Files.delete(waiting);
            return bytes;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private void run(Job job, Supplier<LedgerImport.ImportOutcome> work) {
        try {
            LedgerImport.ImportOutcome outcome = work.get();
            job.outcome = outcome;
        } catch (Problem e) {
            job.problem = e;
        } catch (OutOfMemoryError e) {
            // Its transaction is rolled back, and what it held is free again.
            LOG.error("An import took more memory than there is");
            job.problem = Problem.invalid(
                    "import-too-large",
                    "The file takes more memory to read than this server has. Nothing of it was stored. Split it, and import its parts one after the other.");
        } catch (RuntimeException e) {
            LOG.error("An import failed", e);
            Problem trouble = RecordsTrouble.of(e, disk.room());
            job.problem = trouble != null
                    ? trouble
                    : Problem.invalid(
                            "import-failed",
                            "Something unexpected happened while the file was read. Nothing of it was stored.");
        }
    }

    ImportState state(String id, String person) {
        return state(id, job(id, person));
    }

    /** What is under way stops and stores nothing; what is done stays done. */
    ImportState cancel(String id, String person) {
        Job job = job(id, person);
        job.progress.cancel();
        return state(id, job);
    }

    private Job job(String id, String person) {
        synchronized (jobs) {
            Job job = jobs.get(id);
            if (job == null || !job.person.equals(person)) {
                throw Problem.notFound("import", id);
            }
            return job;
        }
    }

    private static ImportState state(String id, Job job) {
        Problem problem = job.problem;
        LedgerImport.ImportOutcome outcome = job.outcome;
        return new ImportState(
                id,
                outcome != null ? ImportProgress.Step.DONE : job.progress.step(),
                job.progress.done(),
                job.progress.of(),
                outcome,
                problem == null ? null : problem.code(),
                problem == null ? null : problem.getMessage());
    }

    @PreDestroy
    void stop() {
        synchronized (jobs) {
            jobs.values().forEach(j -> j.progress.cancel());
        }
        worker.shutdown();
    }
}
