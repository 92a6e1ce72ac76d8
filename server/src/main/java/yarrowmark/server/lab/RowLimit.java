package yarrowmark.server.lab;

import java.io.FilterReader;
import java.io.IOException;
import java.io.Reader;

/** Ends a row of a package that would fill the memory, such as one with a cell of gigabytes. */
final class RowLimit extends FilterReader {
    static final int MOST = 32 << 20;

    private final String path;
    private long read;

    /** @param path of the table, for what is said of it */
    RowLimit(Reader in, String path) {
        super(in);
        this.path = path;
    }

    /** The row was read whole. */
    void nextRow() {
        read = 0;
    }

    private int counted(int more) {
        read += Math.max(0, more);
        if (read > MOST) {
            throw new LabFault(path + ": a row is longer than " + MOST + " characters");
        }
        return more;
    }

    @Override
    public int read() throws IOException {
        int one = super.read();
        counted(1);
        return one;
    }

    @Override
    public int read(char[] to, int offset, int length) throws IOException {
        return counted(super.read(to, offset, length));
    }
}
