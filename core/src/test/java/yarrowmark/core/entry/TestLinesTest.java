package yarrowmark.core.entry;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Collections;
import org.junit.jupiter.api.Test;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Scale;

class TestLinesTest {
    @Test
    void aListOfTestsIsReadLineByLine() {
        TestLines.Lines lines = TestLines.read("Sequential read, MB/s, more, Storage\n\nExport of a report;s;less\nSurface\t°C\tlower\nOverall,,higher is better");
        assertThat(lines.refused()).isEmpty();
        assertThat(lines.read()).extracting(l -> l.number() + " " + l.name() + " " + l.unit() + " " + l.direction() + " " + l.scale()).containsExactly(
            "1 Sequential read MB/s MORE_IS_BETTER RATIO", "3 Export of a report s LESS_IS_BETTER RATIO", "4 Surface °C LESS_IS_BETTER DIFFERENCE",
            "5 Overall 1 MORE_IS_BETTER RATIO");
        assertThat(lines.read().get(0).group()).contains("Storage");
        assertThat(lines.read().get(0).direction()).isEqualTo(Direction.MORE_IS_BETTER);
        assertThat(lines.read().get(2).scale()).isEqualTo(Scale.DIFFERENCE);
    }

    @Test
    void everyLineThatCannotBeReadIsToldWithItsNumberAndReason() {
        TestLines.Lines lines = TestLines.read("Read, MB/s\nWrite, MB/s, fast\n, s, less\nCopy, s, less\ncopy, s, less\n" + "x".repeat(121) + ", s, less");
        assertThat(lines.read()).extracting(TestLines.Line::name).containsExactly("Copy");
        assertThat(lines.refused()).extracting(TestLines.Refused::number).containsExactly(1, 2, 3, 5, 6);
        assertThat(lines.refused().get(1).reason()).contains("\"fast\"");
        assertThat(lines.refused().get(3).reason()).contains("Line 4");
        assertThat(TestLines.read(String.join("\n", Collections.nCopies(400, "a"))).refused()).hasSize(301);
        assertThat(TestLines.read("").read()).isEmpty();
    }
}
