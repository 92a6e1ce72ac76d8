package yarrowmark.core.measure;

/** A value that cannot be a reading. The message says what, where the limit is, and what to do instead. */
public final class InvalidReadingException extends IllegalArgumentException {
    public InvalidReadingException(String message) {
        super(message);
    }
}
