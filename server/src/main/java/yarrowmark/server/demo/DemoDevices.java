package yarrowmark.server.demo;

import static yarrowmark.server.shelf.DeviceClass.BOARD;
import static yarrowmark.server.shelf.DeviceClass.DESKTOP;
import static yarrowmark.server.shelf.DeviceClass.LAPTOP;
import static yarrowmark.server.shelf.DeviceClass.MINI;
import static yarrowmark.server.shelf.DeviceClass.PHONE;
import static yarrowmark.server.shelf.DeviceClass.TABLET;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import yarrowmark.server.shelf.DeviceClass;

/** The invented devices of the demo, with how fast each configuration is beside the Larkspur Slate 11. */
final class DemoDevices {
    /**
     * @param one      speed of one thread
     * @param all      speed of all threads together
     * @param watts    power drawn under full load, in W
     */
    record Speed(double one, double all, double memory, double graphics, double storage, double browser, double watts) {
        Speed times(double cpu, double rest, double power) {
            return new Speed(
                    one * cpu,
                    all * cpu * cpu,
                    memory * rest,
                    graphics * cpu,
                    storage * rest,
                    browser * cpu,
                    watts * power);
        }
    }

    /** @param name what it is called; null lets the shelf name it by what changed */
    record Setup(@Nullable String name, Map<String, String> facts, Speed speed) {}

    record Device(
            String maker, String model, DeviceClass deviceClass, int price, String released, List<Setup> setups) {}

    private static final long GB = 1L << 30;

    private DemoDevices() {}

    static List<Device> all() {
        Setup folio = limited(
                "16",
                setup(
                        "Thessaly 5",
                        12,
                        16,
                        "Thessaly graphics 5",
                        "1920x1200",
                        60,
                        "Fenland",
                        "1.04",
                        new Speed(1.38, 1.62, 1.35, 1.42, 2.1, 1.33, 31)));
        Setup cob = limited(
                "28",
                setup(
                        "Corvane 7",
                        16,
                        16,
                        "Corvane vision 2",
                        "1920x1080",
                        60,
                        "Fenland",
                        "2.30",
                        new Speed(1.46, 2.05, 1.5, 1.38, 2.5, 1.41, 48)));
        Setup shire = setup(
                "Corvane 9d",
                24,
                64,
                "Hawk render 60",
                "2560x1440",
                144,
                "Fenland",
                "0.98",
                new Speed(1.85, 4.6, 2.3, 6.2, 4.4, 1.72, 180));
        Setup drift = setup(
                "Corvane 6",
                12,
                16,
                "Corvane vision 1",
                "1920x1080",
                60,
                "Fenland",
                "3.02",
                new Speed(1.22, 1.35, 1.2, 1.15, 1.6, 1.2, 24));
        Setup spar = setup(
                "Brae 1c",
                4,
                4,
                "Brae tile 1",
                "1920x1080",
                60,
                "Fenland",
                "1.00",
                new Speed(0.42, 0.3, 0.45, 0.22, 0.2, 0.4, 9));
        Setup traverse = limited(
                "45",
                setup(
                        "Corvane 9",
                        20,
                        32,
                        "Corvane vision 4",
                        "2560x1600",
                        120,
                        "Fenland",
                        "1.20",
                        new Speed(1.68, 2.75, 1.8, 2.3, 3.0, 1.55, 62)));
        return List.of(
                new Device(
                        "Larkspur",
                        "Slate 11",
                        TABLET,
                        549,
                        "2024-09-12",
                        List.of(setup(
                                "Brae 2",
                                8,
                                8,
                                "Brae tile 2",
                                "2360x1640",
                                60,
                                "Tern OS",
                                "5.1",
                                new Speed(1, 1, 1, 1, 1, 1, 11)))),
                new Device(
                        "Larkspur",
                        "Slate 8",
                        TABLET,
                        329,
                        "2023-03-02",
                        List.of(setup(
                                "Brae 1s",
                                8,
                                4,
                                "Brae tile 1s",
                                "1920x1200",
                                60,
                                "Tern OS",
                                "4.8",
                                new Speed(0.7, 0.66, 0.74, 0.58, 0.62, 0.71, 7.5)))),
                new Device(
                        "Larkspur",
                        "Pocket 6",
                        PHONE,
                        699,
                        "2025-02-20",
                        List.of(setup(
                                "Brae 2p",
                                8,
                                8,
                                "Brae tile 2",
                                "2400x1080",
                                120,
                                "Tern OS",
                                "5.1",
                                new Speed(1.05, 0.88, 0.98, 0.93, 0.95, 1.02, 6.8)))),
                new Device(
                        "Quenby",
                        "Folio 14",
                        LAPTOP,
                        1299,
                        "2025-05-08",
                        List.of(
                                folio,
                                changed(
                                        folio,
                                        null,
                                        Map.of("firmware.version", "1.11", "power.sustained_limit", "20"),
                                        folio.speed().times(1.055, 1.0, 1.22)))),
                new Device(
                        "Quenby",
                        "Folio 16",
                        LAPTOP,
                        1599,
                        "2025-05-08",
                        List.of(setup(
                                "Thessaly 7",
                                16,
                                32,
                                "Thessaly graphics 7",
                                "2560x1600",
                                120,
                                "Fenland",
                                "1.11",
                                new Speed(1.48, 2.2, 1.6, 1.9, 2.4, 1.42, 44)))),
                new Device(
                        "Quenby",
                        "Wayfarer",
                        PHONE,
                        449,
                        "2024-03-21",
                        List.of(setup(
                                "Brae 1",
                                8,
                                6,
                                "Brae tile 1",
                                "2340x1080",
                                90,
                                "Tern OS",
                                "4.9",
                                new Speed(0.78, 0.69, 0.8, 0.61, 0.58, 0.77, 5.4)))),
                new Device(
                        "Ostler",
                        "Cob mini",
                        MINI,
                        799,
                        "2025-01-30",
                        List.of(
                                cob,
                                changed(
                                        cob,
                                        null,
                                        Map.of("power.sustained_limit", "12"),
                                        cob.speed().times(0.86, 0.99, 0.55)))),
                new Device(
                        "Ostler",
                        "Shire",
                        DESKTOP,
                        1899,
                        "2024-11-14",
                        List.of(
                                shire,
                                changed(
                                        shire,
                                        null,
                                        Map.of("power.mode", "high performance"),
                                        shire.speed().times(1.018, 1.0, 1.12)))),
                new Device(
                        "Ostler",
                        "Fell",
                        MINI,
                        379,
                        "2023-10-05",
                        List.of(setup(
                                "Corvane 3",
                                4,
                                8,
                                "Corvane vision 0",
                                "1920x1080",
                                60,
                                "Fenland",
                                "1.44",
                                new Speed(0.88, 0.52, 0.85, 0.48, 0.9, 0.86, 17)))),
                new Device(
                        "Pellow",
                        "Drift 13",
                        LAPTOP,
                        949,
                        "2024-08-22",
                        List.of(
                                drift,
                                changed(
                                        drift,
                                        null,
                                        Map.of("power.source", "battery"),
                                        drift.speed().times(0.91, 0.97, 0.8)),
                                changed(
                                        drift,
                                        null,
                                        Map.of("power.mode", "high performance"),
                                        drift.speed().times(1.03, 1.0, 1.1)),
                                changed(
                                        drift,
                                        null,
                                        Map.of("power.source", "battery", "power.mode", "high performance"),
                                        drift.speed().times(1.0, 0.98, 0.98)))),
                new Device(
                        "Pellow",
                        "Drift 11",
                        LAPTOP,
                        599,
                        "2023-06-15",
                        List.of(setup(
                                "Corvane 4",
                                8,
                                8,
                                "Corvane vision 0",
                                "1366x768",
                                60,
                                "Fenland",
                                "2.10",
                                new Speed(0.97, 0.86, 0.95, 0.66, 1.1, 0.94, 19)))),
                new Device(
                        "Pellow",
                        "Spar",
                        BOARD,
                        119,
                        "2024-02-01",
                        List.of(
                                spar,
                                changed(
                                        spar,
                                        null,
                                        Map.of("os.name", "Tern OS", "os.version", "9.2"),
                                        spar.speed().times(1.03, 0.98, 1.0)))),
                new Device(
                        "Dunlin",
                        "Wader 12",
                        TABLET,
                        799,
                        "2025-04-03",
                        List.of(setup(
                                "Thessaly 3",
                                8,
                                12,
                                "Thessaly graphics 3",
                                "2560x1600",
                                120,
                                "Fenland",
                                "1.02",
                                new Speed(1.19, 1.2, 1.12, 1.1, 1.5, 1.17, 15)))),
                new Device(
                        "Dunlin",
                        "Sanderling",
                        PHONE,
                        899,
                        "2025-09-18",
                        List.of(setup(
                                "Brae 3",
                                8,
                                12,
                                "Brae tile 3",
                                "2670x1200",
                                120,
                                "Tern OS",
                                "5.2",
                                new Speed(1.31, 1.18, 1.25, 1.36, 1.2, 1.24, 7.9)))),
                new Device(
                        "Hawkmoor",
                        "Traverse 16",
                        LAPTOP,
                        2299,
                        "2025-06-26",
                        List.of(
                                traverse,
                                changed(
                                        traverse,
                                        null,
                                        Map.of("power.mode", "high performance", "power.sustained_limit", "60"),
                                        traverse.speed().times(1.06, 1.0, 1.3)))),
                new Device(
                        "Hawkmoor",
                        "Ridge",
                        BOARD,
                        89,
                        "2023-01-19",
                        List.of(setup(
                                "Corvane 1",
                                4,
                                2,
                                "Corvane vision 0",
                                "1920x1080",
                                60,
                                "Fenland",
                                "0.91",
                                new Speed(0.36, 0.24, 0.38, 0.12, 0.16, 0.33, 7)))),
                new Device(
                        "Hawkmoor",
                        "Beacon",
                        DESKTOP,
                        1199,
                        "2024-05-30",
                        List.of(setup(
                                "Corvane 7d",
                                16,
                                32,
                                "Hawk render 30",
                                "1920x1080",
                                75,
                                "Fenland",
                                "1.07",
                                new Speed(1.58, 2.9, 1.9, 3.1, 3.2, 1.5, 112)))));
    }

    private static Setup setup(
            String processor,
            int threads,
            int memoryGb,
            String graphics,
            String resolution,
            int refresh,
            String system,
            String firmware,
            Speed speed) {
        Map<String, String> facts = new LinkedHashMap<>();
        facts.put("processor.name", processor);
        facts.put("processor.threads", Integer.toString(threads));
        facts.put("memory.size", Long.toString(memoryGb * GB));
        facts.put("graphics.renderer", graphics);
        facts.put("firmware.version", firmware);
        facts.put("os.name", system);
        facts.put("os.version", system.equals("Fenland") ? "12.4" : "9.2");
        facts.put("browser.name", "Curlew");
        facts.put("browser.version", "141.2.19");
        facts.put("power.source", "mains");
        facts.put("power.mode", "balanced");
        facts.put("display.resolution", resolution);
        facts.put("display.refresh", Integer.toString(refresh));
        facts.put("room.temperature", "21.5");
        return new Setup(processor + " · " + memoryGb + " GiB · firmware " + firmware, facts, speed);
    }

    private static Setup limited(String watts, Setup from) {
        return changed(from, from.name(), Map.of("power.sustained_limit", watts), from.speed());
    }

    private static Setup changed(Setup from, @Nullable String name, Map<String, String> changes, Speed speed) {
        Map<String, String> facts = new LinkedHashMap<>(from.facts());
        facts.putAll(changes);
        return new Setup(name, facts, speed);
    }
}
