package yarrowmark.runner.offline;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.math.BigDecimal;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import yarrowmark.runner.NativeTest;
import yarrowmark.runner.kernel.WrongAnswer;
import yarrowmark.runner.measure.Measurement;

/**
 * Carries out a plan where there is no bench, into a file that the ledger reads in: a row for each number, flushed as soon as
 * its run is over, so that whatever was measured before a crash is there.
 */
public final class OfflineRound {
    private static final JsonMapper JSON = new JsonMapper();

    /** Where a test stands in the catalogue, and its numbers by their keys: name and unit. */
    private record Entry(String suite, String version, String test, Map<String, String[]> metrics, boolean curve) {}

    private final OfflinePlan plan;
    private final Map<String, String> facts;
    private final Map<String, NativeTest> tests;
    private final NativeTest.Options options;
    private final Consumer<String> tell;
    private final Map<String, Entry> catalogue = catalogue();

    /** @param facts in base units */
    public OfflineRound(
            OfflinePlan plan,
            Map<String, String> facts,
            Map<String, NativeTest> tests,
            NativeTest.Options options,
            Consumer<String> tell) {
        this.plan = plan;
        this.facts = facts;
        this.tests = tests;
        this.options = new NativeTest.Options(plan.timedMs(), options.threads(), options.folder());
        this.tell = tell;
    }

    private static Map<String, Entry> catalogue() {
        Map<String, Entry> all = new LinkedHashMap<>();
        try (InputStream in = Objects.requireNonNull(
                NativeTest.class.getResourceAsStream("/yarrowmark/workloads/native-suites.json"))) {
            for (JsonNode suite : JSON.readTree(in).path("suites")) {
                for (JsonNode test : suite.path("tests")) {
                    Map<String, String[]> metrics = new LinkedHashMap<>();
                    boolean curve = false;
                    for (JsonNode metric : test.path("metrics")) {
                        curve |= metric.path("kind").asString("").equals("CURVE");
                        String name = test.path("name").asString()
                                + (metric.has("words")
                                        ? ", " + metric.path("words").asString()
                                        : "");
                        metrics.put(
                                metric.path("key").asString(),
                                new String[] {name, metric.path("unit").asString()});
                    }
                    all.put(
                            test.path("key").asString(),
                            new Entry(
                                    suite.path("name").asString(),
                                    suite.path("version").asString(),
                                    test.path("name").asString(),
                                    metrics,
                                    curve));
                }
            }
            return all;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** @param file that must not be there yet: what was measured is never written over */
    public void run(Path file) throws IOException, InterruptedException {
        Instant started = Instant.now().truncatedTo(ChronoUnit.SECONDS);
        try (FileChannel out = FileChannel.open(file, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE)) {
            List<String> head = new ArrayList<>(List.of("maker", "model", "class", "unit"));
            facts.keySet().forEach(key -> head.add("fact:" + key));
            head.addAll(List.of(
                    "suite",
                    "version",
                    "mode",
                    "test",
                    "metric",
                    "measure unit",
                    "session",
                    "started",
                    "run",
                    "attempt",
                    "finished",
                    "state",
                    "reason",
                    "value",
                    "resolution",
                    "note"));
            put(out, head);
            boolean first = true;
            for (String key : plan.tests()) {
                Entry entry = Objects.requireNonNull(catalogue.get(key));
                if (entry.curve()) {
                    tell.accept(entry.test() + " is left out: a file of rows has no room for curves.");
                    continue;
                }
                NativeTest test = Objects.requireNonNull(tests.get(key));
                for (int run = 1; run <= plan.runs(); run++) {
                    if (!first) {
                        Thread.sleep(plan.pauseMs());
                    }
                    first = false;
                    if (!once(out, test, entry, started, run)) {
                        break;
                    }
                }
            }
        }
    }

    /** @return whether its other runs can be carried out */
    private boolean once(FileChannel out, NativeTest test, Entry entry, Instant started, int run)
            throws IOException, InterruptedException {
        NativeTest.Obstacle obstacle = test.obstacle(options).orElse(null);
        if (obstacle != null) {
            put(out, row(entry, started, run, "", "could not run", obstacle.reason(), "", "", obstacle.words()));
            tell.accept(entry.test() + ": " + obstacle.words());
            return false;
        }
        try {
            Measurement measured = test.run(options);
            String note = measured.note() == null ? "" : measured.note();
            String main = entry.metrics().keySet().iterator().next();
            put(
                    out,
                    row(
                            entry,
                            started,
                            run,
                            main,
                            "ok",
                            "",
                            plain(measured.value()),
                            plain(measured.resolution()),
                            note));
            for (Measurement.More more : measured.more()) {
                put(
                        out,
                        row(
                                entry,
                                started,
                                run,
                                more.metric(),
                                "ok",
                                "",
                                plain(more.value()),
                                plain(more.resolution()),
                                note));
            }
            tell.accept(entry.test() + ", run " + run + ": " + plain(measured.value())
                    + (note.isEmpty() ? "" : " (" + note + ")"));
        } catch (InterruptedException e) {
            throw e;
        } catch (Exception | OutOfMemoryError e) {
            String reason = e instanceof WrongAnswer ? "wrong answer" : e instanceof Error ? "out of memory" : "error";
            put(out, row(entry, started, run, "", "failed", reason, "", "", String.valueOf(e.getMessage())));
            tell.accept(entry.test() + ", run " + run + ": " + e.getMessage());
        }
        return true;
    }

    /** Without an exponent, which not every program reads. */
    private static String plain(double value) {
        return new BigDecimal(Double.toString(value)).stripTrailingZeros().toPlainString();
    }

    private List<String> row(
            Entry entry,
            Instant started,
            int run,
            String metric,
            String state,
            String reason,
            String value,
            String resolution,
            String note) {
        List<String> row = new ArrayList<>(List.of(
                plan.maker(),
                plan.model(),
                plan.deviceClass() == null ? "" : plan.deviceClass(),
                plan.unit() == null ? "" : plan.unit()));
        row.addAll(facts.values());
        String[] named = entry.metrics().getOrDefault(metric, new String[] {"", ""});
        row.addAll(List.of(
                entry.suite(),
                entry.version(),
                "",
                entry.test(),
                named[0],
                named[1],
                plan.name(),
                started.toString(),
                String.valueOf(run),
                "1",
                Instant.now().truncatedTo(ChronoUnit.SECONDS).toString(),
                state,
                reason.toLowerCase(java.util.Locale.ROOT).replace('_', ' '),
                value,
                resolution,
                note));
        return row;
    }

    private static void put(FileChannel out, List<String> cells) throws IOException {
        String line = cells.stream().map(OfflineRound::cell).collect(Collectors.joining(",", "", "\r\n"));
        ByteBuffer bytes = ByteBuffer.wrap(line.getBytes(StandardCharsets.UTF_8));
        while (bytes.hasRemaining()) {
            out.write(bytes);
        }
        out.force(false);
    }

    /** Quoted where it has to be (RFC 4180); what a spreadsheet would take for a formula has an apostrophe before it. */
    private static String cell(String text) {
        boolean formula = !text.isEmpty() && "=+-@\t\r".indexOf(text.charAt(0)) >= 0;
        String safe = formula ? "'" + text : text;
        return safe.matches("(?s).*[\",\r\n].*") ? '"' + safe.replace("\"", "\"\"") + '"' : safe;
    }
}
