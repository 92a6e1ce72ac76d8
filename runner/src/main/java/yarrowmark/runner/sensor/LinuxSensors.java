package yarrowmark.runner.sensor;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.DoubleSummaryStatistics;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.DoubleSupplier;
import java.util.function.LongSupplier;
import java.util.stream.DoubleStream;

/** Finds what Linux tells of heat, clock, power and fans, below /sys, and of other programs, in /proc. */
public final class LinuxSensors {
    /** Drivers whose temperatures are those of the processor. */
    private static final Set<String> PROCESSOR =
            Set.of("coretemp", "k10temp", "zenpower", "cpu_thermal", "cpu-thermal", "soc_thermal", "x86_pkg_temp");

    /** Of more cores than these, no single one says anything. */
    private static final int EACH_CORE = 16;

    /** In °C, of any part of a computer that runs. */
    private static final double COLDEST = -60;

    private static final double HOTTEST = 200;
    /** A counter that begins anew because it was full was near its end; from any other place it was set back. */
    private static final double NEAR_FULL = 0.9;

    private static final double MILLI = 1e-3;
    private static final double KILO = 1e3;
    private static final double MICRO = 1e-6;
    private static final double NS = 1e-9;
    /** Linux tells times to programs in hundredths of a second. */
    private static final double TICK_S = 0.01;

    private final Path sys;
    private final Path proc;
    private final LongSupplier nanos;
    private final List<Sensor> found = new ArrayList<>();
    private final List<String> unreadable = new ArrayList<>();

    private LinuxSensors(Path sys, Path proc, LongSupplier nanos) {
        this.sys = sys;
        this.proc = proc;
        this.nanos = nanos;
    }

    /** Of this computer. */
    public static Sensors find() {
        if (!Files.isDirectory(Path.of("/sys/class"))) {
            return new Sensors(List.of(), List.of("Sensors are read on Linux only."));
        }
        return find(Path.of("/sys"), Path.of("/proc"), System::nanoTime);
    }

    static Sensors find(Path sys, Path proc, LongSupplier nanos) {
        LinuxSensors looking = new LinuxSensors(sys, proc, nanos);
        looking.temperatures();
        looking.clocks();
        looking.power();
        looking.batteries();
        looking.heldBack();
        looking.others();
        return new Sensors(looking.found, looking.unreadable);
    }

    private void temperatures() {
        Map<String, Integer> named = new HashMap<>();
        boolean processor = false;
        for (Path chip : SystemFiles.in(sys.resolve("class/hwmon"), "hwmon*")) {
            String driver = SystemFiles.word(chip.resolve("name")).orElse("a chip");
            boolean own = PROCESSOR.contains(driver);
            for (Path input : SystemFiles.in(chip, "temp*_input")) {
                if (Double.isNaN(celsius(input).getAsDouble())) {
                    continue;
                }
                String label = SystemFiles.word(Path.of(input.toString().replace("_input", "_label")))
                        .map(l -> driver + " " + l)
                        .orElse(driver);
                found.add(new Sensor(
                        own ? Sensor.TEMPERATURE : Sensor.OTHER_TEMPERATURE, once(label, named), "°C", celsius(input)));
                processor |= own;
            }
            for (Path input : SystemFiles.in(chip, "fan*_input")) {
                String label = SystemFiles.word(Path.of(input.toString().replace("_input", "_label")))
                        .orElse("Fan of " + driver);
                found.add(new Sensor(Sensor.FAN, once(label, named), "1/min", scaled(input, 1)));
            }
        }
        for (Path zone : SystemFiles.in(sys.resolve("class/thermal"), "thermal_zone*")) {
            String type = SystemFiles.word(zone.resolve("type")).orElse("a zone");
            Path input = zone.resolve("temp");
            boolean own = PROCESSOR.contains(type) || type.startsWith("cpu");
            if (own && !processor && !Double.isNaN(celsius(input).getAsDouble())) {
                found.add(new Sensor(Sensor.TEMPERATURE, once(type, named), "°C", celsius(input)));
            }
        }
        List<Sensor> places =
                found.stream().filter(s -> s.kind().equals(Sensor.TEMPERATURE)).toList();
        if (places.size() > EACH_CORE) {
            found.removeAll(places);
            found.add(
                    0,
                    new Sensor(
                            Sensor.TEMPERATURE, "Hottest of " + places.size() + " places", "°C", () -> places.stream()
                                    .mapToDouble(s -> s.read().getAsDouble())
                                    .filter(Double::isFinite)
                                    .max()
                                    .orElse(Double.NaN)));
        }
        if (places.isEmpty()) {
            unreadable.add("This computer tells no temperature of its processor.");
        }
    }

    private static String once(String name, Map<String, Integer> named) {
        int n = named.merge(name, 1, Integer::sum);
        return n == 1 ? name : name + " (" + n + ")";
    }

    /** What no computer that runs can be is no temperature: −273.15 and 0 K stand for "not connected". */
    private static DoubleSupplier celsius(Path input) {
        return () -> {
            double read = SystemFiles.number(input) * MILLI;
            return read >= COLDEST && read <= HOTTEST ? read : Double.NaN;
        };
    }

    private static DoubleSupplier scaled(Path input, double by) {
        return () -> SystemFiles.number(input) * by;
    }

    private void clocks() {
        List<Path> clocks = new ArrayList<>();
        List<String> cores = new ArrayList<>();
        for (Path cpu : SystemFiles.in(sys.resolve("devices/system/cpu"), "cpu[0-9]*")) {
            Path clock = cpu.resolve("cpufreq/scaling_cur_freq");
            if (!Double.isNaN(SystemFiles.number(clock))) {
                clocks.add(clock);
                cores.add(cpu.getFileName().toString().substring("cpu".length()));
            }
        }
        if (clocks.isEmpty()) {
            unreadable.add("This computer does not tell the clock of its cores.");
        } else if (clocks.size() <= EACH_CORE) {
            for (int i = 0; i < clocks.size(); i++) {
                found.add(new Sensor(Sensor.CLOCK, "Core " + cores.get(i), "Hz", scaled(clocks.get(i), KILO)));
            }
        } else {
            found.add(new Sensor(Sensor.CLOCK, "Mean of " + clocks.size() + " cores", "Hz", () -> all(clocks)
                    .getAverage()));
            found.add(new Sensor(
                    Sensor.CLOCK_RANGE, "Fastest core", "Hz", () -> all(clocks).getMax()));
            found.add(new Sensor(
                    Sensor.CLOCK_RANGE, "Slowest core", "Hz", () -> all(clocks).getMin()));
        }
    }

    private static DoubleSummaryStatistics all(List<Path> clocks) {
        return clocks.stream()
                .flatMapToDouble(c -> DoubleStream.of(SystemFiles.number(c) * KILO))
                .filter(Double::isFinite)
                .summaryStatistics();
    }

    private void power() {
        List<Path> domains = SystemFiles.in(sys.resolve("class/powercap"), "*:*");
        boolean closed = false;
        for (Path domain : domains) {
            Path energy = domain.resolve("energy_uj");
            String name = SystemFiles.word(domain.resolve("name")).orElse("");
            if (!Files.exists(energy)) {
                continue;
            }
            if (Double.isNaN(SystemFiles.number(energy))) {
                closed = true;
                continue;
            }
            boolean whole = name.startsWith("package");
            double range = SystemFiles.number(domain.resolve("max_energy_range_uj"));
            found.add(new Sensor(
                    whole ? Sensor.POWER : Sensor.POWER_PART,
                    whole ? "Processor " + name : "Of it: " + name,
                    "W",
                    rate(energy, Double.isNaN(range) ? 0 : range)));
        }
        if (closed) {
            unreadable.add(
                    "The power of the processor may only be read by an administrator: run the runner as root, or let everybody read energy_uj below /sys/class/powercap.");
        } else if (found.stream().noneMatch(s -> s.kind().equals(Sensor.POWER))) {
            unreadable.add("This computer does not tell the power of its processor.");
        }
    }

    /**
     * From a counter of energy that begins anew when it is full: the mean power since it was read last. One that was set
     * back leaves a gap.
     */
    private DoubleSupplier rate(Path energy, double range) {
        double[] before = {Double.NaN, 0};
        return () -> {
            double now = SystemFiles.number(energy);
            long at = nanos.getAsLong();
            double took = now - before[0];
            boolean setBack = took < 0 && before[0] < NEAR_FULL * range;
            double power = setBack ? Double.NaN : (took < 0 ? took + range : took) * MICRO / ((at - before[1]) * NS);
            before[0] = now;
            before[1] = at;
            return power;
        };
    }

    private void batteries() {
        for (Path battery : SystemFiles.in(sys.resolve("class/power_supply"), "*")) {
            if (!SystemFiles.word(battery.resolve("type")).orElse("").equals("Battery")
                    || SystemFiles.word(battery.resolve("scope")).orElse("").equals("Device")) {
                continue;
            }
            DoubleSupplier power = () -> {
                double told = SystemFiles.number(battery.resolve("power_now"));
                return Double.isNaN(told)
                        ? SystemFiles.number(battery.resolve("current_now"))
                                * MICRO
                                * SystemFiles.number(battery.resolve("voltage_now"))
                                * MICRO
                        : told * MICRO;
            };
            if (!Double.isNaN(power.getAsDouble())) {
                found.add(new Sensor(
                        Sensor.DISCHARGE,
                        "Battery " + battery.getFileName(),
                        "W",
                        () -> SystemFiles.word(battery.resolve("status"))
                                        .orElse("")
                                        .equals("Discharging")
                                ? Math.abs(power.getAsDouble())
                                : 0));
            }
        }
    }

    private void heldBack() {
        List<Path> counters = new ArrayList<>();
        for (Path cpu : SystemFiles.in(sys.resolve("devices/system/cpu"), "cpu[0-9]*")) {
            Path counter = cpu.resolve("thermal_throttle/core_throttle_count");
            if (!Double.isNaN(SystemFiles.number(counter))) {
                counters.add(counter);
            }
        }
        if (!counters.isEmpty()) {
            double[] before = {Double.NaN};
            found.add(new Sensor(Sensor.THROTTLE, "Held back for heat", "times", () -> {
                double now = counters.stream()
                        .mapToDouble(SystemFiles::number)
                        .filter(Double::isFinite)
                        .sum();
                double more = now - before[0];
                before[0] = now;
                return more;
            }));
        }
    }

    /** The processor's busy time less that of this program and of what it began. */
    private void others() {
        if (Double.isNaN(busy()) || Double.isNaN(own())) {
            return;
        }
        double[] before = {Double.NaN, Double.NaN, 0};
        found.add(new Sensor(Sensor.OTHERS, "Other programs", "% of a core", () -> {
            double all = busy();
            double own = own();
            long at = nanos.getAsLong();
            double share = (all - before[0] - (own - before[1])) / ((at - before[2]) * NS);
            before[0] = all;
            before[1] = own;
            before[2] = at;
            return 100 * Math.max(0, share);
        }));
    }

    private double busy() {
        // user nice system idle iowait irq softirq steal: what waits is not busy, what the host took away is not ours.
        return SystemFiles.word(proc.resolve("stat"))
                .map(s -> s.lines().findFirst().orElse("").strip().split("\\s+"))
                .filter(f -> f.length > 7)
                .map(f -> (Double.parseDouble(f[1])
                                + Double.parseDouble(f[2])
                                + Double.parseDouble(f[3])
                                + Double.parseDouble(f[6])
                                + Double.parseDouble(f[7]))
                        * TICK_S)
                .orElse(Double.NaN);
    }

    private double own() {
        return SystemFiles.word(proc.resolve("self/stat"))
                .map(s -> s.substring(s.lastIndexOf(')') + 2).split(" "))
                .filter(f -> f.length > 14)
                .map(f -> (Double.parseDouble(f[11])
                                + Double.parseDouble(f[12])
                                + Double.parseDouble(f[13])
                                + Double.parseDouble(f[14]))
                        * TICK_S)
                .orElse(Double.NaN);
    }
}
