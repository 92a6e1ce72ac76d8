package yarrowmark.core.rule;

import java.util.function.LongSupplier;

/**
 * A text in which a search ends once its time is up. Expressions read it letter by letter, and one search in a long line may
 * take much longer than all of them should.
 */
final class TimedText implements CharSequence {
    /** Thrown out of the search. */
    static final class TimeIsUp extends RuntimeException {
        private static final long serialVersionUID = 1;

        private TimeIsUp() {
            super("the time is up", null, false, false);
        }
    }

    /** Looking at the clock with each letter would take longer than the search. */
    private static final int LETTERS = 256;

    private final String text;
    private final LongSupplier nanos;
    private final long end;
    private int read;

    TimedText(String text, LongSupplier nanos, long end) {
        this.text = text;
        this.nanos = nanos;
        this.end = end;
    }

    @Override
    public char charAt(int index) {
        if (++read % LETTERS == 0 && nanos.getAsLong() > end) {
            throw new TimeIsUp();
        }
        return text.charAt(index);
    }

    @Override
    public int length() {
        return text.length();
    }

    @Override
    public CharSequence subSequence(int from, int to) {
        return text.substring(from, to);
    }

    @Override
    public String toString() {
        return text;
    }
}
