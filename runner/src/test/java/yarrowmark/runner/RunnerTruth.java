package yarrowmark.runner;

import java.io.IOException;
import java.io.InputStream;
import java.lang.management.ManagementFactory;
import java.lang.management.ThreadMXBean;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.SplittableRandom;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import yarrowmark.runner.kernel.ProcessorTests;
import yarrowmark.runner.measure.Measure;
import yarrowmark.runner.measure.Measurement;
import yarrowmark.runner.memory.MemoryTests;
import yarrowmark.runner.sensor.FakeSensors;
import yarrowmark.runner.sensor.SensorWatch;
import yarrowmark.runner.sensor.Sensors;
import yarrowmark.runner.storage.StorageTests;
import yarrowmark.runner.storage.WriteBudget;

/** Holds the runner's numbers against dd and the same work in C, in turns, on this machine. Run by bin/bench. */
public final class RunnerTruth {
    private static final boolean SMALLEST = Boolean.getBoolean("yarrowmark.smallest");
    private static final int PAIRS = SMALLEST ? 1 : 7;
    private static final double TIMED_MS = SMALLEST ? 60 : 2_000;
    private static final int FILE_MIB = SMALLEST ? 16 : 1024;
    /** A drive that others use as well wanders: many turns say more than long ones. */
    private static final int DRIVE_PAIRS = SMALLEST ? 1 : 21;
    /** As many as show half a per cent where the same work wanders by several: a reading or two fall into each. */
    private static final int SENSOR_PAIRS = SMALLEST ? 2 : 300;

    private static final double SENSOR_MS = SMALLEST ? 60 : 500;
    /** Standard errors to each side of a 95 % interval. */
    private static final double NORMAL_95 = 1.96;

    private static final double MIB = 1 << 20;
    private static final int SENSORS = 30;
    private static final Path MEMORY = Path.of("/dev/shm");
    private static final Pattern COPIED = Pattern.compile("(\\d+) bytes .*copied, ([0-9.e+-]+) s");

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
        Map<String, NativeTest> storage = new StorageTests(new WriteBudget(1L << 42), (long) FILE_MIB << 20, 0).all();
        Map<String, NativeTest> processor = ProcessorTests.all();
        Map<String, NativeTest> memory = MemoryTests.all();
        String seconds = String.valueOf(TIMED_MS / 1000);
        System.out.printf("The runner against others, in %d pairs, and %d of the drive:%n", PAIRS, DRIVE_PAIRS);
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

        sensors(processor.get("native-weir-hash-one"), options, folder);

        // One file for dd and C, as large as the runner's, full of what cannot be compressed.
        Path file = folder.resolve("others");
        fill(file);
        String in = "if=" + file;
        // What dd writes is as incompressible as what the runner writes, and comes out of memory.
        Path source = Files.createTempFile(MEMORY, "truth", ".bin");
        fill(source);
        against(
                "sequential read, dd iflag=direct",
                0.95,
                DRIVE_PAIRS,
                () -> whole(storage.get("native-storage-read"), options),
                () -> dd(in, "of=/dev/null", "bs=1M", "iflag=direct"));
        against(
                "sequential write, dd oflag=direct less its reading",
                0.95,
                DRIVE_PAIRS,
                () -> whole(storage.get("native-storage-write"), options),
                () -> {
                    // dd writes nothing while it reads what it is to write: that time is not the drive's.
                    double reading = dd("if=" + source, "of=/dev/null", "bs=1M");
                    double both = dd("if=" + source, "of=" + file, "bs=1M", "oflag=direct", "conv=notrunc");
                    return 1 / (1 / both - 1 / reading);
                });
        Files.delete(source);
        // What dd needs for reading is not the same while it writes as it is alone; this does the same work as the
        // runner.
        against(
                "sequential write, in C with O_DIRECT",
                0.95,
                DRIVE_PAIRS,
                () -> whole(storage.get("native-storage-write"), options),
                () -> Double.parseDouble(said(truth.toString(), "written", file.toString(), seconds)));
        fill(file);
        against(
                "random 4 KiB read, one at a time, in C with O_DIRECT",
                0.9,
                DRIVE_PAIRS,
                () -> whole(storage.get("native-storage-random-read-1"), options),
                () -> Double.parseDouble(said(truth.toString(), "scattered", file.toString(), seconds)));
        Files.delete(file);
        Files.delete(truth);
        Files.delete(folder);
    }

    /** What reading the sensors costs: those of a made-up computer with 30 of them, twice a second. */
    private static void sensors(NativeTest test, NativeTest.Options options, Path folder) throws Exception {
        FakeSensors computer = new FakeSensors(folder.resolve("computer"));
        for (int i = 0; i < SENSORS / 2; i++) {
            computer.core(i, 3_000_000 + i);
            computer.temperature(i, 40 + i);
        }
        Sensors all = computer.find();
        NativeTest.Options brief = new NativeTest.Options(SENSOR_MS, options.threads(), options.folder());
        List<Double> with = new ArrayList<>();
        List<Double> without = new ArrayList<>();
        List<Double> apart = new ArrayList<>();
        for (int i = 0; i < SENSOR_PAIRS; i++) {
            // The second of a pair is first in the next one, so that a drift falls on both sides alike.
            for (int k = 0; k < 2; k++) {
                if ((i + k) % 2 == 0) {
                    try (SensorWatch watch = new SensorWatch(all, said -> {})) {
                        with.add(value(test, brief));
                        watch.tracks();
                    }
                } else {
                    without.add(value(test, brief));
                }
            }
            apart.add(100 * Math.log(with.get(i) / without.get(i)));
        }
        double share = share(all);
        computer.remove();
        // The middle of the pairs, and between which of them it lies: one pair that the host held up counts as one
        // pair.
        Collections.sort(apart);
        int aside = (int) Math.ceil(NORMAL_95 / 2 * Math.sqrt(apart.size()));
        System.out.printf(
                Locale.ROOT,
                "  sensors, %d read twice a second: %.2f %% of a core, aim under 1 %%; a run with them differs by %.2f %% (median of %d pairs, 95 %% interval %.2f to %.2f %%; mean %.2f ± %.2f %%), spread %.2f %% against %.2f %%, aim within 0.5 %%%n",
                SENSORS,
                share,
                Measure.median(apart),
                apart.size(),
                apart.get(Math.max(0, apart.size() / 2 - aside)),
                apart.get(Math.min(apart.size() - 1, apart.size() / 2 + aside)),
                mean(apart),
                NORMAL_95 * deviation(apart) / Math.sqrt(apart.size()),
                spread(with),
                spread(without));
    }

    /** Processor time that watching takes while nothing else is done, in per cent of a core. */
    private static double share(Sensors all) throws InterruptedException {
        ThreadMXBean threads = ManagementFactory.getThreadMXBean();
        try (SensorWatch watch = new SensorWatch(all, said -> {})) {
            Thread thread = Thread.getAllStackTraces().keySet().stream()
                    .filter(t -> t.getName().equals("sensors") && t.isAlive())
                    .findFirst()
                    .orElseThrow();
            long from = System.nanoTime();
            long before = threads.getThreadCpuTime(thread.getId());
            Thread.sleep(SMALLEST ? 1_500 : 20_000);
            double took = threads.getThreadCpuTime(thread.getId()) - before;
            watch.tracks();
            return 100 * took / (System.nanoTime() - from);
        }
    }

    private static double mean(List<Double> values) {
        return values.stream().mapToDouble(Double::doubleValue).average().orElseThrow();
    }

    /** In per cent of the mean. */
    private static double spread(List<Double> values) {
        return 100 * deviation(values) / mean(values);
    }

    private static double deviation(List<Double> values) {
        double mean = mean(values);
        double squares =
                values.stream().mapToDouble(v -> (v - mean) * (v - mean)).sum();
        return Math.sqrt(squares / Math.max(1, values.size() - 1));
    }

    private static double value(NativeTest test, NativeTest.Options options) throws Exception {
        return Objects.requireNonNull(test).run(options).value();
    }

    /**
     * All work over all time, as dd and the C program tell it. The runner's score is the middle of its samples, which looks
     * past the moments at which a drive stands still.
     */
    private static double whole(NativeTest test, NativeTest.Options options) throws Exception {
        List<Double> samples = Objects.requireNonNull(test).run(options).samples();
        return samples.size() / samples.stream().mapToDouble(rate -> 1 / rate).sum();
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
        against(what, aim, PAIRS, ours, theirs);
    }

    private static void against(String what, double aim, int pairs, One ours, One theirs) throws Exception {
        List<Double> own = new ArrayList<>();
        List<Double> others = new ArrayList<>();
        List<Double> ratios = new ArrayList<>();
        for (int i = 0; i < pairs; i++) {
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

    /** MB/s by dd's own clock, so that its start is not in it. */
    private static double dd(String... how) throws IOException, InterruptedException {
        List<String> command = new ArrayList<>(List.of("env", "LC_ALL=C", "dd"));
        command.addAll(List.of(how));
        Matcher told = COPIED.matcher(said(command.toArray(String[]::new)));
        if (!told.find()) {
            throw new IOException("dd did not say how long it took");
        }
        return Double.parseDouble(told.group(1)) / 1e6 / Double.parseDouble(told.group(2));
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
