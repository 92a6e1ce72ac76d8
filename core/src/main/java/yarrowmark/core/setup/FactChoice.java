package yarrowmark.core.setup;

import java.util.List;

/**
 * One thing a choice may be.
 *
 * @param name  as it is kept and shown
 * @param alias other ways in which people and systems write it
 */
public record FactChoice(String name, List<String> alias) {
    public FactChoice {
        alias = List.copyOf(alias);
    }

    static FactChoice of(String name, String... alias) {
        return new FactChoice(name, List.of(alias));
    }

    boolean isCalled(String text) {
        return plain(name).equals(plain(text)) || alias.stream().anyMatch(a -> plain(a).equals(plain(text)));
    }

    /** Letters and digits alone, in lower case: "x86-64", "X86_64" and "x86 64" are one. */
    private static String plain(String text) {
        return text.toLowerCase(java.util.Locale.ROOT).replaceAll("[^\\p{L}\\p{N}]", "");
    }
}
