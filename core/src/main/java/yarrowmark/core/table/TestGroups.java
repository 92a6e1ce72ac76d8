package yarrowmark.core.table;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.regex.Pattern;

/** In which group of tests a name and a unit most probably belong. */
final class TestGroups {
    private static final Map<String, Pattern> WORDS = new LinkedHashMap<>();

    static {
        put(
                "STORAGE",
                "\\b(?:disk|drive|ssd|storage|seq(?:uential)?|random (?:read|write)|read|write|4k|copy files?)\\b");
        put("GRAPHICS", "\\b(?:fps|game|gaming|gpu|graphics|3d|render(?:er)?|shader|scene|ray)\\b");
        put("NETWORK", "\\b(?:wi-?fi|wlan|lan|network|download|upload|ping)\\b");
        put("BROWSER", "\\b(?:browser|web|javascript|page load|pages?)\\b");
        put("VIDEO", "\\b(?:video|encode|encoding|transcode|stream)\\b");
        put("MEMORY", "\\b(?:memory|ram|bandwidth|latency)\\b");
        put(
                "BODY",
                "\\b(?:noise|heat|temperature|temp|surface|power|watt|battery|runtime|brightness|weight|loudness|akku)\\b");
        put("PROCESSOR", "\\b(?:cpu|processor|single|multi|threads?|core|compile|hash|compress(?:ion)?|ops)\\b");
    }

    private static final Map<String, String> UNITS = Map.of(
            "fps",
            "GRAPHICS",
            "W",
            "BODY",
            "Wh",
            "BODY",
            "°C",
            "BODY",
            "dB",
            "BODY",
            "dB(A)",
            "BODY",
            "Mbit/s",
            "NETWORK",
            "MB/s",
            "STORAGE",
            "IOPS",
            "STORAGE",
            "h:min",
            "BODY");

    private TestGroups() {}

    static String of(String name, String unit) {
        String byUnit = UNITS.get(unit);
        if (byUnit != null) {
            return byUnit;
        }
        return WORDS.entrySet().stream()
                .filter(e -> e.getValue().matcher(name).find())
                .map(Map.Entry::getKey)
                .findFirst()
                .orElse("EVERYDAY");
    }

    private static void put(String group, String words) {
        WORDS.put(group, Pattern.compile("(?i)" + words));
    }
}
