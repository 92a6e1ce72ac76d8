package yarrowmark.runner.offline;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import yarrowmark.core.rule.PrintedScore;
import yarrowmark.runner.NativeTest;
import yarrowmark.runner.command.CommandTest;
import yarrowmark.runner.kernel.WrongAnswer;
import yarrowmark.runner.measure.Measurement;

/** The runner's own tests and a plan's commands, as the ledger's catalogue names them and their numbers. */
final class OfflineCatalogue {
    private static final JsonMapper JSON = new JsonMapper();
    /** The key of a score that stands in what a command prints. */
    private static final String VALUE = "value";

    private OfflineCatalogue() {}

    /** A number of a test, as rows name it. @param direction empty where the catalogue knows it */
    record Number(String name, String unit, String direction) {
        static final Number NONE = new Number("", "", "");

        static Number less(String name, String unit) {
            return new Number(name, unit, "less");
        }
    }

    /** Where a test stands in the catalogue, and its numbers by their keys, the one that it stands with first. */
    record Entry(
            String suite,
            String version,
            String mode,
            String test,
            Map<String, Number> metrics,
            boolean curve,
            OfflinePlan.@Nullable Output output) {
        /** A command's numbers are those that the bench gives to one. */
        static Entry of(OfflinePlan.TimedTest command) {
            OfflinePlan.Output output = command.output();
            Map<String, Number> metrics = new LinkedHashMap<>();
            if (output != null) {
                metrics.put(VALUE, new Number(command.name(), output.pattern().unit(), output.direction()));
            }
            metrics.put(
                    CommandTest.WALL, Number.less(output == null ? command.name() : command.name() + ", time", "s"));
            metrics.put("user", Number.less(command.name() + ", user time", "s"));
            metrics.put("system", Number.less(command.name() + ", system time", "s"));
            metrics.put("peak-memory", Number.less(command.name() + ", peak memory", "B"));
            return new Entry(
                    command.suite(), command.version(), command.mode(), command.name(), metrics, false, output);
        }

        PartialFile.Key key() {
            return new PartialFile.Key(suite, version, mode, test);
        }

        String main() {
            return metrics.keySet().iterator().next();
        }

        /** The score in place of the time, where it stands in what was printed; the time is one of its other numbers. */
        Measurement scored(Measurement measured) throws WrongAnswer {
            if (output == null) {
                return measured;
            }
            PrintedScore score = PrintedScore.of(output.pattern(), measured.output() == null ? "" : measured.output());
            if (score instanceof PrintedScore.None none) {
                throw new WrongAnswer(none.reason());
            }
            PrintedScore.Score found = (PrintedScore.Score) score;
            List<Measurement.More> more = new ArrayList<>();
            more.add(new Measurement.More(CommandTest.WALL, measured.value(), measured.resolution()));
            more.addAll(measured.more());
            return new Measurement(
                    found.value(),
                    found.resolution(),
                    measured.samples(),
                    measured.timedMs(),
                    more,
                    measured.note(),
                    measured.output());
        }
    }

    /** By the keys that plans use. */
    static Map<String, Entry> read() {
        Map<String, Entry> all = new LinkedHashMap<>();
        try (InputStream in = Objects.requireNonNull(
                NativeTest.class.getResourceAsStream("/yarrowmark/workloads/native-suites.json"))) {
            for (JsonNode suite : JSON.readTree(in).path("suites")) {
                for (JsonNode test : suite.path("tests")) {
                    Map<String, Number> metrics = new LinkedHashMap<>();
                    boolean curve = false;
                    for (JsonNode metric : test.path("metrics")) {
                        curve |= metric.path("kind").asString("").equals("CURVE");
                        String name = test.path("name").asString()
                                + (metric.has("words")
                                        ? ", " + metric.path("words").asString()
                                        : "");
                        metrics.put(
                                metric.path("key").asString(),
                                new Number(name, metric.path("unit").asString(), ""));
                    }
                    all.put(
                            test.path("key").asString(),
                            new Entry(
                                    suite.path("name").asString(),
                                    suite.path("version").asString(),
                                    "",
                                    test.path("name").asString(),
                                    metrics,
                                    curve,
                                    null));
                }
            }
            return all;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
