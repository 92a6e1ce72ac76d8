package yarrowmark.server.demo;

import static yarrowmark.server.platform.Require.require;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.json.JsonMapper;
import yarrowmark.server.shelf.model.DeviceClass;

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
    private static final List<Device> ALL = read();

    private DemoDevices() {}

    static List<Device> all() {
        return ALL;
    }

    /** A device as devices.json has it. @param changed what else was measured, against how it is sold */
    private record Given(
            String maker,
            String model,
            DeviceClass deviceClass,
            int price,
            String released,
            AsSold asSold,
            List<Change> changed) {
        Device device() {
            Setup first = asSold.setup();
            List<Setup> setups = new ArrayList<>(List.of(first));
            changed.forEach(c -> setups.add(c.of(first)));
            return new Device(maker, model, deviceClass, price, released, setups);
        }
    }

    /** @param speed in the order of {@link Speed}. @param sustainedLimit of its power in W, where it has one */
    private record AsSold(
            String processor,
            int threads,
            int memoryGb,
            String graphics,
            String resolution,
            int refresh,
            String system,
            String firmware,
            List<Double> speed,
            @Nullable String sustainedLimit) {
        Setup setup() {
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
            if (sustainedLimit != null) {
                facts.put("power.sustained_limit", sustainedLimit);
            }
            return new Setup(
                    processor + " · " + memoryGb + " GiB · firmware " + firmware,
                    facts,
                    new Speed(
                            speed.get(0),
                            speed.get(1),
                            speed.get(2),
                            speed.get(3),
                            speed.get(4),
                            speed.get(5),
                            speed.get(6)));
        }
    }

    /** @param times of the processor, of memory and storage, and of the power drawn */
    private record Change(Map<String, String> facts, List<Double> times) {
        Setup of(Setup first) {
            Map<String, String> changed = new LinkedHashMap<>(first.facts());
            changed.putAll(facts);
            return new Setup(null, changed, first.speed().times(times.get(0), times.get(1), times.get(2)));
        }
    }

    private static List<Device> read() {
        try (InputStream in = require(DemoDevices.class.getResourceAsStream("/yarrowmark/server/demo/devices.json"))) {
            return Stream.of(new JsonMapper().readValue(in, Given[].class))
                    .map(Given::device)
                    .toList();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
