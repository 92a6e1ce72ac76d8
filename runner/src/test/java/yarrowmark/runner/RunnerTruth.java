package yarrowmark.runner;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.SplittableRandom;
import yarrowmark.runner.kernel.ProcessorTests;
import yarrowmark.runner.measure.Measure;
import yarrowmark.runner.measure.Measurement;
import yarrowmark.runner.memory.MemoryTests;
import yarrowmark.runner.storage.Budget;
import yarrowmark.runner.storage.StorageTests;

/** Holds the runner's numbers against dd and the same work in C, in turns, on this machine. Run by bin/bench. */
public final class RunnerTruth {
    private static final boolean SMALLEST = Boolean.getBoolean("yarrowmark.smallest");
    private static final int PAIRS = SMALLEST ? 1 : 7;
    private static final double TIMED_MS = SMALLEST ? 60 : 2_000;
    private static final int FILE_MIB = SMALLEST ? 16 : 1024;
    private static final double MIB = 1 << 20;

    /** One number, however it is found. */
    private interface One {
        double number() throws Exception;
    }

    private RunnerTruth() {}

    public static void main(String[] arguments) throws Exception {
        Path folder = Files.createTempDirectory(Path.of("target"), "truth");
        Path truth = compiled(folder);
        NativeTest.Options options =
                new NativeTest.Options(TIMED_MS, Runtime.getRuntime().availableProcessors(), folder.toAbsolutePath());
        Map<String, NativeTest> storage = new StorageTests(new Budget(1L << 42), (long) FILE_MIB << 20, 0).all();
        Map<String, NativeTest> processor = ProcessorTests.all();
        Map<String, NativeTest> memory = MemoryTests.all();
        String seconds = String.valueOf(TIMED_MS / 1000);
        System.out.printf("The runner against others, in %d pairs:%n", PAIRS);
        against(
                "Weir hash, one thread, in C -O2",
                0.8,
                () -> value(processor.get("native-weir-hash-one"), options),
                () -> Double.parseDouble(said(truth.toString(), "hash", "-", seconds)));
        long most = 1L << 30;
        while (most > Runtime.getRuntime().maxMemory() / 2) {
            most /= 2;
        }
        String largest = String.valueOf(most);
        against(
                "memory read, largest set, in C -O2",
                0.8,
                () -> far(memory.get("native-memory-read").run(options)),
                () -> Double.parseDouble(said(truth.toString(), "memory", largest, seconds)));

        // One file for dd and C, as large as the runner's, full of what cannot be compressed.
        Path file = folder.resolve("others");
        fill(file);
        String in = "if=" + file;
        against(
                "sequential read, dd iflag=direct",
                0.95,
                () -> value(storage.get("native-storage-read"), options),
                () -> timed("dd", in, "of=/dev/null", "bs=1M", "iflag=direct", "status=none"));
        against(
                "sequential write, dd oflag=direct",
                0.95,
                () -> value(storage.get("native-storage-write"), options),
                () -> timed(
                        "dd",
                        "if=/dev/zero",
                        "of=" + file,
                        "bs=1M",
                        "count=" + FILE_MIB,
                        "oflag=direct",
                        "conv=notrunc",
                        "status=none"));
        fill(file);
        against(
                "random 4 KiB read, one at a time, in C with O_DIRECT",
                0.9,
                () -> value(storage.get("native-storage-random-read-1"), options),
                () -> Double.parseDouble(said(truth.toString(), "scattered", file.toString(), seconds)));
        Files.delete(file);
        Files.delete(truth);
        Files.delete(folder);
    }

    private static double value(NativeTest test, NativeTest.Options options) throws Exception {
        return Objects.requireNonNull(test).run(options).value();
    }

    private static double far(Measurement curve) {
        return curve.more().get(0).value();
    }

    private static void fill(Path file) throws IOException, InterruptedException {
        byte[] chunk = new byte[(int) MIB];
        SplittableRandom random = new SplittableRandom(5);
        try (var out = Files.newOutputStream(file)) {
            for (int i = 0; i < FILE_MIB; i++) {
                random.nextBytes(chunk);
                out.write(chunk);
            }
        }
        said("sync", file.toString());
    }

    /** @param aim of the ratio; it may be its reciprocal above */
    private static void against(String what, double aim, One ours, One theirs) throws Exception {
        List<Double> own = new ArrayList<>();
        List<Double> others = new ArrayList<>();
        List<Double> ratios = new ArrayList<>();
        for (int i = 0; i < PAIRS; i++) {
            double a;
            double b;
            if (i % 2 == 0) {
                a = ours.number();
                b = theirs.number();
            } else {
                b = theirs.number();
                a = ours.number();
            }
            own.add(a);
            others.add(b);
            ratios.add(a / b);
        }
        System.out.printf(
                Locale.ROOT,
                "  %-54s %10.4g  against %10.4g   ratio %.3f (%.3f to %.3f), aim %.2f%n",
                what,
                Measure.median(own),
                Measure.median(others),
                Measure.median(ratios),
                ratios.stream().mapToDouble(Double::doubleValue).min().orElseThrow(),
                ratios.stream().mapToDouble(Double::doubleValue).max().orElseThrow(),
                aim);
    }

    /** MB/s of a command that moves the whole file. */
    private static double timed(String... command) throws IOException, InterruptedException {
        long from = System.nanoTime();
        said(command);
        return FILE_MIB * MIB / 1e6 / ((System.nanoTime() - from) / 1e9);
    }

    private static Path compiled(Path folder) throws IOException, InterruptedException {
        Path source = folder.resolve("truth.c");
        try (InputStream in = Objects.requireNonNull(RunnerTruth.class.getResourceAsStream("truth.c"))) {
            Files.copy(in, source, StandardCopyOption.REPLACE_EXISTING);
        }
        Path program = folder.resolve("truth");
        said("gcc", "-O2", "-o", program.toString(), source.toString());
        Files.delete(source);
        return program;
    }

    private static String said(String... command) throws IOException, InterruptedException {
        Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
        String words = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8).strip();
        if (process.waitFor() != 0) {
            throw new IOException(String.join(" ", command) + " failed: " + words);
        }
        return words;
    }
}
