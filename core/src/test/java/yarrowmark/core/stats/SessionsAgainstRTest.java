package yarrowmark.core.stats;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.Test;
import yarrowmark.core.compare.Materiality;
import yarrowmark.core.compare.OverallComparison;
import yarrowmark.core.compare.PairComparison;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Measured;
import yarrowmark.core.measure.Scale;

/** Sessions of several days through pairs and overalls, held against R 4.2.2 (core/src/test/r/sessions.R). */
class SessionsAgainstRTest {
    private static final String READINGS = "sessions-readings.csv";
    private static final double NINE_DIGITS = 5e-10;

    private record Line(double ratio, double low, double high, double degreesOfFreedom) {}

    private static List<String[]> rows(String text) {
        return text.lines().skip(1).map(l -> l.split(",")).toList();
    }

    private static String file(String name) throws IOException {
        try (InputStream in = SessionsAgainstRTest.class.getResourceAsStream(name)) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    private static Map<List<String>, Line> lines(String text) {
        Map<List<String>, Line> lines = new LinkedHashMap<>();
        rows(text)
                .forEach(c -> lines.put(
                        List.of(c[0], c[1]),
                        new Line(
                                Double.parseDouble(c[2]),
                                Double.parseDouble(c[3]),
                                Double.parseDouble(c[4]),
                                Double.parseDouble(c[5]))));
        return lines;
    }

    private static Line line(PairComparison.Interval i, double ratio) {
        return new Line(ratio, i.low(), i.high(), i.degreesOfFreedom());
    }

    /** By test, by configuration. */
    private static Map<String, Map<String, Sample>> samples() throws IOException {
        Map<String, Map<String, Map<String, List<Measured>>>> read = new LinkedHashMap<>();
        Map<String, Direction> direction = new LinkedHashMap<>();
        for (String[] c : rows(file(READINGS))) {
            direction.put(c[2], c[3].equals("more") ? Direction.MORE_IS_BETTER : Direction.LESS_IS_BETTER);
            read.computeIfAbsent(c[2], t -> new TreeMap<>())
                    .computeIfAbsent(c[0], k -> new TreeMap<>())
                    .computeIfAbsent(c[1], s -> new ArrayList<>())
                    .add(new Measured(Double.parseDouble(c[4]), Double.parseDouble(c[5])));
        }
        Map<String, Map<String, Sample>> samples = new LinkedHashMap<>();
        read.forEach((test, configurations) -> configurations.forEach((k, sessions) -> {
            List<Sample.OfSession> parts = new ArrayList<>();
            // "a2" is the second session of a; sessions of different configurations are different ones.
            sessions.forEach((s, readings) -> parts.add(new Sample.OfSession(
                    100L * s.charAt(0) + s.charAt(1), SampleMoments.of(readings, direction.get(test), Scale.RATIO))));
            samples.computeIfAbsent(test, t -> new TreeMap<>()).put(k, Sample.of(parts));
        }));
        return samples;
    }

    private static Map<List<String>, Line> computed() throws IOException {
        Map<String, Map<String, Sample>> samples = samples();
        List<String> tests = List.copyOf(samples.keySet());
        Optional<NoisePrior> whole = NoisePrior.fit(
                samples.values().stream().flatMap(m -> m.values().stream()).toList());
        List<Optional<NoisePrior>> priors = tests.stream()
                .map(t -> NoisePrior.fit(samples.get(t).values()).or(() -> whole))
                .toList();
        List<SessionNoise.Cell> cells = new ArrayList<>();
        for (int j = 0; j < tests.size(); j++) {
            int metric = j;
            samples.get(tests.get(j)).forEach((k, s) -> cells.add(new SessionNoise.Cell(k.charAt(0), metric, s)));
        }
        List<Noise> runs = priors.stream().map(Noise::ofRuns).toList();
        List<Optional<SessionNoise>> days = SessionNoise.fit(cells, runs).noise();
        List<Noise> noise = IntStream.range(0, tests.size())
                .mapToObj(j -> runs.get(j).withDays(days.get(j).orElseThrow()))
                .toList();
        SharedDay day = SharedDay.fit(cells, noise);
        Map<List<String>, Line> lines = new LinkedHashMap<>();
        for (String other : List.of("b", "c", "d", "e", "f")) {
            List<PairComparison> pairs = new ArrayList<>();
            for (int j = 0; j < tests.size(); j++) {
                Map<String, Sample> of = samples.get(tests.get(j));
                if (of.containsKey("a") && of.containsKey(other)) {
                    PairComparison pair =
                            PairComparison.of(of.get(other), of.get("a"), noise.get(j), Materiality.USUAL);
                    pairs.add(pair);
                    lines.put(List.of(other, tests.get(j)), line(pair.interval(), pair.ratio()));
                }
            }
            double[] weights = new double[pairs.size()];
            Arrays.fill(weights, 1);
            OverallComparison all = OverallComparison.of(pairs, weights, day, Materiality.USUAL);
            lines.put(List.of(other, "Overall"), line(all.interval(), all.ratio()));
        }
        lines.put(List.of("kappa", "all"), new Line(day.together(), 0, 0, day.furtherSessions()));
        return lines;
    }

    private static void same(Map<List<String>, Line> found, Map<List<String>, Line> expected) {
        assertThat(found.keySet()).isEqualTo(expected.keySet());
        found.forEach((what, line) -> {
            Line right = expected.get(what);
            assertThat(line.ratio())
                    .as("ratio of %s", what)
                    .isCloseTo(right.ratio(), within(NINE_DIGITS * right.ratio()));
            assertThat(line.low()).as("low of %s", what).isCloseTo(right.low(), within(NINE_DIGITS));
            assertThat(line.high()).as("high of %s", what).isCloseTo(right.high(), within(NINE_DIGITS * 2));
            assertThat(line.degreesOfFreedom())
                    .as("degrees of freedom of %s", what)
                    .isCloseTo(right.degreesOfFreedom(), within(1e-8 * right.degreesOfFreedom()));
        });
    }

    @Test
    void pairsAndOverallsAgreeToNineDigits() throws IOException {
        Map<List<String>, Line> expected = lines(file("sessions-expected.csv"));
        assertThat(expected).hasSizeGreaterThan(25);
        same(computed(), expected);
    }

    /** Where R is installed it makes the kept file again. */
    @Test
    void theKeptFileIsWhatRSays() throws IOException, InterruptedException {
        Process r;
        try {
            r = new ProcessBuilder(
                            "Rscript", "src/test/r/sessions.R", "src/test/resources/yarrowmark/core/stats/" + READINGS)
                    .redirectErrorStream(true)
                    .start();
        } catch (IOException e) {
            Assumptions.abort("R is not installed here");
            return;
        }
        try {
            String said = new String(r.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
            assertThat(r.waitFor()).as(said).isZero();
            same(lines(said), lines(file("sessions-expected.csv")));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } finally {
            r.destroyForcibly();
        }
    }
}
