package yarrowmark.core.entry;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class SeveralNumbersTest {
    @Test
    void slashesAndSemicolonsPartNumbers() {
        assertThat(SeveralNumbers.parts("57.8 / 17.1")).containsExactly("57.8", "17.1");
        assertThat(SeveralNumbers.parts("57.8/17.1/ 24,3")).containsExactly("57.8", "17.1", "24,3");
        assertThat(SeveralNumbers.parts(" 57.8;17.1 ;24.3 ")).containsExactly("57.8", "17.1", "24.3");
        assertThat(SeveralNumbers.parts("57.8 fps / .5")).containsExactly("57.8 fps", ".5");
        assertThat(SeveralNumbers.parts("57.8 / – / 24.3")).containsExactly("57.8", "", "24.3");
        assertThat(SeveralNumbers.parts("57.8;;24.3")).containsExactly("57.8", "", "24.3");
        assertThat(SeveralNumbers.parts("")).containsExactly("");
    }

    @ParameterizedTest
    @ValueSource(strings = {"57.8 MB/s", "n/a crashed on start", "57.8", "1:53.6", "12.5k", "-3.2"})
    void oneNumberStaysOne(String typed) {
        assertThat(SeveralNumbers.parts(typed)).containsExactly(typed);
    }
}
