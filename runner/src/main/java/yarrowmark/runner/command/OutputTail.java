package yarrowmark.runner.command;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.OptionalLong;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.rule.PrintedText;
import yarrowmark.runner.protocol.Api;

/**
 * Reads everything that a command prints, so that it never waits, and keeps the end of it. Lines with marks are timed as they
 * come. However much is printed, it takes no more memory than this.
 */
final class OutputTail implements Runnable {
    private static final int KEPT = 48 * 1024;
    private static final int LONGEST_LINE = 8 * 1024;

    private final InputStream from;
    private final Api.@Nullable Marks marks;
    private final byte[] ring = new byte[KEPT];
    private long bytes;
    private final byte[] line = new byte[LONGEST_LINE];
    private int inLine;
    private long begun = -1;
    private long ended = -1;

    OutputTail(InputStream from, Api.@Nullable Marks marks) {
        this.from = from;
        this.marks = marks;
    }

    @Override
    public void run() {
        byte[] buffer = new byte[64 * 1024];
        try {
            for (int n = from.read(buffer); n >= 0; n = from.read(buffer)) {
                take(buffer, n);
            }
            endLine();
        } catch (IOException e) {
            // It was ended while it printed: what came until then is what there is.
        }
    }

    private synchronized void take(byte[] buffer, int n) {
        for (int i = Math.max(0, n - KEPT); i < n; ) {
            int at = (int) ((bytes + i) % KEPT);
            int part = Math.min(n - i, KEPT - at);
            System.arraycopy(buffer, i, ring, at, part);
            i += part;
        }
        bytes += n;
        if (marks == null) {
            return;
        }
        for (int i = 0; i < n; i++) {
            if (buffer[i] == '\n') {
                endLine();
            } else if (inLine < LONGEST_LINE) {
                line[inLine++] = buffer[i];
            }
        }
    }

    private synchronized void endLine() {
        if (marks != null && inLine > 0) {
            String words = new String(line, 0, inLine, StandardCharsets.UTF_8);
            if (begun < 0 && words.contains(marks.from())) {
                begun = System.nanoTime();
            } else if (begun >= 0 && ended < 0 && words.contains(marks.to())) {
                ended = System.nanoTime();
            }
        }
        inLine = 0;
    }

    /** Between the marks, in ns; absent where one of them did not come. */
    synchronized OptionalLong betweenMarks() {
        return begun >= 0 && ended >= 0 ? OptionalLong.of(ended - begun) : OptionalLong.empty();
    }

    synchronized boolean begun() {
        return begun >= 0;
    }

    /** The end of what was printed, as text. */
    synchronized String text() {
        int n = (int) Math.min(bytes, KEPT);
        byte[] kept = new byte[n];
        for (int i = 0; i < n; i++) {
            kept[i] = ring[(int) ((bytes - n + i) % KEPT)];
        }
        // Where the beginning is gone, it may have been cut in the middle of a character.
        int begin = 0;
        while (bytes > KEPT && begin < Math.min(3, n) && (kept[begin] & 0xc0) == 0x80) {
            begin++;
        }
        String words = PrintedText.of(Arrays.copyOfRange(kept, begin, n)).noted();
        return bytes > KEPT ? "[" + (bytes - KEPT) + " bytes before this are not kept]\n" + words : words;
    }

    /** The first line, for what prints a version. */
    static String firstLine(String text) {
        return Arrays.stream(text.split("\\R"))
                .map(String::strip)
                .filter(l -> !l.isEmpty())
                .findFirst()
                .orElse("");
    }
}
