package yarrowmark.e2e;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;

/**
 * Two questions to the processor tests. Does the language hide the processor: the integer hash against the same work in
 * C. And does a device of half the speed get half the score: the browser slowed down by half. Run by bin/bench.
 */
public final class WorkloadTruth {
    /** Whether only to see that it works: the smallest size that goes through everything. */
    private static final boolean SMALLEST = Boolean.getBoolean("yarrowmark.smallest");

    private static final int TIMED_MS = SMALLEST ? 100 : 3_000;

    /** The hash of web/src/workloads/weir-hash once more, in C. */
    private static final String IN_C =
            """
        #include <stdint.h>
        #include <stdio.h>
        #include <time.h>
        static uint32_t block[4096];
        static inline uint32_t rotl(uint32_t x, int n) { return (x << n) | (x >> (32 - n)); }
        static uint32_t operate(void) {
          uint32_t a = 0x79617272, b = 0x6f776d61, c = 0x726b7765, d = 0x69722121;
          for (uint32_t pass = 0; pass < 64; pass++) {
            for (int i = 0; i < 4096; i += 4) {
              a = rotl(a + block[i], 7) ^ d;
              b = rotl(b + (block[i + 1] ^ a), 11) + c;
              c = rotl(c ^ (block[i + 2] + b), 17) + a;
              d = rotl(d + (block[i + 3] ^ c), 23) ^ b;
            }
            a += pass;
          }
          return a ^ b ^ c ^ d;
        }
        static double now(void) { struct timespec t; clock_gettime(CLOCK_MONOTONIC, &t); return t.tv_sec + t.tv_nsec * 1e-9; }
        int main(void) {
          uint32_t x = 20260401;
          for (int i = 0; i < 4096; i++) { x ^= x << 13; x ^= x >> 17; x ^= x << 5; block[i] = x; }
          long rounds = 0;
          double start = now(), end;
          do { for (int i = 0; i < 100; i++, rounds++) if (operate() != 494973052u) return 1; } while ((end = now()) - start < 3);
          printf("%f\\n", rounds / (end - start));
          return 0;
        }
        """;

    private WorkloadTruth() {}

    public static void main(String[] arguments) throws Exception {
        try (Program program = Program.start("demo", "truth");
                Browser reviewer = new Browser()) {
            reviewer.signIntoDemo(program.address());
            Rounds rounds = new Rounds(program, reviewer);
            double inC = inC();
            double inBrowser;
            try (Browser device = new Browser(900, 700)) {
                inBrowser = rounds.carryOut(device, "weir-hash-one"::equals, 3, TIMED_MS).stream()
                        .mapToDouble(Rounds.Score::value)
                        .sorted()
                        .skip(1)
                        .findFirst()
                        .orElseThrow();
            }
            System.out.printf(
                    Locale.ROOT,
                    "Weir hash, one thread: %.0f ops/s in the browser, %.0f in C (gcc -O2), ratio %.2f%n",
                    inBrowser,
                    inC,
                    inBrowser / inC);

            // The browser slows down pages and not workers, so this is a test that runs in the page; and the hash is
            // called there.
            Set<String> inPage = Set.of("species-list");
            Map<String, Double> full = medians(rounds, inPage, 1);
            Map<String, Double> half = medians(rounds, inPage, 2);
            System.out.println("The browser slowed down to half:");
            inPage.stream()
                    .sorted()
                    .forEach(key -> System.out.printf(
                            Locale.ROOT,
                            "  %-24s %10.1f and %10.1f, ratio %.3f%n",
                            key,
                            full.get(key),
                            half.get(key),
                            half.get(key) / full.get(key)));
            try (Browser device = new Browser(900, 700)) {
                device.open(program.address() + "j");
                // On a machine that is busy otherwise, and slowed down to half, it takes longer than a page usually
                // may.
                device.driver().manage().timeouts().scriptTimeout(Duration.ofMinutes(4));
                double whole = inPage(device, 1);
                double slowed = inPage(device, 2);
                System.out.printf(
                        Locale.ROOT,
                        "  %-24s %10.1f and %10.1f, ratio %.3f%n",
                        "weir hash in the page",
                        whole,
                        slowed,
                        slowed / whole);
            }
        }
    }

    private static Map<String, Double> medians(Rounds rounds, Set<String> keys, int slower) {
        try (Browser device = new Browser(900, 700)) {
            device.driver().executeCdpCommand("Emulation.setCPUThrottlingRate", Map.of("rate", slower));
            List<Rounds.Score> scores = rounds.carryOut(device, keys::contains, 3, TIMED_MS);
            Function<List<Double>, Double> middle = values ->
                    values.stream().sorted().skip(values.size() / 2).findFirst().orElseThrow();
            return scores.stream()
                    .filter(s -> s.value() != null)
                    .collect(Collectors.groupingBy(
                            Rounds.Score::key,
                            Collectors.collectingAndThen(
                                    Collectors.mapping(Rounds.Score::value, Collectors.toList()), middle)));
        }
    }

    /** The compiled hash as it is, called by the page itself: rounds a second. */
    private static double inPage(Browser device, int slower) {
        device.driver().executeCdpCommand("Emulation.setCPUThrottlingRate", Map.of("rate", slower));
        Object answer = device.driver()
                .executeAsyncScript(
                        """
            const done = arguments[arguments.length - 1];
            (async () => {
              // The build decides in which of its files the name stands: all that the page leads to are read until it is found.
              const left = [(await (await fetch('/j')).text()).match(/src="([^"]*device[^"]*\\.js)"/)[1]];
              const seen = new Set(left);
              let wasm;
              while (!wasm) {
                if (left.length === 0) throw new Error('no file of the page names weir-hash');
                const script = await (await fetch(left.shift())).text();
                wasm = script.match(/weir-hash-[\\w-]+\\.wasm/)?.[0];
                for (const name of script.match(/[\\w-]+\\.js/g) ?? []) {
                  if (!seen.has('/assets/' + name)) left.push('/assets/' + name);
                  seen.add('/assets/' + name);
                }
              }
              const { instance } = await WebAssembly.instantiate(await (await fetch('/assets/' + wasm)).arrayBuffer(), { env: { abort() {} } });
              instance.exports.prepare(20260401);
              for (let i = 0; i < 2000; i++) instance.exports.operate();
              const rates = [];
              for (let sample = 0; sample < 50; sample++) {
                const start = performance.now();
                for (let i = 0; i < 200; i++) instance.exports.operate();
                rates.push(200000 / (performance.now() - start));
              }
              done(rates.sort((a, b) => a - b)[25]);
            })().catch((failed) => done(String(failed)));""");
        if (answer instanceof Number rate) {
            return rate.doubleValue();
        }
        throw new IllegalStateException("the hash was not called in the page: " + answer);
    }

    private static double inC() throws IOException, InterruptedException {
        Path folder = Files.createTempDirectory("yarrowmark-truth");
        Path source = Files.writeString(folder.resolve("hash.c"), IN_C);
        Path program = folder.resolve("hash");
        if (new ProcessBuilder("gcc", "-O2", "-o", program.toString(), source.toString())
                        .inheritIO()
                        .start()
                        .waitFor()
                != 0) {
            throw new IOException("gcc did not compile the hash");
        }
        Process run = new ProcessBuilder(program.toString())
                .redirectError(ProcessBuilder.Redirect.INHERIT)
                .start();
        String said = new String(run.getInputStream().readAllBytes());
        if (run.waitFor() != 0) {
            throw new IOException("the hash in C has another answer");
        }
        return Double.parseDouble(said.strip());
    }
}
