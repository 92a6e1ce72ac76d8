package yarrowmark.e2e;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.net.URI;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;

/**
 * The network suite against a plain socket program on the same machine, in turns: throughput, and the way there and back. In
 * the loop of a machine the browser itself is what takes longest, which a real network hides.
 */
public final class NetworkSpeed {
    private static final boolean SMALLEST = Boolean.getBoolean("yarrowmark.smallest");
    private static final int PAIRS = SMALLEST ? 1 : 5;
    private static final int TIMED_MS = SMALLEST ? 200 : 2_000;
    private static final double AIM_SHARE = 0.8;
    private static final double AIM_MS = 0.3;
    private static final int BLOCK = 1 << 16;
    /** Mbit/s; 0 for the machine's own loop. */
    private static final double[] LINES = SMALLEST ? new double[] {1000} : new double[] {0, 100, 1000};

    private NetworkSpeed() {}

    public static void main(String[] args) throws Exception {
        try (Program program = Program.start("demo", "network");
                Browser reviewer = new Browser()) {
            reviewer.signIntoDemo(program.address());
            Rounds rounds = new Rounds(program, reviewer);
            System.out.printf(
                    "The network suite against plain sockets on one machine, in %d pairs of %d ms:%n", PAIRS, TIMED_MS);
            for (double mbit : LINES) {
                measure(program, rounds, mbit);
            }
        }
    }

    /** @param mbit of the line between; 0: none, the machine's own loop */
    private static void measure(Program program, Rounds rounds, double mbit) throws Exception {
        List<double[]> down = new ArrayList<>();
        List<double[]> up = new ArrayList<>();
        List<double[]> there = new ArrayList<>();
        for (int pair = 0; pair < PAIRS; pair++) {
            down.add(new double[] {plainMbit(false, mbit), 0});
            up.add(new double[] {plainMbit(true, mbit), 0});
            there.add(new double[] {plainThereMs(mbit), 0});
            URI own = URI.create(program.address());
            try (Line line = mbit == 0 ? null : new Line(own.getPort(), mbit);
                    Browser device = new Browser(900, 700)) {
                String address = line == null ? program.address() : "http://" + own.getHost() + ":" + line.port() + "/";
                List<Rounds.Score> scores = rounds.carryOut(
                        device, address, k -> k.matches("network-(latency|download-one|upload-one)"), 1, TIMED_MS);
                down.get(pair)[1] = value(scores, "network-download-one");
                up.get(pair)[1] = value(scores, "network-upload-one");
                there.get(pair)[1] = value(scores, "network-latency");
            }
        }
        System.out.printf(
                "  %s:%n", mbit == 0 ? "over the loop" : String.format("through a line of %.0f Mbit/s", mbit));
        ratio("download, one stream, Mbit/s", down);
        ratio("upload, one stream, Mbit/s", up);
        double plain = median(there, 0);
        double ours = median(there, 1);
        System.out.printf(
                "    there and back, ms: plain %.3f, ours %.3f, %.3f more; aim %.1f%n",
                plain, ours, ours - plain, AIM_MS);
    }

    private static void ratio(String what, List<double[]> pairs) {
        double[] ratios = pairs.stream().mapToDouble(p -> p[1] / p[0]).sorted().toArray();
        System.out.printf(
                "    %s: plain %.0f, ours %.0f, ratio %.2f (%.2f to %.2f); aim %.1f%n",
                what,
                median(pairs, 0),
                median(pairs, 1),
                ratios[ratios.length / 2],
                ratios[0],
                ratios[ratios.length - 1],
                AIM_SHARE);
    }

    private static double median(List<double[]> pairs, int side) {
        double[] sorted = pairs.stream().mapToDouble(p -> p[side]).sorted().toArray();
        return sorted[sorted.length / 2];
    }

    private static double value(List<Rounds.Score> scores, String key) {
        return scores.stream()
                .filter(s -> s.key().equals(key) && s.first() && s.value() != null)
                .mapToDouble(Rounds.Score::value)
                .findFirst()
                .orElseThrow(() -> new IllegalStateException(key + " has no score: " + scores));
    }

    /** One connection that is filled for the timed part. @param back whether the other side sends */
    private static double plainMbit(boolean back, double mbit) throws IOException, InterruptedException {
        byte[] block = new byte[BLOCK];
        new Random(1).nextBytes(block);
        long[] got = new long[2];
        try (ServerSocket door = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            Thread other = new Thread(() -> {
                try (Socket socket = door.accept()) {
                    if (back) {
                        got[0] = swallow(socket.getInputStream(), got);
                    } else {
                        fill(socket.getOutputStream(), block);
                    }
                } catch (IOException e) {
                    // The other side has had enough.
                }
            });
            other.start();
            try (Line line = mbit == 0 ? null : new Line(door.getLocalPort(), mbit);
                    Socket socket =
                            new Socket(door.getInetAddress(), line == null ? door.getLocalPort() : line.port())) {
                if (back) {
                    fill(socket.getOutputStream(), block);
                } else {
                    got[0] = swallow(socket.getInputStream(), got);
                }
            }
            other.join();
        }
        return 8 * got[0] / 1e6 / (got[1] / 1e9);
    }

    private static void fill(OutputStream out, byte[] block) throws IOException {
        long until = System.nanoTime() + Duration.ofMillis(TIMED_MS).toNanos();
        while (System.nanoTime() < until) {
            out.write(block);
        }
    }

    private static long swallow(InputStream in, long[] took) throws IOException {
        byte[] buffer = new byte[BLOCK];
        long bytes = 0;
        long begin = System.nanoTime();
        for (int n = in.read(buffer); n >= 0; n = in.read(buffer)) {
            bytes += n;
            took[1] = System.nanoTime() - begin;
        }
        return bytes;
    }

    /** Median of eight bytes there and back, again as soon as they are there. */
    private static double plainThereMs(double mbit) throws IOException, InterruptedException {
        int times = SMALLEST ? 10 : 2_000;
        double[] took = new double[times];
        try (ServerSocket door = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            Thread other = new Thread(() -> {
                try (Socket socket = door.accept()) {
                    socket.setTcpNoDelay(true);
                    byte[] small = new byte[8];
                    while (socket.getInputStream().readNBytes(small, 0, 8) == 8) {
                        socket.getOutputStream().write(small);
                    }
                } catch (IOException e) {
                    // The other side has had enough.
                }
            });
            other.start();
            try (Line line = mbit == 0 ? null : new Line(door.getLocalPort(), mbit);
                    Socket socket =
                            new Socket(door.getInetAddress(), line == null ? door.getLocalPort() : line.port())) {
                socket.setTcpNoDelay(true);
                byte[] small = new byte[8];
                for (int i = 0; i < times; i++) {
                    long begin = System.nanoTime();
                    socket.getOutputStream().write(small);
                    socket.getInputStream().readNBytes(small, 0, 8);
                    took[i] = (System.nanoTime() - begin) / 1e6;
                }
            }
            other.join();
        }
        Arrays.sort(took);
        return took[times / 2];
    }
}
