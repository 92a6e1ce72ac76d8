package yarrowmark.runner.facts;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.DirectoryStream;
import java.nio.file.FileStore;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** What Linux tells of the drive that a folder is on: the whole drive, not the part of it that holds the folder. */
final class DriveFacts {
    private static final JsonMapper JSON = new JsonMapper();
    private static final long SECTOR = 512;
    private static final int LONGEST_S = 10;
    /** Transfers a second of one lane, by the generation of the link. */
    private static final Map<String, String> GENERATIONS =
            Map.of("2.5", "1", "5.0", "2", "8.0", "3", "16.0", "4", "32.0", "5", "64.0", "6");

    private final Path root;

    /** @param root of the files that Linux tells its own facts in */
    DriveFacts(Path root) {
        this.root = root;
    }

    /** @param device as the system names it, such as /dev/nvme0n1p2. @param serials whether serial numbers are wanted */
    Map<String, String> read(String device, boolean serials) {
        Map<String, String> facts = new LinkedHashMap<>();
        Path block = block(device).orElse(null);
        if (block == null) {
            return facts;
        }
        boolean encrypted = word(block.resolve("dm/uuid")).startsWith("CRYPT-");
        Path disk = whole(block);
        String name = disk.getFileName().toString();
        put(facts, "storage.model", word(disk.resolve("device/model")));
        put(facts, "storage.size", sectors(disk));
        put(facts, "storage.interface", interfaceOf(disk, name));
        put(facts, "storage.kind", kind(disk, name));
        Path nvme = disk.resolve("device/device");
        put(facts, "storage.lanes", word(nvme.resolve("current_link_width")).replaceAll("\\D", ""));
        put(
                facts,
                "storage.generation",
                GENERATIONS.getOrDefault(
                        word(nvme.resolve("current_link_speed")).replaceAll(" GT/s.*", ""), ""));
        String firmware = word(disk.resolve("device/firmware_rev"));
        put(facts, "storage.firmware", firmware.isEmpty() ? word(disk.resolve("device/rev")) : firmware);
        if (encrypted) {
            facts.put("storage.encrypted", "yes");
        }
        if (serials) {
            put(facts, "storage.serial", word(disk.resolve("device/serial")));
        }
        put(facts, "storage.health", health("/dev/" + name));
        return facts;
    }

    /** Where a folder is on a drive of this computer at all. */
    static @Nullable String device(Path folder) {
        try {
            FileStore store = Files.getFileStore(folder);
            return store.name().startsWith("/dev/") ? store.name() : null;
        } catch (IOException e) {
            return null;
        }
    }

    private Optional<Path> block(String device) {
        Path link = root.resolve("sys/class/block");
        Path named = Path.of(device);
        try {
            // Names such as /dev/mapper/home are links to the real one.
            named = Files.exists(named) ? named.toRealPath() : named;
        } catch (IOException e) {
            // As it was named.
        }
        Path block = link.resolve(named.getFileName());
        try {
            return Files.exists(block) ? Optional.of(block.toRealPath()) : Optional.empty();
        } catch (IOException e) {
            return Optional.empty();
        }
    }

    /** A part of a drive stands inside it; what is made of others, as an encrypted one, stands on the first of them. */
    private Path whole(Path block) {
        Path at = block;
        for (int depth = 0; depth < 8; depth++) {
            Path below = Files.exists(at.resolve("partition")) ? at.getParent() : first(at.resolve("slaves"));
            if (below == null) {
                return at;
            }
            at = below;
        }
        return at;
    }

    private static @Nullable Path first(Path folder) {
        if (!Files.isDirectory(folder)) {
            return null;
        }
        try (DirectoryStream<Path> all = Files.newDirectoryStream(folder)) {
            for (Path one : all) {
                return one.toRealPath();
            }
        } catch (IOException e) {
            // It tells nothing of what it is made of.
        }
        return null;
    }

    private static String sectors(Path disk) {
        String told = word(disk.resolve("size"));
        return told.matches("\\d{1,15}") && !told.equals("0") ? String.valueOf(Long.parseLong(told) * SECTOR) : "";
    }

    private static String interfaceOf(Path disk, String name) {
        String at = disk.toString();
        if (name.startsWith("nvme")) {
            return "NVMe";
        }
        if (name.startsWith("vd") || at.contains("/virtio")) {
            return "virtual";
        }
        if (name.startsWith("mmcblk")) {
            return "eMMC";
        }
        return at.contains("/usb") ? "USB" : at.contains("/ata") ? "SATA" : "";
    }

    private static String kind(Path disk, String name) {
        if (name.startsWith("vd") || disk.toString().contains("/virtio")) {
            // What is behind it is not told.
            return "";
        }
        return name.startsWith("mmcblk")
                ? "flash"
                : switch (word(disk.resolve("queue/rotational"))) {
                    case "0" -> "solid state";
                    case "1" -> "disk";
                    default -> "";
                };
    }

    /** As a program of the system says it, where there is one and it may ask. */
    private String health(String device) {
        if (!root.equals(Path.of("/"))) {
            return "";
        }
        try {
            Process asked = new ProcessBuilder("smartctl", "-H", "-j", device)
                    .redirectError(ProcessBuilder.Redirect.DISCARD)
                    .start();
            try {
                if (!asked.waitFor(LONGEST_S, TimeUnit.SECONDS)) {
                    return "";
                }
                return said(new String(asked.getInputStream().readAllBytes(), StandardCharsets.UTF_8));
            } finally {
                asked.destroyForcibly();
            }
        } catch (IOException e) {
            return "";
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return "";
        }
    }

    static String said(String json) {
        try {
            JsonNode passed = JSON.readTree(json).path("smart_status").path("passed");
            return passed.isBoolean() ? passed.asBoolean() ? "good" : "failing" : "";
        } catch (JacksonException e) {
            return "";
        }
    }

    private static void put(Map<String, String> facts, String key, String value) {
        if (!value.isEmpty()) {
            facts.put(key, value);
        }
    }

    private static String word(Path file) {
        try {
            return Files.readString(file).strip();
        } catch (IOException | RuntimeException e) {
            return "";
        }
    }
}
