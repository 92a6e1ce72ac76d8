package yarrowmark.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** A short round over the built-in suites in each other engine: the same seed and the same answers as in Chromium. */
@Tag("long")
class EnginesIT extends AtTheDemo {
    /** Without loops of other tests, pictures that take minutes without a graphics processor, and encoders, which may take their page along. */
    private static final Predicate<String> SHORT =
            k -> !k.matches("endurance-.*|battery-.*|network-walk") && !k.matches("(graphics|gpu)-.*-1080|video-.*");

    EnginesIT() {
        super(Demo.CHANGED);
    }

    @ParameterizedTest
    @ValueSource(strings = {"firefox", "webkit"})
    void everyTestHasItsAnswerOrSaysWhatIsMissing(String engine) throws Exception {
        List<Rounds.Score> scores;
        try (UnderTest device = Engines.device(engine)) {
            scores = new Rounds(program, browser).carryOut(device, SHORT, 1, 50);
        }
        assertThat(scores)
                .filteredOn(s -> s.state().equals("FAILED") && !"TOO_SLOW".equals(s.reason()))
                .as("failed in " + engine)
                .extracting(s -> s.test() + ": " + s.words())
                .isEmpty();
        assertThat(scores.stream()
                        .filter(s -> s.state().equals("OK") && s.first())
                        .map(Rounds.Score::key)
                        .collect(Collectors.toSet()))
                .as("with a score in " + engine)
                .contains("weir-hash-one", "page-shore-map", "storage-transactions", "species-list")
                .hasSizeGreaterThan(25);
        assertThat(scores).filteredOn(s -> s.state().equals("COULD_NOT_RUN")).allSatisfy(s -> assertThat(s.words())
                .hasSizeGreaterThan(20));
    }
}
