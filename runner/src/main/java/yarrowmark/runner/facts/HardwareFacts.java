package yarrowmark.runner.facts;

import java.io.IOException;
import java.nio.file.FileStore;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Supplier;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import oshi.SystemInfo;
import oshi.hardware.CentralProcessor;
import oshi.hardware.ComputerSystem;
import oshi.hardware.GraphicsCard;
import oshi.hardware.HWDiskStore;
import oshi.hardware.HardwareAbstractionLayer;
import oshi.hardware.PhysicalMemory;
import oshi.hardware.PowerSource;
import oshi.software.os.OperatingSystem;

/**
 * What this computer is made of and runs on, by the names of Yarrowmark's vocabulary and in its base units (bytes, hertz). What cannot be
 * found is left out: a fact that is not known is no zero. Serial numbers are read only where somebody asks for them.
 */
public final class HardwareFacts {
    private static final Pattern CHANNEL = Pattern.compile("(?i)channel[ _-]?([0-9]+|[A-Z])\\b");

    private final HardwareAbstractionLayer hardware;
    private final OperatingSystem system;
    private final Path root;
    private final boolean serials;

    /** @param serials whether serial numbers are wanted */
    public HardwareFacts(boolean serials) {
        this(new SystemInfo(), Path.of("/"), serials);
    }

    /** @param root of the files that Linux tells its own facts in */
    HardwareFacts(SystemInfo info, Path root, boolean serials) {
        this.hardware = info.getHardware();
        this.system = info.getOperatingSystem();
        this.root = root;
        this.serials = serials;
    }

    /** Maker and name of the whole computer, to look it up on the shelf. */
    public String computer() {
        ComputerSystem computer = hardware.getComputerSystem();
        return (known(computer.getManufacturer()) + " " + known(computer.getModel())).strip();
    }

    private static String known(@Nullable String words) {
        return words == null || words.equalsIgnoreCase("unknown") || words.isBlank() ? "" : words.strip();
    }

    /** @param folder on the drive that is tested */
    public Map<String, String> read(Path folder) {
        Map<String, String> facts = new LinkedHashMap<>();
        processor(facts);
        memory(facts);
        drive(facts, folder);
        put(facts, "graphics.renderer", () -> hardware.getGraphicsCards().stream()
                .map(GraphicsCard::getName)
                .filter(n -> !known(n).isEmpty())
                .findFirst()
                .orElse(""));
        put(facts, "board.maker", () -> hardware.getComputerSystem()
                .getBaseboard()
                .getManufacturer());
        put(facts, "board.model", () -> hardware.getComputerSystem()
                .getBaseboard()
                .getModel());
        put(facts, "firmware.version", () -> hardware.getComputerSystem()
                .getFirmware()
                .getVersion());
        put(facts, "os.name", system::getFamily);
        put(facts, "os.version", () -> system.getVersionInfo().getVersion());
        put(
                facts,
                "os.kernel",
                () -> isLinux()
                        ? line("proc/sys/kernel/osrelease")
                        : system.getVersionInfo().getBuildNumber());
        put(facts, "power.governor", () -> line("sys/devices/system/cpu/cpu0/cpufreq/scaling_governor"));
        put(facts, "power.mode", () -> line("sys/firmware/acpi/platform_profile"));
        put(facts, "runtime.java", () -> System.getProperty("java.vm.vendor") + " " + Runtime.version());
        put(facts, "machine.virtual", this::virtual);
        put(facts, "driver.graphics", this::graphicsDriver);
        if (serials) {
            put(facts, "machine.serial", () -> hardware.getComputerSystem().getSerialNumber());
        }
        return facts;
    }

    private boolean isLinux() {
        return System.getProperty("os.name", "").toLowerCase(Locale.ROOT).contains("linux");
    }

    private void processor(Map<String, String> facts) {
        CentralProcessor processor = hardware.getProcessor();
        CentralProcessor.ProcessorIdentifier id = processor.getProcessorIdentifier();
        put(facts, "processor.name", id::getName);
        put(facts, "processor.architecture", () -> System.getProperty("os.arch"));
        put(facts, "processor.cores", () -> positive(processor.getPhysicalProcessorCount()));
        put(facts, "processor.threads", () -> positive(processor.getLogicalProcessorCount()));
        put(facts, "processor.sockets", () -> positive(processor.getPhysicalPackageCount()));
        put(facts, "processor.base_clock", () -> positive(id.getVendorFreq()));
        // Some virtual machines tell a highest clock below the one that they are named by.
        put(
                facts,
                "processor.boost_clock",
                () -> processor.getMaxFreq() >= id.getVendorFreq() ? positive(processor.getMaxFreq()) : "");
        put(facts, "processor.microcode", () -> lines("proc/cpuinfo").stream()
                .filter(l -> l.startsWith("microcode"))
                .map(l -> l.substring(l.indexOf(':') + 1).strip())
                .findFirst()
                .orElse(""));
        put(facts, "processor.cache_l2", () -> cache("2"));
        put(facts, "processor.cache_l3", () -> cache("3"));
    }

    /** Of a level in bytes, all of them together: each is told by every core that shares it. */
    private String cache(String level) {
        Map<String, Long> shared = new LinkedHashMap<>();
        Path cpus = root.resolve("sys/devices/system/cpu");
        try (var all = Files.newDirectoryStream(cpus, "cpu[0-9]*")) {
            for (Path cpu : all) {
                try (var indexes = Files.newDirectoryStream(cpu.resolve("cache"), "index*")) {
                    for (Path index : indexes) {
                        String size = told(index.resolve("size"));
                        if (told(index.resolve("level")).equals(level) && size.matches("\\d{1,9}K")) {
                            shared.put(
                                    told(index.resolve("shared_cpu_list")),
                                    1024 * Long.parseLong(size.substring(0, size.length() - 1)));
                        }
                    }
                }
            }
        } catch (IOException e) {
            return "";
        }
        return positive(shared.values().stream().mapToLong(Long::longValue).sum());
    }

    /** Name and version of what drives the first graphics card, where it is a module with a version of its own. */
    private String graphicsDriver() {
        Path driver = root.resolve("sys/class/drm/card0/device/driver/module");
        String version = told(driver.resolve("version"));
        try {
            return version.isEmpty() ? "" : driver.toRealPath().getFileName() + " " + version;
        } catch (IOException e) {
            return "";
        }
    }

    private static String told(Path file) {
        try {
            return Files.readString(file).strip();
        } catch (IOException | RuntimeException e) {
            return "";
        }
    }

    private void memory(Map<String, String> facts) {
        List<PhysicalMemory> modules = safely(() -> hardware.getMemory().getPhysicalMemory(), List.of());
        long size = modules.stream().mapToLong(PhysicalMemory::getCapacity).sum();
        put(facts, "memory.size", () -> size > 0 ? String.valueOf(size) : "");
        put(facts, "memory.usable", () -> positive(hardware.getMemory().getTotal()));
        put(facts, "memory.modules", () -> size > 0 ? String.valueOf(modules.size()) : "");
        put(facts, "memory.kind", () -> modules.stream()
                .map(PhysicalMemory::getMemoryType)
                .map(HardwareFacts::known)
                .filter(k -> !k.isEmpty())
                .distinct()
                .collect(Collectors.joining(", ")));
        put(
                facts,
                "memory.speed",
                () -> modules.stream().mapToLong(PhysicalMemory::getClockSpeed).filter(c -> c > 0).min().stream()
                        .mapToObj(String::valueOf)
                        .findFirst()
                        .orElse(""));
        put(
                facts,
                "memory.channels",
                () -> positive(modules.stream()
                        .map(m -> CHANNEL.matcher(m.getBankLabel()))
                        .filter(Matcher::find)
                        .map(m -> m.group(1).toUpperCase(Locale.ROOT))
                        .distinct()
                        .count()));
        put(
                facts,
                "memory.swap",
                () -> String.valueOf(hardware.getMemory().getVirtualMemory().getSwapTotal()));
    }

    private void drive(Map<String, String> facts, Path folder) {
        put(facts, "storage.filesystem", () -> store(folder).type());
        put(facts, "storage.size", () -> {
            try {
                return positive(store(folder).getTotalSpace());
            } catch (IOException e) {
                return "";
            }
        });
        String device = DriveFacts.device(folder);
        Map<String, String> drive =
                device == null ? Map.of() : safely(() -> new DriveFacts(root).read(device, serials), Map.of());
        facts.putAll(drive);
        List<HWDiskStore> drives = safely(hardware::getDiskStores, List.of());
        if (drives.size() == 1 && !drive.containsKey("storage.model")) {
            put(facts, "storage.model", () -> drives.get(0).getModel());
        }
    }

    private static FileStore store(Path folder) {
        try {
            return Files.getFileStore(folder);
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
    }

    /** A fact as it is shown to whoever sits here. */
    public static String shown(String key, String value) {
        String unit = key.endsWith("_clock")
                ? " Hz"
                : key.equals("storage.size") || key.matches("memory\\.(size|usable|swap)|processor\\.cache_l.")
                        ? " B"
                        : "";
        return key + " = " + value + unit;
    }

    /** Whether it is on mains; absent where nobody says. */
    public @Nullable Boolean onMains() {
        List<PowerSource> sources = safely(hardware::getPowerSources, List.of());
        List<PowerSource> batteries =
                sources.stream().filter(s -> s.getMaxCapacity() > 0).toList();
        return batteries.isEmpty() ? null : batteries.stream().anyMatch(PowerSource::isPowerOnLine);
    }

    /** Of what a full battery holds, 0 to 1; absent without one. */
    public @Nullable Double batteryLevel() {
        return safely(hardware::getPowerSources, List.<PowerSource>of()).stream()
                .filter(s -> s.getMaxCapacity() > 0)
                .map(PowerSource::getRemainingCapacityPercent)
                .filter(l -> l >= 0 && l <= 1)
                .findFirst()
                .orElse(null);
    }

    /** Said plainly: numbers of a virtual machine are those of its share. */
    private String virtual() {
        if (Files.exists(root.resolve(".dockerenv")) || Files.exists(root.resolve("run/.containerenv"))) {
            return "container";
        }
        boolean hypervisor = lines("proc/cpuinfo").stream()
                .anyMatch(l -> l.startsWith("flags") && (" " + l + " ").contains(" hypervisor "));
        String model = computer().toLowerCase(Locale.ROOT);
        return hypervisor || model.contains("virtual") ? "virtual machine" : isLinux() ? "no" : "";
    }

    private static String positive(long n) {
        return n > 0 ? String.valueOf(n) : "";
    }

    private static void put(Map<String, String> facts, String key, Supplier<@Nullable String> read) {
        String value = known(safely(read, ""));
        if (!value.isEmpty()) {
            facts.put(key, value.length() > 500 ? value.substring(0, 500) : value);
        }
    }

    /** One thing that a system does not tell keeps nothing else from being known. */
    private static <T extends @Nullable Object> T safely(Supplier<T> read, T otherwise) {
        try {
            return read.get();
        } catch (RuntimeException | LinkageError e) {
            return otherwise;
        }
    }

    private String line(String file) {
        return lines(file).stream().findFirst().orElse("").strip();
    }

    private List<String> lines(String file) {
        try {
            return Files.readAllLines(root.resolve(file));
        } catch (IOException | RuntimeException e) {
            return List.of();
        }
    }
}
