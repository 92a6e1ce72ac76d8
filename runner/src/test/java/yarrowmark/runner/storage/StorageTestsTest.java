package yarrowmark.runner.storage;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.RandomAccessFile;
import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import yarrowmark.runner.NativeTest;
import yarrowmark.runner.kernel.WrongAnswer;
import yarrowmark.runner.measure.Measurement;

class StorageTestsTest {
    private static final long MIB = 1 << 20;

    @TempDir
    private Path folder;

    private final WriteBudget budget = new WriteBudget(1L << 40);

    private @Nullable StorageTests storage;

    private Map<String, NativeTest> tests(long fileBytes) {
        storage = new StorageTests(budget, fileBytes, 0);
        return storage.all();
    }

    @AfterEach
    void over() throws IOException {
        if (storage != null) {
            storage.close();
        }
    }

    private NativeTest.Options options(double timedMs) {
        return new NativeTest.Options(timedMs, 2, folder);
    }

    private List<Path> left() throws IOException {
        try (Stream<Path> files = Files.list(folder)) {
            return files.toList();
        }
    }

    @Test
    void everyTestMeasuresAndLeavesNothingButTheFileThatAllShareAndThatGoesAtTheEnd() throws Exception {
        for (Map.Entry<String, NativeTest> test : tests(4 * MIB).entrySet()) {
            if (test.getKey().endsWith("long-write")) {
                continue;
            }
            Measurement measured = test.getValue().run(options(40));
            assertThat(measured.value()).as(test.getKey()).isPositive();
            assertThat(measured.samples()).as(test.getKey()).allMatch(Double::isFinite);
            assertThat(left()).as(test.getKey()).hasSizeLessThanOrEqualTo(1);
        }
        assertThat(budget.written()).isPositive();
        over();
        assertThat(left()).isEmpty();
    }

    @Test
    void aDriveThatTakesLongerThanTheWholeTimeHasAnAnswerAllTheSame() throws Exception {
        Measurement measured =
                tests(4 * MIB).get("native-storage-random-write-32").run(options(0.01));
        assertThat(measured.value()).isPositive().isFinite();
        assertThat(measured.more()).allMatch(more -> more.value() > 0);
    }

    @Test
    void whatIsOnlyReadIsWrittenOnce() throws Exception {
        Map<String, NativeTest> tests = tests(4 * MIB);
        for (String key :
                List.of("native-storage-read", "native-storage-read-cached", "native-storage-random-read-4")) {
            tests.get(key).run(options(20));
            tests.get(key).run(options(20));
        }
        // And a block for each time it is found out whether the cache can be passed.
        assertThat(budget.written()).isBetween(4 * MIB, 4 * MIB + 6 * TestFile.BLOCK);
    }

    @Test
    void aSharedFileThatSomebodyTookAwayIsMadeAgain() throws Exception {
        NativeTest test = tests(MIB).get("native-storage-read");
        test.run(options(10));
        Files.delete(left().get(0).resolve("full"));
        assertThat(test.run(options(10)).value()).isPositive();
        assertThat(budget.written()).isGreaterThanOrEqualTo(2 * MIB);
    }

    @Test
    void theLimitIsSaidAsSuch() {
        budget.allow(MIB);
        assertThatThrownBy(() -> tests(4 * MIB).get("native-storage-read").run(options(10)))
                .isInstanceOf(WriteBudget.Spent.class)
                .hasMessageContaining("write limit");
    }

    @Test
    void whatAPlanWouldWriteIsKnownBeforehand() {
        PlannedWrites none =
                PlannedWrites.of(List.of(new PlannedWrites.Planned("native-spectrum-one", 3, 1000)), MIB, 8 * MIB);
        assertThat(none.any()).isFalse();
        PlannedWrites reading = PlannedWrites.of(
                List.of(
                        new PlannedWrites.Planned("native-storage-read", 3, 1000),
                        new PlannedWrites.Planned("native-storage-random-read-32", 9, 1000)),
                1L << 30,
                8L << 30);
        assertThat(reading.usual()).as("filled once, however many runs").isEqualTo(1L << 30);
        assertThat(reading.words("/x", reading.gib())).contains("about 1 GiB", "no more than 2 GiB");
        PlannedWrites longOnes = PlannedWrites.of(
                List.of(new PlannedWrites.Planned("native-storage-long-write", 3, 1000)), 1L << 30, 8L << 30);
        assertThat(longOnes.words("/x", 20)).contains("about 24 GiB", "no more than 20 GiB");
    }

    @Test
    void aPlanMayWriteWhatItSaysThatItNeeds() throws Exception {
        List<PlannedWrites.Planned> plan = new ArrayList<>();
        StorageTests all = new StorageTests(budget, MIB, 0);
        all.all().keySet().stream()
                .filter(key -> !key.endsWith("long-write"))
                .forEach(key -> plan.add(new PlannedWrites.Planned(key, 1, 20)));
        storage = all;
        PlannedWrites reads = PlannedWrites.of(
                plan.stream().filter(p -> p.key().contains("read")).toList(), MIB, 0);
        budget.allow(reads.most());
        for (PlannedWrites.Planned p : plan) {
            if (p.key().contains("read")) {
                assertThat(all.all().get(p.key()).run(options(20)).value())
                        .as(p.key())
                        .isPositive();
            }
        }
        budget.allow(PlannedWrites.of(plan, MIB, 0).most() + reads.most());
        for (PlannedWrites.Planned p : plan) {
            assertThat(all.all().get(p.key()).run(options(20)).value())
                    .as(p.key())
                    .isPositive();
        }
    }

    @Test
    void percentilesRise() throws Exception {
        Measurement measured =
                tests(4 * MIB).get("native-storage-random-read-4").run(options(60));
        List<Double> percentiles =
                measured.more().stream().map(Measurement.More::value).toList();
        assertThat(measured.more().stream().map(Measurement.More::metric)).containsExactly("p50", "p99", "p999");
        assertThat(percentiles).isSorted();
    }

    @Test
    void aLongWriteShowsWhatIsKeptUp() throws Exception {
        NativeTest test = new StorageTests(budget, 8 * MIB, 1L << 40).all().get("native-storage-long-write");
        Thread reviewer = Thread.currentThread();
        Thread stopping = new Thread(() -> {
            while (budget.written() < 64 * MIB) {
                Thread.onSpinWait();
            }
            reviewer.interrupt();
        });
        stopping.start();
        assertThatThrownBy(() -> test.run(options(10))).isInstanceOf(Exception.class);
        stopping.join();
        // The flag may have come after the last look at it.
        Thread.interrupted();
        assertThat(left()).as("stopped in the middle, it leaves nothing either").isEmpty();
        assertThatThrownBy(() -> new StorageTests(budget, 8 * MIB, 8 * MIB)
                        .all()
                        .get("native-storage-long-write")
                        .run(options(10)))
                .hasMessageContaining("too short");
    }

    @Test
    void whatIsReadIsLookedAt() throws Exception {
        Path path = folder.resolve("blocks");
        try (TestFile file = TestFile.open(path, MIB, false, budget)) {
            file.fill();
            ByteBuffer block = file.buffer(TestFile.BLOCK);
            file.read(block, 8 * TestFile.BLOCK);
            try (RandomAccessFile other = new RandomAccessFile(path.toFile(), "rw")) {
                other.seek(9 * TestFile.BLOCK - 1);
                other.write(0x55);
            }
            assertThatThrownBy(() -> file.read(block, 8 * TestFile.BLOCK)).isInstanceOf(WrongAnswer.class);
            file.read(block, 9 * TestFile.BLOCK);
            try (RandomAccessFile other = new RandomAccessFile(path.toFile(), "rw")) {
                other.setLength(TestFile.BLOCK);
            }
            assertThatThrownBy(() -> file.read(block, 9 * TestFile.BLOCK))
                    .isInstanceOf(IOException.class)
                    .hasMessageContaining("shortened");
        }
    }

    @Test
    void nothingIsWrittenBeyondWhatWasAllowed() {
        WriteBudget little = new WriteBudget(6 * MIB);
        assertThatThrownBy(() -> new StorageTests(little, 4 * MIB, 0)
                        .all()
                        .get("native-storage-write")
                        .run(options(10_000)))
                .hasMessageContaining("--write-limit");
        assertThat(little.written()).isLessThanOrEqualTo(6 * MIB);
    }

    @Test
    void aFolderThatCannotBeUsedIsSaid() {
        NativeTest test = tests(4 * MIB).get("native-storage-read");
        assertThat(test.obstacle(new NativeTest.Options(10, 1, folder.resolve("nowhere"))))
                .hasValueSatisfying(o -> assertThat(o.words()).contains("no folder"));
        assertThat(tests(1L << 60).get("native-storage-read").obstacle(options(10)))
                .hasValueSatisfying(o -> assertThat(o.reason()).isEqualTo("NO_SPACE"));
        assertThat(test.obstacle(options(10))).isEmpty();
    }

    @Test
    void whatACrashLeftGoesAndWhatIsInUseStays() throws Exception {
        Path left = Files.createDirectory(folder.resolve("yarrow-runner-123"));
        Files.writeString(left.resolve("blocks"), "left by a crash");
        Path mine = Files.createDirectory(folder.resolve("mine"));
        try (Place place = Place.in(folder)) {
            Files.writeString(place.folder().resolve("blocks"), "in use");
            StorageTests.clean(folder);
            assertThat(left).doesNotExist();
            assertThat(mine).exists();
            assertThat(place.folder().resolve("blocks")).exists();
        }
        assertThat(left()).containsExactly(mine);
    }
}
