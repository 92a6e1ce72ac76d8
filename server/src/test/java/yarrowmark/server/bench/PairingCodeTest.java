package yarrowmark.server.bench;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashSet;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class PairingCodeTest {
    @ParameterizedTest
    @CsvSource({
        "TEAL-42-FEN, TEAL-42-FEN",
        "teal 42 fen, TEAL-42-FEN",
        "teal42fen, TEAL-42-FEN",
        "' Teal_42/FEN ', TEAL-42-FEN",
        "nonsense, NONSENSE",
        "42, 42"
    })
    void howItIsTypedDoesNotMatter(String typed, String code) {
        assertThat(PairingCode.normalised(typed)).isEqualTo(code);
    }

    @Test
    void codesAreEasilyReadAndSeldomTheSame() {
        Set<String> seen = new HashSet<>();
        for (int i = 0; i < 500; i++) {
            String code = PairingCode.next();
            assertThat(code).matches("[A-Z]{3,7}-[2-9]{2}-[A-Z]{3,7}");
            assertThat(PairingCode.normalised(code)).isEqualTo(code);
            seen.add(code);
        }
        assertThat(seen).hasSizeGreaterThan(480);
    }
}
