package yarrowmark.server.standing;

import static yarrowmark.server.platform.Require.require;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import yarrowmark.core.setup.VersionOrder;
import yarrowmark.server.ledger.record.LedgerSessions;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.shelf.Population;
import yarrowmark.server.shelf.Population.Member;
import yarrowmark.server.shelf.configuration.KnownFacts;
import yarrowmark.server.shelf.search.ShelfIndex.FactCondition;
import yarrowmark.server.shelf.search.ShelfIndex.Relation;

/** Who is in a standing, and who is not because something is not known of them. */
@Component
class StandingFilter {
    static final String FIRMWARE = "firmware.version";
    static final String PRICE = "price";
    static final String WEIGHT = "weight";

    /**
     * @param members  by configuration, in the order they were made
     * @param outdated configurations with an older firmware than the newest of their model: the newest
     * @param quantity by configuration, what scores are divided by; empty where they are not
     * @param unknown  how many are not in because of what is not known of them, by what it is
     */
    record Chosen(
            Map<Long, Member> members,
            Map<Long, String> outdated,
            Map<Long, Double> quantity,
            Map<String, Integer> unknown) {}

    private final Population population;
    private final LedgerSessions sessions;

    StandingFilter(Population population, LedgerSessions sessions) {
        this.population = population;
        this.sessions = sessions;
    }

    /** @param measured configurations that have a score in what is ranked */
    Chosen of(StandingsAsk ask, Set<Long> measured) {
        List<FactCondition> conditions = ask.conditions();
        String divisor =
                ask.per() == null || ask.per().equals(PRICE) || ask.per().equals(WEIGHT) ? null : ask.per();
        Set<String> keys = conditions.stream().map(FactCondition::key).collect(Collectors.toCollection(HashSet::new));
        keys.add(FIRMWARE);
        if (divisor != null) {
            keys.add(divisor);
        }
        Map<String, Map<Long, String>> facts = population.facts(keys);
        List<Member> all = population.all();
        Map<Long, String> outdated = outdated(all, require(facts, FIRMWARE));
        String currency = currency(all);
        Map<String, Integer> unknown = new LinkedHashMap<>();
        List<Member> in = all.stream()
                .filter(m -> measured.contains(m.configuration().id()))
                .filter(plain(ask))
                .toList();
        if (ask.priceFrom() != null || ask.priceTo() != null) {
            in = known(
                            in,
                            m -> m.price() != null
                                    && m.currency() != null
                                    && m.currency().equals(currency),
                            "a price" + (currency == null ? "" : " in " + currency),
                            unknown)
                    .stream()
                    .filter(m -> (ask.priceFrom() == null || require(m.price()).doubleValue() >= ask.priceFrom())
                            && (ask.priceTo() == null || require(m.price()).doubleValue() <= ask.priceTo()))
                    .toList();
        }
        if (ask.yearFrom() != null || ask.yearTo() != null) {
            in = known(in, m -> m.released() != null, "a release date", unknown).stream()
                    .filter(m -> (ask.yearFrom() == null
                                    || require(m.released()).getYear() >= ask.yearFrom())
                            && (ask.yearTo() == null || require(m.released()).getYear() <= ask.yearTo()))
                    .toList();
        }
        for (FactCondition c : conditions) {
            Map<Long, String> values = require(facts, c.key());
            in = in.stream()
                    .filter(m -> holds(c, values.get(m.configuration().id())))
                    .toList();
        }
        if (Boolean.TRUE.equals(ask.newestFirmware()) || Boolean.TRUE.equals(ask.fresh())) {
            in = in.stream()
                    .filter(m -> !outdated.containsKey(m.configuration().id()))
                    .toList();
        }
        if (ask.power() != null) {
            in = powered(in, ask.power(), unknown);
        }
        Map<Long, Double> quantity = new HashMap<>();
        if (ask.per() != null) {
            Function<Member, @Nullable Double> of =
                    quantity(ask.per(), divisor == null ? Map.of() : require(facts, divisor), currency);
            in = known(
                    in,
                    m -> {
                        Double value = of.apply(m);
                        return value != null && value > 0;
                    },
                    ask.per().equals(PRICE)
                            ? "a price" + (currency == null ? "" : " in " + currency)
                            : ask.per().equals(WEIGHT) ? "a weight" : "what scores are divided by",
                    unknown);
            in.forEach(m -> quantity.put(m.configuration().id(), of.apply(m)));
        }
        return new Chosen(
                in.stream()
                        .collect(
                                Collectors.toMap(m -> m.configuration().id(), m -> m, (a, b) -> a, LinkedHashMap::new)),
                outdated,
                quantity,
                unknown);
    }

    private static Predicate<Member> plain(StandingsAsk ask) {
        Set<String> makers = ask.maker() == null
                ? Set.of()
                : ask.maker().stream().map(m -> m.toLowerCase(Locale.ROOT)).collect(Collectors.toSet());
        return m -> (ask.deviceClass() == null
                        || ask.deviceClass().isEmpty()
                        || ask.deviceClass().contains(m.configuration().deviceClass()))
                && (ask.only() == null || ask.only().contains(m.configuration().id()))
                && (makers.isEmpty()
                        || makers.contains(m.configuration().maker().toLowerCase(Locale.ROOT)))
                && (ask.review() == null || ask.review() == m.review());
    }

    private static List<Member> known(
            List<Member> in, Predicate<Member> isKnown, String what, Map<String, Integer> unknown) {
        List<Member> those = in.stream().filter(isKnown).toList();
        if (those.size() < in.size()) {
            unknown.merge("without " + what, in.size() - those.size(), Integer::sum);
        }
        return those;
    }

    private static boolean holds(FactCondition c, @Nullable String value) {
        if (value == null || c.value() == null || c.relation() == Relation.KNOWN) {
            return value != null;
        }
        if (c.relation() == Relation.IS) {
            return value.equalsIgnoreCase(c.value());
        }
        Double number = KnownFacts.number(value);
        double limit = Double.parseDouble(c.value());
        return number != null && (c.relation() == Relation.AT_LEAST ? number >= limit : number <= limit);
    }

    private List<Member> powered(List<Member> in, StandingsAsk.Power power, Map<String, Integer> unknown) {
        Map<Long, Set<Boolean>> onMains = sessions.power();
        boolean wanted = power == StandingsAsk.Power.MAINS;
        List<Member> those =
                known(in, m -> onMains.containsKey(m.configuration().id()), "a word on how they were powered", unknown);
        List<Member> one = those.stream()
                .filter(m -> require(onMains, m.configuration().id()).size() == 1)
                .toList();
        if (one.size() < those.size()) {
            unknown.merge("measured partly on mains and partly on battery", those.size() - one.size(), Integer::sum);
        }
        return one.stream()
                .filter(m -> require(onMains, m.configuration().id()).contains(wanted))
                .toList();
    }

    /** A firmware is out of date where another configuration of the same model has a newer one. */
    private static Map<Long, String> outdated(List<Member> all, Map<Long, String> firmware) {
        Map<Long, String> newest = new HashMap<>();
        all.stream()
                .filter(m -> firmware.containsKey(m.configuration().id()))
                .forEach(m -> newest.merge(
                        m.configuration().modelId(),
                        firmware.get(m.configuration().id()),
                        (a, b) -> VersionOrder.INSTANCE.compare(a, b) >= 0 ? a : b));
        Map<Long, String> outdated = new HashMap<>();
        all.stream().filter(m -> firmware.containsKey(m.configuration().id())).forEach(m -> {
            String best = require(newest, m.configuration().modelId());
            if (VersionOrder.INSTANCE.compare(
                            require(firmware, m.configuration().id()), best)
                    < 0) {
                outdated.put(m.configuration().id(), best);
            }
        });
        return outdated;
    }

    /** The one that most prices are in. */
    static @Nullable String currency(List<Member> all) {
        return all.stream()
                .filter(m -> m.price() != null && m.currency() != null)
                .collect(Collectors.groupingBy(Member::currency, Collectors.counting()))
                .entrySet()
                .stream()
                .max(Map.Entry.<String, Long>comparingByValue().thenComparing(Map.Entry.comparingByKey()))
                .map(Map.Entry::getKey)
                .orElse(null);
    }

    private static Function<Member, @Nullable Double> quantity(
            String per, Map<Long, String> values, @Nullable String currency) {
        return switch (per) {
            case PRICE ->
                m -> m.price() != null && m.currency() != null && m.currency().equals(currency)
                        ? require(m.price()).doubleValue()
                        : null;
            case WEIGHT -> Member::weight;
            default -> m -> KnownFacts.number(values.get(m.configuration().id()));
        };
    }

    /** One of each model that is in: made last, or made from no other. The best is known only after ranking. */
    static List<Long> onePerModel(Chosen chosen, StandingsAsk.PerModel which) {
        Map<Long, Long> one = new LinkedHashMap<>();
        List<Member> members = new ArrayList<>(chosen.members().values());
        for (Member m : members) {
            long model = m.configuration().modelId();
            if (which == StandingsAsk.PerModel.NEWEST) {
                one.put(model, m.configuration().id());
            } else if (m.first()) {
                one.putIfAbsent(model, m.configuration().id());
            }
        }
        return List.copyOf(one.values());
    }

    static Problem nobody() {
        return Problem.invalid(
                "nothing-tested",
                "Nothing that was asked for has a score yet. Bring a device to the bench, or ask for other classes or tests.");
    }
}
