package yarrowmark.core.capture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class PlainLinesTest {
    private static List<String> lines(String text) {
        return PlainLines.of(text).stream()
                .map(l -> l.number() + ": " + l.text())
                .toList();
    }

    @Test
    void jsonIsOneLineAValueWithTheWayToIt() {
        assertThat(lines("before\n{\n \"a\": {\"b\": [1, null, {\"c\": \"x\\ny\"}]},\n \"d\": true\n}\nafter"))
                .containsExactly("1: before", "2: a.b[0] = 1", "2: a.b[2].c = x y", "2: d = true", "6: after");
        assertThat(lines("[{\"a\":\"}\"},{\"a\":\"{\"}]")).containsExactly("1: [0].a = }", "1: [1].a = {");
    }

    @Test
    void bracketsThatDoNotCloseAreText() {
        assertThat(lines("{\n\"a\": 1")).containsExactly("1: {", "2: \"a\": 1");
        assertThat(lines("{not json}")).containsExactly("1: {not json}");
    }

    @Test
    void lineEndsOfAllKindsAndBlankLines() {
        assertThat(lines("a\r\n\r\nb\rc\n\n")).containsExactly("1: a", "3: b", "4: c");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "a \u001B[31mred\u001B[0m one | a red one",
                "a \u001B]0;title\u0007text | a text",
                "a\u0000b\u0008c | abc",
                "the \u001B[2J\u001B[1;1Htop | the top",
                "tab\tstays | tab\tstays",
                "soft\u00ADhyphen | softhyphen"
            })
    void whatATerminalWasToldIsGone(String raw, String plain) {
        assertThat(TerminalText.clean(raw)).isEqualTo(plain);
    }

    @Test
    void aLineWithoutEndIsCut() {
        assertThat(TerminalText.clean("x".repeat(100_000))).hasSize(TerminalText.LONGEST_LINE);
        assertThat(PlainLines.of("x\n".repeat(PlainLines.MOST_LINES + 10))).hasSize(PlainLines.MOST_LINES);
    }

    @Test
    void aFileOfRulesThatIsNotThereIsNamed() {
        assertThatThrownBy(() -> ToolFiles.load("no-such-tool")).hasMessageContaining("no-such-tool.yaml");
        assertThat(ToolFiles.load()).hasSameSizeAs(ToolFiles.NAMES).allSatisfy(t -> assertThat(t.rules())
                .isNotEmpty());
    }
}
