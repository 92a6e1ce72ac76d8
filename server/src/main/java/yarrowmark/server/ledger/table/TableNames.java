package yarrowmark.server.ledger.table;

import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.apache.commons.text.similarity.LevenshteinDistance;
import yarrowmark.core.table.KnownNames;
import yarrowmark.server.catalog.TestRow;
import yarrowmark.server.shelf.model.ModelRow;

/** What the shelf and the catalogue have, asked for by names as people write them. */
final class TableNames implements KnownNames {
    /** Of a name this long one letter may differ, of twice as long a name two. */
    private static final int LETTERS_A_SLIP = 5;

    private final Map<String, Optional<Named>> models = new HashMap<>();
    private final List<Named> all;
    private final Map<String, Optional<KnownTest>> tests = new HashMap<>();
    private final List<String> makers;

    TableNames(List<ModelRow> shelf, List<TestRow> catalogue) {
        all = shelf.stream().map(m -> new Named(m.maker(), m.name())).toList();
        for (Named named : all) {
            // Called so by two, it means neither.
            models.merge(plain(named.full()), Optional.of(named), (a, b) -> Optional.empty());
            if (!plain(named.model()).equals(plain(named.full()))) {
                models.merge(plain(named.model()), Optional.of(named), (a, b) -> Optional.empty());
            }
        }
        makers = all.stream()
                .map(Named::maker)
                .distinct()
                .sorted(Comparator.comparingInt(String::length).reversed())
                .toList();
        catalogue.stream()
                .filter(t -> !t.builtIn() && !t.retired() && t.command() == null && t.given())
                .forEach(t -> tests.put(
                        plain(t.name()),
                        Optional.of(new KnownTest(
                                t.name(),
                                t.metrics().get(0).unit(),
                                t.metrics().get(0).direction(),
                                t.group().name(),
                                t.suite(),
                                t.number()))));
    }

    private static String plain(String name) {
        return name.toLowerCase(Locale.ROOT)
                .replaceAll("[\\s\\-_.,()\"']+", " ")
                .strip();
    }

    @Override
    public Optional<Named> model(String name) {
        return models.getOrDefault(plain(name), Optional.empty());
    }

    @Override
    public Optional<Named> nearest(String name) {
        String wanted = plain(name);
        return all.stream()
                .filter(n -> isNear(wanted, plain(n.full())))
                .min(Comparator.comparingInt(n -> distance(wanted, plain(n.full()))));
    }

    /** A slip of the hand, or a name that says less than the whole. Another number is another model. */
    private static boolean isNear(String wanted, String known) {
        return wanted.length() > LETTERS_A_SLIP
                        && distance(wanted, known) <= wanted.length() / LETTERS_A_SLIP / 2 + 1
                        && wanted.replaceAll("\\D+", " ").equals(known.replaceAll("\\D+", " "))
                || known.startsWith(wanted + " ")
                || wanted.startsWith(known + " ");
    }

    private static int distance(String a, String b) {
        return LevenshteinDistance.getDefaultInstance().apply(a, b);
    }

    @Override
    public Optional<String> makerOf(String name) {
        String wanted = plain(name) + " ";
        return makers.stream().filter(m -> wanted.startsWith(plain(m) + " ")).findFirst();
    }

    @Override
    public Optional<KnownTest> test(String name) {
        return tests.getOrDefault(plain(name), Optional.empty());
    }
}
