package yarrowmark.core.standing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.Test;

/** A grid of 400 × 40, a third missing, against R's weighted least squares to nine digits; R makes its numbers anew where it is installed. */
class StandingAgainstRTest {
    private static final Path EXPECTED =
            Path.of("src", "test", "resources", "yarrowmark", "core", "standing", "standing-expected.csv");
    private static final double NINE_DIGITS = 1e-9;

    private static void agrees(List<String> expected) {
        RGrid r = new RGrid();
        double[] levels = Ranking.levels(r.grid(), r.weights(), Reference.row(0))[0];
        assertThat(expected).hasSize(levels.length);
        for (int i = 0; i < levels.length; i++) {
            assertThat(levels[i]).as("row %d", i).isCloseTo(Double.parseDouble(expected.get(i)), within(NINE_DIGITS));
        }
    }

    @Test
    void theKeptNumbersOfR() throws IOException {
        agrees(Files.readAllLines(EXPECTED));
    }

    @Test
    void theNumbersThatRMakesNow() throws IOException, InterruptedException {
        Assumptions.assumeTrue(Path.of("/usr/bin/Rscript").toFile().canExecute(), "R is not installed");
        Path made = Files.createTempFile("standing", ".csv");
        Process r = new ProcessBuilder(
                        "Rscript", Path.of("src", "test", "r", "standing.R").toString(), made.toString())
                .redirectErrorStream(true)
                .start();
        String said = new String(r.getInputStream().readAllBytes(), java.nio.charset.StandardCharsets.UTF_8);
        assertThat(r.waitFor(2, TimeUnit.MINUTES)).isTrue();
        assertThat(r.exitValue()).as(said).isZero();
        agrees(Files.readAllLines(made));
    }
}
