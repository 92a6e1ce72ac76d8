package yarrowmark.e2e;

import java.io.IOException;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Queue;
import java.util.UUID;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicReference;
import java.util.regex.Pattern;

/**
 * How many runs a second are taken in from 8, 16 and 60 devices that deliver without a pause, and how long each waits,
 * while 300 pages watch the bench, ten of which have stopped reading. Run by bin/bench.
 */
public final class CrowdSpeed {
    private static final boolean SMALLEST = Boolean.getBoolean("yarrowmark.smallest");
    private static final int[] DEVICES = SMALLEST
            ? new int[] {2}
            : Pattern.compile(",")
                    .splitAsStream(System.getProperty("yarrowmark.crowd", "8,16,60"))
                    .mapToInt(Integer::parseInt)
                    .toArray();
    private static final long SECONDS = SMALLEST ? 1 : 60;
    private static final int WATCHING = SMALLEST ? 3 : 290;
    private static final int ASLEEP = SMALLEST ? 1 : 10;

    private CrowdSpeed() {}

    private record Measured(double aSecond, double p50, double p95, int errors) {}

    public static void main(String[] arguments) throws Exception {
        boolean held = true;
        try (Program program = Program.start("start", "crowd")) {
            Device.Http owner = Device.owner(program.address());
            AtomicInteger events = new AtomicInteger();
            List<Socket> asleep = watch(program.address(), owner.cookies(), events);
            List<Measured> all = new ArrayList<>();
            for (int devices : DEVICES) {
                Measured m = measure(program.address(), owner, devices);
                all.add(m);
                System.out.printf(
                        Locale.ROOT,
                        "Crowd: %d devices deliver %.1f runs a second; median %.0f ms, 95th percentile %.0f ms; %d errors%n",
                        devices,
                        m.aSecond(),
                        m.p50(),
                        m.p95(),
                        m.errors());
            }
            Measured few = all.get(0);
            Measured many = all.get(all.size() - 1);
            held = many.aSecond() >= few.aSecond()
                    && many.p95() <= 4 * few.p95()
                    && all.stream().allMatch(m -> m.errors() == 0);
            System.out.printf(
                    Locale.ROOT,
                    "Crowd: most against fewest: throughput %.2f times (aim at least 1), 95th percentile %.1f times (aim at most 4); %d watchers got %d events; %s%n",
                    many.aSecond() / few.aSecond(),
                    many.p95() / few.p95(),
                    WATCHING,
                    events.get(),
                    held ? "held" : "missed");
            for (Socket socket : asleep) {
                socket.close();
            }
        }
        if (!held && !SMALLEST) {
            throw new IllegalStateException("the crowd was not taken in as it should");
        }
    }

    /** Opens the feeds. @return those that nobody reads */
    private static List<Socket> watch(String address, String cookies, AtomicInteger events) throws IOException {
        URI feed = URI.create(address + "api/bench/events");
        HttpClient client =
                HttpClient.newBuilder().version(HttpClient.Version.HTTP_1_1).build();
        for (int i = 0; i < WATCHING; i++) {
            client.sendAsync(
                    HttpRequest.newBuilder(feed).header("Cookie", cookies).build(),
                    HttpResponse.BodyHandlers.fromLineSubscriber(new Lines(events)));
        }
        List<Socket> asleep = new ArrayList<>();
        for (int i = 0; i < ASLEEP; i++) {
            Socket socket = new Socket();
            socket.setReceiveBufferSize(1024);
            socket.connect(new java.net.InetSocketAddress(feed.getHost(), feed.getPort()));
            socket.getOutputStream()
                    .write(("GET /api/bench/events HTTP/1.1\r\nHost: 127.0.0.1\r\nCookie: " + cookies + "\r\n\r\n")
                            .getBytes(StandardCharsets.US_ASCII));
            asleep.add(socket);
        }
        return asleep;
    }

    private record Lines(AtomicInteger events) implements java.util.concurrent.Flow.Subscriber<String> {
        @Override
        public void onSubscribe(java.util.concurrent.Flow.Subscription subscription) {
            subscription.request(Long.MAX_VALUE);
        }

        @Override
        public void onNext(String line) {
            if (line.startsWith("data:")) {
                events.incrementAndGet();
            }
        }

        @Override
        public void onError(Throwable e) {
            // The program ends before its watchers do.
        }

        @Override
        public void onComplete() {
            // Likewise.
        }
    }

    private static Measured measure(String address, Device.Http owner, int count) throws Exception {
        List<Device> devices = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            devices.add(Device.started(owner, address, "Crowd " + count + " " + i));
        }
        Queue<Double> waits = new ConcurrentLinkedQueue<>();
        AtomicInteger errors = new AtomicInteger();
        AtomicReference<String> first = new AtomicReference<>();
        CountDownLatch done = new CountDownLatch(count);
        var threads = Executors.newFixedThreadPool(count);
        long end = System.nanoTime() + SECONDS * 1_000_000_000L;
        for (Device device : devices) {
            threads.execute(() -> {
                try {
                    while (System.nanoTime() < end) {
                        long began = System.nanoTime();
                        HttpResponse<String> answer =
                                device.deliver(UUID.randomUUID().toString(), device.nextRun());
                        waits.add((System.nanoTime() - began) / 1e6);
                        if (answer.statusCode() != 200) {
                            errors.incrementAndGet();
                            first.compareAndSet(null, answer.statusCode() + " " + answer.body());
                        }
                    }
                } catch (IOException | InterruptedException e) {
                    errors.incrementAndGet();
                    first.compareAndSet(null, e.toString());
                } finally {
                    done.countDown();
                }
            });
        }
        done.await();
        threads.shutdownNow();
        if (first.get() != null) {
            System.out.println("Crowd: the first error: " + first.get());
        }
        double[] sorted =
                waits.stream().mapToDouble(Double::doubleValue).sorted().toArray();
        return new Measured(
                sorted.length / (double) SECONDS,
                sorted[sorted.length / 2],
                sorted[(int) (sorted.length * 0.95)],
                errors.get());
    }
}
