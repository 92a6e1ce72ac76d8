package yarrowmark.core.entry;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Collections;
import java.util.List;
import org.junit.jupiter.api.Test;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Kind;
import yarrowmark.core.measure.Scale;

class TestLinesTest {
    @Test
    void aListOfTestsIsReadLineByLine() {
        TestLines.Lines lines = TestLines.read(
                "Sequential read, MB/s, more, Storage\n\nExport of a report;s;less\nSurface\t°C\tlower\nOverall,,higher is better");
        assertThat(lines.refused()).isEmpty();
        assertThat(lines.read())
                .extracting(l -> l.number() + " " + l.name() + " " + l.unit() + " " + l.direction() + " " + l.scale())
                .containsExactly(
                        "1 Sequential read MB/s MORE_IS_BETTER RATIO",
                        "3 Export of a report s LESS_IS_BETTER RATIO",
                        "4 Surface °C LESS_IS_BETTER DIFFERENCE",
                        "5 Overall 1 MORE_IS_BETTER RATIO");
        assertThat(lines.read().get(0).group()).contains("Storage");
        assertThat(lines.read().get(0).direction()).isEqualTo(Direction.MORE_IS_BETTER);
        assertThat(lines.read().get(2).scale()).isEqualTo(Scale.DIFFERENCE);
    }

    @Test
    void everyLineThatCannotBeReadIsToldWithItsNumberAndReason() {
        TestLines.Lines lines =
                TestLines.read("Read, MB/s\nWrite, MB/s, fast\n, s, less\nCopy, s, less\ncopy, s, less\n"
                        + "x".repeat(121) + ", s, less");
        assertThat(lines.read()).extracting(TestLines.Line::name).containsExactly("Copy");
        assertThat(lines.refused()).extracting(TestLines.Refused::number).containsExactly(1, 2, 3, 5, 6);
        assertThat(lines.refused().get(1).reason()).contains("\"fast\"");
        assertThat(lines.refused().get(3).reason()).contains("Line 4");
        assertThat(TestLines.read(String.join("\n", Collections.nCopies(400, "a")))
                        .refused())
                .hasSize(301);
        assertThat(TestLines.read("").read()).isEmpty();
    }

    @Test
    void everyKindOfTestCanBeSaidInALine() {
        TestLines.Lines lines = TestLines.read(
                """
            Wakes from sleep, check, Everyday
            Smoothest clip, choice 720p < 1080p < 2160p, Video
            Read over block size, MB/s, more, curve over B, Storage
            Reed flight; fps; more; frame times; Graphics
            Boot, s, less
            Battery left, %, more, difference
            Scroll, fps, more, capped, part""");
        assertThat(lines.refused()).isEmpty();
        assertThat(lines.read())
                .extracting(TestLines.Line::kind)
                .containsExactly(
                        Kind.CHECK,
                        Kind.CHOICE,
                        Kind.CURVE,
                        Kind.FRAME_TIMES,
                        Kind.DURATION,
                        Kind.PERCENTAGE,
                        Kind.NUMBER);
        assertThat(lines.read())
                .extracting(TestLines.Line::scale)
                .containsExactly(
                        Scale.DIFFERENCE,
                        Scale.DIFFERENCE,
                        Scale.RATIO,
                        Scale.RATIO,
                        Scale.RATIO,
                        Scale.DIFFERENCE,
                        Scale.RATIO);
        assertThat(lines.read().get(1).choices()).containsExactly("720p", "1080p", "2160p");
        assertThat(lines.read().get(2).xUnit()).isEqualTo("B");
        assertThat(lines.read().get(3).capped()).isTrue();
        assertThat(lines.read().get(6)).matches(l -> l.capped() && !l.main());
        assertThat(TestLines.read("x".repeat(91) + ", fps, more, frame times\n" + "x".repeat(91) + ", fps, more")
                        .refused())
                .as("the numbers of a series add words to its name")
                .extracting(TestLines.Refused::number)
                .containsExactly(1);
        assertThat(TestLines.read("a, choice one\nb, choice x < X\nc, s, less, Storage, Body")
                        .refused())
                .extracting(TestLines.Refused::number)
                .containsExactly(1, 2, 3);
    }

    @Test
    void whatIsTypedIsReadByItsKind() {
        List<String> steps = List.of("none", "some", "full");
        assertThat(KindText.read("pass", Kind.CHECK, "1", List.of()).said()).isEqualTo(new ScoreText.Value(1, 0));
        assertThat(KindText.read("fail: stays dark", Kind.CHECK, "1", List.of()))
                .isEqualTo(new KindText.Read(new ScoreText.Value(0, 0), "stays dark"));
        assertThat(KindText.read("not possible, no lid", Kind.CHECK, "1", List.of())
                        .said())
                .isEqualTo(new ScoreText.NoValue(false, "no lid"));
        assertThat(KindText.read("maybe", Kind.CHECK, "1", List.of()).said())
                .isInstanceOf(ScoreText.NotUnderstood.class);
        assertThat(KindText.read("SOME", Kind.CHOICE, "1", steps).said()).isEqualTo(new ScoreText.Value(2, 0));
        assertThat(KindText.read("fu", Kind.CHOICE, "1", steps).said()).isEqualTo(new ScoreText.Value(3, 0));
        assertThat(KindText.read("2", Kind.CHOICE, "1", steps).said()).isInstanceOf(ScoreText.NotUnderstood.class);
        assertThat(KindText.read("", Kind.CHOICE, "1", steps).said()).isInstanceOf(ScoreText.NotUnderstood.class);
        assertThat(KindText.read("4:07", Kind.DURATION, "s", List.of()).said()).isEqualTo(new ScoreText.Value(247, 1));
        assertThat(KindText.read("12", Kind.CURVE, "MB/s", List.of()).said())
                .isInstanceOf(ScoreText.NotUnderstood.class);
        assertThat(KindText.read("n/a froze", Kind.FRAME_TIMES, "fps", List.of())
                        .said())
                .isEqualTo(new ScoreText.NoValue(true, "froze"));
    }

    @Test
    void aLineWithAPlusIsAFurtherNumberOfTheTestAboveIt() {
        TestLines.Lines lines = TestLines.read(
                "Reed flight, fps, more\n+ 1 % low, fps, more\n+stutters, 1, less, difference\nSort, s, less\n+ 1 % low, s, less");
        assertThat(lines.refused()).isEmpty();
        assertThat(lines.read()).extracting(TestLines.Line::further).containsExactly(false, true, true, false, true);
        assertThat(lines.read()).extracting(TestLines.Line::main).containsExactly(true, false, false, true, false);
        assertThat(lines.read().get(2).scale()).isEqualTo(Scale.DIFFERENCE);
        String longest = "x".repeat(113);
        assertThat(TestLines.read(longest + ", s, less\n+ lowest, s, less").refused())
                .hasSize(1);
        assertThat(TestLines.read(longest + ", s, less\n+ lower, s, less").refused())
                .isEmpty();
        assertThat(TestLines.read("+ low, fps, more").refused().get(0).reason()).contains("none above it");
        assertThat(TestLines.read("Wakes, check\n+ low, s, less")
                        .refused()
                        .get(0)
                        .reason())
                .contains("Wakes");
        assertThat(TestLines.read("Sort, s, less\n+ low, check").refused()).hasSize(1);
        assertThat(TestLines.read("Sort, s, less\n+ low, s, less\n+ Low, s, less")
                        .refused()
                        .get(0)
                        .reason())
                .contains("Line 2 has this name already");
    }
}
