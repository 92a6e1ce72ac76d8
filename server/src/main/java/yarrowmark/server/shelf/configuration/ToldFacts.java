package yarrowmark.server.shelf.configuration;

import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import yarrowmark.core.setup.FactGroup;
import yarrowmark.core.setup.FactVocabulary;
import yarrowmark.core.setup.SeveralParts;

/** What a device tells of itself, beside what is known of it: what of both its configuration has. */
final class ToldFacts {
    private static final String RESOLUTION = "display.resolution";
    private static final String REFRESH = "display.refresh";

    private ToldFacts() {}

    /** @param known facts of the unit's newest configuration; none where it has none */
    static Map<String, GivenFact> beside(Map<String, GivenFact> known, List<GivenFact> told) {
        Map<String, GivenFact> facts = new TreeMap<>();
        told.forEach(f -> facts.put(f.key(), new GivenFact(f.key(), f.value().strip(), f.source())));
        sameDisplay(known, facts);
        carryOver(known, facts);
        return facts;
    }

    /**
     * A display that is turned is the same one; and a device that is busy shows fewer pictures than its display could, so
     * that a measured rate below the known one says nothing about the display.
     */
    private static void sameDisplay(Map<String, GivenFact> known, Map<String, GivenFact> facts) {
        GivenFact resolution = known.get(RESOLUTION);
        facts.computeIfPresent(
                RESOLUTION, (key, f) -> resolution != null && turned(resolution.value(), f.value()) ? resolution : f);
        GivenFact refresh = known.get(REFRESH);
        facts.computeIfPresent(
                REFRESH,
                (key, f) -> refresh != null
                                && f.source() == FactSource.DETECTED
                                && number(f.value()) < number(refresh.value())
                        ? refresh
                        : f);
    }

    private static double number(String value) {
        try {
            return Double.parseDouble(value);
        } catch (NumberFormatException e) {
            return Double.NaN;
        }
    }

    private static boolean turned(String one, String other) {
        String[] sides = one.split("x");
        return sides.length == 2 && other.equals(sides[1] + "x" + sides[0]);
    }

    private static void carryOver(Map<String, GivenFact> newest, Map<String, GivenFact> facts) {
        asUsed(newest, facts).forEach((key, known) -> {
            GivenFact told = facts.get(key);
            if (told == null
                    && known.source() != FactSource.DETECTED
                    && FactVocabulary.entry(key).group() != FactGroup.ROOM) {
                facts.put(key, new GivenFact(key, known.value(), known.source(), known.other()));
            } else if (told != null
                    && told.source() == FactSource.DETECTED
                    && known.source() != FactSource.DETECTED
                    && !told.value().equals(known.value())) {
                facts.put(key, new GivenFact(key, told.value(), told.source(), known.value()));
            }
        });
    }

    /** What is known, with the graphics processor that the device draws with in the place of the one that tests used. */
    private static Map<String, GivenFact> asUsed(Map<String, GivenFact> known, Map<String, GivenFact> told) {
        GivenFact renderer = told.get("graphics.renderer");
        if (renderer == null || renderer.source() != FactSource.DETECTED) {
            return known;
        }
        int used = SeveralParts.meant(GivenFact.values(known), "graphics.renderer", renderer.value())
                .orElse(1);
        if (used == 1) {
            return known;
        }
        Map<String, GivenFact> exchanged = SeveralParts.exchanged(known, "graphics", used);
        // What the device told of the one it no longer draws with is told no more, and would be lost.
        exchanged.replaceAll((key, f) -> key.endsWith("." + used) && f.source() == FactSource.DETECTED
                ? new GivenFact(key, f.other() == null ? f.value() : f.other(), FactSource.TYPED)
                : f);
        return exchanged;
    }
}
