package yarrowmark.core;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** What comments cite of docs/method.md is there: a reader who follows "section 5" must find it. */
class CitationsTest {
    private static final Pattern CITED =
            Pattern.compile("(?i)\\b(sections?|examples?) ([0-9A-FJ]\\d?(?:(?:,| and| to) [0-9A-FJ]\\d?)*)");
    private static final Pattern ONE = Pattern.compile("[0-9]+|[A-GJ]\\d?");

    @Test
    void everySectionAndExampleThatAJavaCommentCitesIsInTheMethod() throws IOException {
        String method = Files.readString(Path.of("..", "docs", "method.md"));
        Set<String> sections = Pattern.compile("(?m)^### (\\d+) ")
                .matcher(method)
                .results()
                .map(m -> m.group(1))
                .collect(Collectors.toSet());
        Set<String> examples = Pattern.compile("\\b([A-FJ]\\d?)\\b(?=[ .,:]|$)")
                .matcher(String.join(
                        "\n", method.lines().filter(l -> l.contains("Example")).toList()))
                .results()
                .map(m -> m.group(1))
                .collect(Collectors.toSet());
        assertThat(sections).hasSizeGreaterThan(7);
        for (Path file : sources()) {
            Matcher cited = CITED.matcher(Files.readString(file));
            while (cited.find()) {
                Set<String> there = cited.group(1).toLowerCase().startsWith("section") ? sections : examples;
                assertThat(ONE.matcher(cited.group(2))
                                .results()
                                .map(m -> m.group())
                                .toList())
                        .as("%s cites \"%s\"", file, cited.group())
                        .allMatch(there::contains);
            }
        }
    }

    private static List<Path> sources() {
        return Stream.of("src/main/java", "src/test/java", "../server/src/main/java", "../server/src/test")
                .flatMap(root -> {
                    try {
                        return Files.walk(Path.of(root));
                    } catch (IOException e) {
                        throw new UncheckedIOException(e);
                    }
                })
                .filter(f -> f.toString().endsWith(".java") || f.toString().endsWith(".R"))
                .toList();
    }
}
