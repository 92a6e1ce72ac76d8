package yarrowmark.e2e;

import java.io.IOException;
import java.net.http.HttpResponse;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicReference;

/**
 * Kills the server, and its database, again and again while devices deliver, somebody writes and somebody types scores, and
 * counts in the end: what was confirmed is in the ledger once, nothing is there that no device delivered, and every sentence
 * and score that was typed is stored. Run by bin/bench.
 */
public final class Kills {
    private static final boolean SMALLEST = Boolean.getBoolean("yarrowmark.smallest");
    private static final int DEVICES = SMALLEST ? 2 : 16;
    private static final int OF_SERVER = SMALLEST ? 1 : Integer.getInteger("yarrowmark.kills", 100);
    private static final int OF_DATABASE = SMALLEST ? 1 : OF_SERVER / 2;
    private static final long PAUSE_MS = 150;
    private static final long TYPED_EVERY_MS = 1_500;

    private Kills() {}

    public static void main(String[] arguments) throws Exception {
        AtomicInteger confirmed = new AtomicInteger();
        AtomicInteger again = new AtomicInteger();
        AtomicReference<String> refused = new AtomicReference<>();
        AtomicBoolean over = new AtomicBoolean();
        long stored;
        try (Program program = Program.start("start", "kills")) {
            Device.Http owner = Device.owner(program.address());
            List<Device> devices = new ArrayList<>();
            for (int i = 0; i < DEVICES; i++) {
                devices.add(Device.started(owner, program.address(), "Kill " + i));
            }
            ExecutorService threads = Executors.newFixedThreadPool(DEVICES + 2);
            Typing.Place place = Typing.place(owner, "kills");
            List<String> sentences = new CopyOnWriteArrayList<>();
            Map<Integer, String> scores = new ConcurrentHashMap<>();
            String address = program.address();
            // A page that is open survives what follows; one that is about to be opened does not.
            CountDownLatch atWork = new CountDownLatch(2);
            threads.execute(() -> write(address, place, over, atWork, sentences, refused));
            threads.execute(() -> typeScores(address, place, over, atWork, scores, refused));
            if (!atWork.await(5, TimeUnit.MINUTES)) {
                throw new IllegalStateException("nobody came to write or to type; " + refused.get());
            }
            for (Device device : devices) {
                threads.execute(() -> deliver(device, over, confirmed, again, refused));
            }
            // Seeded, so that a moment that shows something can be found again.
            Random when = new Random(20261127);
            for (int i = 0; i < OF_SERVER; i++) {
                goOn(confirmed, refused, when);
                program.kill();
                program.startAgain();
                progress("server", i + 1, confirmed);
            }
            for (int i = 0; i < OF_DATABASE; i++) {
                goOn(confirmed, refused, when);
                program.databaseServer().destroyForcibly();
                progress("database", i + 1, confirmed);
            }
            goOn(confirmed, refused, when);
            over.set(true);
            threads.shutdown();
            if (!threads.awaitTermination(5, TimeUnit.MINUTES)) {
                throw new IllegalStateException(
                        "a device could not deliver its last run, or somebody's text is not stored");
            }
            String texts = Typing.texts(owner, place);
            Map<Integer, Double> there = Typing.scores(owner, place);
            long lostSentences =
                    sentences.stream().filter(s -> !texts.contains(s)).count();
            long lostScores = scores.entrySet().stream()
                    .filter(s -> !Double.valueOf(s.getValue()).equals(there.get(s.getKey())))
                    .count();
            System.out.printf(
                    "Kills: a writer typed %d sentences, %d lost; a typist %d scores, %d lost%n",
                    sentences.size(), lostSentences, scores.size(), lostScores);
            if (lostSentences + lostScores > 0) {
                refused.compareAndSet(null, "what somebody typed is lost");
            }
            stored = runs(program.database(), place.session());
        }
        boolean held = stored == confirmed.get() && refused.get() == null;
        System.out.printf(
                "Kills: %d of the server and %d of its database while %d devices deliver: %d runs confirmed, %d in the ledger; %d deliveries were repeated; %s%n",
                OF_SERVER, OF_DATABASE, DEVICES, confirmed.get(), stored, again.get(), held ? "held" : "missed");
        if (refused.get() != null) {
            System.out.println("Kills: refused: " + refused.get());
        }
        if (!held) {
            throw new IllegalStateException("a run was lost, or is there twice");
        }
    }

    /** Somebody writes, in a page that is never loaded anew, and waits in the end until all of it is stored. */
    private static void write(
            String address,
            Typing.Place place,
            AtomicBoolean over,
            CountDownLatch atWork,
            List<String> sentences,
            AtomicReference<String> refused) {
        try (Browser browser = new Browser()) {
            Typing.signIn(browser, address, "wren");
            Typing.openWriteUp(browser, address, place);
            for (int i = 0; !over.get(); i++) {
                String sentence = "Sentence k" + i + "x.";
                Typing.write(browser, i % 2, sentence);
                sentences.add(sentence);
                if (i == 0) {
                    atWork.countDown();
                }
                Thread.sleep(TYPED_EVERY_MS);
            }
            browser.until(
                    "all of the text to be stored", () -> Typing.kept(browser).equals("[]"));
        } catch (RuntimeException | InterruptedException e) {
            refused.compareAndSet(null, "the writer: " + e.getMessage());
        }
    }

    /** Somebody enters scores, each place again and again: the last one counts. */
    private static void typeScores(
            String address,
            Typing.Place place,
            AtomicBoolean over,
            CountDownLatch atWork,
            Map<Integer, String> scores,
            AtomicReference<String> refused) {
        try (Browser browser = new Browser()) {
            Typing.signIn(browser, address, "wren");
            Typing.openSheet(browser, address, place);
            for (int i = 0; !over.get(); i++) {
                int run = 1 + i % Typing.PLACES;
                String value = (100 + i) + ".5";
                Typing.score(browser, run, value, true);
                scores.put(run, value);
                if (i == 0) {
                    atWork.countDown();
                }
                Thread.sleep(TYPED_EVERY_MS);
            }
            browser.until("all scores to be sent", () -> Typing.kept(browser).equals("[]"));
        } catch (RuntimeException | InterruptedException e) {
            refused.compareAndSet(null, "the typist: " + e.getMessage());
        }
    }

    private static void progress(String what, int times, AtomicInteger confirmed) {
        if (times % 10 == 0) {
            System.out.printf("Kills: %s %d times, %d runs confirmed so far%n", what, times, confirmed.get());
        }
    }

    /** Until some more were confirmed, and a moment longer, so that each kill meets deliveries under way. */
    private static void goOn(AtomicInteger confirmed, AtomicReference<String> refused, Random when)
            throws InterruptedException {
        int enough = confirmed.get() + DEVICES;
        long limit = System.nanoTime() + 120_000_000_000L;
        while (confirmed.get() < enough) {
            if (refused.get() != null || System.nanoTime() > limit) {
                throw new IllegalStateException(
                        "it cannot go on, or nothing was confirmed for two minutes; refused: " + refused.get());
            }
            Thread.sleep(10);
        }
        Thread.sleep(when.nextInt(300));
    }

    private static void deliver(
            Device device,
            AtomicBoolean over,
            AtomicInteger confirmed,
            AtomicInteger again,
            AtomicReference<String> refused) {
        try {
            while (!over.get()) {
                String key = UUID.randomUUID().toString();
                String run = device.nextRun();
                for (int attempt = 0; ; attempt++) {
                    if (attempt > 0) {
                        again.incrementAndGet();
                        Thread.sleep(PAUSE_MS);
                    }
                    if (confirms(device, key, run, refused)) {
                        confirmed.incrementAndGet();
                        break;
                    }
                    if (refused.get() != null) {
                        return;
                    }
                }
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private static boolean confirms(Device device, String key, String run, AtomicReference<String> refused)
            throws InterruptedException {
        try {
            HttpResponse<String> answer = device.deliver(key, run);
            if (answer.statusCode() >= 400 && answer.statusCode() < 500) {
                refused.compareAndSet(null, answer.statusCode() + " " + answer.body());
            }
            return answer.statusCode() == 200 && answer.body().contains(key);
        } catch (IOException e) {
            // It was killed: the same run is delivered again.
            return false;
        }
    }

    /** Of all sessions but that of the typist, who makes a run of each score that is typed over another. */
    private static long runs(String[] database, long typed) throws Exception {
        try (Connection connection = DriverManager.getConnection(database[0], database[1], database[2]);
                Statement statement = connection.createStatement();
                ResultSet rows = statement.executeQuery("select count(*) from run where session_id <> " + typed)) {
            rows.next();
            return rows.getLong(1);
        }
    }
}
