package yarrowmark.core.curve;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/** The largest text that is still taken, and what is said of the first that is not. */
class SeriesTextTest {
    private static final int MOST = SeriesText.MOST_POINTS;

    private static String points(int n) {
        return IntStream.rangeClosed(1, n).mapToObj(i -> i + ";2").collect(Collectors.joining("\n"));
    }

    @Test
    void asManyPointsAsAreAllowedAreTaken() throws Exception {
        assertThat(SeriesText.points(points(MOST))).hasSize(MOST);
        assertThatThrownBy(() -> SeriesText.points(points(MOST + 1))).hasMessageContaining("At most " + MOST);
    }

    @Test
    void aHeadingIsNoFrame() throws Exception {
        assertThat(SeriesText.frames("ms " + "16 ".repeat(MOST), false)).hasSize(MOST);
        assertThatThrownBy(() -> SeriesText.frames("ms " + "16 ".repeat(MOST + 1), false))
                .hasMessageContaining("At most");
        assertThatThrownBy(() -> SeriesText.frames("ms 16.6 fast", false))
                .hasMessageContaining("Number 2")
                .hasMessageContaining("\"fast\"");
    }

    @Test
    void onlyLongWordsAreShortened() {
        String forty = "x".repeat(40);
        assertThatThrownBy(() -> SeriesText.frames("1 " + forty, false)).hasMessageContaining("\"" + forty + "\"");
        assertThatThrownBy(() -> SeriesText.frames("1 " + forty + "x", false))
                .hasMessageContaining("\"" + "x".repeat(39) + "…\"");
    }
}
