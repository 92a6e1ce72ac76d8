package yarrowmark.runner.command;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.OptionalLong;
import java.util.Set;
import java.util.stream.Stream;

/**
 * Whatever a command began. Each process has a mark of its run in its environment, so that also one that left its family is
 * found and ended. One that threw its environment away, too, is known if it was ever seen as one of the family.
 */
final class Descendants {
    static final String MARK = "YARROW_RUN";

    private static final Path PROC = Path.of("/proc");
    private static final int MOST = 4_000;
    private static final int SWEEPS = 20;

    private Descendants() {}

    /** Ends them all, and those that they begin meanwhile. @param seen were of the family once */
    static void end(ProcessHandle main, String mark, Set<ProcessHandle> seen) {
        for (int sweep = 0; sweep < SWEEPS; sweep++) {
            List<ProcessHandle> left = new ArrayList<>(main.descendants().toList());
            left.add(main);
            // A handle knows when its process began: a number that another one got since is not it.
            left.addAll(seen);
            seen.forEach(one -> one.descendants().forEach(left::add));
            left.addAll(marked(mark));
            List<ProcessHandle> alive =
                    left.stream().filter(ProcessHandle::isAlive).toList();
            if (alive.isEmpty()) {
                return;
            }
            alive.forEach(ProcessHandle::destroyForcibly);
            try {
                Thread.sleep(20);
            } catch (InterruptedException e) {
                // They are to be ended all the same, and at once.
                alive.forEach(ProcessHandle::destroyForcibly);
                Thread.currentThread().interrupt();
                return;
            }
        }
    }

    private static List<ProcessHandle> marked(String mark) {
        byte[] wanted = (MARK + "=" + mark).getBytes(StandardCharsets.UTF_8);
        List<ProcessHandle> found = new ArrayList<>();
        if (!Files.isDirectory(PROC)) {
            return found;
        }
        try (DirectoryStream<Path> all = Files.newDirectoryStream(PROC, "[0-9]*")) {
            for (Path one : all) {
                try {
                    if (contains(Files.readAllBytes(one.resolve("environ")), wanted)) {
                        ProcessHandle.of(Long.parseLong(one.getFileName().toString()))
                                .ifPresent(found::add);
                    }
                } catch (IOException | NumberFormatException e) {
                    // Another person's, or gone meanwhile.
                }
            }
        } catch (IOException e) {
            // No list of processes: the family is known all the same.
        }
        return found;
    }

    private static boolean contains(byte[] text, byte[] wanted) {
        for (int i = 0; i + wanted.length <= text.length; i++) {
            int n = 0;
            while (n < wanted.length && text[i + n] == wanted[n]) {
                n++;
            }
            if (n == wanted.length) {
                return true;
            }
        }
        return false;
    }

    /** The most memory that one of the family ever held so far, in bytes: the system keeps that mark for each. */
    static OptionalLong peak(long main) {
        long peak = 0;
        Deque<Long> family = new ArrayDeque<>(List.of(main));
        for (int seen = 0; !family.isEmpty() && seen < MOST; seen++) {
            long pid = family.removeFirst();
            peak = Math.max(peak, highWater(pid));
            children(pid).forEach(family::addLast);
        }
        return peak > 0 ? OptionalLong.of(peak) : OptionalLong.empty();
    }

    private static long highWater(long pid) {
        try (Stream<String> lines = Files.lines(PROC.resolve(pid + "/status"), StandardCharsets.ISO_8859_1)) {
            return lines.filter(l -> l.startsWith("VmHWM:"))
                    .mapToLong(l -> Long.parseLong(l.replaceAll("\\D+", "")) * 1024)
                    .findFirst()
                    .orElse(0);
        } catch (IOException | RuntimeException e) {
            // It ended while it was read.
            return 0;
        }
    }

    private static List<Long> children(long pid) {
        List<Long> children = new ArrayList<>();
        try (DirectoryStream<Path> threads = Files.newDirectoryStream(PROC.resolve(pid + "/task"))) {
            for (Path thread : threads) {
                for (String child : Files.readString(thread.resolve("children")).split(" ")) {
                    if (!child.isBlank()) {
                        children.add(Long.parseLong(child.strip()));
                    }
                }
            }
        } catch (IOException | RuntimeException e) {
            // It ended while it was read, or this system does not tell.
        }
        return children;
    }
}
