package yarrowmark.e2e;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.util.concurrent.locks.LockSupport;

/** A line of a speed of its own between a device and a program on this machine: passes on what comes, and no faster. */
final class Line implements AutoCloseable {
    private static final int BLOCK = 1 << 15;
    /** What a real line's buffers hold is small beside what goes through it in a second. */
    private static final long BURST_NANOS = 2_000_000;

    private final ServerSocket door;
    private final int to;
    private final double nanosPerByte;
    private final Way there = new Way();
    private final Way back = new Way();

    /** One direction, shared by all connections. */
    private final class Way {
        private long freeAt = System.nanoTime();

        /** Waits until so many bytes would have gone through. */
        void pass(int bytes) {
            long until;
            synchronized (this) {
                freeAt = Math.max(freeAt, System.nanoTime() - BURST_NANOS) + (long) (bytes * nanosPerByte);
                until = freeAt;
            }
            for (long left = until - System.nanoTime(); left > 0; left = until - System.nanoTime()) {
                LockSupport.parkNanos(left);
            }
        }
    }

    /** @param mbit in each direction */
    Line(int to, double mbit) throws IOException {
        this.to = to;
        this.nanosPerByte = 8e3 / mbit;
        this.door = new ServerSocket(0, 50, InetAddress.getLoopbackAddress());
        start(() -> {
            while (!door.isClosed()) {
                Socket near = door.accept();
                Socket far = new Socket(InetAddress.getLoopbackAddress(), to);
                near.setTcpNoDelay(true);
                far.setTcpNoDelay(true);
                start(() -> pump(near, far, there));
                start(() -> pump(far, near, back));
            }
        });
    }

    int port() {
        return door.getLocalPort();
    }

    private interface Work {
        void run() throws IOException;
    }

    private static void start(Work work) {
        Thread thread = new Thread(() -> {
            try {
                work.run();
            } catch (IOException e) {
                // Somebody hung up.
            }
        });
        thread.setDaemon(true);
        thread.start();
    }

    private static void pump(Socket from, Socket to, Way way) throws IOException {
        try (from;
                to) {
            InputStream in = from.getInputStream();
            OutputStream out = to.getOutputStream();
            byte[] block = new byte[BLOCK];
            for (int n = in.read(block); n >= 0; n = in.read(block)) {
                way.pass(n);
                out.write(block, 0, n);
            }
        }
    }

    @Override
    public void close() throws IOException {
        door.close();
    }
}
