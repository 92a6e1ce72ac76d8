package yarrowmark.runner.sensor;

import java.io.IOException;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/** Reads the small files in which Linux tells what its devices say. */
final class SystemFiles {
    private SystemFiles() {}

    /** Without its line end; empty where it is not there, may not be read or says nothing just now. */
    static Optional<String> word(Path file) {
        try {
            return Optional.of(Files.readString(file).strip()).filter(w -> !w.isEmpty());
        } catch (IOException | RuntimeException e) {
            return Optional.empty();
        }
    }

    /** Not a number where there is none. */
    static double number(Path file) {
        return word(file).map(SystemFiles::parsed).orElse(Double.NaN);
    }

    private static double parsed(String word) {
        try {
            return Double.parseDouble(word);
        } catch (NumberFormatException e) {
            return Double.NaN;
        }
    }

    /** What matches in a folder, 2 before 10; nothing where there is no such folder. */
    static List<Path> in(Path folder, String pattern) {
        List<Path> found = new ArrayList<>();
        if (Files.isDirectory(folder)) {
            try (DirectoryStream<Path> all = Files.newDirectoryStream(folder, pattern)) {
                all.forEach(found::add);
            } catch (IOException | RuntimeException e) {
                return List.of();
            }
        }
        found.sort(
                Comparator.comparingInt((Path p) -> p.getFileName().toString().length())
                        .thenComparing(p -> p.getFileName().toString()));
        return found;
    }
}
