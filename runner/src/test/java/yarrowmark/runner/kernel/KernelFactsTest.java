package yarrowmark.runner.kernel;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

class KernelFactsTest {
    @ParameterizedTest
    @EnumSource(KernelFacts.class)
    void everyRoundGivesTheAnswerThatABrowserGives(KernelFacts facts) {
        Kernel kernel = facts.prepared();
        facts.rounds(kernel, 3);
        facts.checkLast(kernel);
    }

    @ParameterizedTest
    @EnumSource(KernelFacts.class)
    void anotherSeedIsOtherWork(KernelFacts facts) {
        Kernel kernel = facts.prepared();
        kernel.prepare(facts.seed() + 1);
        assertThatThrownBy(() -> facts.rounds(kernel, 1)).isInstanceOf(WrongAnswer.class);
    }

    /** Both ways to the bench go by one list: whoever changes one kernel finds the other. */
    @ParameterizedTest
    @EnumSource(KernelFacts.class)
    void seedsAndAnswersAreThoseOfTheDevicePage(KernelFacts facts) throws IOException {
        String page = Files.readString(Path.of(System.getProperty("yarrowmark.kernels"), "kernel", "kernels.ts"));
        Matcher line = Pattern.compile(
                        "'" + facts.key()
                                + "': \\{ seed: (\\d+), answer: ([\\d_]+), perRound: ([^,]+)(?:, last: \\{ of: [\\d_]+, answer: ([\\d_]+) })? }")
                .matcher(page);
        assertThat(line.find()).as(facts.key()).isTrue();
        assertThat(Integer.parseInt(line.group(1))).isEqualTo(facts.seed());
        assertThat(number(line.group(2))).isEqualTo(facts.answer());
        assertThat(line.group(4) == null ? -1 : number(line.group(4))).isEqualTo(facts.digest());
    }

    @Test
    void oneOfEachNameAndNoOther() {
        assertThat(KernelFacts.of("weir-hash")).contains(KernelFacts.WEIR_HASH);
        assertThat(KernelFacts.of("weir")).isEmpty();
    }

    private static long number(String digits) {
        return Long.parseLong(digits.replace("_", ""));
    }
}
