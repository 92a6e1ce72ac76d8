package yarrowmark.server.writeup;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Markdown that goes out is shown by programs that run what stands in it: nothing does. */
class MarkdownOutTest {
    @ParameterizedTest
    @ValueSource(
            strings = {
                "<script>alert(1)</script>",
                "words <img src=x onerror=alert(1)> more",
                "<div onclick='alert(1)'>\n\nin a block\n\n</div>",
                "[press](javascript:alert(1))",
                "[press](JaVaScRiPt:alert(1))",
                "[press](&#106;avascript:alert(1))",
                "[press](data:text/html;base64,PHNjcmlwdD4=)",
                "![seen](vbscript:run)",
                "[a]: javascript:alert(1)\n\n[press][a]",
                "<javascript:alert(1)>"
            })
    void neitherAScriptNorALinkThatIsOneGoesOut(String text) {
        String out = MarkedText.markdown(text);
        // Read again as any program reads it: with HTML let through and no link looked at.
        String shown = org.commonmark.renderer.html.HtmlRenderer.builder()
                .build()
                .render(org.commonmark.parser.Parser.builder().build().parse(out));
        assertThat(shown).doesNotContainPattern("(?i)<(script|img|div)");
        assertThat(shown).doesNotContainPattern("(?i)(href|src)=\"(javascript|data|vbscript)");
    }

    @Test
    void marksLinksAndListsStayAndNumbersAreWords() {
        assertThat(
                        MarkedText.markdown(
                                "It is **12 %** [faster](number:7), see [the page](https://example.org/a?b=c).\n\n- one\n- two"))
                .isEqualTo("It is **12 %** faster, see [the page](https://example.org/a?b=c).\n\n- one\n- two");
        assertThat(MarkedText.html(MarkedText.plainMarkdown("1 < 2 * [x](javascript:y) *"), Map.of())
                        .strip())
                .isEqualTo("<p>1 &lt; 2 * [x](javascript:y) *</p>");
    }
}
