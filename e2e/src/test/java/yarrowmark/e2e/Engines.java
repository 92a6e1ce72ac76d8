package yarrowmark.e2e;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Predicate;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.openqa.selenium.WebDriverException;

/**
 * The short round over every built-in suite in each engine, and a table of what ran, what could not and why. Run by
 * bin/engines.
 */
public final class Engines {
    private static final int TIMED_MS = Integer.getInteger("yarrowmark.timed", 200);
    private static final int RUNS = Integer.getInteger("yarrowmark.runs", 3);
    private static final Pattern WANTED = Pattern.compile(System.getProperty("yarrowmark.tests", ".*"));

    /** What an engine made of a test. @param words why there is no value; empty where there is one */
    private record Result(List<Double> values, String unit, String words, double timedShare) {
        double median() {
            return values.stream().sorted().skip(values.size() / 2).findFirst().orElseThrow();
        }

        /** In per cent of the mean. */
        double spread() {
            double mean =
                    values.stream().mapToDouble(Double::doubleValue).average().orElseThrow();
            double squares =
                    values.stream().mapToDouble(v -> (v - mean) * (v - mean)).sum();
            return 100 * Math.sqrt(squares / (values.size() - 1)) / mean;
        }
    }

    private Engines() {}

    static UnderTest device(String engine) throws IOException {
        return switch (engine) {
            case "chromium" -> new Browser(1280, 800);
            case "firefox" -> new GeckoDevice();
            case "webkit" -> new WebKitDevice();
            default -> throw new IllegalArgumentException("there is no engine " + engine);
        };
    }

    public static void main(String[] arguments) throws Exception {
        Path file = Path.of(arguments[0]);
        List<String> engines = List.of(arguments).subList(1, arguments.length);
        Map<String, Map<String, Result>> all = new LinkedHashMap<>();
        Map<String, String> names = new LinkedHashMap<>();
        Map<String, String> agents = new LinkedHashMap<>();
        try (Program program = Program.start("demo", "engines");
                Browser reviewer = new Browser()) {
            reviewer.signIntoDemo(program.address());
            Rounds rounds = new Rounds(program, reviewer);
            // A loop of a test answers as the test does, and takes minutes.
            Predicate<String> wanted = k -> !k.matches("endurance-.*|battery-.*|network-walk")
                    && WANTED.matcher(k).matches();
            for (String engine : engines) {
                long began = System.nanoTime();
                Map<String, Result> results = new LinkedHashMap<>();
                all.put(engine, results);
                // An encoder may take its page along: each of those has a browser of its own.
                List<String> keys = rounds.keys().stream().filter(wanted).toList();
                List<List<String>> parts = new ArrayList<>();
                parts.add(keys.stream().filter(k -> !k.startsWith("video-")).toList());
                keys.stream().filter(k -> k.startsWith("video-")).forEach(k -> parts.add(List.of(k)));
                parts.removeIf(List::isEmpty);
                for (List<String> part : parts) {
                    try (UnderTest device = device(engine)) {
                        List<Rounds.Score> scores = rounds.carryOut(device, part::contains, RUNS, TIMED_MS);
                        scores.forEach(s -> names.putIfAbsent(s.key(), s.test()));
                        agents.put(engine, device.agent());
                        results.putAll(results(scores));
                    } catch (WebDriverException e) {
                        if (part.size() > 1) {
                            throw e;
                        }
                        names.putIfAbsent(
                                part.get(0), String.valueOf(rounds.names().get(part.get(0))));
                        results.put(
                                part.get(0),
                                new Result(List.of(), "", "the page went away in the middle of it", Double.NaN));
                    }
                    // After each, as one that breaks off takes nothing of the others away.
                    Files.writeString(file, page(all, names, agents));
                }
                System.out.printf(
                        Locale.ROOT,
                        "%s: %d tests with a score, %d without, %.0f s%n",
                        engine,
                        all.get(engine).values().stream()
                                .filter(r -> !r.values().isEmpty())
                                .count(),
                        all.get(engine).values().stream()
                                .filter(r -> r.values().isEmpty())
                                .count(),
                        (System.nanoTime() - began) / 1e9);
                results.forEach((key, r) -> {
                    if (!r.words().isEmpty()) {
                        System.out.println("  " + names.get(key) + ": " + r.words());
                    }
                });
            }
        }
    }

    private static Map<String, Result> results(List<Rounds.Score> scores) {
        Map<String, List<Rounds.Score>> byKey = scores.stream()
                .collect(Collectors.groupingBy(Rounds.Score::key, LinkedHashMap::new, Collectors.toList()));
        Map<String, Result> results = new LinkedHashMap<>();
        byKey.forEach((key, own) -> {
            List<Rounds.Score> good =
                    own.stream().filter(s -> s.first() && s.value() != null).toList();
            String words = own.stream()
                    .filter(s -> s.value() == null && !s.state().equals("STOPPED"))
                    .map(s -> (s.state().equals("FAILED") ? "failed: " : "") + s.words())
                    .findFirst()
                    .orElse("");
            results.put(
                    key,
                    new Result(
                            good.stream().map(Rounds.Score::value).toList(),
                            good.isEmpty() ? "" : good.get(0).unit(),
                            good.isEmpty() && words.isEmpty() ? "no score came" : words,
                            good.stream()
                                    .filter(s -> s.durationMs() > 0)
                                    .mapToDouble(s -> s.timedMs() / s.durationMs())
                                    .average()
                                    .orElse(Double.NaN)));
        });
        return results;
    }

    private static String page(
            Map<String, Map<String, Result>> all, Map<String, String> names, Map<String, String> agents) {
        StringBuilder out = new StringBuilder(
                """
                # Engines

                Made by `bin/engines`, which carries the short round over every built-in suite out in each engine, headless or on a display that nobody sees, and writes this page. A score is the median of %d runs of %d ms; behind it the spread of the runs in per cent of their mean, and the timed share of a run in per cent. Every run that has a score gave the known answer: the same in each engine.

                """
                        .formatted(RUNS, TIMED_MS));
        if (!WANTED.pattern().equals(".*")) {
            out.append("Only tests whose key is of the form `")
                    .append(WANTED.pattern().replace("|", "\\|"))
                    .append("` were carried out this time.\n\n");
        }
        out.append("On ")
                .append(LocalDate.now(ZoneOffset.UTC))
                .append(", two virtual cores, no graphics processor:\n\n");
        agents.forEach((engine, agent) ->
                out.append("- ").append(engine).append(": `").append(agent).append("`\n"));
        out.append("\n| test | unit | ")
                .append(String.join(" | ", all.keySet()))
                .append(" |\n|---|---|");
        out.append("---|".repeat(all.size())).append('\n');
        Map<String, List<String>> why = new TreeMap<>();
        names.forEach((key, name) -> {
            List<String> cells = new ArrayList<>();
            all.forEach((engine, results) -> {
                Result r = results.get(key);
                if (r != null && !r.words().isEmpty()) {
                    why.computeIfAbsent(engine + ": " + r.words(), w -> new ArrayList<>())
                            .add(name);
                }
                cells.add(r == null ? "" : cell(r));
            });
            String unit = all.values().stream()
                    .map(results -> results.get(key))
                    .filter(r -> r != null && !r.unit().isEmpty())
                    .map(Result::unit)
                    .findFirst()
                    .orElse("");
            out.append("| ").append(name).append(" | ").append(unit).append(" | ");
            out.append(String.join(" | ", cells)).append(" |\n");
        });
        out.append("\n## What could not run, and why\n\n");
        if (why.isEmpty()) {
            out.append("Nothing.\n");
        }
        why.forEach((words, tests) -> out.append("- ")
                .append(words)
                .append(" (")
                .append(String.join(", ", tests))
                .append(")\n"));
        return out.toString();
    }

    private static String cell(Result r) {
        if (r.values().isEmpty()) {
            return r.words().startsWith("failed") ? "failed" : "–";
        }
        String share = Double.isNaN(r.timedShare()) ? "" : String.format(Locale.ROOT, ", %.0f", 100 * r.timedShare());
        String spread = r.values().size() < 2 ? "" : String.format(Locale.ROOT, "%.1f", r.spread());
        return String.format(Locale.ROOT, "%.4g", r.median())
                + Optional.of(spread + share)
                        .filter(w -> !w.isEmpty())
                        .map(w -> " (" + w + ")")
                        .orElse("");
    }
}
