package yarrowmark.core.rule;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.Test;

class PrintedTextTest {
    @Test
    void whatIsTextStaysAsItIs() {
        String text = "score\t12,5 µs\r\n\u001b[32mgut\u001b[0m\f\bé 早";
        PrintedText read = PrintedText.of(text.getBytes(StandardCharsets.UTF_8));
        assertThat(read).isEqualTo(new PrintedText(text, 0));
        assertThat(read.noted()).isEqualTo(text);
    }

    @Test
    void whatIsNoTextIsReplacedAndCounted() {
        byte[] printed = {'a', 0, 7, 0x0e, 0x0f, (byte) 0xff, 'b', '\n'};
        PrintedText read = PrintedText.of(printed);
        assertThat(read.text()).isEqualTo("a\ufffd\ufffd\ufffd\ufffd\ufffdb\n");
        assertThat(read.replaced()).isEqualTo(5);
        assertThat(read.noted()).startsWith("[5 characters that are no text stand as \ufffd]\na");
    }

    @Test
    void whatWasReplacedOnceIsNotCountedAgain() {
        PrintedText once = PrintedText.of(new byte[] {0, 'x'});
        assertThat(PrintedText.of(once.noted()).replaced()).isZero();
        assertThat(once.noted()).contains("[1 character that is no text stands as \ufffd]");
    }
}
