package yarrowmark.runner.sensor;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.function.Consumer;
import yarrowmark.runner.protocol.Api;

/**
 * Reads the sensors twice a second while something runs. Each value belongs to the step before it. Where a run is so long that
 * there would be too many values, two steps become one.
 */
public final class SensorWatch implements AutoCloseable {
    private static final int STEP_MS = 500;
    private static final int MOST_VALUES = 1_200;
    /** The bench takes so many of a run. */
    private static final int MOST_TRACKS = 64;

    /** Every so many looks the bench is told. */
    private static final int TOLD_EVERY = 10;

    private final List<Sensor> sensors;
    private final List<List<Double>> values = new ArrayList<>();
    private final Consumer<List<Api.Sensor>> tell;
    private final Thread thread;
    private volatile boolean over;
    private int stepMs = STEP_MS;
    /** Looks that are not yet a value of their own, since steps were put together. */
    private int waiting;

    private final double[] gathered;

    /** One that reads nothing by itself. */
    static SensorWatch still(Sensors of) {
        return new SensorWatch(of, said -> {}, false);
    }

    /** @param tell is given what the sensors say, every few seconds, on a thread of its own */
    public SensorWatch(Sensors of, Consumer<List<Api.Sensor>> tell) {
        this(of, tell, of.any());
    }

    private SensorWatch(Sensors of, Consumer<List<Api.Sensor>> tell, boolean reads) {
        this.sensors = of.all();
        this.tell = tell;
        this.gathered = new double[sensors.size()];
        sensors.forEach(s -> values.add(new ArrayList<>()));
        this.thread = new Thread(this::watch, "sensors");
        thread.setDaemon(true);
        if (reads) {
            thread.start();
        }
    }

    private void watch() {
        // What counts from one look to the next begins here.
        sensors.forEach(s -> s.read().getAsDouble());
        long next = System.nanoTime();
        Thread telling = null;
        for (int looks = 1; !over; looks++) {
            next += TimeUnit.MILLISECONDS.toNanos(STEP_MS);
            for (long left = next - System.nanoTime(); left > 0 && !over; left = next - System.nanoTime()) {
                LockSupport.parkNanos(left);
            }
            if (over) {
                return;
            }
            List<Double> now = sensors.stream().map(s -> s.read().getAsDouble()).toList();
            // A look that came late stands for the ones that were missed.
            int missed = (int) ((System.nanoTime() - next) / TimeUnit.MILLISECONDS.toNanos(STEP_MS));
            look(now);
            for (int i = 0; i < missed; i++) {
                look(again(now));
            }
            next += missed * TimeUnit.MILLISECONDS.toNanos(STEP_MS);
            if (looks % TOLD_EVERY == 1 && (telling == null || !telling.isAlive())) {
                telling = new Thread(() -> tell.accept(Sensors.shown(sensors, now)), "sensors at the bench");
                telling.setDaemon(true);
                telling.start();
            }
        }
    }

    /** What was counted was counted once. */
    private List<Double> again(List<Double> now) {
        List<Double> same = new ArrayList<>();
        for (int i = 0; i < now.size(); i++) {
            same.add(sensors.get(i).counts() ? Double.valueOf(0) : now.get(i));
        }
        return same;
    }

    synchronized void look(List<Double> now) {
        int together = stepMs / STEP_MS;
        for (int i = 0; i < sensors.size(); i++) {
            List<Double> before = values.get(i);
            double value = Double.isFinite(now.get(i))
                    ? now.get(i)
                    : before.isEmpty() ? Double.NaN : before.get(before.size() - 1);
            gathered[i] += sensors.get(i).counts() ? value : value / together;
        }
        if (++waiting < together) {
            return;
        }
        waiting = 0;
        for (int i = 0; i < sensors.size(); i++) {
            values.get(i).add(gathered[i]);
            gathered[i] = 0;
        }
        if (!values.isEmpty() && values.get(0).size() >= MOST_VALUES) {
            halve();
        }
    }

    private void halve() {
        for (int i = 0; i < sensors.size(); i++) {
            List<Double> all = values.get(i);
            List<Double> half = new ArrayList<>();
            for (int k = 0; k + 1 < all.size(); k += 2) {
                double sum = all.get(k) + all.get(k + 1);
                half.add(sensors.get(i).counts() ? sum : sum / 2);
            }
            values.set(i, half);
        }
        stepMs *= 2;
    }

    public boolean any() {
        return !sensors.isEmpty();
    }

    /** What was read until now; sensors that never answered are left out. */
    public synchronized List<Api.Track> tracks() {
        List<Api.Track> tracks = new ArrayList<>();
        for (int i = 0; i < sensors.size() && tracks.size() < MOST_TRACKS; i++) {
            List<Double> all = values.get(i);
            if (!all.isEmpty() && all.stream().allMatch(Double::isFinite)) {
                Sensor s = sensors.get(i);
                tracks.add(new Api.Track(s.kind(), s.name(), s.unit(), stepMs, List.copyOf(all)));
            }
        }
        return tracks;
    }

    @Override
    public void close() {
        over = true;
        LockSupport.unpark(thread);
    }
}
