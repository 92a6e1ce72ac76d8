package yarrowmark.runner.sensor;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class LinuxSensorsTest {
    @TempDir
    private Path folder;

    private static Sensor named(Sensors sensors, String name) {
        return sensors.all().stream()
                .filter(s -> s.name().equals(name))
                .findFirst()
                .orElseThrow(() -> new AssertionError(name + " is not among "
                        + sensors.all().stream().map(Sensor::name).toList()));
    }

    @Test
    void whatAComputerDoesNotTellIsSaidAndNeverZero() {
        Sensors none = new FakeSensors(folder).find();
        assertThat(none.any()).isFalse();
        assertThat(none.temperature()).isEmpty();
        assertThat(none.unreadable())
                .anySatisfy(w -> assertThat(w).contains("temperature"))
                .anySatisfy(w -> assertThat(w).contains("clock"))
                .anySatisfy(w -> assertThat(w).contains("power"));
    }

    @Test
    void processorAndOtherTemperaturesAreToldApartAndFansAreRead() {
        FakeSensors computer = new FakeSensors(folder);
        computer.temperature(61.5);
        computer.put("class/hwmon/hwmon0/name", "nvme");
        computer.put("class/hwmon/hwmon0/temp1_input", "38850");
        computer.put("class/hwmon/hwmon0/temp2_input", "");
        computer.put("class/hwmon/hwmon3/name", "board");
        computer.put("class/hwmon/hwmon3/fan1_input", "1220");
        Sensors sensors = computer.find();
        assertThat(sensors.temperature()).hasValue(61.5);
        assertThat(named(sensors, "coretemp Package id 0").kind()).isEqualTo(Sensor.TEMPERATURE);
        assertThat(named(sensors, "nvme").kind()).isEqualTo(Sensor.OTHER_TEMPERATURE);
        assertThat(named(sensors, "nvme").read().getAsDouble()).isCloseTo(38.85, within(1e-9));
        assertThat(named(sensors, "Fan of board").read().getAsDouble()).isEqualTo(1220);
        assertThat(sensors.all()).hasSize(3);
    }

    @Test
    void ofManyPlacesTheHottestSpeaks() {
        FakeSensors computer = new FakeSensors(folder);
        for (int i = 1; i <= 40; i++) {
            computer.temperature(i, 30 + i % 7);
        }
        Sensors sensors = computer.find();
        assertThat(sensors.all()).hasSize(1);
        assertThat(named(sensors, "Hottest of 40 places").read().getAsDouble()).isEqualTo(36);
    }

    @Test
    void aZoneSpeaksForTheProcessorWhereNoChipDoes() {
        FakeSensors board = new FakeSensors(folder);
        board.put("class/thermal/thermal_zone0/type", "cpu-thermal");
        board.put("class/thermal/thermal_zone0/temp", "47000");
        assertThat(board.find().temperature()).hasValue(47);
    }

    @Test
    void eachCoreHasAClockAndManyHaveAMean() {
        FakeSensors computer = new FakeSensors(folder);
        for (int cpu = 0; cpu < 3; cpu++) {
            computer.put(
                    "devices/system/cpu/cpu" + cpu + "/cpufreq/scaling_cur_freq",
                    String.valueOf(1_000_000 * (cpu + 1)));
        }
        assertThat(named(computer.find(), "Core 2").read().getAsDouble()).isEqualTo(3e9);
        for (int cpu = 3; cpu < 20; cpu++) {
            computer.put("devices/system/cpu/cpu" + cpu + "/cpufreq/scaling_cur_freq", "2000000");
        }
        Sensors many = computer.find();
        assertThat(named(many, "Mean of 20 cores").read().getAsDouble()).isCloseTo(2e9, within(1e-3));
        assertThat(named(many, "Fastest core").read().getAsDouble()).isEqualTo(3e9);
        assertThat(many.all()).hasSize(3);
    }

    @Test
    void powerIsTheEnergySinceItWasReadAlsoWhereTheCounterBeginsAnew() {
        FakeSensors computer = new FakeSensors(folder);
        computer.put("class/powercap/intel-rapl:0/name", "package-0");
        computer.put("class/powercap/intel-rapl:0/max_energy_range_uj", "100000000");
        computer.put("class/powercap/intel-rapl:0/energy_uj", "90000000");
        Sensor power = named(computer.find(), "Processor package-0");
        assertThat(power.kind()).isEqualTo(Sensor.POWER);
        power.read().getAsDouble();
        computer.nanos.addAndGet(TimeUnit.MILLISECONDS.toNanos(500));
        computer.put("class/powercap/intel-rapl:0/energy_uj", "97500000");
        assertThat(power.read().getAsDouble()).isCloseTo(15, within(1e-9));
        computer.nanos.addAndGet(TimeUnit.SECONDS.toNanos(1));
        computer.put("class/powercap/intel-rapl:0/energy_uj", "2500000");
        assertThat(power.read().getAsDouble()).isCloseTo(5, within(1e-9));
    }

    @Test
    void aCounterThatWasSetBackLeavesAGap() {
        FakeSensors computer = new FakeSensors(folder);
        computer.put("class/powercap/intel-rapl:0/name", "package-0");
        computer.put("class/powercap/intel-rapl:0/max_energy_range_uj", "262143328850");
        computer.put("class/powercap/intel-rapl:0/energy_uj", "7000000");
        Sensor power = named(computer.find(), "Processor package-0");
        power.read().getAsDouble();
        computer.put("class/powercap/intel-rapl:0/energy_uj", "1000");
        assertThat(power.read().getAsDouble()).isNaN();
    }

    @Test
    void whatNothingConnectedTellsIsNoTemperature() {
        FakeSensors computer = new FakeSensors(folder);
        computer.put("class/hwmon/hwmon0/name", "coretemp");
        computer.put("class/hwmon/hwmon0/temp1_input", "-273150");
        assertThat(computer.find().all()).isEmpty();
    }

    @Test
    void powerThatMayNotBeReadIsSaidWithWhatWouldHelp() {
        FakeSensors computer = new FakeSensors(folder);
        computer.put("class/powercap/intel-rapl:0/name", "package-0");
        computer.put("class/powercap/intel-rapl:0/energy_uj", "");
        Sensors sensors = computer.find();
        assertThat(sensors.all()).isEmpty();
        assertThat(sensors.unreadable()).anySatisfy(w -> assertThat(w).contains("administrator", "energy_uj"));
    }

    @Test
    void aBatteryGivesPowerOnlyWhileItDischargesAndAMousesIsNotAsked() {
        FakeSensors computer = new FakeSensors(folder);
        computer.put("class/power_supply/BAT0/type", "Battery");
        computer.put("class/power_supply/BAT0/status", "Discharging");
        computer.put("class/power_supply/BAT0/current_now", "1500000");
        computer.put("class/power_supply/BAT0/voltage_now", "12000000");
        computer.put("class/power_supply/hid/type", "Battery");
        computer.put("class/power_supply/hid/scope", "Device");
        computer.put("class/power_supply/hid/power_now", "1");
        computer.put("class/power_supply/AC/type", "Mains");
        Sensors sensors = computer.find();
        assertThat(sensors.all()).hasSize(1);
        Sensor battery = named(sensors, "Battery BAT0");
        assertThat(battery.read().getAsDouble()).isCloseTo(18, within(1e-9));
        computer.put("class/power_supply/BAT0/status", "Charging");
        assertThat(battery.read().getAsDouble()).isZero();
    }

    @Test
    void heatIsCountedAndOtherProgramsAreWhatIsNotOurs() {
        FakeSensors computer = new FakeSensors(folder);
        computer.put("devices/system/cpu/cpu0/thermal_throttle/core_throttle_count", "5");
        computer.put("devices/system/cpu/cpu1/thermal_throttle/core_throttle_count", "7");
        computer.process("stat", "cpu 1000 0 500 90000 10 0 0 0 0 0\ncpu0 1 1 1 1 1 1 1 1");
        computer.process("self/stat", "42 (java (x) y) S 1 2 3 4 5 6 7 8 9 10 200 100 50 50 20 0");
        Sensors sensors = computer.find();
        Sensor heat = named(sensors, "Held back for heat");
        Sensor others = named(sensors, "Other programs");
        heat.read().getAsDouble();
        others.read().getAsDouble();
        computer.nanos.addAndGet(TimeUnit.SECONDS.toNanos(1));
        computer.put("devices/system/cpu/cpu1/thermal_throttle/core_throttle_count", "9");
        // 150 hundredths more at work, 120 of them our own.
        computer.process("stat", "cpu 1100 0 550 90000 99 0 0 0 0 0");
        computer.process("self/stat", "42 (java (x) y) S 1 2 3 4 5 6 7 8 9 10 280 120 60 60 20 0");
        assertThat(heat.read().getAsDouble()).isEqualTo(2);
        assertThat(others.read().getAsDouble()).isCloseTo(30, within(1e-9));
    }

    @Test
    void aLongRunHasFewerValuesThatStillAddUp() {
        FakeSensors computer = new FakeSensors(folder);
        computer.put("devices/system/cpu/cpu0/thermal_throttle/core_throttle_count", "0");
        computer.temperature(50);
        try (SensorWatch watch = new SensorWatch(Sensors.none(), s -> {})) {
            assertThat(watch.any()).isFalse();
            assertThat(watch.tracks()).isEmpty();
        }
        SensorWatch watch = SensorWatch.still(computer.find());
        for (int i = 0; i < 5000; i++) {
            watch.look(List.of(i % 2 == 0 ? 40.0 : 60.0, 1.0));
        }
        var tracks = watch.tracks();
        assertThat(tracks).hasSize(2).allSatisfy(t -> {
            assertThat(t.values()).hasSizeBetween(600, 1200);
            assertThat(t.stepMs() * t.values().size()).isBetween(4990 * 500, 5000 * 500);
        });
        assertThat(tracks.get(0).values()).allSatisfy(v -> assertThat(v).isCloseTo(50, within(1e-9)));
        assertThat(tracks.get(1).values().stream().mapToDouble(v -> v).sum()).isBetween(4990.0, 5000.0);
    }

    @Test
    void aSensorThatNeverAnswersIsLeftOutAndOneThatStumblesKeepsItsLast() {
        FakeSensors computer = new FakeSensors(folder);
        computer.temperature(50);
        computer.put("class/hwmon/hwmon3/name", "board");
        computer.put("class/hwmon/hwmon3/fan1_input", "1000");
        SensorWatch watch = SensorWatch.still(computer.find());
        watch.look(List.of(50.0, Double.NaN));
        watch.look(List.of(Double.NaN, 1000.0));
        var tracks = watch.tracks();
        assertThat(tracks).hasSize(1);
        assertThat(tracks.get(0).values()).containsExactly(50.0, 50.0);
    }
}
