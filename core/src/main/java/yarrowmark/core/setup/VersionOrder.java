package yarrowmark.core.setup;

import java.math.BigInteger;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Orders versions as people count them: runs of digits by their number, so 5.9 comes before 5.10, other runs by their
 * letters. What is longer comes later, except for a word that marks an unfinished version: 2.0-rc1 comes before 2.0.
 */
public final class VersionOrder implements Comparator<String> {
    public static final VersionOrder INSTANCE = new VersionOrder();

    private static final Pattern PART = Pattern.compile("\\d+|\\p{L}+");
    private static final List<String> UNFINISHED = List.of("dev", "alpha", "a", "beta", "b", "pre", "preview", "rc");

    private VersionOrder() {}

    @Override
    public int compare(String a, String b) {
        List<String> left = parts(a);
        List<String> right = parts(b);
        for (int i = 0; i < Math.max(left.size(), right.size()); i++) {
            int order = i >= left.size()
                    ? -tail(right.get(i))
                    : i >= right.size() ? tail(left.get(i)) : part(left.get(i), right.get(i));
            if (order != 0) {
                return order;
            }
        }
        return 0;
    }

    /** Whether a version with this part more is later than the one without it. */
    private static int tail(String part) {
        return UNFINISHED.contains(part) ? -1 : 1;
    }

    private static int part(String a, String b) {
        boolean numberA = Character.isDigit(a.charAt(0));
        boolean numberB = Character.isDigit(b.charAt(0));
        if (numberA && numberB) {
            return new BigInteger(a).compareTo(new BigInteger(b));
        }
        if (numberA != numberB) {
            // A number against a word: 2.0.1 is later than 2.0-rc1 and than 2.0a.
            return numberA ? 1 : -1;
        }
        int unfinished = Integer.compare(rank(a), rank(b));
        return unfinished != 0 ? unfinished : a.compareTo(b);
    }

    private static int rank(String word) {
        int at = UNFINISHED.indexOf(word);
        return at < 0 ? UNFINISHED.size() : at;
    }

    private static List<String> parts(String version) {
        List<String> parts = new ArrayList<>();
        Matcher m = PART.matcher(version.toLowerCase(java.util.Locale.ROOT));
        while (m.find()) {
            parts.add(m.group());
        }
        return parts;
    }
}
