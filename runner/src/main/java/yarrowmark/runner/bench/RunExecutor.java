package yarrowmark.runner.bench;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import yarrowmark.runner.NativeTest;
import yarrowmark.runner.command.CommandFailed;
import yarrowmark.runner.command.CommandTest;
import yarrowmark.runner.facts.BackgroundLoad;
import yarrowmark.runner.kernel.WrongAnswer;
import yarrowmark.runner.measure.Measurement;
import yarrowmark.runner.protocol.Api;
import yarrowmark.runner.sensor.SensorWatch;
import yarrowmark.runner.sensor.Sensors;
import yarrowmark.runner.storage.WriteBudget;

/** Carries out one attempt at one run, and makes of it what is delivered, however it ended. */
final class RunExecutor {
    private static final int LONGEST_WORDS = 500;
    private static final int LONGEST_DISTURBANCE = 200;
    private static final long LONGEST_DAY_MS = 86_400_000;
    /** Of the server, for one reading. */
    private static final int MOST_SAMPLES = 20_000;
    /** Of a core: what others may take of a run before it is said. */
    private static final double DISTURBING = 0.1;

    private final Outbox outbox;
    private final BackgroundLoad others;
    private final Sensors sensors;

    RunExecutor(Outbox outbox, BackgroundLoad others, Sensors sensors) {
        this.outbox = outbox;
        this.others = others;
        this.sensors = sensors;
    }

    /** @param live is told what the sensors say, every few seconds */
    Api.Run carryOut(
            NativeTest test,
            NativeTest.Options with,
            Round.Next next,
            Control control,
            Consumer<List<Api.Sensor>> live) {
        long longestMs = next.test().allowedMs() != null ? next.test().allowedMs() : test.longestMs(with);
        outbox.begin(new Outbox.Begun(next.test().id(), next.runNumber(), next.attempt(), System.currentTimeMillis()));
        BackgroundLoad.Moment before = others.now();
        long from = System.nanoTime();
        ExecutorService alone = Executors.newSingleThreadExecutor(work -> {
            Thread thread = new Thread(work, "test");
            thread.setDaemon(true);
            return thread;
        });
        Api.RunState state = Api.RunState.FAILED;
        Api.Reason reason;
        String words;
        String output = null;
        try (SensorWatch watch = new SensorWatch(sensors, live)) {
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
            BackgroundLoad.Taken taken = others.since(before);
            List<Api.Reading> readings = new ArrayList<>();
            readings.add(new Api.Reading(
                    next.test().command() == null ? next.test().metric() : CommandTest.WALL,
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
                    disturbance(before, taken),
                    (int) Math.min(LONGEST_DAY_MS, Math.round(measured.timedMs())),
                    measured.output(),
                    watch.any() ? watch.tracks() : null);
        } catch (TimeoutException e) {
            reason = Api.Reason.TOO_SLOW;
            words = "It was not done after " + longestMs / 1000 + " s.";
        } catch (InterruptedException e) {
            control.stopHere();
            reason = Api.Reason.STOPPED_AT_DEVICE;
            words = "It was stopped here.";
        } catch (ExecutionException e) {
            reason = reasonOf(e.getCause());
            state = reason == Api.Reason.NOT_SUPPORTED || reason == Api.Reason.WRITE_LIMIT
                    ? Api.RunState.COULD_NOT_RUN
                    : state;
            words = wordsOf(e.getCause());
            output = e.getCause() instanceof CommandFailed failed ? failed.output() : null;
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
                null,
                output,
                null);
    }

    private static @Nullable String disturbance(BackgroundLoad.Moment before, BackgroundLoad.Taken taken) {
        String updating = before.updating()
                .map(name -> "the system was being updated (" + name + "); ")
                .orElse("");
        return updating.isEmpty() && taken.cores() <= DISTURBING
                ? null
                : shortened(updating + taken, LONGEST_DISTURBANCE);
    }

    private static int took(long from) {
        return (int) Math.min(LONGEST_DAY_MS, (System.nanoTime() - from) / 1_000_000);
    }

    private static Api.Reason reasonOf(@Nullable Throwable cause) {
        if (cause instanceof WrongAnswer) {
            return Api.Reason.WRONG_ANSWER;
        }
        if (cause instanceof CommandFailed failed) {
            return failed.reason();
        }
        if (cause instanceof WriteBudget.Spent) {
            return Api.Reason.WRITE_LIMIT;
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
}
