package yarrowmark.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * Every command of bin/ explains itself and refuses nonsense at once, on a clean copy of the sources and from another
 * directory; and the classes and files that it names are there. What they do is tried by WholeCommandsIT and by the tests
 * that start them.
 */
class CommandsIT {
    private static final Pattern MAIN =
            Pattern.compile("\\brun(?:_main)? (core|runner|server|e2e) (yarrowmark\\.[\\w.]+)");
    private static final Pattern OWN_FILE =
            Pattern.compile("\\$root/((?:bin|web|core|server|runner|e2e)/[\\w./-]+\\w)");
    /** What is there only once something was built. */
    private static final Set<String> MADE = Set.of("target", "dist", "node_modules");

    private static List<Path> commands(Path checkout) throws IOException {
        try (Stream<Path> files = Files.list(checkout.resolve("bin"))) {
            return files.filter(Files::isRegularFile).sorted().toList();
        }
    }

    @Test
    void everyCommandExplainsItselfAndRefusesNonsenseAtOnce(@TempDir Path folder) throws IOException {
        CleanCopy copy = CleanCopy.below(folder);
        List<String> names = commands(copy.path()).stream()
                .map(c -> c.getFileName().toString())
                .toList();
        assertThat(names).contains("demo", "start", "test", "bench", "backup", "restore");
        for (String name : names) {
            CleanCopy.Ran help = copy.run(folder, name, "--help");
            assertThat(help.code()).as(name).isZero();
            assertThat(help.said()).as(name).contains("usage: bin/" + name).doesNotContain("set -euo");
            CleanCopy.Ran nonsense = copy.run(folder, name, "--no-such-option");
            assertThat(nonsense.code()).as(name + " said " + nonsense.said()).isNotZero();
            assertThat(nonsense.said()).as(name).contains("no-such-option");
        }
        assertThat(copy.run(folder, "bench", "nonsense").said()).contains("unknown part nonsense", "search");
        assertThat(copy.path().resolve("var")).as("nothing was begun").doesNotExist();
        assertThat(copy.path().resolve("core/target")).doesNotExist();
    }

    @Test
    void everyClassAndFileThatACommandNamesIsThere() throws IOException {
        List<String> missing = new ArrayList<>();
        int mains = 0;
        for (Path command : commands(CleanCopy.ROOT)) {
            String text = Files.readString(command);
            for (Matcher main = MAIN.matcher(text); main.find(); mains++) {
                Path made = CleanCopy.ROOT.resolve(
                        main.group(1) + "/target/test-classes/" + main.group(2).replace('.', '/') + ".class");
                if (!Files.exists(made)) {
                    missing.add(command.getFileName() + ": " + main.group(2));
                }
            }
            for (Matcher file = OWN_FILE.matcher(text); file.find(); ) {
                Path named = Path.of(file.group(1));
                boolean made = Stream.of(file.group(1).split("/")).anyMatch(MADE::contains);
                if (!made && !Files.exists(CleanCopy.ROOT.resolve(named))) {
                    missing.add(command.getFileName() + ": " + named);
                }
            }
        }
        assertThat(missing).isEmpty();
        assertThat(mains).as("found by the way they are written").isGreaterThan(15);
    }
}
