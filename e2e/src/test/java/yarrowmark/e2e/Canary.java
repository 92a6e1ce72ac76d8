package yarrowmark.e2e;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentSkipListMap;

/**
 * Tells when a machine that shares its host was quiet. A processor whose other half works for somebody else does half as
 * much of what keeps all its units busy, and just as much of a chain in which each step waits for the one before. So a
 * short loop of the first kind is timed on each processor ten times a second: two per cent of the machine.
 */
final class Canary implements AutoCloseable {
    private static final long EVERY_MS = 100;
    private static final int ROUNDS = 700_000;
    /** How much slower than its best a loop may be in a quiet moment. */
    private static final double QUIET = 1.12;

    private final List<Process> processes = new ArrayList<>();
    private final List<ConcurrentSkipListMap<Long, Long>> timings = new ArrayList<>();

    private Canary() {}

    /** One on each processor, each a process of its own: only a process can be bound to a processor. */
    static Canary onEachProcessor() {
        Canary canary = new Canary();
        String java = Path.of(System.getProperty("java.home"), "bin", "java").toString();
        Path classes = Path.of("target", "test-classes").toAbsolutePath();
        try {
            for (int cpu = 0; cpu < Runtime.getRuntime().availableProcessors(); cpu++) {
                Process process = new ProcessBuilder(
                                "taskset",
                                "-c",
                                Integer.toString(cpu),
                                java,
                                "-Xmx16m",
                                "-XX:+UseSerialGC",
                                "-XX:TieredStopAtLevel=1",
                                "-cp",
                                classes.toString(),
                                Canary.class.getName())
                        .redirectError(ProcessBuilder.Redirect.DISCARD)
                        .start();
                canary.processes.add(process);
                ConcurrentSkipListMap<Long, Long> own = new ConcurrentSkipListMap<>();
                canary.timings.add(own);
                Thread reader = new Thread(() -> read(process, own));
                reader.setDaemon(true);
                reader.start();
            }
        } catch (IOException e) {
            canary.close();
            throw new UncheckedIOException(e);
        }
        return canary;
    }

    private static void read(Process process, Map<Long, Long> timings) {
        try (BufferedReader out =
                new BufferedReader(new InputStreamReader(process.getInputStream(), StandardCharsets.US_ASCII))) {
            out.lines()
                    .map(line -> line.split(" "))
                    .forEach(at -> timings.put(Long.parseLong(at[0]), Long.parseLong(at[1])));
        } catch (IOException | UncheckedIOException e) {
            // The process was ended.
        }
    }

    /** Whether every processor was as fast as it can be all through, and just before and after, but for one look in twenty. Times in ms since 1970. */
    boolean quiet(long from, long to) {
        return timings.stream().allMatch(own -> {
            double limit = QUIET * best(own);
            List<Long> during = List.copyOf(
                    own.subMap(from - EVERY_MS, true, to + EVERY_MS, true).values());
            return during.size() >= (to - from) / EVERY_MS / 2
                    && during.stream().filter(t -> t > limit).count() <= during.size() / 20;
        });
    }

    /** Share of all looks that were quiet. */
    double quietShare() {
        return timings.stream()
                .mapToDouble(own -> own.values().stream()
                                .filter(t -> t <= QUIET * best(own))
                                .count()
                        / (double) Math.max(1, own.size()))
                .average()
                .orElse(0);
    }

    private static double best(Map<Long, Long> timings) {
        List<Long> sorted = timings.values().stream().sorted().toList();
        return sorted.get(sorted.size() / 50);
    }

    @Override
    public void close() {
        processes.forEach(Process::destroy);
    }

    public static void main(String[] arguments) throws InterruptedException {
        long sink = 0;
        while (true) {
            long fastest = Long.MAX_VALUE;
            // The fastest of three: one may have been put off for another program of this machine.
            for (int time = 0; time < 3; time++) {
                long start = System.nanoTime();
                sink += busy();
                fastest = Math.min(fastest, System.nanoTime() - start);
            }
            System.out.println(System.currentTimeMillis() + " " + fastest + (sink == 0 ? " 0" : ""));
            Thread.sleep(EVERY_MS);
        }
    }

    /** Eight chains that do not wait for one another. */
    private static long busy() {
        long a = 1;
        long b = 2;
        long c = 3;
        long d = 4;
        long e = 5;
        long f = 6;
        long g = 7;
        long h = 8;
        for (int i = 0; i < ROUNDS; i++) {
            a = a * 3 + i;
            b ^= (long) i << 1;
            c += i ^ 7;
            d -= i * 5L;
            e ^= i >> 3;
            f += i & 255;
            g ^= i + 3;
            h += i | 1;
        }
        return a ^ b ^ c ^ d ^ e ^ f ^ g ^ h;
    }
}
