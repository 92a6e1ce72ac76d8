package yarrowmark.server.platform;

/**
 * Somebody is no longer signed in somewhere. Whoever keeps a connection open for that place ends it at once.
 *
 * @param place its id, which {@link #ATTRIBUTE} of a request names
 */
public record SignInEnded(long place) {
    /** The place from which a request comes, a {@code Long}; absent for one that a key or nobody sends. */
    public static final String ATTRIBUTE = "yarrowmark.place";
}
