package yarrowmark.server.access;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.text.Normalizer;
import java.util.Locale;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.core.io.ClassPathResource;
import org.springframework.stereotype.Component;
import yarrowmark.server.platform.Problem;

/**
 * Which passwords are refused: those that others would try first. What was put around or into a common word (capitals,
 * digits, signs, 0 for o) is taken away before it is looked up, because those who try do the same.
 */
@Component
class PasswordRules {
    static final int SHORTEST = 10;
    static final int LONGEST = 200;
    /** Below this, one letter over and over, or a row of keys, is all there is. */
    private static final int FEWEST_DIFFERENT = 4;

    private final Set<String> common;

    PasswordRules() {
        try {
            common = new ClassPathResource("yarrowmark/server/access/common-passwords.txt")
                    .getContentAsString(StandardCharsets.UTF_8)
                    .lines()
                    .map(String::strip)
                    .filter(l -> !l.isEmpty() && !l.startsWith("#"))
                    .collect(Collectors.toUnmodifiableSet());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /**
     * @param name whose it will be
     * @throws Problem says what is wrong with it, and never what it is
     */
    void check(String password, String name, String lab) {
        int letters = password.codePointCount(0, password.length());
        if (letters < SHORTEST || letters > LONGEST) {
            throw refused("A password has " + SHORTEST + " to " + LONGEST + " characters.");
        }
        String plain = plain(password);
        if (password.codePoints().distinct().count() < FEWEST_DIFFERENT
                || common.contains(password.toLowerCase(Locale.ROOT))
                || common.contains(plain)
                || plain.length() >= 8 && repeatsACommonOne(plain)) {
            throw refused(
                    "This password is one of those that are tried first. Take another: three or four words that do not"
                            + " belong together are easy to keep and hard to find.");
        }
        for (String word : new String[] {name, lab, "yarrowmark"}) {
            String inside = plain(word);
            if (inside.length() >= 4 && plain.replace(inside, "").length() < 4) {
                throw refused("This password is hardly more than a name that everybody here knows. Take another.");
            }
        }
    }

    /** "passwordpassword" is no better than "password". */
    private boolean repeatsACommonOne(String plain) {
        for (int length = 3; length <= plain.length() / 2; length++) {
            String start = plain.substring(0, length);
            if (common.contains(start)
                    && start.repeat(plain.length() / length + 1).startsWith(plain)) {
                return true;
            }
        }
        return false;
    }

    private static String plain(String text) {
        String lower = Normalizer.normalize(text, Normalizer.Form.NFKC)
                .toLowerCase(Locale.ROOT)
                .replaceAll("^[^\\p{L}]+|[^\\p{L}]+$", "")
                .replace('0', 'o')
                .replace('1', 'l')
                .replace('3', 'e')
                .replace('4', 'a')
                .replace('@', 'a')
                .replace('5', 's')
                .replace('$', 's')
                .replace('7', 't');
        return lower.replaceAll("[^\\p{L}]", "");
    }

    private static Problem refused(String words) {
        return Problem.invalid("weak-password", words);
    }
}
