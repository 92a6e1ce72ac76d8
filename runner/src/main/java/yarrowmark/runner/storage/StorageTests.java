package yarrowmark.runner.storage;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.file.FileStore;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import yarrowmark.runner.NativeTest;
import yarrowmark.runner.measure.Endure;
import yarrowmark.runner.measure.Measure;
import yarrowmark.runner.measure.Measurement;
import yarrowmark.runner.measure.Work;

/** The drive of a folder: past the system's cache where the file system can, and through it. */
public final class StorageTests implements AutoCloseable {
    private static final int MIB = 1 << 20;
    private static final int[] DEPTHS = {1, 4, 16, 32};
    private static final int LARGEST_BLOCK = 64 * MIB;
    /** Of each drive so much stays free, whatever is tested. */
    private static final double STAYS_FREE = 0.1;

    private static final int READS = 0;
    private static final int WRITES = 100;
    /** Three of ten. */
    private static final int MIXED = 30;

    private static final int MIXED_DEPTH = 16;
    private static final int SMALL_FILE = 4096;
    private static final int LONG_BLOCK = 4 * MIB;
    private static final int LONG_SLICE_MS = 500;
    private static final double LONGEST_LONG_MS = 10 * 60_000.0;

    private final WriteBudget budget;
    private final long fileBytes;
    private final long longBytes;
    /** Has the file that is read, and written where it is full already: made once, for all tests and runs. */
    private @Nullable Place kept;

    private boolean full;

    /**
     * @param fileBytes of the file that is read and written
     * @param longBytes the most that a long write writes
     */
    public StorageTests(WriteBudget budget, long fileBytes, long longBytes) {
        this.budget = budget;
        this.fileBytes = fileBytes;
        this.longBytes = longBytes;
    }

    /** What is done with an open file. */
    private interface Timed {
        Measurement of(TestFile file, NativeTest.Options options) throws Exception;
    }

    /** By their keys. */
    public Map<String, NativeTest> all() {
        Map<String, NativeTest> tests = new LinkedHashMap<>();
        for (boolean cached : new boolean[] {false, true}) {
            String end = cached ? "-cached" : "";
            tests.put(
                    "native-storage-read" + end, test(!cached, true, (f, o) -> sequential(f, o.timedMs(), MIB, false)));
            tests.put(
                    "native-storage-write" + end,
                    test(!cached, false, (f, o) -> sequential(f, o.timedMs(), MIB, true)));
        }
        for (int depth : DEPTHS) {
            tests.put("native-storage-random-read-" + depth, test(true, true, (f, o) -> new Scattered(f, depth, READS)
                    .run(o.timedMs())));
            tests.put("native-storage-random-write-" + depth, test(true, true, (f, o) -> new Scattered(f, depth, WRITES)
                    .run(o.timedMs())));
        }
        tests.put("native-storage-mixed", test(true, true, (f, o) -> new Scattered(f, MIXED_DEPTH, MIXED)
                .run(o.timedMs())));
        tests.put("native-storage-sweep-read", test(true, true, (f, o) -> sweep(f, o.timedMs(), false)));
        tests.put("native-storage-sweep-write", test(true, true, (f, o) -> sweep(f, o.timedMs(), true)));
        tests.put("native-storage-long-write", test(true, false, (f, o) -> longWrite(f)));
        tests.put("native-endurance-storage-read", test(true, true, (f, o) -> {
            ByteBuffer buffer = f.buffer((int) Math.min(MIB, f.bytes()));
            return Endure.of(o.timedMs()).run(reading(f, buffer), buffer.limit() / 1e6);
        }));
        tests.put("native-storage-small-files", small());
        tests.put("native-storage-flushes", test(false, false, (f, o) -> flushes(f, o.timedMs())));
        return tests;
    }

    private NativeTest test(boolean direct, boolean filled, Timed timed) {
        return new NativeTest() {
            @Override
            public Optional<Obstacle> obstacle(Options options) {
                return StorageTests.this.obstacle(options.folder());
            }

            @Override
            public Measurement run(Options options) throws Exception {
                if (filled) {
                    try (TestFile file = full(options.folder(), direct)) {
                        return measured(file, options);
                    }
                }
                try (Place place = Place.in(options.folder());
                        TestFile file = TestFile.open(place.folder().resolve("blocks"), fileBytes, direct, budget)) {
                    return measured(file, options);
                }
            }

            private Measurement measured(TestFile file, Options options) throws Exception {
                Measurement measured = timed.of(file, options);
                return measured.with(measured.more(), note(direct, file));
            }
        };
    }

    /** Whether a test works in the file that is full before it begins. @param name its key without what all have */
    static boolean isFilled(String name) {
        return !List.of("write", "write-cached", "long-write", "small-files", "flushes")
                .contains(name);
    }

    /** The file that all share. What is written into it says its block again, so it stays full whatever tests do with it. */
    private TestFile full(Path folder, boolean direct) throws IOException {
        if (kept == null) {
            kept = Place.in(folder);
        }
        Path path = kept.folder().resolve("full");
        full &= Files.exists(path) && Files.size(path) == fileBytes;
        TestFile file = TestFile.open(path, fileBytes, direct, budget);
        try {
            if (!full) {
                file.fill();
                full = true;
            }
            if (!file.isDirect()) {
                file.toCache();
            }
            return file;
        } catch (IOException | RuntimeException e) {
            file.close();
            throw e;
        }
    }

    /** Takes the shared file away. */
    @Override
    public void close() throws IOException {
        if (kept != null) {
            kept.close();
            kept = null;
            full = false;
        }
    }

    private static @Nullable String note(boolean wanted, TestFile file) {
        return wanted && !file.isDirect()
                ? "Through the system's cache: this file system has no direct input and output."
                : null;
    }

    private Optional<NativeTest.Obstacle> obstacle(Path folder) {
        try {
            if (!Files.isDirectory(folder)) {
                return Optional.of(new NativeTest.Obstacle("OTHER", "There is no folder " + folder + "."));
            }
            if (!Files.isWritable(folder)) {
                return Optional.of(new NativeTest.Obstacle("OTHER", "Nothing may be written in " + folder + "."));
            }
            FileStore drive = Files.getFileStore(folder);
            if (!full && drive.getUsableSpace() - fileBytes < STAYS_FREE * drive.getTotalSpace()) {
                return Optional.of(new NativeTest.Obstacle(
                        "NO_SPACE",
                        "It needs " + (fileBytes >> 20) + " MiB, and a tenth of the drive has to stay free: "
                                + (drive.getUsableSpace() >> 20) + " MiB of " + (drive.getTotalSpace() >> 20)
                                + " are."));
            }
            return Optional.empty();
        } catch (IOException e) {
            return Optional.of(
                    new NativeTest.Obstacle("OTHER", "The drive of " + folder + " cannot be asked: " + e.getMessage()));
        }
    }

    /** From end to end and again, in MB/s. */
    private Measurement sequential(TestFile file, double timedMs, int size, boolean writing) throws Exception {
        int block = (int) Math.min(size, file.bytes());
        ByteBuffer buffer = file.buffer(block);
        Work work = writing ? writing(file, buffer) : reading(file, buffer);
        return Measure.of(timedMs).run(work, block / 1e6);
    }

    private static Work writing(TestFile file, ByteBuffer buffer) {
        long[] at = {0};
        return rounds -> {
            for (long r = 0; r < rounds; r++) {
                if (at[0] + buffer.limit() > file.bytes()) {
                    at[0] = 0;
                }
                file.write(buffer, at[0]);
                at[0] += buffer.limit();
            }
            // Through the cache, what is only there is not written yet.
            if (!file.isDirect()) {
                file.flush();
            }
        };
    }

    /** From end to end and again. */
    private static Work reading(TestFile file, ByteBuffer buffer) {
        long[] at = {0};
        return rounds -> {
            for (long r = 0; r < rounds; r++) {
                if (at[0] + buffer.limit() > file.bytes()) {
                    at[0] = 0;
                }
                file.read(buffer, at[0]);
                at[0] += buffer.limit();
            }
        };
    }

    private Measurement sweep(TestFile file, double timedMs, boolean writing) throws Exception {
        List<Integer> sizes = new ArrayList<>();
        for (int size = TestFile.BLOCK; size <= Math.min(LARGEST_BLOCK, file.bytes()); size *= 2) {
            sizes.add(size);
        }
        List<Measurement.Point> points = new ArrayList<>();
        double timed = 0;
        for (int size : sizes) {
            Measurement one = sequential(file, timedMs / sizes.size(), size, writing);
            points.add(new Measurement.Point(size / 1024.0, one.value()));
            timed += one.timedMs();
        }
        return Measurement.ofCurve(points, timed, List.of(), null);
    }

    /** On and on, to see where a drive's quick part is full: MB/s over seconds, and what it keeps up at the end. */
    private Measurement longWrite(TestFile file) throws Exception {
        ByteBuffer buffer = file.buffer(LONG_BLOCK);
        List<Measurement.Point> points = new ArrayList<>();
        long begin = System.nanoTime();
        long sliceBegin = begin;
        long inSlice = 0;
        long at = 0;
        for (long written = 0;
                written + LONG_BLOCK <= longBytes && (System.nanoTime() - begin) / 1e6 < LONGEST_LONG_MS; ) {
            if (Thread.interrupted()) {
                throw new InterruptedException();
            }
            // Over and over the same file: what is written is new each time, and no more of the drive is taken.
            if (at + LONG_BLOCK > file.bytes()) {
                at = 0;
            }
            file.write(buffer, at);
            at += LONG_BLOCK;
            written += LONG_BLOCK;
            inSlice += LONG_BLOCK;
            long now = System.nanoTime();
            if ((now - sliceBegin) / 1e6 >= LONG_SLICE_MS) {
                points.add(new Measurement.Point((now - begin) / 1e9, inSlice / 1e6 / ((now - sliceBegin) / 1e9)));
                sliceBegin = now;
                inSlice = 0;
            }
        }
        if (points.size() < 4) {
            throw new IllegalStateException("It was over in " + (System.nanoTime() - begin) / 1_000_000
                    + " ms: too short to see anything change. A larger --long-write helps.");
        }
        List<Double> late = points.subList(points.size() * 3 / 4, points.size()).stream()
                .map(Measurement.Point::y)
                .toList();
        return Measurement.ofCurve(
                points,
                (System.nanoTime() - begin) / 1e6,
                List.of(new Measurement.More("kept-up", Measure.median(late), 0)),
                null);
    }

    private NativeTest small() {
        return new NativeTest() {
            @Override
            public Optional<Obstacle> obstacle(Options options) {
                return StorageTests.this.obstacle(options.folder());
            }

            @Override
            public Measurement run(Options options) throws Exception {
                byte[] bytes = new byte[SMALL_FILE];
                try (Place place = Place.in(options.folder())) {
                    long[] number = {0};
                    return Measure.of(options.timedMs())
                            .run(
                                    rounds -> {
                                        for (long r = 0; r < rounds; r++) {
                                            budget.take(SMALL_FILE);
                                            Path file = place.folder().resolve("leaf-" + number[0]++ % 1000);
                                            Files.write(file, bytes);
                                            Files.delete(file);
                                        }
                                    },
                                    1);
                }
            }
        };
    }

    private Measurement flushes(TestFile file, double timedMs) throws Exception {
        ByteBuffer block = file.buffer(TestFile.BLOCK);
        return Measure.of(timedMs)
                .run(
                        rounds -> {
                            for (long r = 0; r < rounds; r++) {
                                file.write(block, 0);
                                file.flush();
                            }
                        },
                        1);
    }

    /** The folder of a runner that has been killed may still be there. */
    public static void clean(Path folder) throws IOException {
        Place.clean(folder);
    }

    /** Whether a file system has input and output past the cache; for what is said before anything is measured. */
    public static boolean isDirect(Path folder) throws IOException {
        try (Place place = Place.in(folder);
                TestFile file =
                        TestFile.open(place.folder().resolve("blocks"), TestFile.BLOCK, true, new WriteBudget(MIB))) {
            return file.isDirect();
        }
    }
}
