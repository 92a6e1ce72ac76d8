package yarrowmark.runner.command;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import yarrowmark.runner.protocol.Api;

class VisibleTextTest {
    @TempDir
    private java.nio.file.Path folder;

    /** Moving the cursor, clearing, titles, links, other alphabets of controls, turned and hidden text, blanks that are none. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "\u001b[2A",
                "\u001b[1K",
                "\u001b]0;title\u0007",
                "\u001b]8;;x\u001b\\",
                "\u009b2J",
                "\r",
                "\n",
                "\b\b\b",
                "\u0000",
                "\u000e",
                "\u202e",
                "\u2066",
                "\u061c",
                "\u200b",
                "\u200d",
                "\u2060",
                "\ufeff",
                "\u00ad",
                "\u2028",
                "\u2029",
                "\u0085",
                "\u00a0",
                "\u3000",
                "\u3164",
                "\u2800",
                "\u034f",
                "\ufe0f",
                "\ud800",
                "\ue000",
                "\udb40\udc61",
                "\u180e",
                "\u115f"
            })
    void whatATerminalObeysOrHidesIsWrittenOut(String hidden) {
        String shown = VisibleText.of("ls" + hidden + "rm");
        assertThat(shown).matches("[ -~]+").startsWith("ls").endsWith("rm").contains("\\u{");
        assertThat(CommandWords.quoted("ls" + hidden + "rm")).matches("[ -~]+");
    }

    @Test
    void wordsOfAnyScriptStayAsTheyAre() {
        for (String plain :
                List.of("Grünspecht 3 °C · 20 %", "葦 の 湖", "شقائق", "çédille “quoted” – 4 × 5", "naïve 🌿")) {
            assertThat(VisibleText.of(plain)).isEqualTo(plain);
        }
    }

    /** A plan whose names draw two harmless commands over a third. */
    @Test
    void aPlanHidesNoCommandBehindItsNames() {
        String over = "List\u001b[3A\u001b[J";
        Api.TimedCommand command = new Api.TimedCommand(
                new Api.Step(List.of("rm", "-rf", "notes"), false),
                null,
                null,
                null,
                null,
                Map.of("A=1\u001b[2K\rB", "x"),
                0,
                20,
                Api.Cache.AS_IT_IS,
                null);
        List<String> shown = new ArrayList<>();
        new Commands(
                        List.of(new Commands.Planned("k", over, command)),
                        new AgreedCommands(folder),
                        line -> shown.add(VisibleText.of(line)))
                .show();
        assertThat(shown).allMatch(line -> line.matches("[ -~]+"));
        assertThat(shown).anyMatch(line -> line.contains("timed: rm -rf notes"));
        assertThat(shown).anyMatch(line -> line.contains("with 'A=1\\u{1b}[2K\\u{d}B'=x"));
    }
}
