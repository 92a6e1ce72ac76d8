package yarrowmark.core.rule;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatIllegalArgumentException;
import static org.assertj.core.api.Assertions.within;

import java.time.Duration;
import java.util.List;
import java.util.concurrent.atomic.AtomicLong;
import org.junit.jupiter.api.Assertions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class ScoreReadingTest {
    private static ScorePattern line(String expression, String unit, int occurrence) {
        return new ScorePattern("p", ScorePattern.Kind.LINE, expression, unit, occurrence);
    }

    private static List<Double> values(ScorePattern pattern, String text) {
        return ScoreReading.read(List.of(pattern), text).found().stream()
                .map(ScoreReading.FoundScore::value)
                .toList();
    }

    private static String missed(ScorePattern pattern, String text) {
        return ScoreReading.read(List.of(pattern), text).missed().get(0).reason();
    }

    @Test
    void eachOccurrenceIsARun() {
        String text = "score 10.5\nnoise\nscore 11\nscore 12.25\n";
        assertThat(ScoreReading.read(List.of(line("score ([\\d.]+)", "1", ScorePattern.EACH)), text)
                        .found())
                .extracting(
                        ScoreReading.FoundScore::run,
                        ScoreReading.FoundScore::value,
                        ScoreReading.FoundScore::resolution,
                        ScoreReading.FoundScore::line)
                .containsExactly(
                        org.assertj.core.groups.Tuple.tuple(1, 10.5, 0.1, 1),
                        org.assertj.core.groups.Tuple.tuple(2, 11.0, 1.0, 3),
                        org.assertj.core.groups.Tuple.tuple(3, 12.25, 0.01, 4));
        assertThat(values(line("score ([\\d.]+)", "1", ScorePattern.LAST), text))
                .containsExactly(12.25);
        assertThat(values(line("score ([\\d.]+)", "1", 2), text)).containsExactly(11.0);
        assertThat(missed(line("score ([\\d.]+)", "1", 4), text)).contains("only 3 times");
        assertThat(missed(line("points ([\\d.]+)", "1", ScorePattern.EACH), text))
                .contains("Nothing");
    }

    @Test
    void keysColumnsAndPointersAreFound() {
        assertThat(values(
                        new ScorePattern("k", ScorePattern.Kind.KEY, "Write speed", "MB/s", ScorePattern.EACH),
                        "  write speed : 1410.5\nWrite speed limit: 3\nWRITE SPEED=1388"))
                .containsExactly(1410.5, 1388.0);
        assertThat(values(
                        new ScorePattern("c", ScorePattern.Kind.COLUMN, "ms", "ms", ScorePattern.EACH),
                        "size;ms\n4;\"12.5\"\n8;13\n16;\n"))
                .containsExactly(12.5, 13.0);
        ScorePattern pointer = new ScorePattern("j", ScorePattern.Kind.POINTER, "/runs/1/a~1b", "s", ScorePattern.EACH);
        assertThat(values(pointer, "{\"runs\":[{\"a/b\":1.5},{\"a/b\":2.5}]}")).containsExactly(2.5);
        assertThat(values(pointer, "{\"runs\":[1,{\"a/b\":3}]}\n{\"runs\":[1,{\"a/b\":4}]}"))
                .as("one document a line")
                .containsExactly(3.0, 4.0);
        assertThat(values(pointer, "{\"runs\":[]}")).isEmpty();
        assertThat(values(pointer, "not json")).isEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "LINE    | write ([\\d.]+)   | write 1200.5 MiB/s, 4 KiB blocks | 1200.5 | MiB/s",
                "LINE    | write ([\\d.]+)   | write 1200.5MB/s                 | 1200.5 | MB/s",
                "LINE    | write ([\\d.]+)   | write 1.2 [GB/s]                 | 1.2    | GB/s",
                "LINE    | write (\\S+)      | write 1.2GB/s                    | 1.2    | GB/s",
                "LINE    | write ([\\d.]+)   | write 1200.5 on 4 threads        | 1200.5 | MB/s",
                "KEY     | Write             | Write: 1200.5 MiB/s              | 1200.5 | MiB/s",
                "KEY     | Write (MiB/s)     | Write (MiB/s): 1200.5            | 1200.5 | MiB/s",
                "COLUMN  | Write [kB/s]      | 'File;Write [kB/s]\na;800'       | 800    | kB/s",
                "POINTER | /write            | {\"write\":\"12.5 GB/s\"}         | 12.5   | GB/s",
            })
    void theUnitThatIsPrintedWins(ScorePattern.Kind kind, String expression, String text, double value, String unit) {
        ScorePattern inMegabytes = new ScorePattern("p", kind, expression, "MB/s", ScorePattern.EACH);
        ScoreReading.Scores scores = ScoreReading.read(List.of(inMegabytes), text.replace("\\n", "\n"));
        assertThat(scores.missed()).isEmpty();
        assertThat(scores.found())
                .extracting(ScoreReading.FoundScore::value, ScoreReading.FoundScore::unit)
                .containsExactly(org.assertj.core.groups.Tuple.tuple(value, unit));
    }

    @Test
    void anotherKindOfUnitIsNoScore() {
        assertThat(missed(line("took ([\\d.]+)", "s", ScorePattern.EACH), "took 12.5 MiB/s"))
                .isEqualTo("\"12.5\" in line 1 is printed in MiB/s, which does not turn into s.");
        assertThat(values(line("took ([\\d.]+)", "s", ScorePattern.EACH), "took 12.5 A"))
                .as("a letter alone may be anything")
                .containsExactly(12.5);
        assertThat(values(line("got ([\\d.]+)", "1", ScorePattern.EACH), "got 12.5 MiB/s"))
                .as("points are what the rule says they are")
                .containsExactly(12.5);
    }

    @Test
    void theTextMayTellTheUnit() {
        List<ScoreReading.FoundScore> found = ScoreReading.read(
                        List.of(line("copied, ([\\d.]+) (?P<unit>[kMG]B/s)", "MB/s", ScorePattern.EACH)),
                        "copied, 1.2 GB/s\ncopied, 850 MB/s")
                .found();
        assertThat(found).extracting(ScoreReading.FoundScore::unit).containsExactly("GB/s", "MB/s");
    }

    @Test
    void whatIsNoNumberIsSaid() {
        assertThat(missed(line("real\\s+(\\S+)", "s", ScorePattern.EACH), "real soon"))
                .contains("soon")
                .contains("line 1");
        assertThat(missed(line("t=(\\S+)", "MB/s", ScorePattern.EACH), "t=1,125"))
                .contains("1,125");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "no brackets",
                "(unclosed",
                "(a)(?=b)",
                "(a)\\1",
                "((a{100}){100}){100}",
                "(a{5000})",
                "(a{999999999999})",
                ""
            })
    void expressionsThatCannotBeUsedAreRefused(String expression) {
        assertThatIllegalArgumentException().isThrownBy(() -> line(expression, "1", 1));
    }

    @Test
    void whatWouldRunForEverElsewhereEndsHere() {
        ScorePattern backtracker = line("^(a+)+$", "1", ScorePattern.EACH);
        ScorePattern alternatives = line("((a|aa)+)c", "1", ScorePattern.EACH);
        Assertions.assertTimeoutPreemptively(Duration.ofMinutes(5), () -> assertThat(
                        ScoreReading.read(List.of(backtracker, alternatives), ("a".repeat(3_900) + "b\n").repeat(20))
                                .found())
                .isEmpty());
    }

    @Test
    void readingIsGivenUpWhenItsTimeIsOver() {
        AtomicLong clock = new AtomicLong();
        ScoreReading.Scores outcome = ScoreReading.read(
                List.of(line("(\\d)", "1", ScorePattern.EACH)),
                "1\n2\n3",
                () -> clock.getAndAdd(ScoreReading.MOST_TIME.toNanos() + 1));
        assertThat(outcome.found()).isEmpty();
        assertThat(outcome.missed()).singleElement().satisfies(m -> assertThat(m.reason())
                .contains("given up after 2 s"));
        assertThatIllegalArgumentException()
                .isThrownBy(() -> ScoreReading.read(List.of(), "x".repeat(ScoreReading.LONGEST_TEXT + 1)));
    }

    /** One line alone can take longer than all of them may: the clock is looked at inside of it, too. */
    @Test
    void oneLongLineIsGivenUpInTheMiddle() {
        AtomicLong looks = new AtomicLong();
        // Each look at the clock is a fifth of the time later than the one before.
        ScoreReading.Scores outcome = ScoreReading.read(
                List.of(line("(a{0,30}b|a{0,30}c)(\\d)", "1", ScorePattern.EACH)),
                "a".repeat(1_000_000),
                () -> looks.getAndIncrement() * (ScoreReading.MOST_TIME.toNanos() / 5));
        assertThat(outcome.missed()).singleElement().satisfies(m -> assertThat(m.reason())
                .contains("given up"));
        assertThat(looks.get()).as("looks at the clock").isLessThan(10);
    }

    @Test
    void everyShippedRuleReadsItsSample() {
        assertThat(ShippedRules.all()).hasSize(8).allSatisfy(tool -> {
            ScoreReading.Scores outcome = ScoreReading.read(tool.patterns(), tool.sample());
            assertThat(outcome.anything()).as(tool.name()).isTrue();
            assertThat(outcome.missed()).as(tool.name()).allSatisfy(m -> assertThat(m.reason())
                    .startsWith("Nothing"));
            for (ShippedRules.Part part : tool.parts()) {
                outcome.found().stream()
                        .filter(f -> f.pattern().equals(part.pattern().name()))
                        .forEach(f -> assertThat(UnitStep.factor(f.unit(), part.unit()))
                                .as(tool.name() + ": " + f.unit() + " to " + part.unit())
                                .isPresent());
            }
        });
    }

    @ParameterizedTest
    @CsvSource({
        "time, Elapsed, 1, 19.806",
        "time, Elapsed, 2, 62.004",
        "time-v, Largest memory, 1, 162816",
        "time-v, Elapsed, 1, 12.8",
        "'openssl-speed', 'AES-256-GCM, 16384 bytes', 1, 1274773.50",
        "openssl-speed, 'RSA 2048, verifying', 1, 21837",
        "openssl-speed, 'ECDSA P-256, signing', 1, 20599",
        "dd, Copying, 2, 1200",
        "dd, Time to copy, 1, 2.41",
        "xz, Compressing, 1, 2.0",
        "xz, Ratio of sizes, 1, 0.815",
        "zstd, 'Level 3, decompressing', 1, 795.0",
        "ping, Round trip, 1, 3.881",
        "ping, Lost, 1, 2",
        "systemd-analyze, Services, 1, 62.331",
        "systemd-analyze, Kernel, 1, 0.812",
        "systemd-analyze, Start to desktop or prompt, 1, 69.449"
    })
    void shippedRulesReadTheseValues(String key, String test, int run, double expected) {
        ShippedRules.Tool tool = ShippedRules.all().stream()
                .filter(t -> t.key().equals(key))
                .findFirst()
                .orElseThrow();
        String unit = tool.patterns().stream()
                .filter(p -> p.name().equals(test))
                .findFirst()
                .orElseThrow()
                .unit();
        assertThat(ScoreReading.read(tool.patterns(), tool.sample()).found())
                .filteredOn(f -> f.pattern().equals(test) && f.run() == run)
                .singleElement()
                .satisfies(f -> assertThat(
                                f.value() * UnitStep.factor(f.unit(), unit).orElseThrow())
                        .isCloseTo(expected, within(1e-9)));
    }

    /** A last progress line that is shorter leaves the end of the one before on the screen, without its comma. */
    @Test
    void progressLinesAreReadAsTheTerminalShowsThem() {
        ShippedRules.Tool zstd = ShippedRules.all().stream()
                .filter(t -> t.key().equals("zstd"))
                .findFirst()
                .orElseThrow();
        String printed =
                " |-notes :  2000000 ->   794656 (x2.517),   70.0 MB/s,  150.5 MB/s\r /-notes :  2000000 ->   794656 (x2.517),   70.0 MB/s \r 3#\n";
        assertThat(ScoreReading.read(zstd.patterns(), printed).found())
                .extracting(f -> f.pattern() + " " + f.value())
                .containsExactly("Level 3, compressing 70.0", "Level 3, decompressing 150.5");
    }

    @ParameterizedTest
    @CsvSource({
        "GB/s, MB/s, 1000",
        "MiB/s, MB/s, 1.048576",
        "ms, s, 0.001",
        "min, s, 60",
        "s, min, 0.016666666666666666",
        "kB/s, MB/s, 0.001",
        "ops/s, ops/min, 60",
        "fps, fps, 1",
        "KiB, MiB, 0.0009765625",
        "GHz, MHz, 1000",
        "h, min, 60"
    })
    void unitsOfAKindTurnIntoEachOther(String from, String to, double factor) {
        assertThat(UnitStep.factor(from, to).orElseThrow()).isCloseTo(factor, within(1e-12 * factor));
        assertThat(UnitStep.factor(from, to).orElseThrow()
                        * UnitStep.factor(to, from).orElseThrow())
                .isCloseTo(1, within(1e-12));
    }

    @ParameterizedTest
    @CsvSource({"fps, s", "MB/s, MB", "Mbit/s, MB/s", "points, 1", "W, s", "MB/s, MB/W", "%, 1", "'', s"})
    void unitsOfDifferentKindsDoNot(String from, String to) {
        assertThat(UnitStep.factor(from, to)).isEmpty();
    }

    @Test
    void aMarkedNumberMakesAPatternForTheNextOutput() {
        String sample = "Export of 40 photos finished in 73.2 s (0.55 photos/s)\nTotal score: 1204 points";
        ScorePattern time = MarkedNumber.pattern(sample, sample.indexOf("73.2"), sample.indexOf("73.2") + 4);
        assertThat(time.unit()).isEqualTo("s");
        assertThat(
                        values(
                                time,
                                "Export of 36 photos  finished in 1 081.4\nExport of 36 photos finished in 81.4 s (0.44 photos/s)"))
                .containsExactly(81.4);
        ScorePattern score = MarkedNumber.pattern(sample, sample.indexOf("1204"), sample.length() - 7);
        assertThat(score.name()).isEqualTo("Total score");
        assertThat(values(score, "Total score: 999 points\nOther score: 1 points"))
                .containsExactly(999.0);
        String clock = "elapsed 0m12.5s total";
        assertThat(values(MarkedNumber.pattern(clock, 8, 15), "elapsed 1m02.5s total"))
                .containsExactly(62.5);
        ScorePattern marked = MarkedNumber.pattern(clock, 8, 15);
        assertThat(marked.unit()).isEqualTo("s");
    }

    @Test
    void aMarkThatIsNoNumberIsRefused() {
        assertThatIllegalArgumentException().isThrownBy(() -> MarkedNumber.pattern("no number", 0, 4));
        assertThatIllegalArgumentException().isThrownBy(() -> MarkedNumber.pattern("a 1\nb 2", 2, 7));
        assertThatIllegalArgumentException().isThrownBy(() -> MarkedNumber.pattern("1", 0, 5));
        assertThatIllegalArgumentException().isThrownBy(() -> MarkedNumber.pattern("1", 1, 1));
    }
}
