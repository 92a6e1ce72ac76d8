package yarrowmark.runner.sensor;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.Comparator;
import java.util.concurrent.atomic.AtomicLong;
import java.util.stream.Stream;

/** The files in which a computer tells what its sensors say, made up below a folder. */
public final class FakeSensors {
    private final Path sys;
    private final Path proc;
    final AtomicLong nanos = new AtomicLong();

    public FakeSensors(Path folder) {
        this.sys = folder.resolve("sys");
        this.proc = folder.resolve("proc");
    }

    public Sensors find() {
        return LinuxSensors.find(sys, proc, nanos::get);
    }

    /** Of the processor, in °C. */
    public void temperature(double celsius) {
        put("class/hwmon/hwmon2/name", "coretemp");
        put("class/hwmon/hwmon2/temp1_label", "Package id 0");
        put("class/hwmon/hwmon2/temp1_input", String.valueOf((long) (celsius * 1000)));
    }

    /** One of many, in °C. */
    public void temperature(int sensor, double celsius) {
        put("class/hwmon/hwmon2/name", "coretemp");
        put("class/hwmon/hwmon2/temp" + sensor + "_input", String.valueOf((long) (celsius * 1000)));
    }

    /** A core's clock, in kHz. */
    public void core(int core, long khz) {
        put("devices/system/cpu/cpu" + core + "/cpufreq/scaling_cur_freq", String.valueOf(khz));
    }

    /** Takes its files away. */
    public void remove() throws IOException {
        try (Stream<Path> all = Files.walk(sys.getParent())) {
            for (Path one : all.sorted(Comparator.reverseOrder()).toList()) {
                Files.delete(one);
            }
        }
    }

    void put(String file, String words) {
        write(sys.resolve(file), words);
    }

    void process(String file, String words) {
        write(proc.resolve(file), words);
    }

    /** Whole or not at all, as the system does it. */
    private static void write(Path at, String words) {
        try {
            Files.createDirectories(at.getParent());
            Path fresh = Files.writeString(at.resolveSibling(at.getFileName() + ".new"), words + "\n");
            Files.move(fresh, at, StandardCopyOption.ATOMIC_MOVE);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
