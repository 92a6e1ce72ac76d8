package yarrowmark.server.demo;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** What the lab of the demo noted about its models beyond their scores: sizes, claims, and what must go back. */
final class DemoNotes {
    /**
     * A claim of a maker.
     *
     * @param factKey a fact, or null
     * @param test    name of the test a score is claimed in, or null
     */
    record Promise(@Nullable String factKey, @Nullable String test, String text, String source) {}

    /** @param daysLeft days until the unit goes back, where it is only lent */
    record Note(
            Map<String, String> fields, Map<String, String> unit, Optional<Integer> daysLeft, List<Promise> claims) {}

    private static final Note NOTHING = new Note(Map.of(), Map.of(), Optional.empty(), List.of());
    private static final String SHEET = "data sheet of the maker";

    private DemoNotes() {}

    /** Which model each follows in its maker's line. */
    static final Map<String, String> FOLLOWS =
            Map.of("Slate 11", "Larkspur Slate 8", "Drift 13", "Pellow Drift 11", "Cob mini", "Ostler Fell");

    /** How far the reviews are; the others were never meant to be reviewed. */
    static final Map<String, String> REVIEWS = Map.of(
            "Folio 14",
            "reviewed",
            "Slate 11",
            "reviewed",
            "Cob mini",
            "reviewed",
            "Sanderling",
            "in review",
            "Traverse 16",
            "in review",
            "Folio 16",
            "waiting");

    /** In g, as read from the lab's scales. */
    static final Map<String, String> WEIGHTS = Map.ofEntries(
            Map.entry("Slate 11", "482 g"),
            Map.entry("Slate 8", "331 g"),
            Map.entry("Pocket 6", "186 g"),
            Map.entry("Folio 16", "1.71 kg"),
            Map.entry("Wayfarer", "197 g"),
            Map.entry("Cob mini", "960 g"),
            Map.entry("Shire", "8.4 kg"),
            Map.entry("Fell", "640 g"),
            Map.entry("Drift 13", "1.18 kg"),
            Map.entry("Drift 11", "1.09 kg"),
            Map.entry("Wader 12", "571 g"),
            Map.entry("Ridge", "52 g"),
            Map.entry("Beacon", "7.9 kg"));

    static Note of(String model) {
        return switch (model) {
            case "Folio 14" ->
                new Note(
                        Map.of(
                                "width",
                                "312 mm",
                                "depth",
                                "221 mm",
                                "height",
                                "16.1 mm",
                                "weight",
                                "1.24 kg",
                                "battery",
                                "57 Wh",
                                "screen",
                                "14 in, 1920 × 1200, matt",
                                "ports",
                                "2 USB-C, 1 USB-A, headphones",
                                "priceSource",
                                "price list of the maker",
                                "priceOn",
                                "2025-05-08",
                                "notes",
                                "Bought for the spring survey. The lid opens with one hand; the fan is heard from a desk away."),
                        Map.of("serial", "QB14-00731", "origin", "bought"),
                        Optional.empty(),
                        List.of(
                                new Promise(null, "Sequential read, 1 MiB", "3400", SHEET),
                                new Promise("battery.capacity", null, "57 Wh", SHEET),
                                new Promise("memory.size", null, "16 GB", "sticker on the box")));
            case "Sanderling" ->
                new Note(
                        Map.of(
                                "width",
                                "71.8 mm",
                                "depth",
                                "8.1 mm",
                                "height",
                                "148.2 mm",
                                "weight",
                                "178 g",
                                "battery",
                                "17.4 Wh"),
                        Map.of("serial", "SDL-2290-B", "origin", "lent by the maker"),
                        Optional.of(6),
                        List.of(new Promise("display.refresh", null, "120 Hz", SHEET)));
            case "Traverse 16" ->
                new Note(
                        Map.of(
                                "width",
                                "356 mm",
                                "depth",
                                "249 mm",
                                "height",
                                "21.4 mm",
                                "weight",
                                "2.31 kg",
                                "battery",
                                "90 Wh",
                                "ports",
                                "3 USB-C, 1 USB-A, card reader"),
                        Map.of("serial", "HK-T16-0042", "origin", "lent by the maker"),
                        Optional.of(-2),
                        List.of(new Promise(null, "Sequential read, 1 MiB", "5000", SHEET)));
            case "Spar" ->
                new Note(
                        Map.of("width", "92 mm", "depth", "61 mm", "height", "19 mm", "weight", "58 g"),
                        Map.of("origin", "bought"),
                        Optional.empty(),
                        List.of());
            default -> NOTHING;
        };
    }
}
