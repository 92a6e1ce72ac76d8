package yarrowmark.core.rule;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

class PrintedScoreTest {
    private static PrintedScore read(ScorePattern.Kind kind, String expression, String unit, String printed) {
        return PrintedScore.of(new ScorePattern("Output", kind, expression, unit, ScorePattern.LAST), printed);
    }

    @Test
    void theLastOneIsTakenInTheUnitOfTheTestWithItsStep() {
        assertThat(read(ScorePattern.Kind.KEY, "rate", "MB/s", "rate: 90 MB/s\nrate: 1.25 GB/s\n"))
                .isEqualTo(new PrintedScore.Score(1250, 10));
        assertThat(read(ScorePattern.Kind.LINE, "took ([0-9.]+)", "s", "took 3.50 s"))
                .isEqualTo(new PrintedScore.Score(3.5, 0.01));
    }

    @Test
    void whatIsNoScoreIsSaid() {
        assertThat(read(ScorePattern.Kind.KEY, "rate", "MB/s", "")).isInstanceOf(PrintedScore.None.class);
        assertThat(read(ScorePattern.Kind.KEY, "rate", "MB/s", "rate: 0 MB/s"))
                .isEqualTo(new PrintedScore.None("\"0\" is no value above 0 in MB/s."));
        assertThat(read(ScorePattern.Kind.KEY, "rate", "MB/s", "rate: 12 s"))
                .isInstanceOfSatisfying(PrintedScore.None.class, none -> assertThat(none.reason())
                        .contains("does not turn into MB/s"));
    }
}
