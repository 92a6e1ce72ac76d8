package yarrowmark.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The commands that measure, check and draw, carried out as a whole on a clean copy of the sources. */
@Tag("long")
@Order(Integer.MAX_VALUE)
class WholeCommandsIT {
    private static CleanCopy copy;

    @BeforeAll
    static void copySources(@TempDir Path folder) throws IOException {
        copy = CleanCopy.below(folder);
        copy.bringProgram();
    }

    @Test
    void benchGoesThroughEveryPartAtItsSmallestSize(@TempDir Path elsewhere) throws Exception {
        CleanCopy.Ran bench = copy.run(elsewhere, "bench", "--smallest");
        assertThat(bench.code()).as(bench.said()).isZero();
        assertThat(bench.said())
                .contains(
                        "Standings in core",
                        "Search as you type",
                        "Import",
                        "Ledger of ",
                        "Compar",
                        "Standings: ",
                        "frames a second",
                        "Crowd: 2 devices",
                        "Kills: 1 of the server and 1 of its database",
                        "Kills of the runner: 1",
                        "The network suite against plain sockets",
                        "sequential write, dd",
                        "Spread over 2 runs",
                        "ops/s in the browser");
    }

    @Test
    void samplesOfAShelfAreChecked(@TempDir Path elsewhere) throws Exception {
        Program.copyAll(Program.prepared("demo"), copy.path().resolve("var"));
        CleanCopy.Ran checked = copy.run(elsewhere, "samples", "check", "demo");
        assertThat(checked.code()).as(checked.said()).isZero();
        assertThat(checked.said()).containsPattern("[1-9]\\d* samples checked");
    }

    @Test
    void picturesGoIntoTheFolderThatIsNamed(@TempDir Path elsewhere) throws Exception {
        CleanCopy.Ran made = copy.run(
                elsewhere,
                "screenshots",
                "--smallest",
                elsewhere.resolve("pictures").toString());
        assertThat(made.code()).as(made.said()).isZero();
        try (Stream<Path> pictures = Files.list(elsewhere.resolve("pictures"))) {
            assertThat(pictures.map(p -> p.getFileName().toString())).containsExactly("standings.png");
        }
    }
}
