package yarrowmark.runner.facts;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Path;
import java.util.HashMap;
import java.util.Map;
import org.junit.jupiter.api.Test;

class BackgroundLoadTest {
    private static final long SECOND = 1_000_000_000;
    private final Map<Long, BackgroundLoad.Program> running = new HashMap<>();
    private long nanos;

    private final BackgroundLoad others = new BackgroundLoad(() -> Map.copyOf(running), () -> nanos);

    private void runs(long pid, String name, double seconds) {
        running.put(pid, new BackgroundLoad.Program(name, (long) (seconds * SECOND)));
    }

    @Test
    void whatOthersTookIsSummedAndTheLoudestNamed() {
        runs(1, "indexer", 100);
        runs(2, "editor", 5);
        BackgroundLoad.Moment before = others.now();
        nanos += 4 * SECOND;
        runs(1, "indexer", 103);
        runs(2, "editor", 5.4);
        BackgroundLoad.Taken taken = others.since(before);
        assertThat(taken.cores()).isCloseTo(0.85, within(1e-9));
        assertThat(taken.most()).isEqualTo("indexer");
        assertThat(taken).hasToString("other programs took 85 % of a core, indexer 75 %");
    }

    @Test
    void anUpdateIsNamedEvenWhereItIsQuiet() {
        runs(1, "editor", 5);
        assertThat(others.now().updating()).isEmpty();
        runs(2, "dpkg", 0);
        runs(3, "apt-get", 0);
        assertThat(others.now().updating()).hasValue("apt-get");
    }

    @Test
    void nobodyIsNobody() {
        BackgroundLoad.Moment before = others.now();
        nanos += SECOND;
        assertThat(others.since(before).cores()).isZero();
    }

    @Test
    void oneThatIsNewOrGoneIsNoMoreThanItCanHaveTaken() {
        runs(1, "gone", 50);
        BackgroundLoad.Moment before = others.now();
        nanos += 2 * SECOND;
        running.clear();
        runs(7, "new", 300);
        assertThat(others.since(before).cores()).isEqualTo(1);
        // A number that is given again belongs to a program that began anew.
        runs(7, "another", 1);
        BackgroundLoad.Moment later = others.now();
        nanos += SECOND;
        runs(7, "another", 0.5);
        assertThat(others.since(later).cores()).isZero();
    }

    @Test
    void thisMachineTellsItsOwnFacts() {
        Map<String, String> facts = new HardwareFacts(false).read(Path.of("").toAbsolutePath());
        assertThat(facts).containsKeys("os.name", "runtime.java", "memory.usable", "processor.threads");
        assertThat(Integer.parseInt(facts.get("processor.threads"))).isPositive();
        assertThat(facts.values()).noneMatch(v -> v.isBlank() || v.equalsIgnoreCase("unknown"));
        assertThat(new BackgroundLoad().now().programs())
                .doesNotContainKey(ProcessHandle.current().pid());
    }
}
