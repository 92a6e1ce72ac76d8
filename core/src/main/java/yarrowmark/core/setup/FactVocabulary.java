package yarrowmark.core.setup;

import static yarrowmark.core.setup.FactKey.Type.CHOICE;
import static yarrowmark.core.setup.FactKey.Type.DECIMAL;
import static yarrowmark.core.setup.FactKey.Type.INTEGER;
import static yarrowmark.core.setup.FactKey.Type.TEXT;
import static yarrowmark.core.setup.FactKey.Type.VERSION;
import static yarrowmark.core.setup.FactKey.Type.YES_NO;

import java.util.Collection;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;

/** The facts Yarrowmark knows by name. A new fact is one line here. Unknown keys are welcome and kept as text. */
public final class FactVocabulary {
    private static final Map<String, FactKey> KEYS = new LinkedHashMap<>();

    static {
        FactGroup g = FactGroup.PROCESSOR;
        add("processor.name", "Processor", "processor", g, TEXT, "");
        add("processor.architecture", "Architecture", "architecture", g, CHOICE, "");
        add("processor.cores", "Cores", "cores", g, INTEGER, "1");
        add("processor.threads", "Logical processors", "logical processors", g, INTEGER, "1");
        add("processor.base_clock", "Base clock", "base clock", g, DECIMAL, "Hz");
        add("processor.boost_clock", "Highest clock", "highest clock", g, DECIMAL, "Hz");
        g = FactGroup.MEMORY;
        add("memory.size", "Memory size", "memory", g, INTEGER, "By");
        addQuiet("memory.reported", "Memory as the browser tells it, at least", g, INTEGER, "By");
        add("memory.kind", "Memory kind", "memory kind", g, CHOICE, "");
        add("memory.channels", "Channels", "channels", g, INTEGER, "1");
        add("memory.speed", "Transfer rate", "memory rate", g, DECIMAL, "T/s");
        g = FactGroup.GRAPHICS;
        add("graphics.renderer", "Graphics", "graphics", g, TEXT, "");
        addQuiet("graphics.vendor", "Graphics maker, as told", g, TEXT, "");
        g = FactGroup.STORAGE;
        add("storage.model", "Drive", "drive", g, TEXT, "");
        add("storage.size", "Drive size", "drive size", g, INTEGER, "By");
        add("storage.interface", "Drive interface", "drive interface", g, CHOICE, "");
        g = FactGroup.BOARD;
        add("firmware.version", "Firmware", "firmware", g, VERSION, "");
        g = FactGroup.SYSTEM;
        add("os.name", "Operating system", "system", g, TEXT, "");
        add("os.version", "System version", "system", g, VERSION, "");
        add("os.kernel", "Kernel", "kernel", g, VERSION, "");
        addQuiet("os.language", "Language", g, TEXT, "");
        g = FactGroup.DRIVERS;
        add("driver.graphics", "Graphics driver", "graphics driver", g, VERSION, "");
        g = FactGroup.BROWSER;
        add("browser.name", "Browser", "browser", g, TEXT, "");
        add("browser.version", "Browser version", "browser", g, VERSION, "");
        addQuiet("browser.secure_context", "Secure connection", g, YES_NO, "");
        addQuiet("browser.isolated", "Cross-origin isolated", g, YES_NO, "");
        addQuiet("browser.clock_resolution", "Clock resolution", g, DECIMAL, "s");
        g = FactGroup.POWER;
        add("power.source", "Power", "power", g, CHOICE, "");
        add("power.mode", "Power mode", "power mode", g, CHOICE, "");
        add("power.sustained_limit", "Sustained power limit", "power limit", g, DECIMAL, "W");
        g = FactGroup.DISPLAY;
        add("display.resolution", "Resolution", "resolution", g, TEXT, "");
        addQuiet("display.pixel_ratio", "Pixel ratio", g, DECIMAL, "1");
        add("display.refresh", "Refresh rate", "refresh rate", g, DECIMAL, "Hz");
        g = FactGroup.COOLING;
        add("cooling.kind", "Cooling", "cooling", g, CHOICE, "");
        g = FactGroup.ROOM;
        add("room.temperature", "Room temperature", "room", g, DECIMAL, "Cel");
    }

    private FactVocabulary() {
    }

    private static void add(String key, String label, String brief, FactGroup group, FactKey.Type type, String unit) {
        KEYS.put(key, new FactKey(key, label, brief, group, type, unit, true));
    }

    /** A fact that is noted, but by which no configuration is called. */
    private static void addQuiet(String key, String label, FactGroup group, FactKey.Type type, String unit) {
        KEYS.put(key, new FactKey(key, label, label, group, type, unit, false));
    }

    public static Optional<FactKey> find(String key) {
        return Optional.ofNullable(KEYS.get(key));
    }

    /** The entry, or one made for an unknown key: its own name as label, text, in the group Other. */
    public static FactKey entry(String key) {
        return find(key).orElseGet(() -> new FactKey(key, key, key, FactGroup.OTHER, TEXT, "", true));
    }

    /** Every entry, in the order it is shown. */
    public static Collection<FactKey> all() {
        return Collections.unmodifiableCollection(KEYS.values());
    }
}
