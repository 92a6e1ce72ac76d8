package yarrowmark.runner.bench;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicReference;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import yarrowmark.runner.NativeTest;
import yarrowmark.runner.command.CommandFailed;
import yarrowmark.runner.command.CommandTest;
import yarrowmark.runner.facts.BackgroundLoad;
import yarrowmark.runner.kernel.WrongAnswer;
import yarrowmark.runner.measure.Measurement;
import yarrowmark.runner.protocol.Api;
import yarrowmark.runner.sensor.FakeSensors;
import yarrowmark.runner.sensor.Sensors;

class RoundTest {
    private static final Measurement GOOD =
            new Measurement(42, 0.1, List.of(41.0, 42.0, 43.0), 10, List.of(new Measurement.More("p99", 7, 0)), null);

    @TempDir
    private Path folder;

    private FakeBench bench;
    private BenchClient client;
    private Outbox outbox;
    private final List<String> told = new ArrayList<>();
    private final Map<String, NativeTest> tests = new LinkedHashMap<>();
    private Sensors sensors = Sensors.none();

    @BeforeEach
    void begin() throws IOException {
        bench = new FakeBench();
        client = new BenchClient(bench.address(), new PinnedCertificate(f -> false));
        client.join("code", "a computer", "secret");
        outbox = new Outbox(folder.resolve("outbox"));
        tests.put("one", options -> GOOD);
        tests.put("two", options -> GOOD);
    }

    @AfterEach
    void end() {
        bench.close();
    }

    private static Api.Test test(long id, String key) {
        return new Api.Test(id, key, "Test " + id, "rate", 2, 0, null, null, false, null, null, null);
    }

    private static Api.Seat seat(boolean stopOnFailure, Api.Test... tests) {
        return new Api.Seat(
                1, "Plan", 2, 10, 0, stopOnFailure, List.of(tests), 1L, List.of(), "JOINED", Api.Command.GO, 1);
    }

    private Round round() {
        return new Round(
                client,
                outbox,
                tests,
                new NativeTest.Options(10, 1, folder),
                told::add,
                new BackgroundLoad(),
                sensors,
                0);
    }

    private Api.Ending run(Api.Seat seat) throws InterruptedException {
        try (Control control = new Control(client, seat.command(), seat.commandRevision())) {
            return round().run(seat, control);
        }
    }

    @Test
    void everyRunIsDeliveredOnceAndInOrder() throws Exception {
        assertThat(run(seat(false, test(1, "one"), test(2, "two")))).isEqualTo(Api.Ending.DONE);
        assertThat(bench.order).containsExactly("1/1/1 OK", "1/2/1 OK", "2/1/1 OK", "2/2/1 OK");
        assertThat(bench.ends).containsExactly("DONE");
        assertThat(bench.runs.values()).allSatisfy(r -> assertThat(
                        r.path("readings").get(1).path("metric").asString())
                .isEqualTo("p99"));
        assertThat(outbox.waiting()).isEmpty();
    }

    @Test
    void whereThePlanWantsItKnownItEndsWhenItIs() throws Exception {
        Api.Test test = new Api.Test(
                1,
                "one",
                "As it takes",
                "rate",
                9,
                0,
                null,
                null,
                false,
                null,
                List.of(new Api.Limit(3, 0.01, 0.01)),
                null);
        // One run was done before the runner came back, and counts.
        outbox.keep(new Api.Run(
                1,
                1,
                1,
                Api.RunState.OK,
                null,
                null,
                5,
                List.of(new Api.Reading("rate", 42, 0.1, List.of())),
                null,
                10));
        assertThat(run(seat(false, test))).isEqualTo(Api.Ending.DONE);
        assertThat(bench.order).containsExactly("1/1/1 OK", "1/2/1 OK", "1/3/1 OK");
    }

    @Test
    void aRunThatEndsTheRunnerAgainAndAgainIsGivenUp() throws Exception {
        outbox.begin(new Outbox.Begun(1, 1, 4, System.currentTimeMillis()));
        assertThat(run(seat(false, test(1, "one")))).isEqualTo(Api.Ending.DONE);
        assertThat(bench.order).containsExactly("1/1/4 STOPPED", "1/1/5 OK", "1/2/1 OK");
        bench.order.clear();
        Outbox other = outbox;
        outbox = new Outbox(folder.resolve("other"));
        outbox.begin(new Outbox.Begun(1, 1, 5, System.currentTimeMillis()));
        assertThat(run(seat(false, test(1, "one")))).isEqualTo(Api.Ending.DONE);
        assertThat(bench.order).containsExactly("1/1/5 FAILED", "1/2/1 OK");
        assertThat(other.waiting()).isEmpty();
    }

    @Test
    void whatTurnsOutToBeImpossibleIsNotTriedAgain() throws Exception {
        tests.put("one", options -> {
            throw new CommandFailed(Api.Reason.NOT_SUPPORTED, "It cannot be begun here.", "");
        });
        run(seat(true, test(1, "one"), test(2, "two")));
        assertThat(bench.order).containsExactly("1/1/1 COULD_NOT_RUN", "2/1/1 OK", "2/2/1 OK");
    }

    @Test
    void whatCannotRunHereIsSaidAndHoldsUpNothing() throws Exception {
        tests.put("two", new NativeTest() {
            @Override
            public Optional<Obstacle> obstacle(Options options) {
                return Optional.of(new Obstacle("NO_SPACE", "The drive is full."));
            }

            @Override
            public Measurement run(Options options) {
                throw new AssertionError("it has said that it cannot");
            }
        });
        assertThat(run(seat(false, test(1, "weir-hash-one"), test(2, "two"), test(3, "one"))))
                .isEqualTo(Api.Ending.DONE);
        assertThat(bench.order).containsExactly("1/1/1 COULD_NOT_RUN", "2/1/1 COULD_NOT_RUN", "3/1/1 OK", "3/2/1 OK");
        assertThat(told).anySatisfy(line -> assertThat(line).contains("browser"));
    }

    @Test
    void aFailureHasItsReasonAndEndsTheRoundWhereThePlanSaysSo() throws Exception {
        tests.put("one", options -> {
            throw new WrongAnswer("not the known answer");
        });
        tests.put("two", options -> {
            throw new OutOfMemoryError("Java heap space");
        });
        assertThat(run(seat(false, test(1, "one"), test(2, "two")))).isEqualTo(Api.Ending.DONE);
        assertThat(bench.runs.values().stream().map(r -> r.path("reason").asString()))
                .containsOnly("WRONG_ANSWER", "OUT_OF_MEMORY");
        bench.order.clear();
        Outbox fresh = new Outbox(folder.resolve("another"));
        outbox = fresh;
        assertThat(run(seat(true, test(1, "one"), test(2, "two")))).isEqualTo(Api.Ending.STOPPED);
        assertThat(bench.order).containsExactly("1/1/1 FAILED");
    }

    @Test
    void whatTheServerDidNotAnswerIsSentAgainAndCountsOnce() throws Exception {
        bench.lost.set(1);
        assertThat(round().deliver()).isTrue();
        outbox.keep(new Api.Run(1, 1, 1, Api.RunState.OK, null, null, 5, List.of(), null, 10));
        assertThat(round().deliver()).as("nobody answered").isFalse();
        assertThat(outbox.waiting()).hasSize(1);
        assertThat(round().deliver()).isTrue();
        assertThat(outbox.waiting()).isEmpty();
        assertThat(bench.order).containsExactly("1/1/1 OK");
    }

    @Test
    void whatIsRefusedStaysHereAndHoldsUpNoOther() throws Exception {
        bench.refuses = 1;
        assertThat(run(seat(false, test(1, "one")))).isEqualTo(Api.Ending.DONE);
        assertThat(bench.order).containsExactly("1/2/1 OK");
        assertThat(outbox.refused()).isEqualTo(1);
        assertThat(told).anySatisfy(line -> assertThat(line).contains("not wanted"));
        outbox.over();
        assertThat(outbox.refused()).as("it is still there").isEqualTo(1);
    }

    @Test
    void aServerThatIsAwayStopsNothing() throws Exception {
        AtomicInteger runs = new AtomicInteger();
        tests.put("one", options -> {
            bench.away = runs.incrementAndGet() == 1;
            return GOOD;
        });
        assertThat(run(seat(false, test(1, "one"), test(2, "two")))).isEqualTo(Api.Ending.DONE);
        assertThat(bench.sorted()).containsExactly("1/1/1 OK", "1/2/1 OK", "2/1/1 OK", "2/2/1 OK");
    }

    /** A runner that is killed leaves what is on the disk, and nothing else. */
    @Test
    void aKilledRunnerGoesOnWhereItWas() throws Exception {
        Api.Seat seat = seat(false, test(1, "one"), test(2, "two"));
        outbox.keep(new Api.Run(1, 1, 1, Api.RunState.OK, null, null, 5, List.of(), null, 10));
        outbox.begin(new Outbox.Begun(1, 2, 1, System.currentTimeMillis() - 500));
        outbox = new Outbox(folder.resolve("outbox"));
        assertThat(run(seat)).isEqualTo(Api.Ending.DONE);
        assertThat(bench.sorted()).containsExactly("1/1/1 OK", "1/2/1 STOPPED", "1/2/2 OK", "2/1/1 OK", "2/2/1 OK");
    }

    @Test
    void aRoundThatWasOverIsOnlyDelivered() throws Exception {
        outbox.keep(new Api.Run(1, 1, 1, Api.RunState.OK, null, null, 5, List.of(), null, 10));
        outbox.ending(Api.Ending.STOPPED);
        assertThat(run(seat(false, test(1, "one")))).isEqualTo(Api.Ending.STOPPED);
        assertThat(bench.order).containsExactly("1/1/1 OK");
        assertThat(bench.ends).containsExactly("STOPPED");
    }

    @Test
    void theReviewerStopsATestInItsMiddle() throws Exception {
        CountDownLatch running = new CountDownLatch(1);
        tests.put("one", options -> {
            running.countDown();
            new CountDownLatch(1).await();
            return GOOD;
        });
        Thread reviewer = new Thread(() -> {
            try {
                running.await(5, TimeUnit.MINUTES);
                bench.say("STOP");
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        });
        reviewer.start();
        assertThat(run(seat(false, test(1, "one"), test(2, "two")))).isEqualTo(Api.Ending.STOPPED);
        assertThat(bench.order).containsExactly("1/1/1 STOPPED");
        assertThat(bench.runs.values().iterator().next().path("reason").asString())
                .isEqualTo("STOPPED_BY_REVIEWER");
        reviewer.join();
    }

    @Test
    void aHeldRoundWaitsAndGoesOn() throws Exception {
        CountDownLatch held = new CountDownLatch(1);
        AtomicReference<Control> heard = new AtomicReference<>();
        tests.put("one", options -> {
            bench.say("PAUSE");
            while (!heard.get().isPaused()) {
                Thread.onSpinWait();
            }
            return GOOD;
        });
        Round round = new Round(
                client,
                outbox,
                tests,
                new NativeTest.Options(10, 1, folder),
                line -> {
                    if (line.contains("holds")) {
                        held.countDown();
                    }
                },
                new BackgroundLoad(),
                Sensors.none(),
                0);
        Api.Seat seat = seat(false, test(2, "one"));
        Thread reviewer = new Thread(() -> {
            try {
                held.await(5, TimeUnit.MINUTES);
                tests.put("one", options -> GOOD);
                bench.say("GO");
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        });
        reviewer.start();
        try (Control control = new Control(client, seat.command(), seat.commandRevision())) {
            heard.set(control);
            assertThat(round.run(seat, control)).isEqualTo(Api.Ending.DONE);
        }
        reviewer.join();
        assertThat(held.getCount()).as("it was held").isZero();
        assertThat(bench.order).containsExactly("2/1/1 OK", "2/2/1 OK");
    }

    @Test
    void whatIsDoneByHandOrHasToCoolWaitsUntilTheReviewerSaysGo() throws Exception {
        Api.Test byHand = new Api.Test(1, "by-hand", "By hand", "rate", 3, 0, null, null, true, null, null, null);
        Api.Test cool = new Api.Test(2, "one", "Cool", "rate", 1, 0, 30.0, null, false, null, null, null);
        CountDownLatch waits = new CountDownLatch(2);
        Round round = new Round(
                client,
                outbox,
                tests,
                new NativeTest.Options(10, 1, folder),
                line -> {
                    if (line.contains("by hand") || line.contains("30.0 °C")) {
                        waits.countDown();
                        new Thread(() -> bench.say("GO")).start();
                    }
                },
                new BackgroundLoad(),
                Sensors.none(),
                0);
        Api.Seat seat = seat(false, byHand, cool);
        try (Control control = new Control(client, seat.command(), seat.commandRevision())) {
            assertThat(round.run(seat, control)).isEqualTo(Api.Ending.DONE);
        }
        assertThat(waits.getCount()).isZero();
        assertThat(bench.order).as("what is done by hand is not the runner's").containsExactly("2/1/1 OK");
    }

    @Test
    void aSensorSaysWhenItIsCoolAndWhatARunWas() throws Exception {
        FakeSensors computer = new FakeSensors(folder);
        computer.temperature(31);
        sensors = computer.find();
        CountDownLatch looked = new CountDownLatch(1);
        tests.put("one", options -> {
            // Until the sensors were read once, so that there is something to tell.
            while (bench.sensors.isEmpty()) {
                Thread.sleep(5);
            }
            return GOOD;
        });
        tests.put("two", options -> GOOD);
        Api.Test first = new Api.Test(1, "one", "First", "rate", 1, 0, null, null, false, null, null, null);
        Api.Test cool = new Api.Test(2, "two", "Cool", "rate", 1, 0, 30.0, null, false, null, null, null);
        Round round = new Round(
                client,
                outbox,
                tests,
                new NativeTest.Options(10, 1, folder),
                line -> {
                    if (line.contains("has 31 °C now")) {
                        looked.countDown();
                        computer.temperature(29);
                    }
                },
                new BackgroundLoad(),
                sensors,
                0);
        Api.Seat seat = seat(false, first, cool);
        try (Control control = new Control(client, seat.command(), seat.commandRevision())) {
            assertThat(round.run(seat, control)).isEqualTo(Api.Ending.DONE);
        }
        assertThat(looked.getCount()).isZero();
        assertThat(bench.order).containsExactly("1/1/1 OK", "2/1/1 OK");
        assertThat(bench.sensors.get(0).path(0).path("value").asDouble()).isEqualTo(31);
        assertThat(bench.runs.values()).anySatisfy(r -> {
            var track = r.path("tracks").path(0);
            assertThat(track.path("kind").asString()).isEqualTo("temperature");
            assertThat(track.path("stepMs").asInt()).isEqualTo(500);
            assertThat(track.path("values").path(0).asDouble()).isEqualTo(31);
        });
    }

    @Test
    void aCommandIsTimedAndWhatItPrintedComesWithItAlsoWhereItFailed() throws Exception {
        Api.TimedCommand good = new Api.TimedCommand(
                new Api.Step(List.of("echo done"), true),
                null,
                null,
                null,
                null,
                null,
                0,
                20,
                Api.Cache.AS_IT_IS,
                null);
        Api.TimedCommand bad = new Api.TimedCommand(
                new Api.Step(List.of("echo no such file; exit 3"), true),
                null,
                null,
                null,
                null,
                null,
                0,
                20,
                Api.Cache.AS_IT_IS,
                null);
        tests.put("good", new CommandTest(good));
        tests.put("bad", new CommandTest(bad));
        assertThat(run(seat(
                        false,
                        new Api.Test(1, "good", "Good", "value", 1, 0, null, null, false, null, null, good),
                        new Api.Test(2, "bad", "Bad", "wall", 1, 0, null, null, false, null, null, bad))))
                .isEqualTo(Api.Ending.DONE);
        assertThat(bench.order).containsExactly("1/1/1 OK", "2/1/1 FAILED");
        assertThat(bench.runs.values()).anySatisfy(r -> {
            assertThat(r.path("output").asString()).isEqualTo("done\n");
            assertThat(r.path("readings").path(0).path("metric").asString()).isEqualTo("wall");
        });
        assertThat(bench.runs.values()).anySatisfy(r -> {
            assertThat(r.path("output").asString()).contains("no such file");
            assertThat(r.path("reasonWords").asString()).contains("exit code 3");
        });
    }

    @Test
    void aRunThatIsStuckEnds() throws Exception {
        tests.put("one", options -> {
            new CountDownLatch(1).await();
            return GOOD;
        });
        Api.Test stuck = new Api.Test(1, "one", "Stuck", "rate", 1, 0, null, 200, false, null, null, null);
        assertThat(run(seat(false, stuck))).isEqualTo(Api.Ending.DONE);
        assertThat(bench.runs.values().iterator().next().path("reason").asString())
                .isEqualTo("TOO_SLOW");
    }

    @Test
    void anotherProgramAtTheAddressGetsNothing() {
        bench.shelf = "shelf-2";
        assertThatThrownBy(() -> client.progress(new Api.Progress(Api.Phase.RUNNING, 1L, 1, null, null)))
                .isInstanceOf(Unreachable.class)
                .hasMessageContaining("Another program");
        bench.shelf = null;
        assertThatThrownBy(
                        () -> new BenchClient(bench.address(), new PinnedCertificate(f -> false)).join("c", "d", "s"))
                .isInstanceOf(Unreachable.class);
    }

    @Test
    void aServerOfAnotherVersionIsToldBeforeTheCodeIsUsed() {
        int joined = bench.joins.get();
        for (String spoken : new String[] {null, "2"}) {
            bench.protocol = spoken;
            assertThatThrownBy(() ->
                            new BenchClient(bench.address(), new PinnedCertificate(f -> false)).join("c", "d", "s"))
                    .isInstanceOf(Refused.class)
                    .hasMessageContaining("yarrow-runner.jar")
                    .hasMessageContaining(spoken == null ? "an older one" : "version 2")
                    .hasMessageContaining("was not used");
        }
        assertThat(bench.joins.get()).isEqualTo(joined);
    }

    @Test
    void whatIsOnTheDiskIsWholeOrNotThere() throws Exception {
        outbox.seat(new Outbox.Seated("http://bench", "code", "token", "shelf"));
        assertThat(new Outbox(folder.resolve("outbox")).seated())
                .hasValueSatisfying(s -> assertThat(s.token()).isEqualTo("token"));
        Files.writeString(folder.resolve("outbox").resolve("seat.json"), "{\"address\":\"http");
        assertThat(outbox.seated()).isEmpty();
        assertThat(PinnedCertificate.plain("ab:CD 01")).isEqualTo("ABCD01");
    }
}
