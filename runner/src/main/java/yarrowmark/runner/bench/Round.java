package yarrowmark.runner.bench;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.function.Consumer;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import yarrowmark.runner.NativeTest;
import yarrowmark.runner.facts.Others;
import yarrowmark.runner.kernel.WrongAnswer;
import yarrowmark.runner.measure.Measurement;

/** Carries out what remains of a seat's plan, keeps every run on the disk, and delivers it. */
public final class Round {
    private static final int LONGEST_WORDS = 500;
    private static final int LONGEST_DISTURBANCE = 200;
    private static final long RETRY_MS = 5_000;
    private static final long LONGEST_DAY_MS = 86_400_000;
    /** Of the server, for one reading. */
    private static final int MOST_SAMPLES = 20_000;

    /** Of a core: what others may take before a test begins, and what they may take of a run before it is said. */
    private static final double LOUD = 0.25;

    private static final double DISTURBING = 0.1;
    private static final long LOOK_MS = 500;

    private final BenchClient bench;
    private final Outbox outbox;
    private final Map<String, NativeTest> tests;
    private final NativeTest.Options options;
    private final Consumer<String> tell;
    private final Others others;
    private final long quietMs;

    /**
     * @param tests   what can be carried out, by key
     * @param options threads and folder; the timed part is the plan's
     * @param tell    says to whoever sits here what is done
     * @param quietMs longest time that is waited for other programs to be quiet, before each test
     */
    public Round(
            BenchClient bench,
            Outbox outbox,
            Map<String, NativeTest> tests,
            NativeTest.Options options,
            Consumer<String> tell,
            Others others,
            long quietMs) {
        this.bench = bench;
        this.outbox = outbox;
        this.tests = tests;
        this.options = options;
        this.tell = tell;
        this.others = others;
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
            outbox.begun()
                    .ifPresent(b -> outbox.keep(new Api.Run(
                            b.testId(),
                            b.runNumber(),
                            b.attempt(),
                            Api.RunState.STOPPED,
                            Api.Reason.RELOADED,
                            "The runner ended in the middle of this run.",
                            (int) Math.max(0, Math.min(LONGEST_DAY_MS, System.currentTimeMillis() - b.at())),
                            List.of(),
                            null,
                            null)));
            how = carryOut(seat, control);
            outbox.ending(how);
        }
        while (!deliver() || !ended(how)) {
            tell.accept("The server cannot be reached; everything is kept here and sent when it is back.");
            Thread.sleep(RETRY_MS);
        }
        return how;
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
                int asked = control.revision();
                told(control, Api.Phase.COOL_UNTIL, next, null);
                tell.accept(
                        "Waits until it has cooled to " + test.pauseUntil() + " °C; the reviewer says when it has.");
                if (!control.goSaid(asked)) {
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
            Api.Run run = once(own, with, next, control, longestMs(test, with));
            outbox.keep(run);
            know(known, doneOf(run));
            tell.accept(said(test, run));
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
            Others.Moment before = others.now();
            if (!control.cool(LOOK_MS)) {
                return false;
            }
            Others.Taken taken = others.since(before);
            if (taken.cores() < LOUD) {
                return true;
            }
            if (!said) {
                said = true;
                told(control, Api.Phase.COOLING, next, quietMs);
                tell.accept("Waits up to " + quietMs / 1000 + " s for quiet: " + taken + ".");
            }
        }
        return true;
    }

    /** A run that takes this long is stuck. Filling a file and writing on and on take longer than what is timed. */
    private static long longestMs(Api.Test test, NativeTest.Options with) {
        return test.allowedMs() != null ? test.allowedMs() : (long) (15 * 60_000 + 10 * with.timedMs());
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
            control.heard(bench.progress(new Api.Progress(phase, next.test().id(), next.runNumber(), untilMs)));
        } catch (Unreachable | Refused e) {
            // The reviewer's lane is a courtesy: a round does not wait for it.
        }
    }

    private Api.Run once(NativeTest test, NativeTest.Options with, Next next, Control control, long longestMs) {
        outbox.begin(new Outbox.Begun(next.test().id(), next.runNumber(), next.attempt(), System.currentTimeMillis()));
        Others.Moment before = others.now();
        long from = System.nanoTime();
        ExecutorService alone = Executors.newSingleThreadExecutor(work -> {
            Thread thread = new Thread(work, "test");
            thread.setDaemon(true);
            return thread;
        });
        Api.RunState state = Api.RunState.FAILED;
        Api.Reason reason;
        String words;
        try {
            Future<Measurement> running = alone.submit(() -> {
                control.enter(Thread.currentThread());
                try {
                    return test.run(with);
                } finally {
                    control.leave();
                }
            });
            Measurement measured;
            try {
                measured = running.get(longestMs, TimeUnit.MILLISECONDS);
            } finally {
                running.cancel(true);
            }
            Others.Taken taken = others.since(before);
            List<Api.Reading> readings = new ArrayList<>();
            readings.add(new Api.Reading(
                    next.test().metric(),
                    measured.value(),
                    measured.resolution(),
                    measured.samples().size() > MOST_SAMPLES
                            ? measured.samples().subList(0, MOST_SAMPLES)
                            : measured.samples()));
            measured.more()
                    .forEach(m -> readings.add(new Api.Reading(m.metric(), m.value(), m.resolution(), List.of())));
            return new Api.Run(
                    next.test().id(),
                    next.runNumber(),
                    next.attempt(),
                    Api.RunState.OK,
                    null,
                    measured.note(),
                    took(from),
                    readings,
                    taken.cores() > DISTURBING ? shortened(taken.toString(), LONGEST_DISTURBANCE) : null,
                    (int) Math.min(LONGEST_DAY_MS, Math.round(measured.timedMs())));
        } catch (TimeoutException e) {
            reason = Api.Reason.TOO_SLOW;
            words = "It was not done after " + longestMs / 1000 + " s.";
        } catch (InterruptedException e) {
            control.stopHere();
            reason = Api.Reason.STOPPED_AT_DEVICE;
            words = "It was stopped here.";
        } catch (ExecutionException e) {
            reason = reasonOf(e.getCause());
            words = wordsOf(e.getCause());
        } finally {
            alone.shutdownNow();
        }
        Api.Reason stopped = control.stopped();
        if (stopped != null) {
            state = Api.RunState.STOPPED;
            reason = stopped;
            words = stopped == Api.Reason.STOPPED_BY_REVIEWER ? "The reviewer stopped it." : "It was stopped here.";
        }
        return new Api.Run(
                next.test().id(),
                next.runNumber(),
                next.attempt(),
                state,
                reason,
                words,
                took(from),
                List.of(),
                null,
                null);
    }

    private static int took(long from) {
        return (int) Math.min(LONGEST_DAY_MS, (System.nanoTime() - from) / 1_000_000);
    }

    private static Api.Reason reasonOf(@Nullable Throwable cause) {
        if (cause instanceof WrongAnswer) {
            return Api.Reason.WRONG_ANSWER;
        }
        return cause instanceof OutOfMemoryError ? Api.Reason.OUT_OF_MEMORY : Api.Reason.ERROR;
    }

    private static String wordsOf(@Nullable Throwable cause) {
        return shortened(
                cause == null || cause.getMessage() == null ? String.valueOf(cause) : cause.getMessage(),
                LONGEST_WORDS);
    }

    private static String shortened(String words, int most) {
        return words.length() > most ? words.substring(0, most) : words;
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
