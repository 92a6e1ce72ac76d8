package yarrowmark.core;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.regex.MatchResult;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** What people read is in their words, not in those of the code: a tool that renames does not stop at a sentence. */
class SentencesTest {
    private static final Pattern TEXT = Pattern.compile("'(?:[^'\\\\]|\\\\.)'|\"((?:[^\"\\\\\n]|\\\\.)*)\"");
    /** To the database. */
    private static final Pattern QUESTION = Pattern.compile(" ?(?:select|update|delete|from) ");

    private static final Pattern MEMBER = Pattern.compile("\\b([A-Z]\\w+)\\.[A-Za-z]\\w*");

    @Test
    void noSentenceNamesAMemberOfAClass() throws IOException {
        List<Path> sources = new ArrayList<>();
        for (String root : List.of("src/main/java", "../runner/src/main/java", "../server/src/main/java")) {
            try (Stream<Path> files = Files.walk(Path.of(root))) {
                files.filter(f -> f.toString().endsWith(".java")).forEach(sources::add);
            }
        }
        Set<String> classes = sources.stream()
                .map(f -> f.getFileName().toString().replace(".java", ""))
                .collect(Collectors.toSet());
        assertThat(classes).hasSizeGreaterThan(500);
        for (Path file : sources) {
            List<String> named = TEXT.matcher(Files.readString(file))
                    .results()
                    .map(text -> text.group(1))
                    .filter(text -> text != null
                            && text.contains(" ")
                            && !QUESTION.matcher(text).lookingAt())
                    .flatMap(text -> MEMBER.matcher(text).results())
                    .filter(member -> classes.contains(member.group(1)))
                    .map(MatchResult::group)
                    .toList();
            assertThat(named).as("sentences of %s", file).isEmpty();
        }
    }
}
