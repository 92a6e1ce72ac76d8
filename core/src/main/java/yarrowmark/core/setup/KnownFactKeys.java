package yarrowmark.core.setup;

import static yarrowmark.core.setup.FactKey.Type.CHOICE;
import static yarrowmark.core.setup.FactKey.Type.DATE;
import static yarrowmark.core.setup.FactKey.Type.DECIMAL;
import static yarrowmark.core.setup.FactKey.Type.INTEGER;
import static yarrowmark.core.setup.FactKey.Type.PIXELS;
import static yarrowmark.core.setup.FactKey.Type.TEXT;
import static yarrowmark.core.setup.FactKey.Type.VERSION;
import static yarrowmark.core.setup.FactKey.Type.YES_NO;

import java.util.LinkedHashMap;
import java.util.Map;

/** Every fact that Yarrowmark knows by name, a line each, in the order they are shown. */
final class KnownFactKeys {
    private static final Map<String, FactKey> KEYS = new LinkedHashMap<>();
    private static final double GIB = 1L << 30;

    static {
        FactGroup g = FactGroup.PROCESSOR;
        add(FactKey.of("processor.name", "Processor", g, TEXT).called("processor"));
        add(FactKey.of("processor.architecture", "Architecture", g, CHOICE)
                .called("architecture")
                .among(
                        FactChoice.of("x86 64 bit", "x86_64", "amd64", "x64", "x64-based PC", "x86-64"),
                        FactChoice.of("x86 32 bit", "i686", "i386", "x86", "X86-based PC"),
                        FactChoice.of(
                                "ARM 64 bit", "aarch64", "arm64", "arm64-v8a", "arm 64", "ARM64-based PC", "armv8l"),
                        FactChoice.of("ARM 32 bit", "armv7l", "armv6l", "armeabi-v7a", "arm"),
                        FactChoice.of("RISC-V 64 bit", "riscv64"),
                        FactChoice.of("LoongArch 64 bit", "loongarch64"),
                        FactChoice.of("POWER 64 bit", "ppc64le", "ppc64"),
                        FactChoice.of("other")));
        add(count("processor.sockets", "Sockets", g, 64).called("sockets"));
        add(count("processor.cores", "Cores", g, 4096).called("cores"));
        add(count("processor.threads", "Logical processors", g, 8192).called("logical processors"));
        add(count("processor.kind_cores", "Cores of this kind", g, 4096).called("cores of a kind"));
        add(quantity("processor.kind_clock", "Highest clock of this kind", g, Dimension.FREQUENCY, 1e6, 2e10)
                .called("clock of a kind")
                .tolerant(Tolerance.share(0.02)));
        add(quantity("processor.base_clock", "Base clock", g, Dimension.FREQUENCY, 1e6, 2e10)
                .called("base clock")
                .tolerant(Tolerance.share(0.005)));
        add(quantity("processor.boost_clock", "Highest clock", g, Dimension.FREQUENCY, 1e6, 2e10)
                .called("highest clock")
                .tolerant(Tolerance.share(0.005)));
        add(whole("processor.cache_l2", "Level 2 cache", g, Dimension.MEMORY, 1024, GIB)
                .called("level 2 cache"));
        add(whole("processor.cache_l3", "Level 3 cache", g, Dimension.MEMORY, 1024, 16 * GIB)
                .called("level 3 cache"));
        add(FactKey.of("processor.virtual", "Virtual machine", g, TEXT).called("virtual machine"));
        add(FactKey.of("processor.microcode", "Microcode", g, TEXT).called("microcode"));

        g = FactGroup.MEMORY;
        add(whole("memory.size", "Memory size", g, Dimension.MEMORY, 1 << 20, 65536 * GIB)
                .called("memory")
                .bare("GiB")
                .tolerant(Tolerance.share(0.002)));
        add(whole("memory.usable", "Memory the system can use", g, Dimension.MEMORY, 1 << 20, 65536 * GIB)
                .tolerant(Tolerance.share(0.01))
                .quiet());
        add(whole("memory.reported", "Memory as the browser tells it, at least", g, Dimension.MEMORY, 1, 65536 * GIB)
                .quiet());
        add(FactKey.of("memory.kind", "Memory kind", g, CHOICE)
                .called("memory kind")
                .among(
                        "DDR3", "DDR3L", "DDR4", "DDR5", "DDR6", "LPDDR3", "LPDDR4", "LPDDR4X", "LPDDR5", "LPDDR5X",
                        "LPDDR6", "HBM2", "HBM3", "other"));
        add(count("memory.channels", "Channels", g, 64).called("channels"));
        add(count("memory.modules", "Modules", g, 512).called("modules"));
        add(FactKey.of("memory.form", "Module form", g, CHOICE)
                .called("module form")
                .among(
                        FactChoice.of("SODIMM", "SO-DIMM"),
                        FactChoice.of("DIMM", "UDIMM", "RDIMM"),
                        FactChoice.of("CAMM2", "LPCAMM2", "CAMM"),
                        FactChoice.of("soldered", "Row Of Chips", "on board", "on package"),
                        FactChoice.of("other")));
        add(quantity("memory.speed", "Transfer rate", g, Dimension.TRANSFERS, 1e8, 1e11)
                .called("memory rate")
                .bare("MT/s"));
        add(FactKey.of("memory.ecc", "Error correction", g, YES_NO).called("error correction"));
        add(whole("memory.swap", "Swap space", g, Dimension.MEMORY, 0, 65536 * GIB)
                .called("swap"));

        g = FactGroup.GRAPHICS;
        add(FactKey.of("graphics.renderer", "Graphics", g, TEXT).called("graphics"));
        add(FactKey.of("graphics.vendor", "Graphics maker, as told", g, TEXT).quiet());
        add(FactKey.of("graphics.kind", "Kind of graphics", g, CHOICE)
                .called("kind of graphics")
                .among("integrated", "separate", "external", "none", "other"));
        add(FactKey.of("graphics.software", "Graphics drawn by the processor", g, YES_NO)
                .called("drawn by the processor"));
        add(whole("graphics.memory", "Graphics memory", g, Dimension.MEMORY, 1 << 20, 1024 * GIB)
                .called("graphics memory")
                .bare("GiB"));
        add(FactKey.of("graphics.interface", "Graphics interface", g, TEXT).called("graphics interface"));
        add(quantity("graphics.power_limit", "Graphics power limit", g, Dimension.POWER, 0.1, 2000)
                .called("graphics power limit")
                .bare("W"));
        add(count("graphics.lanes", "Graphics lanes", g, 32).called("graphics lanes"));

        g = FactGroup.STORAGE;
        add(FactKey.of("storage.model", "Drive", g, TEXT).called("drive"));
        add(whole("storage.size", "Drive size", g, Dimension.BYTES, 1e6, 1e17)
                .called("drive size")
                .tolerant(Tolerance.share(0.005)));
        add(FactKey.of("storage.kind", "Kind of drive", g, CHOICE)
                .called("kind of drive")
                .among(
                        FactChoice.of("solid state", "SSD"),
                        FactChoice.of("disk", "HDD", "hard disk", "rotational"),
                        FactChoice.of("flash", "eMMC", "UFS", "SD card"),
                        FactChoice.of("other")));
        add(FactKey.of("storage.interface", "Drive interface", g, CHOICE)
                .called("drive interface")
                .among(
                        FactChoice.of("NVMe", "PCIe"),
                        FactChoice.of("SATA", "ata"),
                        FactChoice.of("USB"),
                        FactChoice.of("eMMC", "mmc"),
                        FactChoice.of("UFS"),
                        FactChoice.of("SAS", "scsi"),
                        FactChoice.of("virtual", "virtio"),
                        FactChoice.of("other")));
        add(count("storage.lanes", "Drive lanes", g, 16).called("drive lanes"));
        add(count("storage.generation", "Generation of the drive's link", g, 64).called("generation of the link"));
        add(FactKey.of("storage.health", "Drive says of itself", g, CHOICE)
                .called("drive health")
                .among("good", "failing"));
        add(FactKey.of("storage.serial", "Serial number of the drive", g, TEXT).quiet());
        add(FactKey.of("storage.firmware", "Drive firmware", g, TEXT).called("drive firmware"));
        add(FactKey.of("storage.filesystem", "File system", g, TEXT).called("file system"));
        add(FactKey.of("storage.encrypted", "Encrypted", g, YES_NO).called("encrypted"));
        add(quantity("storage.filled", "Filled before the test", g, Dimension.SHARE, 0, 100)
                .called("filled")
                .bare("%")
                .tolerant(Tolerance.of(5)));

        g = FactGroup.BOARD;
        add(FactKey.of("board.product", "Product name, as told", g, TEXT).quiet());
        add(FactKey.of("board.maker", "Board maker", g, TEXT).quiet());
        add(FactKey.of("board.model", "Board", g, TEXT).called("board"));
        add(FactKey.of("firmware.version", "Firmware", g, VERSION).called("firmware"));
        add(FactKey.of("firmware.date", "Firmware date", g, DATE).quiet());
        add(FactKey.of("firmware.secure_boot", "Secure boot", g, YES_NO).called("secure boot"));

        g = FactGroup.SYSTEM;
        add(FactKey.of("os.name", "Operating system", g, TEXT).called("system"));
        add(FactKey.of("os.version", "System version", g, VERSION).called("system"));
        add(FactKey.of("os.build", "System build", g, TEXT).called("system build"));
        add(FactKey.of("os.kernel", "Kernel", g, VERSION).called("kernel"));
        add(FactKey.of("os.patch_date", "Security updates up to", g, DATE).called("updates of"));
        add(FactKey.of("os.language", "Language", g, TEXT).quiet());
        add(FactKey.of("runtime.java", "Java runtime", g, TEXT).called("Java"));
        add(FactKey.of("machine.serial", "Serial number of the computer", g, TEXT)
                .quiet());
        add(FactKey.of("machine.virtual", "Virtual", g, CHOICE)
                .called("virtual")
                .among(FactChoice.of("no"), FactChoice.of("virtual machine"), FactChoice.of("container")));

        g = FactGroup.DRIVERS;
        add(FactKey.of("driver.graphics", "Graphics driver", g, VERSION).called("graphics driver"));
        add(FactKey.of("driver.storage", "Storage driver", g, VERSION).called("storage driver"));
        add(FactKey.of("driver.network", "Network driver", g, VERSION).called("network driver"));
        add(FactKey.of("driver.chipset", "Chipset driver", g, VERSION).called("chipset driver"));

        g = FactGroup.BROWSER;
        add(FactKey.of("browser.name", "Browser", g, TEXT).called("browser"));
        add(FactKey.of("browser.version", "Browser version", g, VERSION).called("browser"));
        add(FactKey.of("browser.build", "Browser build", g, CHOICE)
                .called("browser build")
                .among(
                        FactChoice.of("native"),
                        FactChoice.of("translated", "emulated"),
                        FactChoice.of("32 bit"),
                        FactChoice.of("other")));
        add(FactKey.of("browser.extensions", "Extensions", g, TEXT).called("extensions"));
        add(count("browser.threads", "Logical processors, as the browser says", g, 8192)
                .quiet());
        add(FactKey.of("browser.secure_context", "Secure connection", g, YES_NO).quiet());
        add(FactKey.of("browser.isolated", "Cross-origin isolated", g, YES_NO).quiet());
        add(quantity("browser.clock_resolution", "Clock resolution", g, Dimension.TIME, 0, 60)
                .quiet());

        g = FactGroup.POWER;
        add(FactKey.of("power.source", "Power", g, CHOICE)
                .called("power")
                .among(
                        FactChoice.of("mains", "AC", "plugged in", "charger"),
                        FactChoice.of("battery", "DC", "unplugged")));
        add(FactKey.of("power.mode", "Power mode", g, TEXT).called("power mode"));
        add(FactKey.of("power.governor", "Clock governor", g, TEXT).called("governor"));
        add(quantity("power.sustained_limit", "Sustained power limit", g, Dimension.POWER, 0.1, 5000)
                .called("power limit")
                .bare("W"));
        add(quantity("power.short_limit", "Short power limit", g, Dimension.POWER, 0.1, 5000)
                .called("short power limit")
                .bare("W"));
        add(quantity("power.adapter", "Power adapter", g, Dimension.POWER, 0.1, 5000)
                .called("adapter")
                .bare("W"));
        add(quantity("battery.capacity", "Battery, as designed", g, Dimension.ENERGY, 0.1, 10_000)
                .called("battery")
                .bare("Wh")
                .tolerant(Tolerance.share(0.01)));
        add(quantity("battery.full", "Battery, full today", g, Dimension.ENERGY, 0.1, 10_000)
                .called("battery full at")
                .bare("Wh")
                .tolerant(Tolerance.share(0.03)));

        g = FactGroup.DISPLAY;
        add(FactKey.of("display.resolution", "Resolution", g, PIXELS).called("resolution"));
        add(quantity("display.pixel_ratio", "Pixel ratio", g, Dimension.COUNT, 0.1, 20)
                .bare("")
                .quiet());
        add(quantity("display.refresh", "Refresh rate", g, Dimension.FREQUENCY, 1, 1000)
                .called("refresh rate")
                .bare("Hz")
                .tolerant(Tolerance.share(0.01)));
        add(FactKey.of("display.variable_refresh", "Variable refresh", g, YES_NO)
                .called("variable refresh"));
        add(quantity("display.diagonal", "Diagonal", g, Dimension.LENGTH, 0.01, 5)
                .called("diagonal")
                .bare("in"));
        add(quantity("display.brightness", "Brightness set", g, Dimension.LUMINANCE, 0, 10_000)
                .called("brightness")
                .bare("cd/m²")
                .tolerant(Tolerance.share(0.05)));
        add(quantity("display.scaling", "Scaling", g, Dimension.SHARE, 25, 1000)
                .called("scaling")
                .bare("%"));
        add(whole("display.depth", "Colour depth", g, Dimension.BITS, 1, 64)
                .called("colour depth")
                .bare("bit"));

        g = FactGroup.COOLING;
        add(FactKey.of("cooling.kind", "Cooling", g, CHOICE)
                .called("cooling")
                .among(
                        FactChoice.of("passive", "fanless"),
                        FactChoice.of("fan", "air", "fans"),
                        FactChoice.of("liquid", "water"),
                        FactChoice.of("other")));
        add(FactKey.of("cooling.cooler", "Cooler", g, TEXT).called("cooler"));
        add(FactKey.of("cooling.mode", "Fan mode", g, TEXT).called("fan mode"));
        add(quantity("cooling.fan_speed", "Fan speed set", g, Dimension.ROTATION, 0, 30_000)
                .called("fan")
                .bare("rpm")
                .tolerant(Tolerance.share(0.05)));

        g = FactGroup.ROOM;
        add(quantity("room.temperature", "Room temperature", g, Dimension.TEMPERATURE, -60, 70)
                .called("room")
                .bare("°C")
                .tolerant(Tolerance.of(1.5)));
        add(quantity("room.humidity", "Humidity", g, Dimension.SHARE, 0, 100)
                .called("humidity")
                .bare("%")
                .tolerant(Tolerance.of(15)));
        add(quantity("room.noise", "Noise of the room", g, Dimension.SOUND, 0, 150)
                .called("room noise")
                .bare("dB")
                .tolerant(Tolerance.of(2)));
        add(FactKey.of("room.surface", "Stands on", g, TEXT).called("on"));

        g = FactGroup.OTHER;
        add(quantity("network.wired_rate", "Wired rate", g, Dimension.BIT_RATE, 1e3, 1e13)
                .called("wired")
                .bare("Mbit/s"));
        add(FactKey.of("network.wireless_name", "Wireless network", g, TEXT).quiet());
        add(quantity("network.wireless_rate", "Wireless rate", g, Dimension.BIT_RATE, 1e3, 1e13)
                .called("wireless")
                .bare("Mbit/s")
                .tolerant(Tolerance.share(0.1)));
        add(quantity("network.wireless_band", "Wireless frequency", g, Dimension.FREQUENCY, 1e8, 1e11)
                .called("wireless at")
                .tolerant(Tolerance.share(0.01)));
        add(count("network.wireless_channel", "Wireless channel", g, 300).called("channel"));
        add(FactKey.of("network.access_point", "Access point", g, TEXT).called("access point"));
        add(quantity("network.distance", "Distance to the access point", g, Dimension.LENGTH, 0, 10_000)
                .called("distance")
                .bare("m")
                .tolerant(Tolerance.share(0.05)));
        add(whole("network.walls", "Walls between", g, Dimension.COUNT, 0, 100)
                .called("walls between")
                .bare(""));
        add(FactKey.of("network.wireless_on", "Wireless on", g, YES_NO).called("wireless on"));
        add(FactKey.of("network.adapter", "Network adapter", g, TEXT).called("network adapter"));
        add(FactKey.of("network.wireless_adapter", "Wireless adapter", g, TEXT).called("wireless adapter"));
        add(whole("network.mtu", "Largest packet", g, Dimension.BYTES, 64, 1e6)
                .bare("B")
                .quiet());
        add(FactKey.of("other.background", "Running beside", g, TEXT).called("beside"));
    }

    private KnownFactKeys() {}

    static Map<String, FactKey> all() {
        return KEYS;
    }

    private static FactKey count(String key, String label, FactGroup group, double most) {
        return FactKey.of(key, label, group, INTEGER)
                .measuring(Dimension.COUNT)
                .within(1, most)
                .bare("");
    }

    private static FactKey whole(
            String key, String label, FactGroup group, Dimension dimension, double least, double most) {
        return FactKey.of(key, label, group, INTEGER).measuring(dimension).within(least, most);
    }

    private static FactKey quantity(
            String key, String label, FactGroup group, Dimension dimension, double least, double most) {
        return FactKey.of(key, label, group, DECIMAL).measuring(dimension).within(least, most);
    }

    private static void add(FactKey key) {
        if (KEYS.put(key.key(), key) != null) {
            throw new IllegalStateException(key.key() + " is in the vocabulary twice");
        }
    }
}
