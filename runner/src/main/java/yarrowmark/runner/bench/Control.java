package yarrowmark.runner.bench;

import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.Condition;
import java.util.concurrent.locks.ReentrantLock;
import org.jspecify.annotations.Nullable;
import yarrowmark.runner.protocol.Api;

/**
 * What may hold or stop a round: the reviewer's commands and whoever stops it here. The bench is asked by a thread that sleeps
 * until there is an answer.
 */
public final class Control implements AutoCloseable {
    private static final long RETRY_MS = 2_000;

    private final BenchClient bench;
    private final ReentrantLock lock = new ReentrantLock();
    private final Condition changed = lock.newCondition();
    private final Thread listening;
    private Api.Command command;
    private int revision;
    /** Why the round is to end; null while it is not. */
    private Api.@Nullable Reason stopped;

    /** The thread that runs a test, while one runs. */
    private @Nullable Thread running;

    private volatile boolean closed;

    public Control(BenchClient bench, Api.Command command, int revision) {
        this.bench = bench;
        this.command = command;
        this.revision = revision;
        if (command == Api.Command.STOP) {
            stopped = Api.Reason.STOPPED_BY_REVIEWER;
        }
        listening = new Thread(this::listen, "commands");
        listening.setDaemon(true);
        listening.start();
    }

    private void listen() {
        while (!closed) {
            try {
                heard(bench.command(revision()));
            } catch (RuntimeException e) {
                try {
                    Thread.sleep(RETRY_MS);
                } catch (InterruptedException interrupted) {
                    return;
                }
            }
        }
    }

    int revision() {
        lock.lock();
        try {
            return revision;
        } finally {
            lock.unlock();
        }
    }

    void heard(Api.CommandState state) {
        lock.lock();
        try {
            if (state.revision() <= revision) {
                return;
            }
            revision = state.revision();
            command = state.command();
            if (command == Api.Command.STOP) {
                stop(Api.Reason.STOPPED_BY_REVIEWER);
            }
            changed.signalAll();
        } finally {
            lock.unlock();
        }
    }

    /** Whoever sits here stops the round, at once. */
    public void stopHere() {
        lock.lock();
        try {
            stop(Api.Reason.STOPPED_AT_DEVICE);
            changed.signalAll();
        } finally {
            lock.unlock();
        }
    }

    private void stop(Api.Reason why) {
        if (stopped == null) {
            stopped = why;
        }
        if (running != null) {
            running.interrupt();
        }
    }

    Api.@Nullable Reason stopped() {
        lock.lock();
        try {
            return stopped;
        } finally {
            lock.unlock();
        }
    }

    boolean isPaused() {
        lock.lock();
        try {
            return command == Api.Command.PAUSE && stopped == null;
        } finally {
            lock.unlock();
        }
    }

    /** Waits while the reviewer holds the round. @return whether it goes on */
    boolean allowed() throws InterruptedException {
        lock.lock();
        try {
            while (command == Api.Command.PAUSE && stopped == null) {
                changed.await();
            }
            return stopped == null;
        } finally {
            lock.unlock();
        }
    }

    /**
     * Waits until the reviewer says that it goes on, as after a test that is done by hand.
     *
     * @param since number of the command that was known before anybody was asked: the answer may be quicker than this
     * @return whether it goes on
     */
    boolean goSaid(int since) throws InterruptedException {
        lock.lock();
        try {
            while (stopped == null && !(revision > since && command == Api.Command.GO)) {
                changed.await();
            }
            return stopped == null;
        } finally {
            lock.unlock();
        }
    }

    /** Whether the reviewer said since then that it goes on. @param since number of a command */
    boolean wentSince(int since) {
        lock.lock();
        try {
            return revision > since && command == Api.Command.GO;
        } finally {
            lock.unlock();
        }
    }

    /** @return whether the round goes on */
    boolean cool(long ms) throws InterruptedException {
        long until = System.nanoTime() + TimeUnit.MILLISECONDS.toNanos(ms);
        lock.lock();
        try {
            for (long left = until - System.nanoTime(); left > 0 && stopped == null; left = until - System.nanoTime()) {
                changed.awaitNanos(left);
            }
            return stopped == null;
        } finally {
            lock.unlock();
        }
    }

    /** From here on a stop interrupts this thread. */
    void enter(Thread test) {
        lock.lock();
        try {
            running = test;
            if (stopped != null) {
                test.interrupt();
            }
        } finally {
            lock.unlock();
        }
    }

    void leave() {
        lock.lock();
        try {
            running = null;
        } finally {
            lock.unlock();
        }
    }

    @Override
    public void close() {
        closed = true;
        listening.interrupt();
    }
}
