package yarrowmark.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.List;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * Every command of bin/ works first thing on a clean checkout, where nothing of ours was installed: a copy of this one's
 * sources. Only what this very build made of them is brought along, the program and its classes.
 */
@Order(Integer.MAX_VALUE)
class CommandsIT {
    private static final Path ROOT = Path.of("..").toAbsolutePath().normalize();
    private static final Set<String> MADE = Set.of("target", "node_modules", "var", ".git", "dist", "generated");
    private static Path checkout;

    private record Ran(int code, String said) {}

    @BeforeAll
    static void copySources(@TempDir Path folder) throws IOException {
        checkout = folder.resolve("checkout");
        Files.walkFileTree(ROOT, new SimpleFileVisitor<>() {
            @Override
            public FileVisitResult preVisitDirectory(Path directory, BasicFileAttributes a) throws IOException {
                if (MADE.contains(directory.getFileName().toString())) {
                    return FileVisitResult.SKIP_SUBTREE;
                }
                Files.createDirectories(checkout.resolve(ROOT.relativize(directory)));
                return FileVisitResult.CONTINUE;
            }

            @Override
            public FileVisitResult visitFile(Path file, BasicFileAttributes a) throws IOException {
                Files.copy(file, checkout.resolve(ROOT.relativize(file)), StandardCopyOption.COPY_ATTRIBUTES);
                return FileVisitResult.CONTINUE;
            }
        });
        for (Path made : List.of(
                Path.of("server", "target", "yarrowmark.jar"), Path.of("runner", "target", "yarrow-runner.jar"))) {
            Files.createDirectories(checkout.resolve(made).getParent());
            Files.copy(ROOT.resolve(made), checkout.resolve(made), StandardCopyOption.COPY_ATTRIBUTES);
        }
        for (String module : List.of("core", "runner", "server", "e2e")) {
            bringClasses(Path.of(module, "target"));
        }
        // With it, what every start needs: the program unpacked, with the classes that its first start kept, and
        // records.
        Path program = Path.of("server", "target", "program");
        Program.prepared("demo");
        Files.createSymbolicLink(checkout.resolve(program), ROOT.resolve(program));
        for (String command : List.of("demo", "start")) {
            Path prepared = ROOT.relativize(Program.prepared(command));
            Program.copyAll(ROOT.resolve(prepared), checkout.resolve(prepared));
            Files.copy(
                    ROOT.resolve(prepared + ".by"),
                    checkout.resolve(prepared + ".by"),
                    StandardCopyOption.COPY_ATTRIBUTES);
        }
    }

    /** With what Maven knows of them, which names every source by its whole path. */
    private static void bringClasses(Path target) throws IOException {
        for (String folder : List.of("classes", "test-classes", "maven-status")) {
            if (Files.exists(ROOT.resolve(target).resolve(folder))) {
                Program.copyAll(
                        ROOT.resolve(target).resolve(folder),
                        checkout.resolve(target).resolve(folder));
            }
        }
        try (Stream<Path> known = Files.find(checkout.resolve(target), 10, (p, a) -> p.getFileName()
                .toString()
                .equals("inputFiles.lst"))) {
            for (Path sources : known.toList()) {
                Files.writeString(
                        sources,
                        Files.readString(sources).replace(ROOT.resolve("").toString(), checkout.toString()));
            }
        }
    }

    /** From another directory than the checkout, as every command may be. */
    private static Ran run(Path from, String... words) throws IOException, InterruptedException {
        List<String> command = Stream.concat(
                        Stream.of(checkout.resolve("bin").resolve(words[0]).toString()),
                        Stream.of(words).skip(1))
                .toList();
        Path said = Files.createTempFile(from, "said", ".txt");
        Process process = new ProcessBuilder(command)
                .directory(from.toFile())
                .redirectErrorStream(true)
                .redirectOutput(said.toFile())
                .start();
        if (!process.waitFor(15, TimeUnit.MINUTES)) {
            process.destroy();
            throw new AssertionError(command + " did not end:\n" + Files.readString(said));
        }
        return new Ran(process.exitValue(), Files.readString(said, StandardCharsets.UTF_8));
    }

    @Test
    void benchGoesThroughEveryPartAtItsSmallestSize(@TempDir Path elsewhere) throws Exception {
        Ran bench = run(elsewhere, "bench", "--smallest");
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
        Ran unknown = run(elsewhere, "bench", "nonsense");
        assertThat(unknown.code()).isNotZero();
        assertThat(unknown.said()).contains("unknown part nonsense").contains("search");
    }

    @Test
    void samplesOfAShelfAreChecked(@TempDir Path elsewhere) throws Exception {
        Program.copyAll(Program.prepared("demo"), checkout.resolve("var"));
        Ran checked = run(elsewhere, "samples", "check", "demo");
        assertThat(checked.code()).as(checked.said()).isZero();
        assertThat(checked.said()).containsPattern("[1-9]\\d* samples checked");
        assertThat(run(elsewhere, "samples", "mend").said()).contains("usage: bin/samples check|rebuild");
    }

    @Test
    void picturesGoIntoTheFolderThatIsNamed(@TempDir Path elsewhere) throws Exception {
        Ran made = run(
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
