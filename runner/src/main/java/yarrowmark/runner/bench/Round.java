package yarrowmark.runner.bench;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import yarrowmark.runner.NativeTest;
import yarrowmark.runner.facts.BackgroundLoad;
import yarrowmark.runner.protocol.Api;
import yarrowmark.runner.sensor.Sensors;

/** Carries out what remains of a seat's plan, keeps every run on the disk, and delivers it. */
public final class Round {
    private static final long RETRY_MS = 5_000;
    private static final long LONGEST_DAY_MS = 86_400_000;

    /** Of a core: what others may take before a test begins. */
    private static final double LOUD = 0.25;

    private static final long LOOK_MS = 500;

    /** As often may the runner end in a run before that counts as the run's fault. */
    private static final int MOST_ENDED = 5;

    private final BenchClient bench;
    private final Outbox outbox;
    private final Map<String, NativeTest> tests;
    private final NativeTest.Options options;
    private final Consumer<String> tell;
    private final BackgroundLoad others;
    private final Sensors sensors;
    private final RunExecutor oneRun;
    private final long quietMs;

    /**
     * @param tests   what can be carried out, by key
     * @param options threads and folder; the timed part is the plan's
     * @param tell    says to whoever sits here what is done
     * @param sensors are read while a test runs
     * @param quietMs longest time that is waited for other programs to be quiet, before each test
     */
    public Round(
            BenchClient bench,
            Outbox outbox,
            Map<String, NativeTest> tests,
            NativeTest.Options options,
            Consumer<String> tell,
            BackgroundLoad others,
            Sensors sensors,
            long quietMs) {
        this.bench = bench;
        this.outbox = outbox;
        this.tests = tests;
        this.options = options;
        this.tell = tell;
        this.others = others;
        this.sensors = sensors;
        this.oneRun = new RunExecutor(outbox, others, sensors);
        this.quietMs = quietMs;
    }

    /** A run that is still to come. */
    record Next(Api.Test test, int runNumber, int attempt) {}

    /** What is still to come, in order, given what was done before. */
    static List<Next> remaining(List<Api.Test> tests, List<Api.DoneRun> done) {
        List<Next> next = new ArrayList<>();
        for (Api.Test test : tests) {
            List<Api.DoneRun> own =
                    done.stream().filter(d -> d.testId() == test.id()).toList();
            if (own.stream().anyMatch(d -> d.state() == Api.RunState.COULD_NOT_RUN)) {
                continue;
            }
            for (int n = 1; n <= test.runs(); n++) {
                int number = n;
                List<Api.DoneRun> tries =
                        own.stream().filter(d -> d.runNumber() == number).toList();
                if (tries.stream().noneMatch(d -> d.state() == Api.RunState.OK || d.state() == Api.RunState.FAILED)) {
                    next.add(new Next(
                            test,
                            n,
                            1
                                    + tries.stream()
                                            .mapToInt(Api.DoneRun::attempt)
                                            .max()
                                            .orElse(0)));
                }
            }
        }
        return next;
    }

    /** @return how it ended; by then everything was delivered that the bench took */
    public Api.Ending run(Api.Seat seat, Control control) throws InterruptedException {
        Api.Ending how = outbox.ending().orElse(null);
        if (how == null) {
            outbox.begun().ifPresent(b -> outbox.keep(endedIn(b)));
            how = carryOut(seat, control);
            outbox.ending(how);
        }
        while (!deliver() || !ended(how)) {
            tell.accept("The server cannot be reached; everything is kept here and sent when it is back.");
            Thread.sleep(RETRY_MS);
        }
        return how;
    }

    /** A run in which the runner ended. One that ends the runner again and again is not begun for ever. */
    private static Api.Run endedIn(Outbox.Begun begun) {
        boolean often = begun.attempt() >= MOST_ENDED;
        return new Api.Run(
                begun.testId(),
                begun.runNumber(),
                begun.attempt(),
                often ? Api.RunState.FAILED : Api.RunState.STOPPED,
                often ? Api.Reason.ERROR : Api.Reason.RELOADED,
                often
                        ? "The runner ended in the middle of this run, which was begun " + begun.attempt()
                                + " times: this computer may not be able to carry it out."
                        : "The runner ended in the middle of this run.",
                (int) Math.max(0, Math.min(LONGEST_DAY_MS, System.currentTimeMillis() - begun.at())),
                List.of(),
                null,
                null);
    }

    private boolean ended(Api.Ending how) {
        try {
            bench.end(how);
            return true;
        } catch (Unreachable e) {
            return false;
        } catch (Refused e) {
            // It was ended by the reviewer meanwhile.
            return !e.isForLater();
        }
    }

    private Api.Ending carryOut(Api.Seat seat, Control control) throws InterruptedException {
        // What waits here has been done, whether or not the server knows it yet.
        List<Api.DoneRun> done = Stream.concat(
                        seat.done().stream(),
                        outbox.waiting().stream().map(Outbox.Kept::run).map(Round::doneOf))
                .toList();
        Map<Long, Map<Integer, Enough.Value>> known = new HashMap<>();
        done.forEach(d -> know(known, d));
        Api.Test last = null;
        long cannot = -1;
        for (Next next : remaining(seat.tests(), done)) {
            Api.Test test = next.test();
            if (test.id() == cannot
                    || test.enough() != null
                            && Enough.is(
                                    test.enough(),
                                    known.getOrDefault(test.id(), Map.of()).values())) {
                continue;
            }
            deliver();
            if (test.byHand()) {
                cannot = test.id();
                last = test;
                int asked = control.revision();
                told(control, Api.Phase.BY_HAND, next, null);
                tell.accept(test.name() + " is done by hand; the reviewer says when it goes on.");
                if (!control.goSaid(asked)) {
                    return Api.Ending.STOPPED;
                }
                continue;
            }
            NativeTest own = tests.get(test.key());
            NativeTest.Options with = new NativeTest.Options(
                    test.timedMs() == null ? seat.timedMs() : test.timedMs(), options.threads(), options.folder());
            NativeTest.Obstacle obstacle = own == null
                    ? new NativeTest.Obstacle(
                            "NOT_SUPPORTED", "This test runs in a browser; the runner carries out the native suites.")
                    : last == test ? null : own.obstacle(with).orElse(null);
            if (own == null || obstacle != null) {
                cannot = test.id();
                outbox.keep(new Api.Run(
                        test.id(),
                        next.runNumber(),
                        next.attempt(),
                        Api.RunState.COULD_NOT_RUN,
                        obstacle == null ? Api.Reason.NOT_SUPPORTED : Api.Reason.valueOf(obstacle.reason()),
                        obstacle == null ? "It cannot run here." : obstacle.words(),
                        0,
                        List.of(),
                        null,
                        null));
                tell.accept(test.name() + ": " + (obstacle == null ? "cannot run here" : obstacle.words()));
                continue;
            }
            if (last != null && test.pauseUntil() != null) {
                if (!cooled(control, next, test.pauseUntil())) {
                    return Api.Ending.STOPPED;
                }
            } else if (last != null && test.pauseMs() > 0) {
                told(control, Api.Phase.COOLING, next, (long) test.pauseMs());
                if (!control.cool(test.pauseMs())) {
                    return Api.Ending.STOPPED;
                }
            }
            if (control.isPaused()) {
                told(control, Api.Phase.PAUSED, next, null);
                tell.accept("The reviewer holds the round.");
            }
            if (!control.allowed()) {
                return Api.Ending.STOPPED;
            }
            if (last != test && !quiet(control, next)) {
                return Api.Ending.STOPPED;
            }
            last = test;
            told(control, Api.Phase.RUNNING, next, null);
            Api.Run run = oneRun.carryOut(own, with, next, control, said -> {
                try {
                    bench.progress(
                            new Api.Progress(Api.Phase.RUNNING, next.test().id(), next.runNumber(), null, said));
                } catch (Unreachable | Refused e) {
                    // What is shown at the bench is a courtesy.
                }
            });
            outbox.keep(run);
            know(known, doneOf(run));
            tell.accept(said(test, run));
            if (run.state() == Api.RunState.COULD_NOT_RUN) {
                cannot = test.id();
            }
            if (control.stopped() != null || run.state() == Api.RunState.FAILED && seat.stopOnFailure()) {
                return Api.Ending.STOPPED;
            }
        }
        return Api.Ending.DONE;
    }

    private static Api.DoneRun doneOf(Api.Run run) {
        Api.Reading main = run.readings().isEmpty() ? null : run.readings().get(0);
        return new Api.DoneRun(
                run.testId(),
                run.runNumber(),
                run.attempt(),
                run.state(),
                main == null ? null : main.value(),
                main == null ? null : main.resolution());
    }

    private static void know(Map<Long, Map<Integer, Enough.Value>> known, Api.DoneRun done) {
        if (done.state() == Api.RunState.OK && done.value() != null && done.resolution() != null) {
            known.computeIfAbsent(done.testId(), id -> new HashMap<>())
                    .put(done.runNumber(), new Enough.Value(done.value(), done.resolution()));
        }
    }

    /** Waits until other programs are quiet, but not for ever: what disturbs then is told with the run. @return whether it goes on */
    private boolean quiet(Control control, Next next) throws InterruptedException {
        long until = System.nanoTime() + quietMs * 1_000_000;
        boolean said = false;
        while (System.nanoTime() < until) {
            BackgroundLoad.Moment before = others.now();
            if (!control.cool(LOOK_MS)) {
                return false;
            }
            BackgroundLoad.Taken taken = others.since(before);
            String updating = before.updating().orElse(null);
            if (taken.cores() < LOUD && updating == null) {
                return true;
            }
            if (!said) {
                said = true;
                told(control, Api.Phase.COOLING, next, quietMs);
                tell.accept("Waits up to " + quietMs / 1000 + " s for quiet: "
                        + (updating == null ? taken + "." : "the system is being updated (" + updating + ")."));
            }
        }
        return true;
    }

    /** Waits until the processor is as cool as that, where a sensor tells; else until the reviewer says that it is. */
    private boolean cooled(Control control, Next next, double celsius) throws InterruptedException {
        int asked = control.revision();
        told(control, Api.Phase.COOL_UNTIL, next, null);
        if (sensors.temperature().isEmpty()) {
            tell.accept("Waits until it has cooled to " + celsius + " °C; the reviewer says when it has.");
            return control.goSaid(asked);
        }
        tell.accept("Waits until its processor has cooled to " + celsius + " °C; it has "
                + Math.round(sensors.temperature().getAsDouble()) + " °C now.");
        while (sensors.temperature().orElse(Double.MAX_VALUE) > celsius && !control.wentSince(asked)) {
            if (!control.cool(LOOK_MS)) {
                return false;
            }
        }
        return control.stopped() == null;
    }

    private static String said(Api.Test test, Api.Run run) {
        if (run.state() != Api.RunState.OK) {
            return test.name() + ", run " + run.runNumber() + ": " + run.reasonWords();
        }
        return String.format(
                java.util.Locale.ROOT,
                "%s, run %d: %.4g%s",
                test.name(),
                run.runNumber(),
                run.readings().get(0).value(),
                run.reasonWords() == null ? "" : " (" + run.reasonWords() + ")");
    }

    private void told(Control control, Api.Phase phase, Next next, @Nullable Long untilMs) {
        try {
            control.heard(bench.progress(new Api.Progress(phase, next.test().id(), next.runNumber(), untilMs, null)));
        } catch (Unreachable | Refused e) {
            // The reviewer's lane is a courtesy: a round does not wait for it.
        }
    }

    /** Delivers what is kept, the oldest first. @return whether nothing is left that could still be delivered */
    boolean deliver() {
        for (Outbox.Kept kept : outbox.waiting()) {
            try {
                Api.Stored stored =
                        bench.deliver(kept.key(), System.currentTimeMillis() - kept.finishedAt(), kept.run());
                if (!stored.key().equals(kept.key())) {
                    return false;
                }
                outbox.confirmed(kept.key());
            } catch (Refused e) {
                if (e.isForLater()) {
                    return false;
                }
                outbox.refuse(kept.key(), String.valueOf(e.getMessage()));
                tell.accept("The server does not take a run, which stays here: " + e.getMessage());
            } catch (Unreachable e) {
                return false;
            }
        }
        return true;
    }
}
