package yarrowmark.e2e;

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
import java.util.stream.Stream;

/**
 * A copy of this checkout's sources, in which nothing of ours was installed and nothing was built. What this very build made
 * of them can be brought along.
 */
final class CleanCopy {
    static final Path ROOT = Path.of("..").toAbsolutePath().normalize();

    private static final Set<String> MADE = Set.of("target", "node_modules", "var", ".git", "dist", "generated");

    /** @param said on both outputs */
    record Ran(int code, String said) {}

    private final Path checkout;

    private CleanCopy(Path checkout) {
        this.checkout = checkout;
    }

    static CleanCopy below(Path folder) throws IOException {
        Path checkout = folder.resolve("checkout");
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
        return new CleanCopy(checkout);
    }

    Path path() {
        return checkout;
    }

    /** The program and its classes, and what every start needs: it unpacked, with the classes that its first start kept, and records. */
    void bringProgram() throws IOException {
        for (Path made : List.of(
                Path.of("server", "target", "yarrowmark.jar"), Path.of("runner", "target", "yarrow-runner.jar"))) {
            Files.createDirectories(checkout.resolve(made).getParent());
            Files.copy(ROOT.resolve(made), checkout.resolve(made), StandardCopyOption.COPY_ATTRIBUTES);
        }
        for (String module : List.of("core", "runner", "server", "e2e")) {
            bringClasses(Path.of(module, "target"));
        }
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
    private void bringClasses(Path target) throws IOException {
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
                Files.writeString(sources, Files.readString(sources).replace(ROOT.toString(), checkout.toString()));
            }
        }
    }

    /** @param from another directory than the checkout, as every command may be called */
    Ran run(Path from, String... words) throws IOException {
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
        Patience.until(() -> command + " did not end; it said last what is in " + said, () -> !process.isAlive());
        return new Ran(process.exitValue(), Files.readString(said, StandardCharsets.UTF_8));
    }
}
