package yarrowmark.runner.offline;

import java.io.IOException;
import java.math.BigDecimal;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import yarrowmark.runner.NativeTest;
import yarrowmark.runner.command.CommandFailed;
import yarrowmark.runner.kernel.WrongAnswer;
import yarrowmark.runner.measure.Measurement;
import yarrowmark.runner.protocol.Api;
import yarrowmark.runner.storage.WriteBudget;

/**
 * Carries out a plan where there is no bench, into a file that the ledger reads in: a row for each number, flushed as soon as
 * its run is over, so that whatever was measured before a crash is there.
 */
public final class OfflineRound {
    private final OfflinePlan plan;
    private final Map<String, String> facts;
    private final Map<String, NativeTest> tests;
    private final NativeTest.Options options;
    private final Consumer<String> tell;
    private final Map<String, OfflineCatalogue.Entry> catalogue = OfflineCatalogue.read();

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

    /**
     * Writes into a partial file beside it, and goes on with one that is there.
     *
     * @param file that must not be there yet: what was measured is never written over
     */
    public void run(Path file) throws IOException, InterruptedException {
        if (Files.exists(file)) {
            throw new FileAlreadyExistsException(file.toString());
        }
        Path part = PartialFile.of(file);
        List<String> head = head();
        PartialFile before = PartialFile.read(part, head);
        Instant started = before.started() == null ? Instant.now().truncatedTo(ChronoUnit.SECONDS) : before.started();
        try (FileChannel out = FileChannel.open(part, StandardOpenOption.CREATE, StandardOpenOption.WRITE)) {
            out.truncate(before.bytes()).position(before.bytes());
            if (before.bytes() == 0) {
                put(out, List.of(head));
            } else {
                tell.accept("Goes on with what was begun at " + started + ": "
                        + before.done().size() + " runs are in " + part + ".");
            }
            boolean first = true;
            for (OfflinePlan.Planned planned : plan.tests()) {
                OfflinePlan.TimedTest command = planned.command();
                OfflineCatalogue.Entry entry = command == null
                        ? Objects.requireNonNull(catalogue.get(planned.key()))
                        : OfflineCatalogue.Entry.of(command);
                NativeTest test = Objects.requireNonNull(tests.get(planned.key()));
                for (int run = 1; run <= plan.runs(); run++) {
                    if (before.has(entry.key(), run)) {
                        continue;
                    }
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
        Files.move(part, file, StandardCopyOption.ATOMIC_MOVE);
    }

    /** The file that a runner which was ended left beside a plan, as it will be called when it is done. */
    public static Optional<Path> begunBeside(Path plan) throws IOException {
        return PartialFile.beside(plan, nameOf(plan) + "-");
    }

    /** What the files of a plan begin with. */
    public static String nameOf(Path plan) {
        return plan.getFileName().toString().replaceAll("\\.json$", "");
    }

    private List<String> head() {
        List<String> head = new ArrayList<>(List.of("maker", "model", "class", "unit"));
        facts.keySet().forEach(key -> head.add("fact:" + key));
        head.addAll(List.of(
                "suite",
                "version",
                "mode",
                "test",
                "metric",
                "measure unit",
                "direction",
                "session",
                "started",
                "run",
                "attempt",
                "finished",
                "state",
                "reason",
                "value",
                "resolution",
                "points",
                "note"));
        return head;
    }

    /** @return whether its other runs can be carried out */
    private boolean once(FileChannel out, NativeTest test, OfflineCatalogue.Entry entry, Instant started, int run)
            throws IOException, InterruptedException {
        NativeTest.Obstacle obstacle = test.obstacle(options).orElse(null);
        if (obstacle != null) {
            return impossible(out, entry, started, run, obstacle.reason(), obstacle.words());
        }
        try {
            Measurement measured = entry.scored(test.run(options));
            String note = measured.note() == null ? "" : measured.note();
            List<List<String>> rows = new ArrayList<>();
            rows.add(row(
                    entry,
                    started,
                    run,
                    entry.main(),
                    "ok",
                    "",
                    entry.curve() ? Cells.of(measured.samples()) : Cells.of(measured.value(), measured.resolution()),
                    note));
            for (Measurement.More more : measured.more()) {
                if (!entry.metrics().containsKey(more.metric())) {
                    continue;
                }
                rows.add(row(
                        entry, started, run, more.metric(), "ok", "", Cells.of(more.value(), more.resolution()), note));
            }
            put(out, rows);
            tell.accept(entry.test() + ", run " + run + ": " + plain(measured.value())
                    + (note.isEmpty() ? "" : " (" + note + ")"));
        } catch (InterruptedException e) {
            throw e;
        } catch (WriteBudget.Spent e) {
            return impossible(out, entry, started, run, Api.Reason.WRITE_LIMIT.name(), e.getMessage());
        } catch (Exception | OutOfMemoryError e) {
            if (e instanceof CommandFailed failed && failed.reason() == Api.Reason.NOT_SUPPORTED) {
                return impossible(out, entry, started, run, failed.reason().name(), e.getMessage());
            }
            String reason = e instanceof CommandFailed failed
                    ? failed.reason().name()
                    : e instanceof WrongAnswer ? "wrong answer" : e instanceof Error ? "out of memory" : "error";
            put(
                    out,
                    List.of(row(
                            entry, started, run, "", "failed", reason, Cells.NONE, String.valueOf(e.getMessage()))));
            tell.accept(entry.test() + ", run " + run + ": " + e.getMessage());
        }
        return true;
    }

    /** @return that its other runs cannot be carried out either */
    private boolean impossible(
            FileChannel out,
            OfflineCatalogue.Entry entry,
            Instant started,
            int run,
            String reason,
            @Nullable String words)
            throws IOException {
        String said = words == null ? "It cannot run here." : words;
        put(out, List.of(row(entry, started, run, "", "could not run", reason, Cells.NONE, said)));
        tell.accept(entry.test() + ": " + said);
        return false;
    }

    /** What was measured, as it stands in a row: one number, or the points of a curve, a pair on each line. */
    private record Cells(String value, String resolution, String points) {
        static final Cells NONE = new Cells("", "", "");

        static Cells of(double value, double resolution) {
            return new Cells(plain(value), plain(resolution), "");
        }

        static Cells of(List<Double> points) {
            StringBuilder lines = new StringBuilder();
            for (int i = 0; i + 1 < points.size(); i += 2) {
                lines.append(i == 0 ? "" : "\n")
                        .append(plain(points.get(i)))
                        .append("; ")
                        .append(plain(points.get(i + 1)));
            }
            return new Cells("", "", lines.toString());
        }
    }

    /** Without an exponent, which not every program reads. */
    private static String plain(double value) {
        return new BigDecimal(Double.toString(value)).stripTrailingZeros().toPlainString();
    }

    private List<String> row(
            OfflineCatalogue.Entry entry,
            Instant started,
            int run,
            String metric,
            String state,
            String reason,
            Cells cells,
            String note) {
        List<String> row = new ArrayList<>(List.of(
                plan.maker(),
                plan.model(),
                plan.deviceClass() == null ? "" : plan.deviceClass(),
                plan.unit() == null ? "" : plan.unit()));
        row.addAll(facts.values());
        OfflineCatalogue.Number number = entry.metrics().getOrDefault(metric, OfflineCatalogue.Number.NONE);
        row.addAll(List.of(
                entry.suite(),
                entry.version(),
                entry.mode(),
                entry.test(),
                number.name(),
                number.unit(),
                number.direction(),
                plan.name(),
                started.toString(),
                String.valueOf(run),
                "1",
                Instant.now().truncatedTo(ChronoUnit.SECONDS).toString(),
                state,
                reason.toLowerCase(java.util.Locale.ROOT).replace('_', ' '),
                cells.value(),
                cells.resolution(),
                cells.points(),
                note));
        return row;
    }

    /** All rows of a run at once, so that a run has either all of them or none. */
    private static void put(FileChannel out, List<List<String>> rows) throws IOException {
        String lines = rows.stream()
                .map(cells -> cells.stream().map(OfflineRound::cell).collect(Collectors.joining(",", "", "\r\n")))
                .collect(Collectors.joining());
        ByteBuffer bytes = ByteBuffer.wrap(lines.getBytes(StandardCharsets.UTF_8));
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
