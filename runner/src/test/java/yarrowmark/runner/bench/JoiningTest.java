package yarrowmark.runner.bench;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A runner that is killed leaves its files and nothing else; each test goes on from what one kill leaves. */
class JoiningTest {
    @TempDir
    private Path folder;

    private FakeBench bench;

    @BeforeEach
    void begin() throws IOException {
        bench = new FakeBench();
    }

    @AfterEach
    void end() {
        bench.close();
    }

    private Path place() {
        return folder.resolve("place");
    }

    /** As a runner does that was started again. */
    private boolean join() {
        return new Joining(new BenchClient(bench.address(), new PinnedCertificate(f -> false)), new Outbox(place()))
                .join(bench.address().toString(), "TEAL-42-FEN", "a computer");
    }

    private Outbox.Seated seated() {
        return new Outbox(place()).seated().orElseThrow();
    }

    @Test
    void killedBeforeItAskedItAsksWithTheSecretThatItKept() throws IOException {
        String secret = new Outbox(place()).secret();
        // And with a file that was not written to its end.
        Files.writeString(place().resolve("new-1.tmp"), "\"hal");
        assertThat(join()).isFalse();
        assertThat(bench.joinedWith).isEqualTo(secret).matches("[A-Za-z0-9_-]{43}");
        assertThat(seated().token()).isEqualTo("token of " + secret);
    }

    @Test
    void theServerLetItInAndItWasKilledBeforeItKnew() {
        bench.lostJoins.set(2);
        assertThatThrownBy(this::join).isInstanceOf(Unreachable.class);
        assertThatThrownBy(this::join).isInstanceOf(Unreachable.class);
        assertThat(new Outbox(place()).seated()).isEmpty();
        assertThat(join()).isFalse();
        assertThat(bench.joins).hasValue(3);
        assertThat(seated().token()).isEqualTo("token of " + bench.joinedWith);
    }

    @Test
    void killedAfterItKeptItsSeatItAsksForNone() {
        assertThat(join()).isFalse();
        assertThat(join()).as("it has its seat").isTrue();
        assertThat(bench.joins).hasValue(1);
    }

    @Test
    void anotherComputerIsRefusedAndKeepsNothing() {
        join();
        Path elsewhere = folder.resolve("elsewhere");
        assertThatThrownBy(() -> new Joining(
                                new BenchClient(bench.address(), new PinnedCertificate(f -> false)),
                                new Outbox(elsewhere))
                        .join(bench.address().toString(), "TEAL-42-FEN", "another"))
                .isInstanceOf(Refused.class)
                .hasMessageContaining("used already");
        assertThat(elsewhere).doesNotExist();
        assertThat(join()).as("the first one still has its seat").isTrue();
    }
}
