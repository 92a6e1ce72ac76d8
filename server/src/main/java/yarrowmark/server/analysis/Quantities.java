package yarrowmark.server.analysis;

import static yarrowmark.server.platform.Require.require;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.shelf.Shelf;
import yarrowmark.server.shelf.ShelfPages;
import yarrowmark.server.shelf.configuration.ConfigurationRow;
import yarrowmark.server.shelf.configuration.KnownFacts;
import yarrowmark.server.shelf.model.ModelRow;

/** What scores can be divided by: only where it is known of every configuration that is compared. */
@Service
class Quantities {
    private static final String PRICE = "price";
    private static final String MASS = "mass";

    private enum Fact {
        CLOCK("clock", "processor.boost_clock", "GHz of the highest clock", "GHz", 1e9),
        CORES("cores", "processor.cores", "core", "cores", 1),
        POWER("power", "power.sustained_limit", "watt of the sustained power limit", "W", 1);

        private final String key;
        private final String fact;
        private final String label;
        private final String unit;
        private final double size;

        Fact(String key, String fact, String label, String unit, double size) {
            this.key = key;
            this.fact = fact;
            this.label = label;
            this.unit = unit;
            this.size = size;
        }
    }

    /** @param values by configuration, in the unit shown */
    record Known(Comparison.PerQuantity quantity, Map<Long, Double> values) {
        double value(long configurationId) {
            return require(values, configurationId);
        }

        @Nullable
        Double shown(long configurationId) {
            return values.get(configurationId);
        }
    }

    private final KnownFacts facts;
    private final Shelf shelf;
    private final ShelfPages pages;

    Quantities(KnownFacts facts, Shelf shelf, ShelfPages pages) {
        this.facts = facts;
        this.shelf = shelf;
        this.pages = pages;
    }

    /** @throws Problem where there is no such quantity, or it is not known of all of them */
    Known of(String key, Set<Long> ids) {
        Known known = key.equals(PRICE) ? price(ids) : key.equals(MASS) ? mass(ids) : fact(key, ids);
        List<ConfigurationRow> missing = pages.configurations(ids).stream()
                .filter(c -> !known.values().containsKey(c.id()))
                .toList();
        if (!missing.isEmpty()) {
            throw Problem.invalid(
                    "quantity-unknown",
                    "The " + known.quantity().label() + " is not known of "
                            + missing.stream()
                                    .map(c -> c.maker() + " " + c.model() + " (" + c.name() + ")")
                                    .collect(Collectors.joining(", "))
                            + ", so nothing can be divided by it. Enter it on the shelf, or compare without it.");
        }
        return known;
    }

    /** Those that are known of all of these. */
    List<Comparison.PerQuantity> offered(Collection<Long> ids) {
        List<Known> all = new ArrayList<>(Arrays.stream(Fact.values())
                .map(f -> fact(f.key, Set.copyOf(ids)))
                .toList());
        all.add(mass(Set.copyOf(ids)));
        try {
            all.add(price(Set.copyOf(ids)));
        } catch (Problem several) {
            // Prices in several currencies cannot be divided by.
        }
        return all.stream()
                .filter(k -> k.values().size() == Set.copyOf(ids).size())
                .map(Known::quantity)
                .toList();
    }

    private Known fact(String key, Set<Long> ids) {
        Fact fact = Arrays.stream(Fact.values())
                .filter(f -> f.key.equals(key))
                .findFirst()
                .orElseThrow(() -> Problem.invalid(
                        "unknown-quantity",
                        "Scores can be divided by "
                                + Arrays.stream(Fact.values()).map(f -> f.key).collect(Collectors.joining(", "))
                                + ", mass or price, not by \"" + key + "\"."));
        Map<Long, Double> values = new HashMap<>();
        facts.of(ids).forEach((id, own) -> {
            Double value = KnownFacts.number(own.get(fact.fact));
            if (value != null && value > 0) {
                values.put(id, value / fact.size);
            }
        });
        return new Known(new Comparison.PerQuantity(fact.key, fact.label, fact.unit), values);
    }

    private Known mass(Set<Long> ids) {
        Map<Long, Double> values = new LinkedHashMap<>();
        for (ConfigurationRow c : pages.configurations(ids)) {
            Double grams = pages.model(c.modelId()).fields().stream()
                    .filter(f -> f.name().equals("weight"))
                    .findFirst()
                    .map(f -> KnownFacts.number(f.value()))
                    .orElse(null);
            if (grams != null && grams > 0) {
                values.put(c.id(), grams);
            }
        }
        return new Known(new Comparison.PerQuantity(MASS, "gram", "g"), values);
    }

    private Known price(Set<Long> ids) {
        Map<Long, Double> values = new LinkedHashMap<>();
        Set<String> currencies = new TreeSet<>();
        for (ConfigurationRow c : pages.configurations(ids)) {
            ModelRow model = pages.model(c.modelId()).model();
            if (model.price() != null && model.currency() != null) {
                values.put(c.id(), model.price().doubleValue());
                currencies.add(model.currency());
            }
        }
        if (currencies.size() > 1) {
            throw Problem.invalid(
                    "several-currencies",
                    "The prices are in " + String.join(" and ", currencies)
                            + ", and rates between them are not known here.");
        }
        return new Known(
                new Comparison.PerQuantity(
                        PRICE,
                        currencies.isEmpty()
                                ? "unit of price"
                                : currencies.iterator().next() + " of its price",
                        currencies.isEmpty() ? "" : currencies.iterator().next()),
                values);
    }
}
